// One job from the counter to the handover, first screw to last, by keyboard, pedal and meter: no mouse is touched.
import { expect, expectAccessible, press, runToTheEnd, test } from "../harness.mjs";
import { shopWithLoggers, tell } from "../stand-ins.mjs";

const verdict = (page) => page.locator(".pin-verdict h2");

/** Tells the stand-in meter which pin its probe rests on; 999: none. */
const rest = (address, pin) => tell(address, `SIM:PIN ${pin}`);

/** Tab until something has the focus. */
async function tabTo(page, thing) {
  for (let tabs = 0; tabs < 150; tabs += 1) {
    if (await thing.evaluate((element) => element === document.activeElement).catch(() => false)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab never comes to ${thing}`);
}

async function enterOn(page, thing) {
  await tabTo(page, thing);
  await page.keyboard.press("Enter");
}

async function takeIn(page) {
  await enterOn(page, page.getByRole("button", { name: "New job" }));
  await page.waitForURL(/\/intake$/);
  const typed = [
    [/^Customer •/, "Osk Lindvall"],
    [/^Device and model/, "Quillon Tern 15 laptop"],
    [/^Symptom/, "Plug falls out."],
    [/^How it broke/, "wear"],
    [/^Power-on test/, "Starts on battery."],
    [/^Signs of earlier work/, "None."],
    [/^Customer's own parts inside/, "Own drive."],
    [/^Price agreed/, "60"],
    [/^Due/, "05022031"],
  ];
  for (const [label, text] of typed) {
    const field = page.getByLabel(label);
    await tabTo(page, field);
    await page.keyboard.type(text);
  }
  const consent = page.getByLabel("Risk explained");
  await page.keyboard.press("Home");
  for (let back = 0; back < 12 && !(await consent.evaluate((box) => box === document.activeElement)); back += 1)
    await page.keyboard.press("Shift+Tab");
  await page.keyboard.press("Space");
  await expect(page.getByRole("link", { name: "Intake" })).toContainText("60.00");
}

/** All of it out by the one key; the key after the last goes on. */
async function tapAll(page, until) {
  const counts = () =>
    page
      .locator("main")
      .innerHTML()
      .catch(() => "");
  for (let taps = 0; taps < 40 && !until.test(page.url()); taps += 1) {
    const before = await counts();
    await press(page);
    await expect.poll(async () => until.test(page.url()) || (await counts()) !== before, { timeout: 10_000 }).toBe(true);
  }
  await page.waitForURL(until);
}

/** Every pin of the sheet that is shown, off the meter. */
async function measure(page, meter) {
  await rest(meter, 999);
  await enterOn(page, page.getByRole("button", { name: "Hands-free: read the meter" }));
  const pins = await page.locator("[data-pin]").evaluateAll((all) => all.map((pin) => pin.dataset.pin));
  for (const [k, name] of pins.entries()) {
    await expect(page.locator(".look-now b")).toHaveText(name, { timeout: 10_000 });
    await rest(meter, 999);
    await page.waitForTimeout(700);
    await rest(meter, k);
    await expect(page.locator(`[data-pin="${name}"]`)).not.toHaveAttribute("aria-label", /not read/, { timeout: 10_000 });
  }
}

async function runAtTheBench(page) {
  await expect(page.getByRole("button", { name: "Begin at the bench" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.locator("#step")).toBeVisible();
  await runToTheEnd(page);
}

test("a job goes from the first screw to the handover by keyboard, pedal and meter", async ({ page }) => {
  test.setTimeout(180_000);
  await page.addInitScript(() => addEventListener("pointerdown", () => (window.pointed = true), true));
  const shop = await shopWithLoggers(page);
  const meter = await shop.line("Stand-in meter").getByLabel("Address of Stand-in meter").inputValue();
  await page.goto(shop.address);
  await takeIn(page);
  await enterOn(page, page.getByRole("link", { name: /^Opening/ }));
  await enterOn(page, page.getByRole("button", { name: /^Quillon Tern 15 laptop/ }));
  await tapAll(page, /\/board$/);
  await enterOn(page, page.getByRole("button", { name: "Tern 15 power board" }));
  await expect(page.getByRole("heading", { name: "Tern 15 power board" })).toBeVisible();

  await enterOn(page, page.getByRole("link", { name: /^Look/ }));
  await page.waitForURL(/\/look/);
  const lands = await page.locator("[data-pin]").count();
  for (let land = 0; land < lands; land += 1) await page.keyboard.press("w");
  await enterOn(page, page.getByRole("link", { name: /^Old part on/ }));
  await page.waitForURL(/list=before/);
  await measure(page, meter);

  await enterOn(page, page.getByRole("link", { name: /^Heat plan/ }));
  await expect(page.locator(".verdict .huge")).toBeVisible();
  await enterOn(page, page.getByRole("link", { name: "To the bench run" }));
  await page.waitForURL(/\/run$/);
  await runAtTheBench(page);
  // The pin walk, then the sheet with the new part on, beside the one before.
  await page.waitForURL(/\/pins$/);
  await page.waitForLoadState("load");
  const pins = await page.locator("[data-pin]").count();
  for (let pin = 0; pin < pins; pin += 1) await page.keyboard.press("f");
  await expect(verdict(page)).toHaveText("Every pin is firm");
  await enterOn(page, page.getByRole("link", { name: /^New part on/ }));
  await page.waitForURL(/list=after/);
  await measure(page, meter);
  await expect(page.locator(".look-tabs [aria-current]")).toContainText(`${pins} of ${pins}`);
  await expect(page.locator(".pin-below")).toHaveCount(pins);
  await enterOn(page, page.getByRole("link", { name: /^Test/ }));
  await page.waitForURL(/\/test$/);
  const tests = await page.locator(".test-table tbody tr").count();
  for (let k = 0; k < tests; k += 1) await page.keyboard.press("w");
  await expect(verdict(page)).toContainText("Close it");
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/close$/);
  // The last out goes in first; the key after the last goes on to the tests.
  await expect(page.locator(".opening-title")).toContainText("Back in: ");
  for (let taps = 0; taps < 40 && !(await page.locator(".test-table").isVisible()); taps += 1) await press(page);
  await expect(page.locator(".test-table")).toContainText("All closed");
  for (let k = 0; k < tests; k += 1) await page.keyboard.press("w");
  await expect(verdict(page)).toHaveText("All works, open and closed");
  await page.keyboard.press("Enter");

  await page.waitForURL(/\/handover$/);
  const sheet = page.locator(".sheet");
  for (const said of [
    "Plug falls out.",
    "13 out, 13 back in",
    "3 of 3 firm",
    "3 pins before, 3 with the new part",
    "works open, works closed",
  ]) {
    await expect(sheet).toContainText(said);
  }
  await expect(sheet).toContainText(/Replacing five-leg power jack\s*60\.00/);
  await expectAccessible(page);
  await enterOn(page, page.getByRole("button", { name: "Hand over" }));
  await expect(page.getByText("Handed over. The record is closed.")).toBeVisible();
  expect(await page.evaluate(() => window.pointed ?? false), "a mouse was used").toBe(false);
});

// Look and measure before the heat, and test after it: lands, a diode sheet by keyboard and off a meter, what was found while inside,
// and a test that fails.
import { truncateSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, expectAccessible, temporaryFolder, test } from "../harness.mjs";
import { shopWithLoggers, tell } from "../stand-ins.mjs";

test.use({ allowed: /status of (422|413)/ });

const tab = (page, name) => page.locator(".look-tabs").getByRole("link", { name }).click();
const verdict = (page) => page.locator(".pin-verdict");
const type = async (page, text) => {
  await page.keyboard.type(text);
  await page.keyboard.press("Enter");
};

test("the sheet of a port says that the port is not the fault, and why", async ({ page }) => {
  await page.goto("/jobs/8/look?list=before");
  await expect(verdict(page).locator("h2")).toHaveText("Not the port: what is behind it");
  await expect(verdict(page)).toContainText("A6, A7: lower than on good boards");
  await expectAccessible(page);
  // With the port off the two read as they should: it was dirt in the part.
  await tab(page, "Port off");
  await page.locator('[data-pin="A6"]').click();
  await type(page, "548");
  await expect(page.locator('[data-pin="A6"]')).toHaveAttribute("aria-label", /548 mV, like the others, a good board: 5\d\d/);
  await expect(page.locator(".look-now b")).toHaveText("A7");
  await type(page, "0,552");
  await expect(verdict(page).locator("h2")).toHaveText("Not settled yet");
  // A short that stays is not the port.
  await page.locator('[data-pin="B6"]').click();
  await type(page, "2");
  await expect(verdict(page)).toContainText("B6: a short that is there with the port off is not the port.");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Backspace");
  await expect(verdict(page)).not.toContainText("B6");
  await page.reload();
  await expect(page.locator('[data-pin="A7"]')).toHaveAttribute("aria-label", /552 mV/);
});

test("lands that are not whole are offered to the customer, and the answer stays on the sheet", async ({ page }) => {
  await page.goto("/jobs/9/look");
  await expect(page.locator(".look-tabs [aria-current]")).toContainText("Lands 0 of");
  for (const key of ["w", "w", "t", "l"]) await page.keyboard.press(key);
  await expect(verdict(page).locator("h2")).toHaveText("The port is at fault");
  await expectAccessible(page);
  const offer = page.locator("#extras");
  await expect(offer).toContainText(/Mend lands: .* torn, .* lifted \(about 18 min\): \d+\.\d\d/);
  await offer.getByRole("button", { name: "Offer it" }).click();
  await page.getByLabel(/^Who answers for Mend lands/).fill("Petronel Vask");
  await page.getByRole("button", { name: /^Accepted: Mend lands/ }).click();
  await expect(offer).toContainText("accepted by Petronel Vask");
  await page.getByLabel("What was found").fill("fan full of dust");
  await page.getByLabel("with a picture").setInputFiles("../demo/photos/5-burnt.jpg");
  await offer.getByRole("button", { name: "Add" }).click();
  await expect(offer.getByAltText("fan full of dust")).toBeVisible();
  await page.getByLabel("What was found").fill("lint in the speaker");
  await page.getByLabel("Price").fill("five");
  await offer.getByRole("button", { name: "Add" }).click();
  await expect(page.locator(".refused")).toContainText("“five” is no amount");
  await page.goto("/jobs/9/handover");
  await expect(page.locator(".sheet")).toContainText(/Mend lands: .*: accepted by Petronel Vask/);
  await expect(page.locator(".sheet")).toContainText(/Lands, as found[\s\S]* torn/);
  await expect(page.locator(".sheet-photos img")).toHaveAttribute("alt", "fan full of dust");
  // With the part off they are looked at once more, and what the heat did is told apart.
  await page.goto("/jobs/9/look?list=condition-after");
  for (const key of ["l", "w"]) await page.keyboard.press(key);
  await expect(verdict(page).locator("h2")).toHaveText("One land is worse than it was");
  await expect(verdict(page)).toContainText("lifted, was whole");
  await expectAccessible(page);
  await page.goto("/jobs/9/look");
  await page.keyboard.press("Escape");
  await expect(page.locator("#job-head")).toContainText("3 broken");
  await expect(page.getByText("Skipped: nothing is looked at")).toBeVisible();
});

test("what is no reading of a pin is refused in words", async ({ page }) => {
  const sent = (form) => page.request.post("/jobs/8/look", { form: { list: "before", name: "A2", token: "t", ...form } });
  for (const [form, said] of [
    [{ value: "1.8k" }, "“1.8k” is no reading"],
    [{ value: "-3" }, "than a meter shows"],
    [{ name: "A40", value: "0.5" }, "“A40” is no pin of this connector"],
    [{ name: "leg 1", value: "0.5" }, "“leg 1” is no pin"],
    [{ list: "condition", value: "bent" }, "“bent” is no state of a land"],
    [{ list: "condition-after", value: "bent" }, "“bent” is no state of a land"],
    [{ list: "between", name: "A12", value: "apart" }, "“A12” is no pin"],
    [{ list: "between", value: "far" }, "“far” is nothing that lies between pins"],
    [{ list: "elsewhere", value: "0.5" }, "“elsewhere” is no list"],
    [{ value: "0.5", token: "" }, "1 to 64 characters"],
  ]) {
    const answer = await sent(form);
    expect(answer.status(), said).toBe(422);
    expect(await answer.text()).toContain(said);
  }
  const result = await page.request.post("/jobs/3/test", { form: { list: "test-open", name: "flight", value: "works", token: "t" } });
  expect([result.status(), (await result.text()).includes("“flight” is no test")]).toEqual([422, true]);
  expect((await page.request.post("/jobs/3/test/back", { form: { stop: "pins", who: "Tam", why: "loose" } })).status()).toBe(409);
});

test("a probe that rests on a pin enters its reading, hands-free", async ({ page }) => {
  const shop = await shopWithLoggers(page);
  const address = await shop.line("Stand-in meter").getByLabel("Address of Stand-in meter").inputValue();
  const probe = async (pin) => {
    await tell(address, "SIM:PIN 999");
    await page.waitForTimeout(700);
    await tell(address, `SIM:PIN ${pin}`);
  };
  await tell(address, "SIM:PIN 999");
  await page.goto(`${shop.address}/jobs/9/look?list=before`);
  // The next pin is called out, where that is wanted.
  await page.evaluate(() => {
    window.called = [];
    speechSynthesis.speak = (said) => window.called.push(said.text);
  });
  await page.getByRole("button", { name: "Hands-free: read the meter" }).click();
  await page.getByRole("button", { name: "Say the next pin" }).click();
  await page.locator('[data-pin="A1"]').click();
  await expect(page.locator("[data-meter]")).toHaveText("touch A1");
  await probe(0);
  await expect(page.locator('[data-pin="A1"]')).toHaveAttribute("aria-label", /4\d\d mV/, { timeout: 10_000 });
  await expect(page.locator(".look-now b")).toHaveText("A2");
  await expect.poll(() => page.evaluate(() => window.called)).toEqual(["B 1", "A 1", "A 2"]);
  // Out of order: another pin is chosen, and the next touch is that one's.
  await page.locator('[data-pin="A5"]').click();
  await probe(4);
  await expect(page.locator('[data-pin="A5"]')).toHaveAttribute("aria-label", /4\d\d mV/, { timeout: 10_000 });
  await expect(page.locator('[data-pin="A2"]')).toHaveAttribute("aria-label", /not read/);
  await expectAccessible(page);
});

test("a test that fails goes back to a stop, on record, and is tried anew", async ({ page }) => {
  await page.goto("/jobs/3/test");
  const rows = page.locator(".test-table tbody tr");
  const tests = await rows.count();
  for (let k = 0; k < tests; k += 1) await page.keyboard.press(k === tests - 1 ? "f" : "w");
  await expect(verdict(page).locator("h2")).toContainText("it fails");
  await expectAccessible(page);
  await page.getByLabel("Back to").selectOption("Inspect");
  await page.getByLabel("Why it goes back").fill("a cold joint at A4");
  await page.getByLabel("Who goes back").fill("Tam");
  await page.getByRole("button", { name: "Go back" }).click();
  await page.waitForURL(/\/pins$/);
  await page.goto("/jobs/3/test");
  await expect(verdict(page)).toContainText("fails: a cold joint at A4. Back to: Inspect.");
  await expect(verdict(page).locator("h2")).toContainText("to try, as little closed up as possible");
  for (let k = 0; k < tests; k += 1) await page.keyboard.press("w");
  await expect(verdict(page).locator("h2")).toContainText("Close it");
  // It is not closed while something that came out is missing.
  const sooner = await page.request.post("/jobs/3/close", {
    form: { list: "test-closed", name: "it clicks in and lies level", value: "works", token: "t" },
  });
  expect([sooner.status(), (await sooner.text()).includes("10 things are out and not back")]).toEqual([422, true]);
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/close$/);
  await expect(page.locator(".opening-title")).toContainText("Back in: ");
  await expectAccessible(page);
  for (let k = 0; k < 10; k += 1) await page.keyboard.press("Space");
  await expect(page.locator(".opening-title")).toHaveText("All back in");
  await page.keyboard.press("Space");
  await expect(page.locator(".test-table")).toContainText("All closed");
  await expectAccessible(page);
  for (let k = 0; k < tests; k += 1) await page.keyboard.press("w");
  await expect(verdict(page).locator("h2")).toHaveText("All works, open and closed");
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/handover$/);
  await expect(page.locator("main")).toContainText("Went back");
  await expect(page.locator(".sheet")).toContainText("works open, works closed");
});

test("a job that is not worth it is given back with its reason, its fee and a photograph", async ({ page }) => {
  await page.goto("/jobs/10/photos");
  await page.getByLabel("Photograph", { exact: true }).setInputFiles("../demo/photos/1-loom-top.jpg");
  await page.getByLabel("at", { exact: true }).selectOption("Intake");
  await page.getByLabel("What is to be seen").fill("burnt before");
  await page.getByRole("button", { name: "Add" }).click();
  await page.getByLabel("on the customer's sheet").check();
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByLabel("on the customer's sheet")).toBeChecked();
  await expectAccessible(page);
  await page.getByLabel("Photograph", { exact: true }).setInputFiles({ name: "x.jpg", mimeType: "image/jpeg", buffer: Buffer.from("no") });
  await page.getByRole("button", { name: "Add" }).click();
  await expect(page.locator("main")).toContainText("none of JPEG, PNG and WebP");
  // One of 300 MB is answered in words, not by a broken connection.
  const folder = temporaryFolder();
  const large = join(folder, "large.jpg");
  writeFileSync(large, "");
  truncateSync(large, 300 * 1024 * 1024);
  await page.goto("/jobs/10/photos");
  await page.getByLabel("Photograph", { exact: true }).setInputFiles(large);
  await page.getByRole("button", { name: "Add" }).click();
  await expect(page.locator("main")).toContainText("A file of 315 MB is too large: a photograph (JPEG, PNG or WebP) has up to 25 MB");
  await page.goto("/jobs/10/handover");
  const form = page.getByRole("form", { name: "Give it back as it is" });
  await form.getByLabel("Your name").fill("Tam");
  await form.getByLabel("Why; it stays on record").fill("modified before, and burnt");
  await form.getByLabel("To pay all the same").fill("20");
  await form.getByRole("button", { name: "Give it back" }).click();
  await expect(page.getByText("Handed over. The record is closed.")).toBeVisible();
  await expect(page.locator(".sheet")).toContainText("modified before, and burnt; to pay 20.00");
  await expect(page.locator(".sheet-photos img")).toHaveAttribute("alt", "burnt before");
  await expect(page.locator(".job-log")).toContainText("Given back as it is");
  await expectAccessible(page);
});

test("pins side by side are apart or bridged, and what stands near is looked for, measured, and goes back", async ({ page }) => {
  await page.goto("/jobs/4/look?list=between");
  await expect(page.locator("#job-head [aria-current]")).toContainText("Inspect");
  await page.keyboard.press("a");
  await page.keyboard.press("j");
  await expect(verdict(page).locator("h2")).toHaveText("Bridged: A2-A3");
  await expect(verdict(page)).toContainText("drawn off along the pin");
  await expectAccessible(page);
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("a");
  await expect(verdict(page).locator("h2")).toHaveText(/^\d+ pairs to measure$/);
  // Those that the plan left little come first.
  await tab(page, "What stands near");
  await expect(page.locator(".test-table tbody tr").first()).toContainText("below its limit");
  await expectAccessible(page);
  await page.keyboard.press("i");
  const row = page.locator(".test-table tbody tr").filter({ hasText: "C14" });
  await row.locator("[data-pin]").click();
  await page.keyboard.press("k");
  await expect(verdict(page).locator("h2")).toContainText("To mend: C14");
  const measured = page.getByLabel("Measured: common-mode filter");
  await measured.fill("1.8k");
  await measured.press("Tab");
  await expect(page.locator("body")).toContainText("“1.8k” is no value");
  await page.getByRole("button", { name: "Drop" }).click();
  await measured.fill("2 Mohm");
  await measured.press("Tab");
  await expect(page.locator(".test-table tbody tr").filter({ hasText: "common-mode filter" })).toContainText("too high: open");
  await expectAccessible(page);
  await row.getByRole("link", { name: "How it goes back" }).click();
  await expect(page.getByRole("heading", { name: "C14 goes back" })).toBeVisible();
  await expect(page.locator("#back .say")).toContainText(/in 16 runs get it liquid with nothing hurt/);
  await expect(page.locator("#back")).toContainText("Cold again: measure it, 100 nF.");
  await expectAccessible(page);
  for (const [form, said] of [
    [{ list: "components", name: "C99", value: "in place" }, "“C99” is no component of this board"],
    [{ list: "components", name: "C14", value: "gone" }, "“gone” is no state of one"],
  ]) {
    const answer = await page.request.post("/jobs/4/components", { form: { ...form, token: "t" } });
    expect([answer.status(), (await answer.text()).includes(said)]).toEqual([422, true]);
  }
});

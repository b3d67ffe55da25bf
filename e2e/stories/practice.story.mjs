// The practice bench: an attempt by keyboard alone from its start to its debrief, a connection that is lost in the middle, a task that
// opens the next, and a job that is rehearsed before anybody touches it.
import { emptyShop, expect, expectAccessible, test } from "../harness.mjs";

const cues = (page) => page.locator("#cues");
const seconds = async (page) => Number(await page.locator("#practice").getAttribute("data-tick")) / 10;

/** The address of a new attempt at a task. */
async function begin(page, name) {
  await page.goto("/practice");
  await page.getByRole("button", { name: `Try: ${name}` }).focus();
  await page.keyboard.press("Enter");
  await expect(page.locator("#practice")).toHaveAttribute("data-ready", "true");
}

/** Wide air from below, as hot as it gets, and a light grip. */
async function blowFromBelow(page) {
  await page.locator("#scene").focus();
  for (const key of ["b", ...Array(19).fill("t"), ...Array(5).fill("f"), ...Array(15).fill("PageDown"), "g", " "]) {
    await page.keyboard.press(key);
  }
  await expect(page.getByRole("button", { name: /^Air on/ })).toHaveAttribute("aria-pressed", "true");
}

test.describe("an empty shop", () => {
  test.use({
    shop: async ({}, use) => use((await emptyShop()).address),
  });

  test("an attempt by keyboard alone, over a connection that is lost, to its debrief, and the next task opens", async ({ page }) => {
    test.setTimeout(240_000);
    await begin(page, "A metal shell on a thin board");
    await expectAccessible(page);
    await blowFromBelow(page);
    await expect.poll(() => seconds(page)).toBeGreaterThan(2);

    // The connection is lost: the clock stands still, the page says so, and what is done meanwhile is not lost.
    const address = page.url();
    await page.reload();
    await expect(page.locator("#practice")).toHaveAttribute("data-ready", "true");
    await expect(page.getByRole("button", { name: /^Air on/ })).toHaveAttribute("aria-pressed", "true");
    await expect(page.locator("#set")).toHaveValue("480");
    await expect.poll(() => seconds(page)).toBeGreaterThan(3);
    const second = await page.context().newPage();
    await second.goto(address);
    await expect(second.locator("#practice")).toHaveAttribute("data-ready", "true");
    await expect(page.locator("#lost")).toBeVisible();
    await second.close();
    await expect(page.locator("#lost")).toBeHidden();

    await expect(cues(page)).toContainText("flux");
    await expect(cues(page)).toContainText("moves in your grip", { timeout: 150_000 });
    await page.locator("#scene").focus();
    for (const key of ["p", "p", "p", "p"]) await page.keyboard.press(key);
    await expect(cues(page)).toContainText("the part is up");
    await page.getByRole("button", { name: "Done" }).focus();
    await page.keyboard.press("Enter");
    await page.waitForURL("**/debrief");
    await expect(page.getByRole("heading", { level: 1 })).toContainText("Passed");
    await expect(page.locator(".attempt-chart .joint").first()).toBeVisible();
    await expect(page.locator("#tried .window-map")).toBeVisible();
    await page.getByLabel("Second", { exact: true }).focus();
    await page.keyboard.press("Home");
    await expect(page.locator("#second-says")).toContainText("0 s: joints 23 to 23 °C, no air");
    await expectAccessible(page);
    await page.goto("/practice");
    await expect(page.locator(".course li").first()).toContainText("passed once of 1");
    await expect(page.getByRole("button", { name: "Try: A latch beside the port" })).toBeVisible();
    await expect(page.getByRole("button", { name: "Try: A jack in plated holes" })).toHaveCount(0);
  });

  test("whoever pulls early is told what tore, and how cold it was", async ({ page }) => {
    await begin(page, "A metal shell on a thin board");
    await blowFromBelow(page);
    await expect(cues(page)).toContainText("flux smokes", { timeout: 90_000 });
    await page.getByLabel("Pull").fill("8");
    await expect.poll(() => seconds(page)).toBeGreaterThan(5);
    await page.getByRole("button", { name: "Done" }).click();
    await page.waitForURL("**/debrief");
    await expect(page.getByRole("heading", { level: 1 })).toContainText("✕");
    await expect(page.locator(".to-change")).toContainText(/K before it let go/);
    await page.goto("/practice");
    await expect(page.locator(".harm-counts")).toContainText(/land lifted|barrel pulled/);
  });
});

test("a job is rehearsed, with its plan beside the debrief; free practice takes a board of the shop", async ({ page }) => {
  await page.goto("/jobs/6/run");
  await page.getByRole("button", { name: "Rehearse" }).click();
  await expect(page.locator("#practice")).toHaveAttribute("data-ready", "true");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Rehearsal of job 6");
  await expectAccessible(page);
  await page.keyboard.press(" ");
  await expect.poll(() => seconds(page)).toBeGreaterThan(1);
  await page.getByRole("button", { name: "Done" }).click();
  await page.waitForURL("**/debrief");
  await expect(page.locator(".debrief")).toContainText("The plan of job 6 says: free after");
  // The same, once the new part is on its joints.
  await page.getByRole("button", { name: "Rehearse again" }).waitFor();
  await page.goto("/jobs/6/run");
  await page.getByLabel("Rehearse it first").selectOption("solder the new part");
  await page.getByRole("button", { name: "Rehearse" }).click();
  await expect(page.locator("#practice")).toHaveAttribute("data-ready", "true");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Rehearsal of job 6: solder the new part");
  await page.goto("/practice");
  const free = page.getByRole("form", { name: "Free practice" });
  await free.getByRole("button", { name: "Practise" }).click();
  await expect(page.locator("#practice")).toHaveAttribute("data-ready", "true");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Free practice");
  await page.getByRole("button", { name: "Done" }).click();
  await page.waitForURL("**/debrief");
  await page.getByRole("button", { name: "Try again" }).click();
  await expect(page.locator("#practice")).toHaveAttribute("data-ready", "true");
});

// One current picture of each main view, made from demo data.
import { join } from "node:path";
import { expect, test } from "./harness.mjs";
import { readAtTheBench, shopWithLoggers } from "./stand-ins.mjs";

const folder = join(import.meta.dirname, "../docs/screenshots");
const shoot = (page, name) => page.screenshot({ path: join(folder, `${name}.png`) });

const views = [
  ["bench", "/"],
  ["alloy", "/jobs/4/alloy"],
  ["opening", "/jobs/10/opening"],
  ["look", "/jobs/8/look?list=before"],
  ["heat-plan-open", "/jobs/5/heat"],
  ["run-step", "/jobs/4/run"],
  ["pin-walk", "/jobs/3/pins"],
  ["handover", "/jobs/2/handover"],
  ["quote", "/jobs/8/quote"],
  ["stock", "/stock"],
];

for (const [name, path] of views) {
  test(`picture of ${name}`, async ({ page }) => {
    await page.goto(path);
    await page.evaluate(() => document.fonts.ready);
    await shoot(page, name);
  });
}

test("picture of the schedule", async ({ page }) => {
  await page.goto("/schedule");
  await expect(page.locator(".next-tasks li")).toHaveCount(3);
  await page.evaluate(() => document.fonts.ready);
  await shoot(page, "schedule");
});

test("pictures of an attempt at the practice bench and of its debrief", async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto("/jobs/6/run");
  await page.getByRole("button", { name: "Rehearse" }).click();
  await expect(page.locator("#practice")).toHaveAttribute("data-ready", "true");
  await page.keyboard.press("c");
  await page.locator("#scene").focus();
  for (const key of ["b", ...Array(19).fill("t"), ...Array(5).fill("f"), ...Array(14).fill("PageDown"), "g", " "]) {
    await page.keyboard.press(key);
  }
  await expect(page.locator("#cues")).toContainText(/shin[ey]/, { timeout: 120_000 });
  await shoot(page, "practice");
  await page.getByLabel("Pull").fill("8");
  await page.waitForTimeout(8000);
  await page.getByRole("button", { name: "Done" }).click();
  await page.waitForURL("**/debrief");
  await page.evaluate(() => document.fonts.ready);
  await shoot(page, "debrief");
});

test("pictures of describing and comparing", async ({ page }) => {
  await page.goto("/boards/6");
  await page.getByRole("button", { name: "Edit" }).click();
  await expect(page.locator("image.photo.top")).toBeVisible();
  await page.locator(".trace-steps a", { hasText: "Components" }).click();
  await page
    .getByRole("button", { name: /L3 coil/ })
    .first()
    .click();
  await expect(page.getByLabel("Middle, x")).toBeVisible();
  await page.waitForLoadState("networkidle");
  await shoot(page, "trace");
});

test("picture of the methods side by side", async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto("/jobs/7/method");
  await expect(page.locator("svg.lanes")).toBeVisible();
  await shoot(page, "method");
});

test("picture of the ways to fit a part", async ({ page }) => {
  await page.goto("/jobs/6/fit?view=ways");
  await expect(page.locator("#ways tbody tr")).toHaveCount(4);
  await page.evaluate(() => document.fonts.ready);
  await shoot(page, "fit");
});

test("picture of the process window", async ({ page }) => {
  await page.goto("/jobs/4/heat?view=window");
  await expect(page.locator(".window-map")).toBeVisible();
  await page.evaluate(() => document.fonts.ready);
  await shoot(page, "process-window");
});

test("picture of the replay", async ({ page }) => {
  await page.goto("/jobs/6/heat?view=replay");
  await expect(page.locator("#replay")).toHaveAttribute("data-ready", "yes");
  await page.locator("#replay-time").fill("30");
  await shoot(page, "replay");
});

test("pictures of the heat step and the ledger", async ({ page }) => {
  const shop = await shopWithLoggers(page, "--jet", "0.9", "--conduction", "1.1");
  await readAtTheBench(shop);
  await page.goto(`${shop.address}/jobs/5/run`);
  await page.getByRole("button", { name: "Begin at the bench" }).click();
  await expect(page.locator("#step h1")).toHaveText("Make ready");
  for (let press = 0; press < 5; press += 1) {
    await page.waitForTimeout(400);
    await page.keyboard.press("Space");
  }
  await expect(page.locator("#step")).toHaveAttribute("data-phase", "running");
  await page.waitForTimeout(13_000);
  await shoot(page, "run-heat");
});

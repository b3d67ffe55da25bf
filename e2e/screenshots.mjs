// One current picture of each main view, made from demo data.
import { join } from "node:path";
import { expect, test } from "./harness.mjs";

const folder = join(import.meta.dirname, "../docs/screenshots");
const shoot = (page, name) => page.screenshot({ path: join(folder, `${name}.png`) });

const views = [
  ["bench", "/"],
  ["intake", "/jobs/4/intake"],
  ["board", "/jobs/4/board"],
  ["alloy", "/jobs/4/alloy"],
  ["alloy-desk", "/alloys"],
  ["heat-plan-open", "/jobs/5/heat"],
  ["heat-plan-tight", "/jobs/7/heat"],
  ["run-step", "/jobs/4/run"],
  ["pin-walk", "/jobs/3/pins"],
  ["handover", "/jobs/2/handover"],
  ["boards", "/boards"],
];

for (const [name, path] of views) {
  test(`picture of ${name}`, async ({ page }) => {
    await page.goto(path);
    await page.evaluate(() => document.fonts.ready);
    await shoot(page, name);
  });
}

test("picture of the process window", async ({ page }) => {
  await page.goto("/jobs/4/heat");
  await expect(page.locator(".window-map")).toBeVisible({ timeout: 30_000 });
  await page.evaluate(() => document.fonts.ready);
  await page.locator("#window").evaluate((section) => section.scrollIntoView());
  await shoot(page, "process-window");
});

test("picture of the replay", async ({ page }) => {
  await page.goto("/jobs/6/heat");
  await expect(page.locator("#replay")).toHaveAttribute("data-ready", "yes", { timeout: 30_000 });
  await expect(page.locator(".window-map")).toBeVisible({ timeout: 30_000 });
  await page.locator("#replay-time").fill("30");
  await page.locator("#replay").evaluate((section) => section.scrollIntoView());
  await shoot(page, "replay");
});

test("pictures of the heat step and the ledger", async ({ page }) => {
  await page.goto("/jobs/5/run");
  await page.getByRole("button", { name: "Begin at the bench" }).click();
  await expect(page.locator("#step h1")).toHaveText("Make ready");
  for (let press = 0; press < 5; press += 1) {
    await page.waitForTimeout(400);
    await page.keyboard.press("Space");
  }
  await expect(page.locator("#step")).toHaveAttribute("data-phase", "running");
  await page.waitForTimeout(16_000);
  await shoot(page, "run-heat");
  for (let press = 0; press < 3; press += 1) {
    await page.keyboard.press("Space");
    await page.waitForTimeout(400);
  }
  for (const key of ["w", "f"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(400);
  }
  await expect(page.locator(".ledger")).toContainText("wicked 1×");
  await shoot(page, "run-ledger");
});

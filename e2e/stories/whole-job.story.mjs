// One new job from intake to handover; by keyboard alone from the bench run on, with a reload in the middle of the heat.
import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, expectAccessible, press, temporaryFolder, test } from "../harness.mjs";

async function fillIntake(page) {
  const typed = [
    [/^Customer •/, "Wendolin Aas"],
    [/^Device and model/, "Tullimar Brook handheld"],
    [/^Symptom/, "Cartridges are not found."],
    [/^Power-on test/, "Starts, keys and picture good."],
    [/^Signs of earlier work/, "None seen."],
    [/^Customer's own parts inside/, "One cartridge, bagged."],
    [/^Price agreed/, "70,5"],
  ];
  for (const [label, value] of typed) await page.getByLabel(label).fill(value);
  await page.getByLabel("How it broke").selectOption("drop");
  await page.getByLabel("Risk explained").check();
  await page.getByLabel("Due").fill("2031-05-02");
  await expect(page.getByRole("link", { name: "Intake" })).toContainText("70.50");
}

const title = (page) => page.locator("#step h1");
const phase = (page) => page.locator("#step");

async function heat(page) {
  await press(page);
  await expect(phase(page)).toHaveAttribute("data-phase", "running");
  await page.waitForTimeout(2500);
  await press(page);
  await expect(phase(page)).toHaveAttribute("data-phase", "moved");
  await press(page);
}

test("a new job goes from intake to handover", async ({ page }, info) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).click();
  await fillIntake(page);
  await page.reload();
  await expect(page.getByLabel("Symptom")).toHaveValue("Cartridges are not found.");
  await expectAccessible(page);

  await page.getByRole("link", { name: "To the board" }).click();
  await page.getByRole("button", { name: "Brook handheld main board" }).click();
  await expect(page.getByRole("heading", { name: "Brook handheld main board" })).toBeVisible();
  await page.locator('[data-name^="audio chip"]').first().focus();
  await expect(page.locator("[data-pointed]")).toContainText("audio chip: chip package");
  await expectAccessible(page);

  await page.getByRole("link", { name: "Choose the alloy" }).click();
  await expect(page.locator(".alloy .binds")).toContainText("SAC305");
  await expectAccessible(page);
  await page.getByLabel("Board built in").fill("2001");
  await expect(page.locator(".alloy .binds")).toContainText("Sn63Pb37 (Sn 63, Pb 37): built before lead-free");
  await expect(page.locator(".alloy .huge")).toHaveText("183 ± 1 °C");

  await page.getByRole("link", { name: "Plan the heat" }).click();
  await expect(page.locator(".margin-strip .row")).toHaveCount(12);
  const before = await page.locator(".verdict .huge").textContent();
  await page.locator("#set").fill("380");
  await expect(page.locator(".verdict .huge")).not.toHaveText(before);
  await expectAccessible(page);

  // The new part has a run of heat of its own; its settings are not the removal's.
  await page.getByRole("link", { name: "Fit", exact: true }).click();
  await expect(page.locator(".verdict .over")).toHaveText("All joints liquid");
  await expect(page.locator(".small-run").first()).toContainText("liquid after");
  const first = await page.locator(".verdict .huge").textContent();
  await page.locator("#set").fill("410");
  await expect(page.locator(".verdict .huge")).not.toHaveText(first);
  await page.getByRole("link", { name: "Removal", exact: true }).click();
  await expect(page.locator("#set")).toHaveValue("380");

  await page.getByRole("link", { name: "To the bench run" }).click();
  await expect(page.locator(".run-ready")).toContainText("The fit: every joint liquid after");
  await expect(page.getByRole("button", { name: "Begin at the bench" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(title(page)).toHaveText("Make ready");
  await expectAccessible(page);
  for (const next of ["Protect", "Flux", "Add alloy", "Heat"]) {
    await press(page);
    await expect(title(page)).toHaveText(next);
  }
  await press(page, "Enter");
  await expect(phase(page)).toHaveAttribute("data-phase", "running");
  await expectAccessible(page);
  await page.waitForTimeout(3000);
  const clock = page.locator("[data-clock]");
  const shown = Number(await clock.textContent());
  const reloaded = Date.now();
  await page.reload();
  await expect(phase(page)).toHaveAttribute("data-phase", "running");
  await page.waitForTimeout(400);
  const later = Number(await clock.textContent());
  const passed = (Date.now() - reloaded) / 1000;
  expect(later).toBeGreaterThanOrEqual(shown);
  expect(Math.abs(later - shown - passed), "the clock goes on as if nothing had happened").toBeLessThanOrEqual(1.5);

  await press(page, "ArrowRight");
  await expect(phase(page)).toHaveAttribute("data-phase", "moved");
  const stamped = Number(await clock.textContent());
  expect(stamped).toBeGreaterThan(3);
  for (const next of ["Lift", "Wick while warm", "Clean and look", "Fit", "Set"]) {
    await press(page);
    await expect(title(page)).toHaveText(next);
  }
  await expect(page.locator(".expect")).toContainText("stop at");
  await expect(page.locator("#step")).toContainText("410 °C");
  await heat(page);
  await expect(title(page)).toHaveText("Hold");
  await press(page);
  await expect(title(page)).toHaveText("Clean");
  await press(page, "Backspace");
  await expect(title(page)).toHaveText("Hold");
  await press(page);
  await press(page);
  await expect(title(page)).toHaveText("All steps done");
  await press(page);

  await page.waitForURL(/\/pins$/);
  for (let pin = 0; pin < 34; pin += 1) await page.keyboard.press(pin === 3 ? "b" : "f");
  await expect(page.locator(".pin-verdict h2")).toHaveText("1 to touch up");
  await expect(page.locator(".pin-verdict")).toContainText("bridges drag away");
  await expectAccessible(page);
  for (let back = 0; back < 30; back += 1) await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("f");
  await expect(page.locator(".pin-verdict h2")).toHaveText("Every pin is firm");
  await expectAccessible(page);
  await page.keyboard.press("Enter");

  await page.waitForURL(/\/test$/);
  const tests = await page.locator(".test-table tbody tr").count();
  for (let k = 0; k < tests; k += 1) await page.keyboard.press("w");
  await expect(page.locator(".pin-verdict h2")).toContainText("Close it");
  await expectAccessible(page);
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/close$/);
  for (let k = 0; k < tests; k += 1) await page.keyboard.press("w");
  await expect(page.locator(".pin-verdict h2")).toHaveText("All works, open and closed");
  await page.keyboard.press("Enter");

  await page.waitForURL(/\/handover$/);
  const sheet = page.locator(".sheet");
  for (const said of ["Cartridges are not found.", `after ${stamped.toFixed(1)} s of air`, "34 of 34 firm", "Sn63Pb37", "70.50"]) {
    await expect(sheet).toContainText(said);
  }
  await expectAccessible(page);
  await lookAtPrint(page, info);
  await page.getByRole("button", { name: "Hand over" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("Handed over. The record is closed.")).toBeVisible();
});

/** The printed sheet is one page, holds the sheet's words, and none of the screen's. */
async function lookAtPrint(page, info) {
  const folder = temporaryFolder();
  const file = join(folder, "sheet.pdf");
  writeFileSync(file, await page.pdf({ preferCSSPageSize: true, printBackground: true }));
  const text = execFileSync("pdftotext", ["-layout", file, "-"]).toString();
  expect(text).toContain("34 of 34 firm");
  expect(text).not.toContain("Hand over");
  expect(text).not.toContain("New job");
  expect(execFileSync("pdfinfo", [file]).toString()).toMatch(/Pages:\s+1\n/);
  execFileSync("pdftoppm", ["-png", "-r", "60", "-singlefile", file, join(folder, "sheet")]);
  await info.attach("printed sheet", { body: readFileSync(join(folder, "sheet.png")), contentType: "image/png" });
}

// Low-melt fed to the joints: the curve and the feed table follow, the heat plan shifts, and the fit stays closed until
// the ledger says that it is out again.
import { advance, expect, expectAccessible, press, test } from "../harness.mjs";

// What is refused in words beside its field is a 422 in the console.
test.use({ allowed: /status of 422|Error Code 422/ });

const big = (page) => page.locator(".verdict .huge");

test("feeding low-melt moves the curve, the table and the heat plan", async ({ page }) => {
  await page.goto("/jobs/7/heat");
  const legs = page.locator(".margin-strip .row").filter({ hasText: "anchors" });
  await expect(legs).toHaveAttribute("aria-label", /melts at 220 give or take 1/);

  await page.goto("/jobs/7/alloy");
  await expect(big(page)).toHaveText("220 ± 1 °C");
  await page.getByLabel("Alloy", { exact: true }).fill("Sn42Bi58");
  await expect(page.locator(".feeding tbody tr").first()).toContainText("mm");
  const less = await big(page).textContent();
  await page.locator("#share-range").fill("70");
  await expect(page.locator("#share")).toHaveValue("70");
  await expect(big(page)).not.toHaveText(less);
  await expect(page.locator(".melt-picture")).toHaveAttribute("aria-label", /melting point \d+ ± \d+ °C, Scheil solidus 136 °C; SAC305/);
  await expectAccessible(page);

  await page.getByLabel("Wanted melting point").fill("185");
  await page.getByRole("button", { name: "Find the amount" }).click();
  await expect(page.locator("#share")).not.toHaveValue("70");
  const found = Number(await page.locator("#share").inputValue());
  expect(found).toBeGreaterThan(20);
  await page.getByLabel("Wanted melting point").fill("70");
  await page.getByRole("button", { name: "Find the amount" }).click();
  await expect(page.locator("#alloy [role=alert]")).toContainText("Sn42Bi58 can't bring");
  await page.reload();
  await expect(page.locator("#share")).toHaveValue(String(found));

  await page.getByRole("link", { name: "Plan the heat" }).click();
  await expect(legs).toHaveAttribute("aria-label", /melts at 1[78]\d give or take/);
  await expect(page.locator(".settings")).toContainText(`SAC305, fed ${found} % Sn42Bi58`);
});

test("the fit opens when the ledger is within limits, and is on the sheet", async ({ page }) => {
  await page.goto("/jobs/5/run");
  await page.getByRole("button", { name: "Begin at the bench" }).click();
  for (let k = 0; k < 3; k += 1) await advance(page);
  await expect(page.locator("#step h1")).toHaveText("Add alloy");
  await expect(page.locator(".lines")).toContainText("34 x 0.2 mm of Sn42Bi58");
  await press(page, "f");
  await expect(page.locator(".ledger")).toContainText("fed 1×");
  for (let k = 0; k < 5; k += 1) await advance(page);
  await expect(page.locator("#step h1")).toHaveText("Wick while warm");
  await expectAccessible(page);
  await press(page, "w");
  await expect(page.locator(".ledger")).toContainText("wicked 1×");
  await press(page, "Space");
  await expect(page.locator(".go-on")).toContainText("Fit is closed");
  await press(page, "Space");
  await expect(page.locator("#step h1")).toHaveText("Clean and look");
  await page.reload();
  await expect(page.locator(".ledger")).toContainText("wicked 1×");
  await press(page, "f");
  await page.waitForTimeout(320);
  await page.getByRole("button", { name: "+1 wick pass on row A only" }).click();
  await expect(page.locator(".go-on"), "the tabs still hold too much").toContainText("Fit is closed");
  await page.waitForTimeout(320);
  await page.getByRole("button", { name: "+1 wick pass on tabs only" }).click();
  await expect(page.locator(".go-on")).toContainText("Done, go on");
  await press(page, "Space");
  await expect(page.locator("#step h1")).toHaveText("Fit");
  await page.goto("/jobs/5/handover");
  await expect(page.locator(".sheet")).toContainText(/Loosened with\s*Sn42Bi58/);
  await expect(page.locator(".sheet")).toContainText(/row A: Bi [\d.–]+ %, wicked 2×/);
});

test("who goes on against the arithmetic says why, and it is on the sheet", async ({ page }) => {
  await page.goto("/jobs/4/run");
  for (let k = 0; k < 6; k += 1) await advance(page);
  await expect(page.locator("#step h1")).toHaveText("Wick while warm");
  await press(page, "Space");
  await expect(page.locator("#step h1")).toHaveText("Clean and look");
  await page.getByLabel("Go on all the same").fill("Board goes to the scrap of spare parts");
  await page.getByRole("button", { name: "Save to the record" }).click();
  await expect(page.locator(".ledger")).toContainText("Going on all the same: Board goes");
  await press(page, "Space");
  await expect(page.locator("#step h1")).toHaveText("Fit");
  await page.goto("/jobs/4/handover");
  await expect(page.locator(".sheet")).toContainText(/Fitted all the same\s*Board goes to the scrap/);
});

test("the alloy desk answers without a job, in both scales, and says what is wrong", async ({ page }) => {
  await page.goto("/alloys");
  await expect(big(page)).toHaveText("191 ± 4 °C");
  await page.locator("#share-range").fill("100");
  await expect(big(page)).toHaveText("138 ± 4 °C");
  await expect(page.locator(".notes")).toContainText("Sn42Bi58 is published as melting from 138 to 138 °C");
  await page.locator("#a").fill("Sn=43,Pb=43,Bi=14");
  await page.locator("#b").fill("");
  await expect(page.locator("#desk")).toContainText("bismuth with lead");
  await page.locator("#a").fill("Sn=60,Pb=37");
  await expect(page.locator("#desk [role=alert]")).toContainText("sum to 97.00 %");
  await expect(page.locator("#a")).toHaveValue("Sn=60,Pb=37");
  await page.locator("#a").fill("SAC305");
  await page.getByRole("button", { name: "switch to °F" }).click();
  await expect(big(page)).toContainText("°F");
  await page.getByRole("button", { name: "switch to °C" }).click();
});

// The fit of the new part: a plan of its own beside the removal's, and the ways to do it side by side.
import { expect, expectAccessible, test } from "../harness.mjs";

// What is asked for again before it came, htmx calls an abort.
test.use({ allowed: /htmx:(afterRequest|sendAbort)/ });

const COMPUTED = { timeout: 90_000 };
const liquid = async (page) => {
  await expect(page.locator(".verdict .over")).toHaveText(/liquid/, COMPUTED);
  return Number((await page.locator(".verdict .dim").first().textContent()).match(/most likely (\d+) s/)[1]);
};

test("a fit begins with the removal's air, is sooner on a warm board, and takes over another way", async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto("/jobs/6/heat");
  await page.getByRole("link", { name: "Fit", exact: true }).click();
  const cold = await liquid(page);
  await expect(page.locator(".solder")).toContainText("what cleaning leaves");
  await expectAccessible(page);
  await page.getByLabel("Board begins at").fill("110");
  await expect(async () => expect(await liquid(page)).toBeLessThan(cold)).toPass(COMPUTED);

  // Set on liquid joints the part is in the hand: nothing is said of its body.
  await expect(page.locator(".margin-strip")).toContainText("part's body");
  await page.getByLabel("The part is").selectOption("set-on");
  await expect(page.locator(".verdict .over")).toHaveText("Joints liquid, set it on", COMPUTED);
  await expect(page.locator(".margin-strip")).not.toContainText("part's body");

  await page.getByRole("link", { name: /^Ways to fit/ }).click();
  await expect(page).toHaveURL(/view=ways/);
  const ways = page.locator("#ways tbody tr");
  await expect(ways).toHaveCount(4, COMPUTED);
  await expect(page.locator("#ways")).toContainText("keep it from floating");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Use Iron, pin by pin" }).click();
  await page.waitForURL(/\/fit$/);
  await expect(page.locator("#iron-dwell")).toHaveValue(/[246]/);
  await expect(page.locator("#set")).toHaveCount(0);
  await liquid(page);

  // The removal is as it was.
  await page.getByRole("link", { name: "Removal", exact: true }).click();
  await expect(page.locator("#set")).not.toHaveValue("");
});

test("a nozzle that comes near, a second iron and a holder are set, saved and told at the bench", async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto("/jobs/12/heat");
  await expect(page.locator(".verdict")).toBeVisible(COMPUTED);
  const plan = () => page.waitForResponse((answer) => answer.url().includes("/heat") && answer.request().method() === "POST");
  for (const button of ["+ Iron", "+ Second iron", "+ Holder"]) {
    const answered = plan();
    await page.getByRole("button", { name: button, exact: true }).click();
    expect((await answered).status()).toBe(200);
  }
  await expect(page.getByLabel("Second iron")).toHaveValue("380");
  await expect(page.locator(".settings")).toContainText("jaw of the holder");
  await page.getByText("Comes near, leans").click();
  await page.getByLabel("Comes near from").fill("70");
  await page.getByLabel("Within", { exact: true }).fill("15");
  await expect(page.locator(".verdict")).toBeVisible(COMPUTED);
  await page.reload();
  await expect(page.getByLabel("Comes near from")).toHaveValue("70");
  await expect(page.getByLabel("Second iron")).toHaveValue("380");
  await expect(page.locator(".verdict")).toBeVisible(COMPUTED);
  await expectAccessible(page);
  await page.getByRole("link", { name: "Card" }).click();
  await expect(page.locator("main")).toContainText("Begin 70 mm away");
});

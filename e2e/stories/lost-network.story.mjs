// What a technician enters survives a lost network and a crash.
import { emptyShop, expect, start, test } from "../harness.mjs";

test.use({ allowed: /ERR_INTERNET_DISCONNECTED|htmx:(sendError|afterRequest)|Failed to fetch/ });

test("a press made without a network is kept with its time and sent when it is back", async ({ page, context }) => {
  await page.goto("/jobs/6/run");
  await page.getByRole("button", { name: "Begin at the bench" }).click();
  await expect(page.locator("#step h1")).toHaveText("Make ready");
  await page.waitForLoadState();
  await context.setOffline(true);
  await page.keyboard.press("Space");
  await expect(page.locator("#unsaved", { hasText: "1 entry is kept here" })).toBeVisible();
  await context.setOffline(false);
  await expect(page.locator("#step h1")).toHaveText("Protect");
  await expect(page.locator("#unsaved")).toBeHidden();
});

test("a press made before the page's script has arrived is heard when it is there", async ({ page }) => {
  await page.goto("/jobs/6/run");
  let arrive;
  const held = new Promise((done) => (arrive = done));
  await page.route("**/js/run.js", async (route) => {
    await held;
    await route.continue();
  });
  await page.getByRole("button", { name: "Begin at the bench" }).click({ noWaitAfter: true });
  await expect(page.locator("#step h1")).toHaveText("Make ready");
  await page.keyboard.press("Space");
  arrive();
  await expect(page.locator("#step h1")).toHaveText("Protect");
});

test("a page whose script was lost on its way says so, comes again, and the press made on it counts", async ({ page }) => {
  await page.goto("/jobs/6/run");
  await page.route("**/js/run.js", (route) => route.abort("internetdisconnected"));
  await page.getByRole("button", { name: "Begin at the bench" }).click({ noWaitAfter: true });
  await expect(page.locator("#unsaved")).toContainText("a part of this page is missing");
  await page.keyboard.press("Space");
  await page.unroute("**/js/run.js");
  await expect(page.locator("#step h1")).toHaveText("Protect");
  await expect(page.locator("#unsaved")).toBeHidden();
});

test("a field typed without a network is sent when it is back", async ({ page, context }) => {
  await page.goto("/jobs/10/intake");
  await context.setOffline(true);
  await page.getByLabel("Serial number").fill("TB-1");
  await expect(page.locator("#unsaved")).toContainText("1 entry is kept here");
  await context.setOffline(false);
  await expect(page.locator("#note-serial")).toContainText("saved");
  await expect(page.locator("#unsaved")).toBeHidden({ timeout: 10_000 });
  await page.reload();
  await expect(page.getByLabel("Serial number")).toHaveValue("TB-1");
});

test("a killed application finds everything again", async ({ browser }) => {
  const first = await emptyShop();
  const page = await browser.newPage();
  await page.goto(first.address);
  await page.getByRole("button", { name: "New job" }).first().click();
  await page.locator("#customer").fill("Maud Ferrar");
  await expect(page.locator("#note-customer")).toContainText("saved");
  first.child.kill("SIGKILL");
  await first.ended;
  const second = await start("serve", "--data", first.data);
  await page.goto(`${second.address}/jobs/1/intake`);
  await expect(page.locator("#customer")).toHaveValue("Maud Ferrar");
});

test("a station that is changed without a network is saved when it is back", async ({ page, context }) => {
  await page.goto("/stations/3");
  await context.setOffline(true);
  await page.getByLabel("Heater, where it is known").fill("560");
  await page.getByLabel("Heater, where it is known").press("Tab");
  await expect(page.locator("#unsaved")).toContainText("not saved yet and is sent again");
  await context.setOffline(false);
  await expect(page.locator("#note")).toContainText("saved", { timeout: 10_000 });
  await expect(page.locator("#unsaved")).toBeHidden();
  await page.reload();
  await expect(page.getByLabel("Heater, where it is known")).toHaveValue("560");
});

test("a plan that was asked for before the network went comes when it is back", async ({ page, context }) => {
  await page.goto("/jobs/6/heat");
  await expect(page.locator("#plan .plan-tabs")).toBeVisible();
  await page.route("**/heat/plan?*", (route) => route.abort("internetdisconnected"));
  const lost = page.waitForEvent("requestfailed");
  await page.locator("#longest").fill("600");
  await lost;
  await expect(page.locator("#plan .progress")).toBeVisible();
  await page.unroute("**/heat/plan?*");
  await expect(page.locator("#plan .plan-tabs")).toBeVisible();
  await expect(page.locator("#longest")).toHaveValue("600");
});

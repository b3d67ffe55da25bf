// Every page stands on its own: accessible, strict in its policy, in both scales of temperature.
import { expect, expectAccessible, test } from "../harness.mjs";

const pages = [
  "/",
  "/jobs",
  "/jobs?q=moor",
  "/stations",
  "/stations/1",
  "/equipment",
  "/settings",
  "/instruments",
  "/boards",
  "/boards/1",
  "/boards/import",
  "/boards/connectors",
  "/boards/6",
  "/boards/6/compare",
  "/jobs/4/intake",
  "/jobs/4/label",
  "/stations/1/label",
  "/jobs/4/board",
  "/jobs/4/alloy",
  "/alloys",
  "/jobs/6/heat",
  "/jobs/6/heat?view=window",
  "/jobs/6/heat?view=replay",
  "/jobs/5/heat?view=limits",
  "/jobs/6/fit",
  "/jobs/9/fit?view=ways",
  "/jobs/9/method/hot-swap",
  "/jobs/6/what-if",
  "/jobs/6/card",
  "/jobs/4/run",
  "/jobs/5/run",
  "/jobs/3/pins",
  "/jobs/10/opening",
  "/jobs/9/opening",
  "/jobs/8/look",
  "/jobs/8/look?list=before",
  "/jobs/3/test",
  "/jobs/3/close",
  "/jobs/2/close",
  "/jobs/4/components",
  "/jobs/8/look?list=condition-after",
  "/jobs/3/look?list=between",
  "/jobs/12/heat",
  "/jobs/13/handover",
  "/jobs/2/photos",
  "/jobs/2/handover",
  "/jobs/10/board",
  "/schedule",
  "/customers",
  "/review",
  "/stock",
  "/stock/1",
  "/stock/1/label",
  "/stock/donors",
  "/people",
  "/jobs/4/quote",
  "/jobs/8/parts",
  "/jobs/12/parts",
  "/jobs/2/record",
  "/practice",
];

// A handful in one tab, as somebody goes from page to page: a tab of its own for each took twice as long.
const HANDFUL = 6;
for (let first = 0; first < pages.length; first += HANDFUL) {
  const some = pages.slice(first, first + HANDFUL);
  test(`accessible and tidy: ${some.join(" ")}`, async ({ page }) => {
    test.setTimeout(180_000);
    for (const path of some) {
      const answer = await page.goto(path);
      expect(answer.headers()["content-security-policy"], path).toContain("default-src 'none'");
      await expect(page.locator("[aria-busy=true]"), path).toHaveCount(0);
      await expectAccessible(page);
    }
  });
}

test("the policy bites: an inline script does not run", async ({ browser, shop }) => {
  const page = await browser.newPage();
  await page.goto(shop);
  const ran = await page.evaluate(() => {
    const script = document.createElement("script");
    script.textContent = "window.planted = true";
    document.head.append(script);
    return window.planted === true;
  });
  expect(ran).toBe(false);
  await page.close();
});

test("temperatures read in °F when that is wanted, and are taken in °F", async ({ page }) => {
  await page.goto("/jobs/5/heat");
  await expect(page.locator("#set")).toHaveValue("400");
  await page.getByRole("button", { name: "switch to °F" }).click();
  await expect(page).toHaveURL(/\/jobs\/5\/heat$/);
  await expect(page.locator("#set")).toHaveValue("752");
  await expect(page.locator(".margin-strip .tick-label").last()).toContainText("°F");
  const before = await page.locator(".verdict .huge").textContent();
  await page.locator("#set").fill("716");
  await expect(page.locator(".verdict .huge")).not.toHaveText(before);
  await page.getByRole("button", { name: "switch to °C" }).click();
  await expect(page.locator("#set")).toHaveValue("380");
});

test("assets are kept for ever under their hash and unchanged ones are not sent again", async ({ request }) => {
  const html = await (await request.get("/")).text();
  const address = html.match(/\/assets\/[0-9a-f]{16}\/app\.css/)[0];
  const first = await request.get(address);
  expect(first.headers()["cache-control"]).toContain("immutable");
  const again = await request.get("/assets/app.css", { headers: { "if-none-match": first.headers().etag } });
  expect(again.status()).toBe(304);
  // A script that another one imports is asked for under the same hash, and kept as well.
  const imported = await request.get(address.replace("app.css", "js/queue.js"));
  expect(imported.headers()["cache-control"]).toContain("immutable");
});

test("the process window moves the setting by pointer and by keys, and the plan follows", async ({ page }) => {
  await page.goto("/jobs/5/heat?view=window");
  const map = page.locator(".window-map");
  await expect(map).toHaveAttribute("aria-label", /Process window: \d+ of 1025 settings work; this one works/);
  await expectAccessible(page);
  const before = await page.locator(".verdict .huge").textContent();
  await map.locator('[data-set="2"][data-flow="12"]').click();
  await expect(page.locator(".verdict .huge")).not.toHaveText(before);
  await expect(map).toHaveAttribute("aria-label", /this one does not melt everything/);
  const set = Number(await page.locator("#set").inputValue());
  await map.focus();
  await page.keyboard.press("ArrowRight");
  await expect.poll(async () => Number(await page.locator("#set").inputValue())).toBeGreaterThan(set);
  await expect(map).toHaveAttribute("data-at-set", "3");
});

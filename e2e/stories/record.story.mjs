// The bench run is a record: entries are told apart by run, step and token, none is discarded by an answer, and no wall clock has
// a part in it.
import { advance, begunJob, emptyShop, expect, expectAccessible, press, test as onDemo } from "../harness.mjs";

const allowed = /status of (409|422|507)|ERR_INTERNET_DISCONNECTED|Failed to fetch/;
onDemo.use({ allowed });
const onEmpty = onDemo.extend({
  /** A shop that was empty and holds one job at the bench, made at the pages' own addresses. */
  shop: async ({}, use) => {
    const shop = await emptyShop("stations/1-gull.json", "boards/quillon-tern-15.json");
    await begunJob(shop.address);
    await use(shop.address);
  },
});
onEmpty.use({ allowed });

const title = (page) => page.locator("#step h1");
const stuck = (page) => page.locator("#kept-here p");

/** A job at its first step, whatever other stories did with it. */
async function begin(page, job) {
  await page.goto(`/jobs/${job}/run`);
  const ready = page.getByRole("button", { name: "Begin at the bench" });
  if (await ready.isVisible()) await ready.click();
  await expect(page.locator("#step")).toBeVisible();
  while (await page.locator('[data-press="undo"]').isEnabled()) {
    const before = await page.locator("#step").evaluate((step) => step.outerHTML);
    await press(page, "Backspace");
    await expect.poll(() => page.locator("#step").evaluate((step) => step.outerHTML)).not.toBe(before);
  }
  await expect(title(page)).toHaveText("Make ready");
}

async function toTheHeat(page) {
  for (let k = 0; k < 12 && !(await title(page).textContent()).startsWith("Heat"); k += 1) {
    await advance(page);
  }
}

for (const [where, test, job] of [
  ["demo", onDemo, 6],
  ["empty shop", onEmpty, 1],
]) {
  test(`${where}: an entry for a step that is past stays in the browser until the person sends, moves or drops it`, async ({
    page,
    context,
  }) => {
    await begin(page, job);
    const other = await context.newPage();
    await other.goto(`/jobs/${job}/run`);
    await press(page);
    await expect(title(page)).toHaveText("Protect");
    // The other tab still shows the first step.
    await press(other);
    await expect(stuck(other)).toContainText("It was entered at step 1, “Make ready”; the bench is at step 2, “Protect” now");
    await expectAccessible(other);
    await other.reload();
    await expect(stuck(other)).toHaveCount(1);
    await expect(stuck(page), "both tabs share one queue").toHaveCount(1);
    await other.getByRole("button", { name: "Send again" }).click();
    await expect(stuck(other)).toHaveCount(1);
    await other.getByRole("button", { name: "Enter it here" }).click();
    await expect(title(other)).toHaveText("Flux");
    await expect(stuck(other)).toHaveCount(0);
    await press(page);
    await expect(stuck(page)).toHaveCount(1);
    await page.getByRole("button", { name: "Drop it" }).click();
    await expect(stuck(page)).toHaveCount(0);
    await expect(stuck(other)).toHaveCount(0);
    await page.reload();
    await expect(title(page)).toHaveText("Flux");
    await other.close();
  });

  test(`${where}: undo takes the last entry back with its stamp, and Space on a focused button presses that one alone`, async ({
    page,
  }) => {
    await begin(page, job);
    await toTheHeat(page);
    await press(page);
    await expect(page.locator("#step")).toHaveAttribute("data-phase", "running");
    await press(page);
    await expect(page.locator("#step")).toHaveAttribute("data-phase", "moved");
    await page.locator('[data-press="undo"]').focus();
    await press(page, "Space");
    await expect(page.locator("#step")).toHaveAttribute("data-phase", "running");
    await page.locator('[data-press="stopped"]').focus();
    await press(page, "Enter");
    await expect(page.locator("#step")).toHaveAttribute("data-phase", "ready");
    await expect(page.locator(".stopped")).toContainText("Stopped at the line once.");
    // A second attempt is on a warm board: it is no release that the plan predicted.
    await press(page);
    await expect(page.locator("#step")).toHaveAttribute("data-phase", "running");
    await press(page);
    await expect(page.locator("#step")).toHaveAttribute("data-phase", "moved");
    await page.goto(`/jobs/${job}/handover`);
    await expect(page.locator(".sheet")).toContainText("On a warm board");
    await expect(page.locator(".sheet")).not.toContainText("Released");
  });

  test(`${where}: a wall clock that jumps by an hour changes neither the clock on the screen nor what is stamped`, async ({ page }) => {
    await begin(page, job);
    await toTheHeat(page);
    await press(page);
    await expect(page.locator("#step")).toHaveAttribute("data-phase", "running");
    await page.evaluate(() => {
      const real = Date.now;
      Date.now = () => real() - 3_600_000;
    });
    await page.waitForTimeout(2000);
    const shown = Number(await page.locator("[data-clock]").textContent());
    expect(shown).toBeGreaterThanOrEqual(1);
    expect(shown).toBeLessThan(10);
    await press(page);
    await expect(page.locator("#step")).toHaveAttribute("data-phase", "moved");
    const stamped = Number(await page.locator("[data-clock]").textContent());
    expect(stamped).toBeGreaterThan(1.5);
    expect(stamped).toBeLessThan(10);
  });

  test(`${where}: full or broken browser storage is said, and the press arrives all the same`, async ({ page }) => {
    await begin(page, job);
    await page.evaluate(() => {
      Storage.prototype.setItem = () => {
        throw new DOMException("full", "QuotaExceededError");
      };
    });
    await press(page);
    await expect(title(page)).toHaveText("Protect");
    await expect(page.locator("#unsaved")).toContainText("storage is full or off");
  });
}

onDemo("a job that was handed over is closed to every write until it is reopened with a reason", async ({ page, request }) => {
  await page.goto("/jobs/1/intake");
  await expect(page.getByText("Handed over: the record is closed.")).toBeVisible();
  await expect(page.getByLabel("Serial number")).toBeDisabled();
  const heat = {
    station: "Gull, bench 1",
    set: "400",
    flow: "60",
    nozzle: "22",
    distance: "25",
    longest: "240",
    face: "bottom",
    motion: "still",
    keep_intact: "board",
  };
  const attempts = [
    ["/jobs/1/intake", { field: "serial", value: "x" }],
    ["/jobs/1/board", { board: "1" }],
    ["/jobs/1/pins", { pin: "plus", mark: "bridged", token: "closed-1" }],
    ["/jobs/1/alloy", { feed: "", share: "40", wire: "0.5", flux: "2" }],
    ["/jobs/1/heat", heat],
    ["/jobs/1/run/events", { kind: "undo", run: "1", step: "0", token: "closed-2" }],
    ["/jobs/1/run", {}],
  ];
  for (const [path, form] of attempts) {
    const answer = await request.post(path, { form, maxRedirects: 0 });
    const text = await answer.text();
    expect(`${path} ${answer.status()} ${text.includes("its record is closed")}`).toBe(`${path} 409 true`);
  }
  await page.goto("/jobs/1/handover");
  await page.getByLabel("Your name").fill("Wendolin Aas");
  await page.getByLabel("Why; it stays on record").fill("A screw was left over.");
  await page.getByRole("button", { name: "Reopen" }).click();
  await expect(page.locator(".job-log")).toContainText("by Wendolin Aas: A screw was left over.");
  expect((await request.post("/jobs/1/intake", { form: { field: "serial", value: "QT15-0418" } })).status()).toBe(200);
  await page.getByRole("button", { name: "Hand over" }).click();
  await expect(page.locator(".job-log li")).toHaveCount(3);
});

onDemo("what two tabs enter at the same moment is all kept, once", async ({ browser }) => {
  const shop = await emptyShop();
  const context = await browser.newContext({ baseURL: shop.address });
  const [one, other] = [await context.newPage(), await context.newPage()];
  await one.goto("/");
  await one.getByRole("button", { name: "New job" }).first().click();
  await other.goto(one.url());
  await context.setOffline(true);
  await one.locator("#customer").fill("Maud Ferrar");
  await other.locator("#serial").fill("BX-7");
  await expect(one.locator("#unsaved")).toContainText("No connection");
  await context.setOffline(false);
  await expect(one.locator("#note-customer")).toContainText("saved", { timeout: 10_000 });
  await expect(other.locator("#note-serial")).toContainText("saved", { timeout: 10_000 });
  await one.reload();
  await expect(one.locator("#customer")).toHaveValue("Maud Ferrar");
  await expect(one.locator("#serial")).toHaveValue("BX-7");
});

onDemo("parallel acts on one draft are all kept or refused in words", async ({ request }) => {
  const begun = await request.post("/boards/drafts", { form: { board: "" }, maxRedirects: 0 });
  const address = begun.headers().location;
  const set = (k) =>
    request.post(`${address}/edit`, {
      data: { token: `t${k}`, client: `c${k}`, on: 0, show: "", edit: { do: "set", of: "board", field: "name", value: `Name ${k}` } },
    });
  const answers = await Promise.all(Array.from({ length: 40 }, (_, k) => set(k)));
  const statuses = answers.map((answer) => answer.status());
  expect(statuses.filter((status) => status === 200)).toHaveLength(1);
  expect(statuses.filter((status) => status === 409)).toHaveLength(39);
  expect(await answers.find((answer) => answer.status() === 409).text()).toContain("Somebody else has changed this board");
  // Of one page, each on the state that it showed: all are kept.
  const own = (k) =>
    request.post(`${address}/edit`, {
      data: { token: `o${k}`, client: "mine", on: 1, show: "", edit: { do: "set", of: "board", field: "maker", value: `Maker ${k}` } },
    });
  const all = await Promise.all(Array.from({ length: 20 }, (_, k) => own(k)));
  expect(all.every((answer) => answer.status() === 200)).toBe(true);
  const page = await (await request.get(address)).text();
  expect(page).toContain('data-revision="21"');
});

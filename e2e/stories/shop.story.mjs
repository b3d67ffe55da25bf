// The counter: a job is taken in, promised and quoted, the quote accepted, its part waited for and received, scheduled, told from
// its look-alike, done, and comes again; a schedule with three people is changed by hand.
import { emptyShop, expect, expectAccessible, test } from "../harness.mjs";

test.use({ allowed: /status of 4(09|22)/ });

const places = (page) => page.getByRole("navigation", { name: "Places" });

/** Fills in a field of the intake and waits until the shop has it. */
async function typed(page, field, value) {
  await page.locator(`#${field}`).fill(value);
  await page.locator(`#${field}`).blur();
  await expect(page.locator(`#note-${field}`)).toContainText(/saved/i);
}

/** Adds an item to the stock; ends on its page. */
async function item(page, name) {
  await page.goto("/stock");
  const add = page.getByRole("form", { name: "Add an item" });
  await add.getByLabel("Name").fill(name);
  await add.getByRole("button", { name: "Add" }).click();
  await expect(page.getByRole("heading", { name })).toBeVisible();
}

async function move(page, [kind, quantity, day]) {
  const form = page.getByRole("form", { name: "A move" });
  await form.getByLabel("Quantity").fill(quantity);
  await form.getByLabel("What happened").selectOption(kind);
  if (day) await form.getByLabel("an order comes on").fill(day);
  await form.getByRole("button", { name: "Enter" }).click();
}

test.describe("an empty shop", () => {
  test.use({
    shop: async ({}, use) => use((await emptyShop("boards/quillon-tern-15.json")).address),
  });

  test("intake, promise, quote, part, schedule, done, and back under warranty", async ({ page }) => {
    await page.goto("/settings");
    await page.locator("#rate").fill("60");
    await page.locator("#currency").fill("EUR");
    await page.locator("#currency").blur();
    await expect(page.locator("#note")).toContainText(/saved/i);
    await page.goto("/");
    await places(page).getByRole("button", { name: "New job" }).click();
    await typed(page, "customer", "Mara Lund");
    await typed(page, "device", "Quay 4");
    const job = page.url().replace("/intake", "");

    await page.goto(`${job}/board`);
    await page.getByRole("button", { name: "Tern 15 power board" }).click();
    await expect(page.getByRole("heading", { name: "Tern 15 power board" })).toBeVisible();

    // What it takes and costs, and until when, before anything is opened.
    await page.getByRole("link", { name: "Quote", exact: true }).click();
    await expect(page.getByText("500 draws of the schedule")).toBeVisible();
    await expect(page.locator(".quote-page")).toContainText("Work, ");
    await expect(page.locator(".quote-page")).toContainText("a guess: there is no heat plan yet");
    await expectAccessible(page);
    await page.getByLabel("Deposit").fill("twenty");
    await page.getByRole("button", { name: "Make the quote" }).click();
    await expect(page.locator(".refused")).toContainText("“twenty” is no amount");
    await page.goBack();
    await page.getByLabel("Deposit").fill("20");
    await page.getByRole("button", { name: "Make the quote" }).click();
    await expect(page.getByRole("article", { name: "Quote 1" })).toContainText("Risk");
    await expectAccessible(page);
    await page.goto("/");
    await expect(page.getByText("waits for the customer's word on quote 1")).toBeVisible();
    await page.goto(`${job}/quote/1`);
    await page.getByRole("button", { name: "Accepted" }).click();
    await expect(page.locator(".quote-answer")).toContainText("accepted by Mara Lund");

    // Its part is not there, and comes.
    await item(page, "Port, top mount");
    await item(page, "Port, mid mount");
    await page.getByRole("form", { name: "Add a look-alike" }).getByLabel("What tells them apart").fill("pins on the upper edge");
    await page.getByRole("form", { name: "Add a look-alike" }).getByRole("button", { name: "Add" }).click();
    await expect(page.getByRole("form", { name: "Taken for Port, top mount" })).toBeVisible();
    await move(page, ["ordered", "1", "2031-05-06"]);
    await expect(page.locator(".stock-page")).toContainText("comes 6 May");
    await expectAccessible(page);
    const address = page.url();
    await page.goto(`${job}/parts`);
    const part = page.getByRole("form", { name: "Add a part" });
    await part.getByLabel("Item").selectOption({ label: "Port, mid mount (0 pc free)" });
    await part.getByRole("button", { name: "Add" }).click();
    await expect(page.locator(".parts .waits")).toContainText("on its way, expected 6 May");
    await page.goto("/");
    await expect(page.getByText("waits for Port, mid mount, expected 6 May")).toBeVisible();
    await page.goto(address);
    await move(page, ["received", "1"]);
    await page.goto("/");
    await expect(page.getByText("waits for Port")).toHaveCount(0);
    await page.goto(`${job}/parts`);
    await expect(page.locator(".parts .ready")).toContainText("lies ready for this job");
    await page.getByRole("button", { name: "It is the right one" }).click();
    await expect(page.getByRole("alert")).toContainText("measured is empty");
    await page.goBack();
    await page.getByLabel("measured", { exact: true }).fill("3.4 mm");
    await page.getByRole("button", { name: "It is the right one" }).click();
    await expect(page.locator(".told")).toContainText("Told, measured 3.4 mm.");

    // It is on the schedule; by keys it is put off, and set free again.
    await page.goto("/schedule");
    await expect(page.getByRole("heading", { level: 1 })).toContainText("in time");
    const first = page.locator(".task[data-job='1']").first();
    await first.focus();
    await page.keyboard.press("ArrowRight");
    await expect(page.getByRole("region", { name: "Put by hand" })).toContainText("not before");
    await page.keyboard.press("Delete");
    await expect(page.getByRole("region", { name: "Put by hand" })).toHaveCount(0);

    // Done: what was promised to it is used.
    for (const stop of ["opening", "look", "pins", "test", "close"]) {
      await page.goto(`${job}/${stop}`);
      await page.waitForLoadState("load");
      await page.keyboard.press("Escape");
      await expect(page.locator("main")).toContainText(/Skipped:/);
    }
    await page.goto(`${job}/handover`);
    await page.getByRole("button", { name: /^Hand over/ }).click();
    await expect(page.locator("main")).toContainText("Handed over");
    await page.goto(address);
    await expect(page.getByRole("row", { name: "used" })).toContainText("1 pc");
    await page.goto("/customers?q=mara");
    await expect(page.getByRole("region", { name: "Mara Lund" })).toContainText("under warranty until");
    await expectAccessible(page);
    // Reviewed: one job says little, and that is said.
    await page.goto("/review");
    await expect(page.locator(".review")).toContainText("from 1 job that was given back");
    await expect(page.locator(".review-all")).toContainText("1 of 1, 21 to 100 %, too few to say");
    await page.goto("/customers?q=mara");
    await page.getByRole("button", { name: "Comes again" }).click();
    await expect(page.locator("#earlier_work")).toHaveValue(/Job 1 here, comes again under warranty/);
  });
});

test("a task is dragged to somebody else, and everything moves round it", async ({ page }) => {
  await page.goto("/schedule");
  await expect(page.locator(".next-tasks li")).toHaveCount(3);
  const lane = (name) => page.locator(".bench-lanes .lane", { hasText: name }).boundingBox();
  const task = page.locator(".task.hands[data-task], .task.heat[data-task]").last();
  const from = await task.locator("rect").boundingBox();
  const [job, key] = [await task.getAttribute("data-job"), await task.getAttribute("data-task")];
  const to = await lane("Tilda Roe");
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width / 2 + 6, to.y + to.height / 2, { steps: 5 });
  await page.mouse.up();
  const pinned = page.getByRole("region", { name: "Put by hand" });
  await expect(pinned).toContainText(`job ${job}: to Tilda Roe`);
  await page.reload();
  await expect(page.locator(`.task.pinned[data-job="${job}"][data-task="${key}"]`)).toBeVisible();
  await expectAccessible(page);
  const day = await page.request.get("/schedule/3/calendar");
  expect(await day.text()).toContain("BEGIN:VCALENDAR");
  await pinned.getByRole("button").click();
  await expect(pinned).toHaveCount(0);
});

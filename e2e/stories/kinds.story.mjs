// Kinds of jobs: what each has of the line of stops, how its steps and its sheet read, and when it may be given back.
import { advance, begunJob, emptyShop, expect, expectAccessible, test } from "../harness.mjs";

const stops = (page) => page.locator("#job-head .stop-name").allTextContents();

/** A job of a kind on the first board, through its own addresses. */
async function jobOf(page, kind) {
  const answer = await page.request.post("/jobs", { maxRedirects: 0 });
  const at = answer.headers().location.replace("/intake", "");
  await page.request.post(`${at}/intake`, { form: { field: "kind", value: kind } });
  await page.request.post(`${at}/intake`, { form: { field: "device", value: `Merle for ${kind}` } });
  await page.request.post(`${at}/board`, { form: { board: "4" } });
  return at;
}

test("each kind of job has its own line of stops, chosen at the counter", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).click();
  await expect(page.getByLabel("Kind of job")).toHaveValue("replace");
  expect(await stops(page)).toHaveLength(12);
  await page.getByLabel("Kind of job").selectOption("look only");
  await expect.poll(() => stops(page)).toEqual(["Intake", "Opening", "Board", "Look", "Close", "Handover"]);
  await page.getByLabel("Kind of job").selectOption("put back");
  await expect.poll(async () => (await stops(page)).includes("Fit plan")).toBe(true);
  expect(await stops(page)).not.toContain("Method");
  // A donor has no customer: only its device is wanted.
  await page.getByLabel("Kind of job").selectOption("harvest");
  await expect.poll(async () => (await stops(page)).at(-1)).toBe("Into stock");
  await page.reload();
  await expect(page.getByLabel("Kind of job")).toHaveValue("harvest");
  await expect(page.locator(".wanted")).toHaveCount(1);
  await expectAccessible(page);
});

test("a part that was knocked off goes back by the plan of its fit alone", async ({ page }) => {
  test.setTimeout(180_000);
  const at = await jobOf(page, "put back");
  await page.goto(`${at}/fit`);
  await expect(page.locator(".verdict .over")).toHaveText("All joints liquid");
  await expect(page.getByRole("link", { name: "Removal", exact: true })).toHaveCount(0);
  await page.goto(`${at}/run`);
  await expect(page.locator(".run-ready")).not.toContainText("Plan the fit as well");
  await page.getByRole("button", { name: "Begin at the bench" }).click();
  const titles = page.locator(".beads li, .bead");
  await expect(page.locator("#step h1")).toHaveText("Make ready");
  const said = (await page.locator("#step").innerHTML()) + (await titles.allTextContents()).join(" ");
  for (const never of ["Lift", "Add alloy", "Wick while warm"]) expect(said).not.toContain(`>${never}<`);
  // Its heat is that of the fit, with its own times.
  for (let k = 0; k < 12 && (await page.locator("#step h1").textContent()) !== "Set"; k += 1) await advance(page);
  await expect(page.locator("#step h1")).toHaveText("Set");
  await expect(page.locator(".expect")).toContainText("stop at");
  await page.goto(`${at}/handover`);
  await expect(page.locator(".give-back")).toContainText("The pin walk is not sound yet.");
  await expect(page.locator(".sheet")).toContainText("Put back");
});

test("a donor is harvested into stock, and what is only looked at needs no heat", async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto("/jobs/12/heat");
  await expect(page.getByRole("link", { name: "Fit", exact: true })).toHaveCount(0);
  await expect(page.locator("#keep_intact")).toHaveCount(0);
  await page.goto("/jobs/12/handover");
  await expect(page.locator(".give-back")).toContainText("The bench run is not at its end yet.");
  const look = await jobOf(page, "look only");
  await page.goto(`${look}/handover`);
  await expect(page.locator(".give-back")).toContainText("Nothing has been looked at or measured yet.");
  await page.goto(`${look}/look`);
  const lands = await page.locator("[data-pin]").count();
  for (let land = 0; land < lands; land += 1) await page.keyboard.press("w");
  await expect(page.locator("#job-head")).toContainText("looked at");
  await page.goto(`${look}/handover`);
  await page.getByRole("button", { name: "Hand over" }).click();
  await expect(page.locator(".sheet")).toContainText("Looked at");
});

test("what only comes off is left bare, looked at and closed; a transfer goes on to the other board", async ({ page }) => {
  test.setTimeout(240_000);
  const shop = await emptyShop("stations/1-gull.json", "boards/quillon-tern-15.json");
  for (const [kind, last, wanted] of [
    ["remove only", "Look at the lands", "To the close"],
    ["transfer", "Test", "To the pin walk"],
  ]) {
    const at = await begunJob(shop.address, { kind });
    await page.goto(`${shop.address}${at}/run`);
    let seen = "";
    for (let k = 0; k < 60 && (await page.locator("#step").getAttribute("data-phase")) !== "done"; k += 1) {
      const title = await page.locator("#step h1").textContent();
      if (!seen.endsWith(title)) seen += ` > ${title}`;
      await advance(page);
    }
    expect(seen.endsWith(` > ${last}`), seen).toBe(true);
    expect(seen.includes(" > Fit"), seen).toBe(kind === "transfer");
    expect(seen.includes(" > The other board"), seen).toBe(kind === "transfer");
    await expect(page.locator(".go-on")).toContainText(wanted);
  }
});

test("every stop that does not apply is skipped by one key, and says so", async ({ page }) => {
  const at = await jobOf(page, "replace");
  const figure = (name) => page.getByRole("link", { name: new RegExp(`^${name} `) }).locator(".figure");
  for (const [stop, name] of [
    ["opening", "Opening"],
    ["look", "Look"],
    ["pins", "Inspect"],
    ["test", "Test"],
    ["close", "Close"],
  ]) {
    await page.goto(`${at}/${stop}`);
    await page.waitForLoadState("load");
    await page.keyboard.press("Escape");
    await expect(figure(name)).toHaveText("skipped");
    await expect(page.locator("main")).toContainText(/Skipped:/);
    await expectAccessible(page);
  }
  await page.goto(`${at}/handover`);
  await expect(page.locator(".sheet")).toContainText("not walked: skipped");
  // A stop that was skipped is taken up after all.
  await page.goto(`${at}/pins`);
  await page.getByRole("button", { name: "Walk the pins after all" }).click();
  await expect(figure("Inspect")).not.toHaveText("skipped");
});

// A device is opened by a map that is made while going: 24 screws of five kinds, one forgotten and added, one left over at the end.
import { readFileSync } from "node:fs";
import { emptyShop, expect, expectAccessible, test } from "../harness.mjs";

test.use({ allowed: /status of 4(22|09)/ });

const side = (page) => page.locator(".opening-side");
const title = (page) => page.locator(".opening-title");
const counts = (page, what) => page.locator(".opening-counts").getByRole("row", { name: what });

/** Taps places on a page of the map, as shares of it. */
async function tapMap(page, number, places) {
  const map = page.locator(`[data-page="${number}"]`);
  for (const [x, y] of places) {
    const before = await page.locator("[data-item]").count();
    const box = await map.boundingBox();
    await map.click({ position: { x: x * box.width, y: y * box.height } });
    await expect(page.locator("[data-item]")).toHaveCount(before + 1);
  }
}

async function screws(page, { head, length, thread, colour = "" }, places) {
  const form = page.getByRole("form", { name: "Add to the map" });
  await form.getByLabel("Head").selectOption(head);
  await form.getByLabel("length").fill(length);
  await form.getByLabel("thread").fill(thread);
  await form.getByLabel("Colour").fill(colour);
  await tapMap(page, 0, places);
}

const row = (y, count) => Array.from({ length: count }, (_, k) => [0.1 + (0.8 * k) / Math.max(1, count - 1), y]);

async function openedJob(page) {
  const shop = await emptyShop("boards/tullimar-brook.json");
  await page.goto(shop.address);
  await page.request.post(`${shop.address}/jobs`);
  await page.goto(`${shop.address}/jobs/1/opening`);
  await page.getByLabel("A new map of").fill("Merle 2 handheld");
  await page.getByRole("button", { name: "Begin it" }).click();
  await expect(title(page)).toHaveText("An empty map: add what you take out");
  // A tap on a map whose script has not come yet adds nothing.
  await page.waitForLoadState("load");
  return shop;
}

test("a map with 24 screws of five kinds is made while going, counted out, and one that is left over is named", async ({ page }) => {
  test.setTimeout(240_000);
  const began = Date.now();
  const shop = await openedJob(page);
  await expectAccessible(page);
  await page.getByLabel("tap to add").check();
  await screws(page, { head: "cross", length: "4", thread: "2" }, row(0.12, 8));
  await screws(page, { head: "cross", length: "6,5", thread: "2" }, row(0.3, 6));
  await screws(page, { head: "three-wing", length: "3", thread: "1.6" }, row(0.48, 4));
  await screws(page, { head: "hex", length: "10", thread: "3", colour: "black" }, row(0.66, 3));
  await screws(page, { head: "slot", length: "2", thread: "1.4" }, row(0.82, 2));
  await expect(side(page)).toContainText("Look-alikes of different length");
  await expect(counts(page, /^cross 4 mm/)).toContainText("0 of 8");
  await page.getByLabel("tap to add").uncheck();
  for (let k = 0; k < 23; k += 1) await page.keyboard.press("Space");
  await expect(title(page)).toHaveText("23 things are out");
  // One that was forgotten holds the plate: it is added on the spot, and comes out.
  await page.getByLabel("tap to add").check();
  await screws(page, { head: "slot", length: "2", thread: "1.4" }, [[0.5, 0.95]]);
  await page.getByLabel("tap to add").uncheck();
  await page.locator("[data-item]").last().click();
  await expect(counts(page, /^slot 2 mm/)).toContainText("3 of 3");
  expect(Date.now() - began, "ten minutes are wanted").toBeLessThan(600_000);
  // The same tap from another tab, and an undo, count once.
  const [job, id] = [`${shop.address}/jobs/1`, await page.locator("[data-item]").last().getAttribute("data-item")];
  await page.request.post(`${job}/opening`, { form: { list: "opening", name: id, value: "out", token: "other" } });
  await page.reload();
  await expect(title(page)).toHaveText("24 things are out");
  await page.keyboard.press("Backspace");
  await expect(title(page)).toHaveText(/^Next: slot screw 2 mm/);
  await page.keyboard.press("Space");
  // Back in the same way; one is left over.
  for (let k = 0; k < 23; k += 1) await page.keyboard.press("b");
  await expect(title(page)).toHaveText("One thing is out");
  await page.getByText("1 out, not back yet").click();
  await expect(side(page)).toContainText("cross screw 4 mm, thread 2 mm: outside");
  await expectAccessible(page);
  // Nothing is tested as closed while it is.
  await page.goto(`${job}/board`);
  await page.getByRole("button", { name: "Brook handheld main board" }).click();
  const tests = JSON.parse(readFileSync("../demo/boards/tullimar-brook.json", "utf8")).connector.tests;
  const closed = await page.request.post(`${job}/close`, { form: { list: "test-closed", name: tests[0], value: "works", token: "t" } });
  expect([closed.status(), (await closed.text()).includes("one thing is out and not back")]).toEqual([422, true]);
  await page.goto(`${job}/close`);
  await expect(title(page)).toHaveText("Back in: cross screw 4 mm, thread 2 mm, the last");
  await expect(side(page)).toContainText("Torque by feel: stop at resistance");
  await page.keyboard.press("Space");
  await expect(title(page)).toHaveText("All back in");
  await expect(page.locator("#job-head")).toContainText("all back");
});

test("the cell comes first: its cable before any other, and last of all back", async ({ page }) => {
  const shop = await openedJob(page);
  const form = page.getByRole("form", { name: "Add to the map" });
  await page.getByLabel("It is a").selectOption("hazard");
  await form.getByLabel("Hazard").selectOption("cell");
  await tapMap(page, 0, [[0.5, 0.6]]);
  await expect(side(page)).toContainText("no cable is said to be the cell's");
  await expect(side(page)).toContainText("Local codes and licensed practice come first");
  await page.getByLabel("It is a").selectOption("cable");
  await tapMap(page, 0, [[0.3, 0.3]]);
  await form.getByLabel("the cell's own").check();
  await tapMap(page, 0, [[0.6, 0.5]]);
  await expect(side(page)).toContainText("would be opened while the cell is connected");
  // The wrong order is refused at the bench too, and the entry stays to be dropped.
  await page.getByLabel("tap to add").uncheck();
  await page.locator("[data-item]").nth(1).click();
  await expect(page.locator("body")).toContainText("its cable is opened before any other");
  await page.getByRole("button", { name: "Drop" }).click();
  await page
    .locator("[data-item]")
    .nth(2)
    .click({ modifiers: ["Shift"] });
  await page.getByRole("button", { name: "One earlier" }).click();
  await expect(side(page)).not.toContainText("would be opened while");
  await page.keyboard.press("Space");
  await page.keyboard.press("Space");
  await expect(title(page)).toHaveText("2 things are out");
  await page.keyboard.press("b");
  await page.keyboard.press("b");
  await expect(title(page)).toHaveText("All back in");
  // What is no screw is refused in words, and the map goes into another shop as a file.
  const bad = { act: "add", page: "0", x: "0.5", y: "0.5", kind: "screw", head: "cross", length: "900", thread: "2", token: "x" };
  const answer = await page.request.post(`${shop.address}/jobs/1/opening/edits`, { form: bad });
  expect([answer.status(), (await answer.text()).includes("900")]).toEqual([422, true]);
  // Two tabs that change it at the same moment: both changes stay; one that is sent twice counts once.
  const edits = (form) => page.request.post(`${shop.address}/jobs/1/opening/edits`, { form });
  const clip = (token) => edits({ act: "add", page: "0", x: "0.2", y: "0.9", kind: "clip", token });
  await page.reload();
  const there = await page.locator("[data-item]").count();
  const both = await Promise.all(["one", "two", "three"].map(clip));
  expect(both.map((each) => each.status())).toEqual([200, 200, 200]);
  await page.reload();
  await expect(page.locator("[data-item]")).toHaveCount(there + 3);
  const last = await page.locator("[data-item]").last().getAttribute("data-item");
  for (const status of [200, 200]) expect((await edits({ act: "remove", item: last, token: "gone" })).status()).toBe(status);
  await page.reload();
  await expect(page.locator("[data-item]")).toHaveCount(there + 2);
  const file = await page.request.get(`${shop.address}/jobs/1/opening/file`);
  expect(JSON.parse(await file.text())).toMatchObject({ format: "urgent-mend/opening/1", device: "Merle 2 handheld" });
});

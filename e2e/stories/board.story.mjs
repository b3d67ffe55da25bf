// A board gets into the product in minutes: traced over its photograph, its port from the library, its components drawn, and
// the heat plan runs on it.
import { expect, expectAccessible, test } from "../harness.mjs";
import { addPhoto, clickPlaces, describe, draw, dragBetween, mapOnScreen, onScreen, pixel, saved, step } from "../trace.mjs";

test.use({ allowed: /status of 422|htmx:(afterRequest|sendAbort)|ERR_INTERNET_DISCONNECTED/ });

// Twelve things of the made-up board, mm: what, x, y, width, depth.
const COMPONENTS = [
  ["flex-latch", 20, 9.5, 12, 4.6],
  ["chip", 43, 18.5, 5, 5],
  ["chip", 43, 38, 14, 14],
  ["ceramic-chip", 36.2, 11.4, 1.6, 0.8],
  ["ceramic-chip", 49.8, 11.4, 1.6, 0.8],
  ["filter", 43, 11.8, 2, 1.2],
  ["electrolytic-can", 64, 12, 6.3, 6.3],
  ["coil", 54, 22, 6.6, 6.6],
  ["header", 70, 24, 9, 6],
  ["microphone", 30, 3, 3, 2],
  ["crystal", 30, 28, 3.2, 2.5],
  ["chip", 60, 40, 4, 3],
];
const RIM = [
  [0, 0],
  [86, 0],
  [86, 34],
  [78, 34],
  [78, 50],
  [8, 50],
  [8, 34],
  [0, 34],
];

test("a board is traced over a photograph, with a port of the library and twelve components, and the heat plan runs on it", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const address = await describe(page);
  await expectAccessible(page);
  await addPhoto(page, "photos/1-loom-top.jpg", "top");

  // Scale from two screw holes that a caliper says are 78 mm apart, then level by the near edge.
  await page.getByLabel("A known length").fill("78");
  await page.getByRole("button", { name: "Click its two ends" }).click();
  await clickPlaces(page, "top", [
    [4, 30],
    [82, 30],
  ]);
  await saved(page);
  await expect(page.locator(".trace-photo h3 .dim")).toContainText("0.054 mm a pixel");
  await page.getByRole("button", { name: "Level by an edge" }).click();
  await clickPlaces(page, "top", [
    [1, 0],
    [85, 0],
  ]);
  await saved(page);
  await expect.poll(async () => Number(await page.getByLabel("Turned left").inputValue())).toBeCloseTo(1.6, 1);

  // The rim, corner by corner; the first corner again closes it.
  await step(page, "Outline");
  await page.getByRole("button", { name: "Click the corners" }).click();
  await clickPlaces(page, "top", [...RIM, RIM[0]]);
  await saved(page);
  await expect.poll(async () => Number(await page.getByLabel("Width", { exact: true }).inputValue())).toBeCloseTo(86, 0);
  await expect(page.locator(".trace-steps")).toContainText(/8[56] x (49|50|51) mm/);

  // The port of the library, dragged to where the photograph shows it.
  await step(page, "Part");
  await page.getByRole("button", { name: /USB-C port, top mount/ }).click();
  await expect(page.getByText("28 joints, 12 hidden")).toBeVisible();
  const part = page.locator(".trace-map .part .body");
  const middle = async () => {
    const box = await part.boundingBox();
    return [box.x + box.width / 2, box.y + box.height / 2];
  };
  const wanted = await onScreen(page, "top", pixel("top", [43, 3.4]));
  await dragBetween(page, await middle(), wanted);
  await saved(page);
  const [x, y] = await middle();
  expect(Math.hypot(x - wanted[0], y - wanted[1])).toBeLessThan(2);

  // Twelve components; the can is round.
  await step(page, "Components");
  for (const [what, ...body] of COMPONENTS) {
    await step(page, "Components");
    await page.getByLabel("What it is").selectOption(what);
    await page.getByRole("button", { name: what === "electrolytic-can" ? "Draw circles" : "Draw rectangles" }).click();
    await draw(page, "top", body);
    await page.keyboard.press("Escape");
  }
  await expect(page.locator(".trace-map .component")).toHaveCount(12);
  await expect(page.locator(".trace-map .component ellipse")).toHaveCount(1);
  for (const name of ["Outline", "Part", "Components", "Save"]) {
    await step(page, name);
    await expect(page.locator(".trace-steps .here")).toContainText(name);
    await expectAccessible(page);
  }

  // A corner of the rim is dragged, and goes back.
  await step(page, "Outline");
  const corner = page.locator(".trace-map .corner").first();
  const box = await corner.boundingBox();
  const rim = () => page.locator(".trace-map .rim").getAttribute("points");
  const before = await rim();
  await dragBetween(page, [box.x + box.width / 2, box.y + box.height / 2], [box.x + 30, box.y - 20]);
  await saved(page);
  expect(await rim()).not.toBe(before);
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page);
  expect(await rim()).toBe(before);

  // What was seen of its copper goes into the band.
  await step(page, "Copper");
  await page.getByLabel("Thickness, by caliper").fill("1.0");
  await page.getByLabel("Thickness, by caliper").press("Enter");
  await saved(page);
  await page.getByLabel("Lamp behind it").selectOption("nowhere");
  await saved(page);
  const wide = await page.locator(".trace-odds-text").textContent();
  await page.getByLabel("Copper lines at the rim").fill("8");
  await page.getByLabel("Copper lines at the rim").press("Enter");
  await saved(page);
  await expect(page.locator(".odds")).toContainText("8 layers");
  const spread = (text) => Number(text.match(/spread (\d\.\d+)/)[1]);
  expect(spread(await page.locator(".trace-odds-text").textContent())).toBeLessThan(spread(wide));
  await expectAccessible(page);

  // A reload loses nothing.
  await page.goto(address);
  await expect(page.locator(".trace-map .component")).toHaveCount(12);

  await step(page, "Save");
  await expect(page.locator("[role=alert]")).toContainText("the board has no name yet");
  await page.getByLabel("Name", { exact: true }).first().fill("Traced Loom");
  await page.getByLabel("Name", { exact: true }).first().press("Enter");
  await saved(page);
  await page.getByRole("button", { name: "Save to the library" }).click();
  await expect(page.getByRole("heading", { name: "Traced Loom" })).toBeVisible();
  await expect(page.locator(".faces image.photo").first()).toBeVisible();
  await expect(page.getByText("charges with the plug either way up")).toBeVisible();

  // And the plan runs on it.
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).click();
  await page.goto(page.url().replace("/intake", "/board"));
  await page.getByRole("button", { name: "Traced Loom" }).click();
  await expect(page.getByRole("heading", { name: "Traced Loom" })).toBeVisible();
  await page.goto(page.url().replace("/board", "/heat"));
  await expect(page.locator(".margin-strip")).toBeVisible();
  await expect(page.locator(".verdict .window-word")).toContainText("Window");
  await expect(page.locator(".margin-strip")).toContainText("electrolytic can 1");
});

test("things are moved by pointer, keys and numbers, and every act is taken back and done again", async ({ page }) => {
  await describe(page);
  await step(page, "Outline");
  await page.getByLabel("Width", { exact: true }).fill("80");
  await page.getByLabel("Width", { exact: true }).press("Enter");
  await saved(page);
  await page.getByLabel("Depth", { exact: true }).fill("50");
  await page.getByLabel("Depth", { exact: true }).press("Enter");
  await saved(page);
  await step(page, "Components");
  await page.getByLabel("What it is").selectOption("chip");
  await page.getByRole("button", { name: "Draw rectangles" }).click();
  await dragBetween(page, await mapOnScreen(page, [22, 30]), await mapOnScreen(page, [32, 24]));
  await saved(page);
  await page.keyboard.press("Escape");
  const field = (name) => page.getByLabel(name, { exact: true });
  await page.locator(".trace-map .component").click();
  await expect(field("Width")).toBeVisible();
  expect(Number(await field("Width").inputValue())).toBeCloseTo(10, 0);

  // Typed, then nudged by a tenth and by one, then sized by keys.
  await field("Middle, x").fill("25");
  await field("Middle, x").press("Enter");
  await saved(page);
  await page.locator(".trace-map .component").focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect(field("Middle, x")).toHaveValue("25.2");
  await page.keyboard.press("Shift+ArrowLeft");
  await expect(field("Middle, x")).toHaveValue("24.2");
  const width = Number(await field("Width").inputValue());
  await page.keyboard.press("Alt+Shift+ArrowRight");
  await expect.poll(async () => Number(await field("Width").inputValue())).toBeCloseTo(width + 1, 2);

  // Nothing is asked of the shop while the pointer moves; once when it is let go.
  const requests = [];
  page.on("request", (request) => requests.push(request.method()));
  const body = await page.locator(".trace-map .component .body").boundingBox();
  const from = [body.x + body.width / 2, body.y + body.height / 2];
  await page.mouse.move(...from);
  await page.mouse.down();
  for (let k = 1; k <= 40; k += 1) await page.mouse.move(from[0] + k, from[1] - k / 2);
  expect(requests).toEqual([]);
  await page.mouse.up();
  await saved(page);
  expect(requests.filter((method) => method === "POST")).toHaveLength(1);
  const moved = await field("Middle, x").inputValue();
  expect(Number(moved)).toBeGreaterThan(25);

  // Nearer and all of it again: a thing keeps its place on the board, and the view its place over an act.
  await page.getByRole("button", { name: "Nearer" }).click();
  const near = await page.locator("#trace-map").getAttribute("viewBox");
  await field("Height").fill("1.1");
  await field("Height").press("Enter");
  await saved(page);
  expect(await page.locator("#trace-map").getAttribute("viewBox")).toBe(near);
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page);
  await page.getByRole("button", { name: "All", exact: true }).click();

  // All of it back, and forward again; what is done again after a reload as well.
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(field("Middle, x")).toHaveValue("24.2");
  for (let k = 0; k < 4; k += 1) {
    await page.keyboard.press("Control+z");
    await saved(page);
  }
  await expect(field("Middle, x")).not.toHaveValue("25");
  await page.reload();
  for (let k = 0; k < 5; k += 1) {
    await expect(page.getByRole("button", { name: "Redo" })).toBeEnabled();
    await page.getByRole("button", { name: "Redo" }).click();
    await saved(page);
  }
  await expect(field("Middle, x")).toHaveValue(moved);
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(field("Height")).toHaveValue("1.1");
  await expect(page.getByRole("button", { name: "Redo" })).toBeDisabled();
  await page.locator(".trace-map .component").focus();
  await page.keyboard.press("d");
  await expect(page.locator(".trace-map .component")).toHaveCount(2);
  await page.keyboard.press("Delete");
  await expect(page.locator(".trace-map .component")).toHaveCount(1);
});

test("the far face is lined up by three places, and a photograph that was not mirrored says so", async ({ page }) => {
  await describe(page);
  await addPhoto(page, "photos/1-loom-top.jpg", "top");
  await page.getByRole("button", { name: "Mark three places" }).click();
  const holes = [
    [4, 30],
    [82, 30],
    [12, 46],
  ];
  await clickPlaces(page, "top", holes);
  await expect(page.locator(".trace-map .mark")).toHaveCount(3);
  await addPhoto(page, "photos/2-loom-bottom.jpg", "bottom");
  await page.getByRole("button", { name: /Bottom/ }).click();

  // Not mirrored: the three places can not fit.
  const far = page.locator(".trace-photo", { hasText: "The bottom face" });
  await far.getByRole("button", { name: "Mirror" }).click();
  await saved(page);
  await far.getByRole("button", { name: "line up" }).click();
  await clickPlaces(page, "bottom", holes);
  await expect(page.locator(".trace-panel [role=alert]")).toContainText("mirror it");
  await far.getByRole("button", { name: "Mirror" }).click();
  await saved(page);
  await far.getByRole("button", { name: "line up" }).click();
  await clickPlaces(page, "bottom", holes);
  await saved(page);
  await expect(page.locator(".trace-panel [role=alert]")).toHaveCount(0);
  await expect(far.locator("h3")).toContainText(/lined up to 0(\.\d+)? mm/);
  const marks = page.locator(".trace-map .mark");
  for (const [k, hole] of holes.entries()) {
    const shown = await onScreen(page, "bottom", pixel("bottom", hole));
    const box = await marks.nth(k).locator("path").boundingBox();
    expect(Math.hypot(box.x + box.width / 2 - shown[0], box.y + box.height / 2 - shown[1])).toBeLessThan(4);
  }
});

test("what can't be is refused beside what was typed, and a lost network loses no act", async ({ page, context }) => {
  await page.goto("/boards/6");
  await page.getByRole("button", { name: "Edit" }).click();
  await step(page, "Components");
  await page.getByRole("button", { name: /C41/ }).first().click();
  const height = page.getByLabel("Height", { exact: true });
  await height.fill("tall");
  await height.press("Enter");
  await expect(page.locator(".trace-panel [role=alert]")).toContainText("height “tall” is no number");
  await expect(height).toHaveValue("tall");
  await height.fill("0.9");
  await height.press("Enter");
  await expect(page.locator(".trace-panel [role=alert]")).toHaveCount(0);

  await context.setOffline(true);
  await page.locator(".trace-map .thing.chosen").focus();
  await page.keyboard.press("Shift+ArrowRight");
  await expect(page.locator("#unsaved")).toContainText("1 entry is kept here");
  await expect(page.locator("#trace-saved")).toHaveText("Not saved yet");
  await context.setOffline(false);
  await saved(page);
  await expect(page.getByLabel("Middle, x")).toHaveValue("37.2");

  // Kept as the second version; the job that has the first is told.
  await step(page, "Save");
  await page.getByRole("button", { name: "Save as revision 2" }).click();
  await expect(page.locator(".versions")).toContainText("Revision 2");
  await page.getByRole("link", { name: "Compare" }).click();
  await expect(page.locator(".differences")).toContainText("C41");
  await expect(page.locator(".differences")).toContainText("by 1 mm right");
  await expectAccessible(page);
});

test("the panel that was asked for last is shown, whichever answer comes last", async ({ page }) => {
  await page.goto("/boards/6");
  await page.getByRole("button", { name: "Edit" }).click();
  /** Holds the answers of an address back until they are let go. */
  const held = async (address) => {
    let letGo;
    const waits = new Promise((done) => (letGo = done));
    await page.route(address, async (route) => {
      const answer = await route.fetch();
      await waits;
      await route.fulfill({ response: answer });
    });
    return async () => {
      const arrived = page.waitForResponse(address);
      letGo();
      await (await arrived).finished();
      await page.unroute(address);
    };
  };
  const height = page.getByLabel("Height", { exact: true });
  const listed = await held("**/live?show=components");
  await step(page, "Components");
  await page.getByRole("button", { name: /C41/ }).first().click();
  await expect(height).toBeVisible();
  await listed();
  await expect(height).toBeVisible();
  // An answer to what was done does not lead back either.
  const kept = await held("**/edit");
  await height.fill("0.9");
  await height.press("Enter");
  await step(page, "Copper");
  await expect(page.getByRole("heading", { name: "Copper", exact: true })).toBeVisible();
  await kept();
  await saved(page);
  await expect(page.getByRole("heading", { name: "Copper", exact: true })).toBeVisible();
});

test("a thing that is pressed before the page's script has come is chosen when it is there", async ({ page }) => {
  await page.goto("/boards/6");
  let letGo;
  const waits = new Promise((done) => (letGo = done));
  await page.route("**/trace-map.js", async (route) => {
    await waits;
    await route.continue();
  });
  await page.getByRole("button", { name: "Edit" }).click({ noWaitAfter: true });
  await page.getByRole("button", { name: /^C41, ceramic/ }).click();
  letGo();
  await expect(page.getByLabel("Height", { exact: true })).toBeVisible();
  await expect(page.locator(".trace-map .thing.chosen")).toHaveAttribute("aria-label", /^C41/);
});

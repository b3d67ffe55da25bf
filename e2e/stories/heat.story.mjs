// The heat plan's whole toolbox: a plan that fails and says why, a shield and heat from below that open the window, the
// replay of it, and long runs that tell how far they are and can be called off.
import { readFileSync } from "node:fs";
import { expect, expectAccessible, test } from "../harness.mjs";

// What is refused in words is a 422 in the console; what is asked for and replaced before it came, htmx calls an abort.
test.use({ allowed: /status of 422|Error Code 422|htmx:(afterRequest|sendAbort)/ });

const word = (page) => page.locator(".verdict .window-word");
const settled = (page) => expect(page.locator("#plan .plan-tabs")).toBeVisible();
/** Presses Apply and waits for its answer first: until that comes, the page still shows the plan before and its button. */
async function applied(page) {
  const answered = page.waitForResponse((answer) => answer.url().endsWith("/heat/edit"));
  await page.getByRole("button", { name: "Apply" }).click();
  await answered;
  await expect(page.locator("#heat-page .htmx-request, #heat-page .progress")).toHaveCount(0);
  await settled(page);
}
const played = (page) => expect(page.locator("#replay")).toHaveAttribute("data-ready", "yes");

/** A new job on the laptop jack's board, heated so that it fails: the wide nozzle from above, hot and near. */
async function failing(page) {
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).click();
  await page.goto(page.url().replace("/intake", "/board"));
  await page.getByRole("button", { name: "Tern 15 power board" }).click();
  await expect(page.getByRole("heading", { name: "Tern 15 power board" })).toBeVisible();
  await page.goto(page.url().replace("/board", "/heat"));
  await settled(page);
  await page.getByLabel("top", { exact: true }).check();
  for (const [field, value] of [
    ["distance", "15"],
    ["set", "440"],
    ["flow", "90"],
  ])
    await page.locator(`#${field}`).fill(value);
  await expect(word(page)).toContainText("Window closed");
}

test("a plan that fails says why; a shield and heat from below open the window", async ({ page }) => {
  await failing(page);
  await expect(page.locator(".binds")).toContainText(/Joint plus melts last, after about \d+ s; .+ passes its limit \d+ s earlier/);
  await expect(page.locator(".better")).toContainText("Better:");
  await settled(page);

  // A shield over what is tightest, by one press; then moved and sized by keys, then dragged.
  await page.getByRole("button", { name: "+ Foil tent" }).click();
  const shield = page.locator("[data-place] [data-shield]");
  await expect(shield).toHaveCount(1);
  await settled(page);
  const x = page.locator("#shield-0-x");
  const width = page.locator("#shield-0-width");
  const [startX, startWidth] = [Number(await x.inputValue()), Number(await width.inputValue())];
  await shield.focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Shift+ArrowRight");
  await expect(x).toHaveValue(String(Math.round((startX + 0.5) * 10) / 10));
  await expect(width).toHaveValue(String(Math.round((startWidth + 1) * 10) / 10));
  await settled(page);
  await shield.scrollIntoViewIfNeeded();
  const box = await shield.locator("rect").boundingBox();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 6, { steps: 2 });
  // A new plan comes while it is dragged: the map under the hand is another one, the shield is the same.
  await page.locator("#plan").evaluate((plan) => plan.replaceWith(plan.cloneNode(true)));
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 12, { steps: 2 });
  await page.mouse.up();
  await expect(x).toHaveValue(String(Math.round((startX + 0.5) * 10) / 10));
  await expect(page.locator("#shield-0-y")).not.toHaveValue("");
  await settled(page);
  await page.getByRole("button", { name: "Remove shield 1" }).click();
  await expect(shield).toHaveCount(0);

  // From below, with the wide nozzle, on a stand: a hand's distance and aim are guesses.
  await page.getByLabel("bottom", { exact: true }).check();
  await page.getByLabel("Nozzle held").selectOption("stand");
  await page.locator("#nozzle").selectOption("22");
  await page.locator("#distance").fill("25");
  await page.locator("#set").fill("450");
  await page.locator("#flow").fill("100");
  await expect(word(page)).not.toContainText("closed");
  await settled(page);
  const opened = async () => (await word(page).textContent()).includes("open");
  for (let more = 0; more < 4 && !(await opened()); more += 1) await applied(page);
  await expect(word(page)).toContainText("Window open");

  // A digit opens a part of the plan; each has its own address.
  await page.locator("body").press("2");
  await expect(page).toHaveURL(/view=window/);
  const map = page.locator(".window-map");
  await expect(map).toBeVisible();
  await expect(map).toHaveAttribute("aria-label", /: [1-9]\d* of 1025 settings work; this one works/);
  expect(await map.locator(".contour").count()).toBeGreaterThan(0);
  expect(await map.locator(".check").count()).toBeGreaterThan(0);
  await expectAccessible(page);
});

test("a press counts though a field was changed a moment before and the shop is slow", async ({ page }) => {
  await failing(page);
  await settled(page);
  await page.getByRole("button", { name: "+ Foil tent" }).click();
  await expect(page.locator("[data-shield-row]")).toHaveCount(1);
  await settled(page);
  await page.route("**/heat/edit", async (route) => {
    await new Promise((done) => setTimeout(done, 700));
    await route.continue();
  });
  await page.locator("#set").fill("435");
  await page.getByRole("button", { name: "Remove shield 1" }).click();
  await expect(page.locator("[data-shield-row]")).toHaveCount(0);
  await page.reload();
  await expect(page.locator("[data-shield-row]")).toHaveCount(0);
  await expect(page.locator("#set")).toHaveValue("435");
  await expect(page.locator("#settings")).not.toHaveAttribute("inert");
});

test("a change that reaches a busy shop late does not undo the press that came after it", async ({ page }) => {
  await page.goto("/jobs/6/heat");
  await settled(page);
  // The shop hears of the change a second late, also where the browser has given it up meanwhile.
  await page.route("**/jobs/6/heat", async (route) => {
    if (route.request().method() !== "POST") return route.continue();
    await new Promise((done) => setTimeout(done, 1000));
    const response = await route.fetch();
    await route.fulfill({ response }).catch(() => {});
  });
  await page.locator("#longest").fill("100");
  await page.getByRole("button", { name: "+ Iron" }).click();
  await expect(page.locator("#iron-row")).toBeVisible();
  await page.waitForTimeout(1500);
  await page.reload();
  await expect(page.locator("#iron-row")).toBeVisible();
  await expect(page.locator("#longest")).toHaveValue("100");
});

test("the replay plays both faces, names what is tightest and watches a place", async ({ page }) => {
  const frames = page.waitForResponse(/heat\/replay\/frames/);
  await page.goto("/jobs/6/heat?view=replay");
  await played(page);
  const sizes = await (await frames).request().sizes();
  expect(sizes.responseBodySize).toBeLessThan(1_000_000);
  expect(sizes.responseBodySize).toBeGreaterThan(1000);

  const clock = page.locator("[data-clock]");
  await page.locator("#replay-time").fill("0");
  await expect(clock).toHaveText("0 s");
  await expect(page.locator("[data-tightest]")).toContainText(/Tightest: .+ below its limit · 0 of 5 joints molten/);
  await page.locator("#replay-speed").selectOption("30");
  await page.getByRole("button", { name: "Play" }).click();
  await expect(page.locator("[data-tightest]")).toContainText("5 of 5 joints molten · all off");
  await expect(page.getByRole("button", { name: "Play" })).toBeVisible();
  await expect(page.locator("#replay .joint.molten").first()).toBeVisible();

  // The canvas is painted, not empty.
  const shades = await page.locator("canvas[data-field=bottom]").evaluate((canvas) => {
    const { data } = canvas.getContext("2d").getImageData(0, 0, canvas.width, canvas.height);
    const seen = new Set();
    for (let k = 0; k < data.length; k += 400) seen.add(data.slice(k, k + 4).join());
    return seen.size;
  });
  expect(shades).toBeGreaterThan(4);

  await page.locator("#replay [data-face=bottom]").click({ position: { x: 200, y: 80 } });
  await expect(page.locator(".curves .watch text")).toContainText(/bottom \(.+\) mm/);
  await page.locator(".curves").scrollIntoViewIfNeeded();
  const chart = await page.locator(".curves").boundingBox();
  await page.mouse.click(chart.x + chart.width * 0.058, chart.y + 40);
  await expect(clock).toHaveText("0 s");
});

test("charts are saved as SVG and PNG, curves as CSV", async ({ page }) => {
  await page.goto("/jobs/6/heat");
  await settled(page);
  const save = async (name) => {
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name }).click();
    return readFileSync(await (await download).path());
  };
  const svg = (await save("Save margin strip as SVG")).toString();
  expect(svg).toContain("<svg");
  expect(svg).not.toContain('class="band" fill=""');
  expect(svg).toMatch(/<rect[^>]+fill="rgb\(/);
  for (const [view, chart] of [
    ["margins", "bottom face"],
    ["window", "process window"],
    ["replay", "time curves"],
  ]) {
    await page.goto(`/jobs/6/heat?view=${view}`);
    const png = await save(`Save ${chart} as PNG`);
    expect(png.subarray(1, 4).toString()).toBe("PNG");
    expect(png.length).toBeGreaterThan(10_000);
  }
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Curves as CSV" }).click();
  const lines = readFileSync(await (await download).path(), "utf8")
    .trim()
    .split("\r\n");
  expect(lines[0]).toMatch(/^"time \(s\)",.*"laminate hottest \(°C\)"$/);
  expect(lines.length).toBeGreaterThan(30);
  expect(
    lines[1]
      .split(",")
      .slice(1)
      .every((t) => Number(t) === 23),
  ).toBe(true);
});

test("stages, a preheater and an iron are added, kept, and become steps at the bench", async ({ page }) => {
  await page.goto("/jobs/6/heat");
  await page.getByRole("button", { name: "+ Soak from below" }).click();
  await expect(page.locator("#stage-0-lasts")).toHaveValue("45");
  await page.locator("#stage-0-lasts").fill("30");
  await page.getByRole("button", { name: "+ Iron" }).click();
  await expect(page.locator("#iron-row")).toBeVisible();
  await settled(page);
  await expect(page.locator(".margin-strip .stage-mark").first()).toBeVisible();
  await page.reload();
  await expect(page.locator("#stage-0-lasts")).toHaveValue("30");
  await expect(page.locator("#iron-row")).toBeVisible();
  await settled(page);
  await page.locator("#stage-0-lasts").fill("9999");
  await expect(page.locator("#plan")).toContainText("9999 s can't be");
  await page.locator("#stage-0-lasts").fill("20");
  await settled(page);
  await page.getByRole("button", { name: "Remove stage 1" }).click();
  await expect(page.locator("#stage-0-lasts")).toHaveCount(0);
  await page.getByRole("button", { name: "✕ Iron" }).click();
  await expect(page.locator("#iron-row")).toHaveCount(0);
});

test("a shield over a joint is refused with its reason", async ({ page }) => {
  await page.goto("/jobs/6/heat");
  await page.getByRole("button", { name: "+ Alu tape" }).click();
  await expect(page.locator("#shield-0-x")).toBeVisible();
  // What is new listens to its fields once htmx has settled it, 20 ms after it came: no hand types sooner.
  await expect(page.locator(".htmx-added, .htmx-settling")).toHaveCount(0);
  await settled(page);
  const body = await page.locator("[data-place] [data-face=top] .joint").first().getAttribute("data-name");
  const joint = await page
    .locator("[data-place] [data-face=top] .joint rect")
    .first()
    .evaluate((rect) => {
      const box = rect.getBBox();
      return [box.x + box.width / 2, -(box.y + box.height / 2)];
    });
  await page.locator("#shield-0-x").fill(String(joint[0]));
  await page.locator("#shield-0-y").fill(String(joint[1]));
  await expect(page.locator("#plan")).toContainText(`lies over ${body.split(":")[0]}`);
  await expect(page.locator("#plan")).toContainText("a covered joint will not melt");
  await page.getByRole("button", { name: "Remove shield 1" }).click();
  await settled(page);
});

test("long runs tell how far they are, can be called off, and two of them block no page", async ({ browser, page, baseURL }) => {
  const other = await (await browser.newContext({ baseURL })).newPage();
  const long = async (who, job) => {
    await who.goto(`/jobs/${job}/heat`);
    for (let stage = 0; stage < 4; stage += 1) {
      await who.getByRole("button", { name: "+ Pause" }).click();
      await expect(who.locator(`#stage-${stage}-lasts`)).toBeVisible();
    }
    for (let stage = 0; stage < 4; stage += 1) await who.locator(`#stage-${stage}-lasts`).fill("600");
    await who.locator("#longest").fill("600");
    await expect(who.locator("#plan .progress")).toBeVisible();
  };
  await Promise.all([long(page, 6), long(other, 9)]);
  // A third visitor reads pages while both still compute.
  const third = await (await browser.newContext({ baseURL })).newPage();
  await third.goto("/");
  await expect(third.locator(".queue")).toBeVisible();
  await third.goto("/boards");
  await expect(third.locator(".tiles")).toBeVisible();
  await expect(page.locator("#plan .progress")).toBeVisible();

  await page.getByRole("button", { name: "Cancel" }).click();
  await expect(page.locator("#plan")).toContainText("The plan was cancelled");
  // Which part was looked at outlives calling it off.
  await expect(page.locator('#plan button[hx-post*="view=margins"]')).toBeVisible();
  await page.reload();
  await expect(page.locator("#stage-3-lasts")).toHaveValue("600");
  await other.getByRole("button", { name: "Cancel" }).click();
  for (const who of [page, other]) {
    for (let stage = 0; stage < 4; stage += 1) {
      await who.getByRole("button", { name: "Remove stage 1" }).click();
      await expect(who.locator(".one-row legend")).toHaveCount(3 - stage);
    }
    await who.locator("#longest").fill("240");
    await settled(who);
  }
  await other.context().close();
  await third.context().close();
});

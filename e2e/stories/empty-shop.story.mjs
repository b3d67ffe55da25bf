// A shop begins with an empty folder and gets to a mended port through its pages alone.
import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { command, emptyShop, expect, expectAccessible, runToTheEnd, start, test } from "../harness.mjs";
import { saved, step } from "../trace.mjs";

test.use({ allowed: /status of (422|409)|htmx:/ });

async function field(page, label, value) {
  await page.getByLabel(label, { exact: true }).fill(value);
  await page.getByLabel(label, { exact: true }).press("Tab");
  await saved(page);
}

async function addStation(page) {
  await page.getByRole("link", { name: "Begin" }).click();
  await expect(page.getByText("No station yet.")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Bench station with a pump" }).click();
  await page.getByLabel("Name").fill("Puffin");
  await page.getByLabel("Most flow").fill("60");
  await page.getByLabel("a row a line").fill("10 5\n100 60");
  await page.getByLabel("a row a line").press("Tab");
  await expect(page.locator("#note")).toContainText("saved");
  await page.getByLabel("Nozzles").fill("20, wide");
  await page.getByLabel("Nozzles").press("Tab");
  await expect(page.locator("#note")).toContainText("“wide” is no number");
  await expect(page.getByLabel("Nozzles")).toHaveValue("20, wide");
  await page.getByLabel("Nozzles").fill("20, 10, 8");
  await page.getByLabel("Nozzles").press("Tab");
  await expect(page.locator("#note")).toContainText("saved");
  await expectAccessible(page);
  await page.reload();
  await expect(page.getByLabel("Name")).toHaveValue("Puffin");
  await expect(page.getByLabel("Nozzles")).toHaveValue("20, 10, 8");
}

async function setUp(page) {
  await page.goto("/");
  await page.getByRole("link", { name: "Begin" }).click();
  await page.getByLabel("Preheater").check();
  await expect(page.locator("#note")).toContainText("saved");
  await expectAccessible(page);
  await page.getByRole("link", { name: "Shop settings" }).click();
  await page.getByLabel("Name of the shop").fill("Quayside counter");
  await page.getByLabel("Terms that every new job begins with").fill("Diagnosis 15.00.");
  await page.getByLabel("Terms that every new job begins with").press("Tab");
  await expect(page.locator("#note")).toContainText("saved");
  await expectAccessible(page);
}

async function describeBoard(page) {
  await page.goto("/");
  await page.getByRole("link", { name: "Begin" }).click();
  await expect(page.getByText("No boards yet.")).toBeVisible();
  await page.getByRole("button", { name: "Draw a board" }).click();
  await step(page, "Outline");
  await field(page, "Width", "60");
  await field(page, "Depth", "40");
  await step(page, "Part");
  await page
    .getByRole("button", { name: /power jack/i })
    .first()
    .click();
  await step(page, "Save");
  await page.locator("#board-name").fill("Merle charging board");
  await page.locator("#board-name").press("Tab");
  await saved(page);
  await page.getByRole("button", { name: "Save to the library" }).click();
  await expect(page.getByRole("heading", { name: "Merle charging board" })).toBeVisible();
}

async function takeIn(page) {
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).first().click();
  const typed = [
    [/^Customer •/, "Osk Lindvall"],
    [/^Device and model/, "Merle speaker"],
    [/^Symptom/, "Does not charge."],
    [/^Power-on test/, "Silent."],
    [/^Signs of earlier work/, "None."],
    [/^Customer's own parts inside/, "None."],
    [/^Price agreed/, "40"],
  ];
  await expect(page.getByLabel("Agreed terms")).toHaveValue("Diagnosis 15.00.");
  for (const [label, value] of typed) await page.getByLabel(label).fill(value);
  await page.getByLabel("How it broke").selectOption("wear");
  await page.getByLabel("Risk explained").check();
  await page.getByLabel("Due").fill("2031-05-02");
  await expect(page.getByRole("link", { name: "Intake" })).toContainText("40.00");
}

async function plan(page) {
  await page.getByRole("link", { name: "To the board" }).click();
  await page.getByRole("button", { name: "Merle charging board" }).click();
  await page.getByRole("link", { name: "Choose the alloy" }).click();
  await page.getByRole("link", { name: "Plan the heat" }).click();
  await expect(page.locator(".verdict .huge")).toBeVisible();
  await expect(page.locator("#station, [name=station]").first()).toHaveValue("Puffin");
}

async function runAndWalk(page) {
  await page.getByRole("link", { name: "To the bench run" }).click();
  await page.getByRole("button", { name: "Begin at the bench" }).click();
  await expect(page.locator("#step")).toBeVisible();
  await runToTheEnd(page);
  await page.waitForURL(/\/pins$/);
  const pins = await page.locator("[data-pin]").count();
  for (let pin = 0; pin < pins; pin += 1) await page.keyboard.press("f");
  await expect(page.locator(".pin-verdict h2")).toHaveText("Every pin is firm");
  await page.getByRole("link", { name: "To the test" }).click();
  await page.getByRole("button", { name: "Skip the test" }).click();
  await page.getByRole("link", { name: "To the handover" }).click();
  await expect(page.locator(".sheet")).toContainText("skipped");
  await expect(page.locator(".sheet")).toContainText("Quayside counter");
  await page.getByRole("button", { name: "Hand over" }).click();
  await expect(page.getByText("Handed over. The record is closed.")).toBeVisible();
}

test("from an empty folder to a mended port, through the pages alone", async ({ browser }, info) => {
  test.setTimeout(180_000);
  const shop = await emptyShop();
  const page = await browser.newPage({ baseURL: shop.address, viewport: { width: 1280, height: 800 } });
  await page.goto("/");
  await expect(page.getByText("Four things, then the first port")).toBeVisible();
  await expectAccessible(page);
  await addStation(page);
  await setUp(page);
  await describeBoard(page);
  await takeIn(page);
  await plan(page);
  await runAndWalk(page);
  await page.goto("/");
  await expect(page.getByText("The bench is clear")).toBeVisible();
  await page.getByRole("link", { name: "Finished jobs" }).click();
  await page.getByLabel("Search jobs by").fill("lindv");
  await page.getByRole("button", { name: "Search" }).click();
  await expect(page.getByRole("row", { name: /Merle speaker/ })).toContainText("handed over");
  await expectAccessible(page);
  await page.close();
  await shop.stop();
  // What the pages made leaves as files and makes the same shop.
  const [first, again, copy] = ["out", "out-again", "copy"].map((name) => join(shop.folder, name));
  command("export", "--data", shop.data, first);
  command("init", "--data", copy);
  command("import", "--data", copy, first);
  command("export", "--data", copy, again);
  const files = readdirSync(first, { recursive: true, withFileTypes: true }).filter((file) => file.isFile());
  expect(files.length).toBeGreaterThan(5);
  for (const { parentPath, name } of files) {
    const file = join(parentPath, name);
    expect(readFileSync(file.replace(first, again), "utf8"), name).toBe(readFileSync(file, "utf8"));
  }
  expect(command("check", "--data", copy)).toContain("everything can be read");
  await info.attach("exported", { body: files.map((file) => file.name).join("\n"), contentType: "text/plain" });
});

test("a folder without a shop is refused, a second process too, and nobody else reads it", async () => {
  const shop = await emptyShop();
  const refused = (...words) => {
    try {
      command(...words);
    } catch (error) {
      return error.status;
    }
    return 0;
  };
  expect(refused("serve", "--data", join(shop.folder, "none"), "--listen", "127.0.0.1:0")).toBe(2);
  expect(existsSync(join(shop.folder, "none"))).toBe(false);
  expect(refused("serve", "--data", shop.data, "--listen", "127.0.0.1:0"), "it is served already").toBe(2);
  expect(refused("init", "--data", shop.data)).toBe(2);
  expect(refused("serve", "--data", shop.data, "--listen", "0.0.0.0:0"), "others reach that").toBe(2);
  expect(statSync(shop.data).mode & 0o777).toBe(0o700);
  expect(statSync(join(shop.data, "shop.db")).mode & 0o777).toBe(0o600);
  // Copied while it is served, restored once it is not.
  const backup = join(shop.folder, "backup.db");
  command("backup", "--data", shop.data, backup);
  expect(refused("restore", "--data", shop.data, backup)).toBe(2);
  await shop.stop();
  expect(command("restore", "--data", shop.data, backup)).toContain("restored");
  await start("serve", "--data", shop.data);
});

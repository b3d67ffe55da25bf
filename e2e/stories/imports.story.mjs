// Boards of others: a layout, a footprint, a placement table, and files that are none of these.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, expectAccessible, test } from "../harness.mjs";
import { demo, describe, saved, step } from "../trace.mjs";

test.use({ allowed: /status of 4(13|22)/ });

const relay = join(import.meta.dirname, "../../crates/mend-formats/tests/files/harl-relay.kicad_pcb");

test("a layout of 240 footprints: the part is chosen, what was taken for what is listed, and it can be kept", async ({ page }) => {
  await page.goto("/boards/import");
  await page.getByLabel("File", { exact: true }).setInputFiles(relay);
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await expect(page.getByRole("heading", { name: /Which one is replaced/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: /J1 two-row port/ }).click();
  await expect(page.getByRole("heading", { name: /J1 with \d+ components/ })).toBeVisible();
  await expect(page.locator(".import-text")).toContainText("height not in the file: 3 mm taken, measure it");
  await expect(page.locator(".import-text")).toContainText("12× pad wholly under the body: taken as hidden");
  await expect(page.locator(".import-text")).toContainText("gr_text");
  await expectAccessible(page);
  await page.getByRole("link", { name: "To the board" }).click();
  await expect(page.getByText("28 joints, 12 hidden, 1 pegs")).toBeVisible();
  await step(page, "Copper");
  await expect(page.getByLabel("of them planes")).toHaveValue("2");
  await step(page, "Save");
  await page.getByRole("button", { name: "Save to the library" }).click();
  await expect(page.getByRole("heading", { name: "harl-relay" })).toBeVisible();

  // Out again as the open format, and in under another name.
  const href = await page.getByRole("link", { name: "Export" }).getAttribute("href");
  const exported = await (await page.request.get(href)).json();
  expect(exported.format).toBe("urgent-mend/board/2");
  expect(exported.components.length).toBeGreaterThan(100);
  await page.goto("/boards/import");
  await page.getByLabel("Or paste its text").fill(JSON.stringify({ ...exported, name: "Relay, sent on" }));
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Relay, sent on" })).toBeVisible();
});

test("a footprint becomes the shop's own connector and goes onto a board", async ({ page }) => {
  const text = `(footprint "tab" (layer "F.Cu") (fp_text value "tab connector" (at 0 0) (layer "F.Fab"))
    (fp_rect (start -4 -2) (end 4 2) (layer "F.Fab")) (pad "1" smd rect (at -3 2.2) (size 0.6 1.2) (layers "F.Cu"))
    (pad "2" smd rect (at 3 2.2) (size 0.6 1.2) (layers "F.Cu")) (pad "SH" thru_hole circle (at 0 -1) (size 1.6 1.6) (drill 0.9) (layers "*.Cu")))`;
  await page.goto("/boards/import");
  await page.getByLabel("Or paste its text").fill(text);
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await expect(page.getByRole("heading", { name: /tab connector, 3 joints/ })).toBeVisible();
  await page.getByRole("link", { name: "To the board" }).click();
  await expect(page.locator(".connectors").first()).toContainText("tab connector");
  await describe(page);
  await step(page, "Part");
  await page.getByRole("button", { name: /tab connector/ }).click();
  await expect(page.getByText("3 joints, 0 pegs")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page);
  await expect(page.locator(".trace-map .part")).toHaveCount(0);
});

test("a board that is described from a job becomes that job's board", async ({ page }) => {
  await page.goto("/jobs/11/board");
  await page.getByRole("button", { name: "Edit" }).click();
  await step(page, "Components");
  await page.getByRole("button", { name: /Y1/ }).first().click();
  await page.locator(".trace-map .thing.chosen").focus();
  await page.keyboard.press("Delete");
  await saved(page);
  await step(page, "Save");
  await page.getByRole("button", { name: /^Save as revision \d+ of Loom handheld board, for job 11$/ }).click();
  await expect(page).toHaveURL(/\/jobs\/11\/board$/);
  await expect(page.getByRole("heading", { name: /Loom handheld board Ferrin · revision [23]/ })).toBeVisible();
});

test("a placement table brings components round the part and lists what it could not place", async ({ page }) => {
  await page.goto("/boards/1");
  await page.getByRole("button", { name: "Duplicate" }).click();
  await step(page, "Components");
  const before = await page.locator(".trace-map .component").count();
  await page.getByText("From a placement table").click();
  const table =
    "Ref,Val,Package,PosX,PosY,Rot,Side\nJ7,port,x,10,10,0,top\nC900,1u,C_0402,14,12,0,top\nU900,mcu,QFN_4x4mm,4,20,90,bottom\nQ1,x,SOT,1,1,0,top\n";
  await page.getByLabel("CSV:").setInputFiles({ name: "parts.csv", mimeType: "text/csv", buffer: Buffer.from(table) });
  await page.getByLabel("The part's number in the table").fill("J9");
  await page.getByRole("button", { name: "Apply" }).click();
  await expect(page.locator("[role=alert]")).toContainText("“J9” is not in the table");
  await page.getByText("From a placement table").click();
  await page.getByLabel("CSV:").setInputFiles({ name: "parts.csv", mimeType: "text/csv", buffer: Buffer.from(table) });
  await page.getByLabel("The part's number in the table").fill("J7");
  await page.getByRole("button", { name: "Apply" }).click();
  await expect(page.getByRole("heading", { name: "2 components from the table" })).toBeVisible();
  await expect(page.locator(".import-text")).toContainText("Q1 (SOT): no size in its package's name");
  await page.getByRole("link", { name: "To the board" }).click();
  await expect(page.locator(".trace-map .component")).toHaveCount(before + 2);
});

test("files that are no photograph and no board are refused in words, and a large one too", async ({ page }) => {
  await describe(page);
  const photo = page.getByLabel("JPEG, PNG or WebP");
  await photo.setInputFiles({ name: "x.jpg", mimeType: "image/jpeg", buffer: Buffer.from("GIF89a, not a photograph") });
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.locator("[role=alert]")).toContainText("none of JPEG, PNG and WebP");
  await photo.setInputFiles({
    name: "cut.jpg",
    mimeType: "image/jpeg",
    buffer: readFileSync(demo("photos/1-loom-top.jpg")).subarray(0, 400),
  });
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.locator("[role=alert]")).toContainText("the file is cut off: its end is missing");
  await photo.setInputFiles({ name: "huge.jpg", mimeType: "image/jpeg", buffer: Buffer.alloc(27 * 1024 * 1024) });
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.getByRole("heading", { name: /too large: a photograph .* has up to 25 MB/ })).toBeVisible();

  await page.goto("/boards/import");
  await page.getByLabel("Or paste its text").fill("(kicad_pcb (version 1) (footprint");
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await expect(page.locator("[role=alert]")).toContainText("the file ends inside a list");
  await expect(page.getByLabel("Or paste its text")).toHaveValue(/kicad_pcb/);
});

test("the demo's photographs hold nothing that a camera writes", async ({ page }) => {
  const jpeg = await (await page.request.get("/boards/photos/1")).body();
  expect(jpeg.subarray(0, 2)).toEqual(Buffer.from([0xff, 0xd8]));
  expect(jpeg.includes("Exif")).toBe(false);
});

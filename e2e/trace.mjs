// Hands on the map of a board that is being described: places in mm of the demo's photographs, clicks and drags on them.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect } from "./harness.mjs";

export const demo = (path) => join(import.meta.dirname, "../demo", path);
const draft = JSON.parse(readFileSync(demo("drafts/ferrin-loom.json"), "utf8"));

/** The pixel of a demo photograph that shows a place of its board, mm: its placement in the demo's own draft, undone. */
export function pixel(face, [x, y]) {
  const { mm_per_px, turn_deg, mirrored, at_mm } = draft.photos.find((photo) => photo.face === face).placement;
  const turn = (-turn_deg * Math.PI) / 180;
  const [dx, dy] = [x - at_mm[0], y - at_mm[1]];
  const [re, im] = [(dx * Math.cos(turn) - dy * Math.sin(turn)) / mm_per_px, (dx * Math.sin(turn) + dy * Math.cos(turn)) / mm_per_px];
  return [mirrored ? -re : re, -im];
}

/** Where a pixel of the photograph of a face is on the screen. */
export const onScreen = (page, face, at) =>
  page.locator(`image.photo.${face}`).evaluate((image, [u, v]) => {
    const p = new DOMPoint(u, v).matrixTransform(image.getScreenCTM());
    return [p.x, p.y];
  }, at);

/** Where a place of the map, mm, is on the screen. */
export const mapOnScreen = (page, at) =>
  page.locator("#trace-map").evaluate((map, [x, y]) => {
    const p = new DOMPoint(x, -y).matrixTransform(map.getScreenCTM());
    return [p.x, p.y];
  }, at);

export const saved = (page) => expect(page.locator("#trace-saved")).toHaveText("Saved");

/** Clicks places that the photograph of a face shows, named in mm of the real board. */
export async function clickPlaces(page, face, places) {
  for (const place of places) await page.mouse.click(...(await onScreen(page, face, pixel(face, place))));
}

/** Draws from corner to corner over what the photograph shows. */
export async function draw(page, face, [x, y, width, depth]) {
  const corner = (sx, sy) => onScreen(page, face, pixel(face, [x + (sx * width) / 2, y + (sy * depth) / 2]));
  await dragBetween(page, await corner(-1, 1), await corner(1, -1));
  await saved(page);
}

export async function dragBetween(page, from, to) {
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move(...to, { steps: 6 });
  await page.mouse.up();
}

/** Begins a board from nothing; answers the address of its draft. */
export async function describe(page) {
  await page.goto("/boards");
  await page.getByRole("button", { name: "Draw a board" }).click();
  await expect(page.getByRole("heading", { name: "Photograph", exact: true })).toBeVisible();
  return new URL(page.url()).pathname;
}

export async function addPhoto(page, file, face) {
  await page.getByLabel("JPEG, PNG or WebP").setInputFiles(demo(file));
  if (face === "bottom") await page.getByLabel("bottom, as seen from behind").check();
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.locator(`image.photo.${face}`)).toHaveCount(1);
}

export async function step(page, name) {
  const link = page.locator(".trace-steps a", { hasText: name });
  await link.waitFor();
  // Before the page's script has come it is a link to a page of its own.
  await page.waitForLoadState("load");
  await link.click();
}

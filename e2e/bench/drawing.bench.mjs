// Frames while one of 300 components is dragged over a photograph: cargo xtask bench. Printed, never judged here.
import { readFileSync } from "node:fs";
import { demo, mapOnScreen } from "../trace.mjs";
import { expect, test } from "../harness.mjs";

test("dragging among 300 components", async ({ page }) => {
  const board = JSON.parse(readFileSync(demo("boards/quillon-tern-15.json"), "utf8"));
  board.name = "Three hundred";
  board.outline_mm = [
    [0, 0],
    [100, 0],
    [100, 70],
    [0, 70],
  ];
  board.components = Array.from({ length: 300 }, (_, k) => ({
    name: `C${k + 1}`,
    what: "ceramic-chip",
    face: k % 3 ? "top" : "bottom",
    at_mm: [4 + (k % 25) * 3, 30 + Math.floor(k / 25) * 2],
    width_mm: 1.6,
    depth_mm: 0.8,
    height_mm: 0.8,
    material: "ceramic",
  }));
  await page.goto("/boards/import");
  await page.getByLabel("Or paste its text").fill(JSON.stringify(board));
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await page.getByRole("button", { name: "Edit" }).click();
  await page.getByLabel("JPEG, PNG or WebP").setInputFiles(demo("photos/1-loom-top.jpg"));
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.locator(".trace-map .component")).toHaveCount(300);
  const [x, y] = await mapOnScreen(page, board.components[152].at_mm);
  await page.evaluate(() => {
    window.frames_ = [];
    let last = performance.now();
    const tick = (now) => {
      window.frames_.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.evaluate(() => (window.frames_.length = 0));
  for (let k = 0; k < 240; k += 1) await page.mouse.move(x + 120 * Math.sin(k / 20), y + 60 * Math.cos(k / 15));
  const frames = await page.evaluate(() => window.frames_.slice());
  await page.mouse.up();
  const sorted = [...frames].sort((a, b) => a - b);
  const at = (share) => sorted[Math.floor(share * (sorted.length - 1))].toFixed(1);
  console.log(`drag among 300 components: ${frames.length} frames, median ${at(0.5)} ms, nine in ten ${at(0.9)} ms, slowest ${at(1)} ms`);
});

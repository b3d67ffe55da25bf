// Starts the release binary on a free port and watches every page: console errors, broken policies and accessibility.
import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test as base, expect } from "@playwright/test";

const axeSource = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
export const binary = process.env.URGENT_MEND ?? join(import.meta.dirname, "../target/release/urgent-mend");

/** Starts the application with these words; answers its address and how to stop it. */
export async function start(...words) {
  const child = spawn(binary, [...words, "--listen", "127.0.0.1:0"], { stdio: ["ignore", "pipe", "inherit"] });
  const address = await new Promise((found, lost) => {
    let said = "";
    child.stdout.on("data", (data) => {
      said += data;
      const line = said.match(/http:\/\/\S+/);
      if (line) found(line[0]);
    });
    child.on("exit", (code) => lost(new Error(`ended with ${code} before it listened`)));
  });
  const stop = () =>
    new Promise((done) => {
      child.on("exit", done);
      child.kill("SIGTERM");
    });
  return { address, stop, child };
}

/** Fails on what axe finds on the page as it stands. */
export async function expectAccessible(page) {
  await page.evaluate(axeSource);
  const { violations } = await page.evaluate(() =>
    axe.run(document, { runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"] }),
  );
  const said = violations.map((v) => `${v.id}: ${v.nodes.map((n) => `${n.target} ${n.failureSummary}`).join(" | ")}`);
  expect(said, page.url()).toEqual([]);
}

/** A folder that is gone after the test. */
export function temporaryFolder() {
  const folder = mkdtempSync(join(tmpdir(), "urgent-mend-"));
  return { folder, remove: () => rmSync(folder, { recursive: true, force: true }) };
}

/** Collects what a page complains of. A refused request that the test provoked itself is named in `expected`. */
function watch(page, complaints) {
  page.on("console", (message) => {
    if (message.type() === "error") complaints.push(message.text());
  });
  page.on("pageerror", (error) => complaints.push(String(error)));
}

export const test = base.extend({
  shop: [
    async ({}, use) => {
      const running = await start("demo");
      await use(running.address);
      await running.stop();
    },
    { scope: "worker", timeout: 60_000 },
  ],
  baseURL: async ({ shop }, use) => use(shop),
  /** What the console may say in this test. */
  allowed: [null, { option: true }],
  page: async ({ page, allowed }, use) => {
    const complaints = [];
    watch(page, complaints);
    await use(page);
    expect(complaints.filter((said) => !allowed?.test(said))).toEqual([]);
  },
});
export { expect };

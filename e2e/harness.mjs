// Starts the application on a free port and watches every page: console errors, broken policies and accessibility.
import { execFileSync, spawn } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test as base, expect } from "@playwright/test";
import { expectTidy } from "./tidy.mjs";

const axeSource = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
export const binary = process.env.URGENT_MEND ?? join(import.meta.dirname, "../target/debug/urgent-mend");

/** What is started and what is made in folders, until it is cleared away. */
const leftBehind = [];

/** Stops and removes what was left behind, the newest first. */
export async function clear() {
  while (leftBehind.length) await leftBehind.pop()();
}

/** Starts the application with these words; answers its address and how to stop it before the test has ended. */
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
  const ended = new Promise((done) => child.on("exit", done));
  const stop = () => {
    child.kill("SIGTERM");
    return ended;
  };
  leftBehind.push(stop);
  return { address, stop, child, ended };
}

/** Runs a command of the application to its end; answers what it printed. */
export function command(...words) {
  return execFileSync(binary, words, { encoding: "utf8", stdio: ["ignore", "pipe", "inherit"] });
}

/** An empty shop in a folder that is gone after the test, served; with these files of the demo's folder, if any. */
export async function emptyShop(...files) {
  const folder = temporaryFolder();
  const data = join(folder, "shop");
  command("init", "--data", data);
  if (files.length) command("import", "--data", data, ...files.map((file) => join(import.meta.dirname, "../demo", file)));
  const running = await start("serve", "--data", data);
  return { ...running, data, folder };
}

/** A new job on the first board with its plan and a run, made at the pages' own addresses; answers its own. */
export async function begunJob(address, intake = {}) {
  const form = (fields) => ({ method: "POST", body: new URLSearchParams(fields), redirect: "manual" });
  const at = (await fetch(`${address}/jobs`, form({}))).headers.get("location").replace("/intake", "");
  for (const [field, value] of Object.entries(intake)) await fetch(`${address}${at}/intake`, form({ field, value }));
  await fetch(`${address}${at}/board`, form({ board: 1 }));
  const settings = {
    station: "Gull, bench 1",
    set: 440,
    flow: 110,
    nozzle: 22,
    distance: 25,
    longest: 240,
    face: "bottom",
    motion: "still",
    keep_intact: "board",
  };
  await fetch(`${address}${at}/heat`, form(settings));
  for (let page = ""; !page.includes("plan-body"); page = await (await fetch(`${address}${at}/heat`)).text())
    await new Promise((done) => setTimeout(done, 200));
  await fetch(`${address}${at}/run`, form({}));
  return at;
}

/** Waits until the demo's jobs are all planned: their plans are computed in the background. */
export async function prepared(address) {
  for (let tries = 0; tries < 600; tries += 1) {
    const page = await (await fetch(address)).text();
    if (!page.includes('class="preparing"')) return;
    await new Promise((done) => setTimeout(done, 200));
  }
  throw new Error("the demo is not prepared");
}

/** A token for a request that no page makes. */
export const token = () => Math.random().toString(36).slice(2);

/** Presses a key at the bench. A pedal bounces: two presses within 0.3 s are one. */
export async function press(page, key = "Space") {
  await page.waitForTimeout(320);
  await page.keyboard.press(key);
}

/** A press at the bench, and the step or phase that comes of it: a press is meant for what is on the screen. */
export async function advance(page, key = "Space") {
  const shown = () => page.locator("#step").evaluate(({ dataset: { step, phase } }) => `${step} ${phase}`);
  const before = await shown();
  await press(page, key);
  await expect.poll(shown).not.toBe(before);
}

/** Steps on to the end of a bench run, and past it. */
export async function runToTheEnd(page) {
  const phase = () => page.locator("#step").getAttribute("data-phase");
  for (let k = 0; k < 60 && (await phase()) !== "done"; k += 1) await advance(page);
  await press(page);
}

/** Fails on what axe finds on the page as it stands, and on what is untidy on it. */
export async function expectAccessible(page) {
  await page.evaluate(axeSource);
  const { violations } = await page.evaluate(() =>
    axe.run(document, { runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"] }),
  );
  const said = violations.map((v) => `${v.id}: ${v.nodes.map((n) => `${n.target} ${n.failureSummary}`).join(" | ")}`);
  expect(said, page.url()).toEqual([]);
  await expectTidy(page);
}

/** The path of a folder that is gone after the test. */
export function temporaryFolder() {
  const folder = mkdtempSync(join(tmpdir(), "urgent-mend-"));
  leftBehind.push(() => rmSync(folder, { recursive: true, force: true }));
  return folder;
}

/** A copy of the demo's shop with all its plans, served with these words. */
export async function preparedShop(...words) {
  const data = join(temporaryFolder(), "shop");
  cpSync(process.env.PREPARED_SHOP, data, { recursive: true });
  return start("serve", "--data", data, ...words);
}

/** Collects what a page complains of. A refused request that the test provoked itself is named in `expected`. */
function watch(page, complaints) {
  page.on("console", (message) => {
    if (message.type() === "error") complaints.push(message.text());
  });
  page.on("pageerror", (error) => complaints.push(String(error)));
}

export const test = base.extend({
  /** Set up before any page and so cleared after all of them: a page that is open goes on asking its shop. */
  cleared: [
    async ({}, use) => {
      await use();
      await clear();
    },
    { auto: true },
  ],
  /** The demo shop, a copy for every test: what one enters, no other meets. */
  shop: async ({}, use) => use((await preparedShop()).address),
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

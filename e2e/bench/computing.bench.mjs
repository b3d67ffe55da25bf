// Twenty comparisons at once, and pages and presses meanwhile; what-if pages; going down in the middle: cargo xtask bench.
// Printed; that everything finishes is asserted, times are not.
import { begunJob, expect, start, test, token } from "../harness.mjs";
import { ask, steady, told } from "./load.mjs";

const ALLOYS = ["SAC305", "Sn63Pb37", "Sn99.3Cu0.7", "Sn96.5Ag3.5"];

/** A new job on a board whose joints hold an alloy. */
async function job(shop, board, alloy) {
  const at = (await ask(`${shop}/jobs`, { method: "POST", form: {} })).headers.location.replace("/intake", "");
  await ask(`${shop}${at}/board`, { method: "POST", form: { board } });
  await ask(`${shop}${at}/alloy`, { method: "POST", form: { alloy, feed: "", share: 40, wire: 0.5, flux: 2 } });
  return at;
}

/** Asks for a part of a page until it has been computed; answers how long that took, s. */
async function until(address, done) {
  const began = performance.now();
  for (;;) {
    const { status, text } = await ask(address);
    if (status !== 200) throw new Error(`${address} answered ${status}`);
    if (done(text)) return (performance.now() - began) / 1000;
    await new Promise((wait) => setTimeout(wait, 400));
  }
}

/** A value of a page's attribute as it was before it was written into it. */
const plain = (value) =>
  value
    .replace(/&#(\d+);/g, (_, code) => String.fromCharCode(code))
    .replaceAll("&quot;", '"')
    .replaceAll("&amp;", "&");

const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** Comparisons at once; a smaller number answers sooner how presses fare meanwhile. */
const COMPARISONS = Number(process.env.COMPARISONS ?? 20);
const RUNS = 12;

test(`${COMPARISONS} comparisons at once, and pages and presses meanwhile`, async ({ shop }) => {
  test.setTimeout(900_000);
  // Presses go round many runs: none holds a thousand of them.
  const runs = [];
  for (let k = 0; k < RUNS; k += 1) runs.push(await begunJob(shop));
  const jobs = [];
  for (let k = 0; k < COMPARISONS; k += 1) jobs.push(await job(shop, 1 + (k % 5), ALLOYS[Math.floor(k / 5)]));
  let running = true;
  const comparing = Promise.all(jobs.map((at) => until(`${shop}${at}/method/lanes`, (text) => text.includes("lanes-key")))).finally(
    () => (running = false),
  );
  const pages = [];
  const presses = [];
  const at = async (job) => {
    const run = (await ask(`${shop}${job}/run`)).text;
    const [of, step] = ["run", "step"].map((name) => run.match(new RegExp(`data-${name}="(\\d+)"`))[1]);
    return { job, of, step };
  };
  const begun = await Promise.all(runs.map(at));
  while (running) {
    pages.push(await ask(`${shop}/`));
    // An entry and its taking back by turns.
    const { job, of, step } = begun[Math.floor(presses.length / 2) % begun.length];
    const kind = presses.length % 2 ? "undo" : "fed";
    const press = await ask(`${shop}${job}/run/events`, { method: "POST", form: { kind, run: of, step, token: token() } });
    expect(press.status, press.text).toBe(200);
    presses.push(press);
    await pause(50);
  }
  const seconds = await comparing;
  console.log(
    `${COMPARISONS} comparisons: all there after ${Math.max(...seconds).toFixed(1)} s, the first after ${Math.min(...seconds).toFixed(1)} s`,
  );
  console.log(`meanwhile / : ${told(pages)}`);
  console.log(`meanwhile presses: ${told(presses)}`);
});

test("two what-if pages of seven variants each", async ({ shop }) => {
  test.setTimeout(600_000);
  const took = [];
  for (const at of ["/jobs/5", "/jobs/6"]) {
    await until(`${shop}${at}/heat/plan`, (text) => !/id="plan"[^>]*hx-get/.test(text));
    const page = (await ask(`${shop}${at}/what-if`)).text;
    const changes = [...page.matchAll(/name="change" value="([^"]+)"/g)].map((found) => found[1]);
    expect(changes.length).toBeGreaterThanOrEqual(7);
    for (const change of changes.slice(0, 7)) {
      const added = await ask(`${shop}${at}/what-if`, { method: "POST", form: { name: "", change: plain(change) } });
      expect(added.status, added.text).toBe(303);
    }
  }
  took.push(
    ...(await Promise.all(
      ["/jobs/5", "/jobs/6"].map((at) => until(`${shop}${at}/what-if/columns`, (text) => !/id="variants"[^>]*hx-get/.test(text))),
    )),
  );
  console.log(`two what-if pages of seven variants: ${took.map((s) => `${s.toFixed(1)} s`).join(" and ")}`);
});

test("going down in the middle of six comparisons", async () => {
  test.setTimeout(300_000);
  const demo = await start("demo");
  const jobs = [];
  for (let k = 0; k < 6; k += 1) jobs.push(await job(demo.address, 1 + (k % 5), ALLOYS[Math.floor(k / 5)]));
  await Promise.all(jobs.map((at) => ask(`${demo.address}${at}/method`)));
  const began = performance.now();
  await demo.stop();
  console.log(`SIGTERM in the middle of six comparisons: ended after ${((performance.now() - began) / 1000).toFixed(2)} s`);
});

test("the demo's own comparisons, one after the other", async ({ shop }) => {
  test.setTimeout(300_000);
  for (const job of [3, 4, 5, 6, 7, 11]) {
    const took = await until(`${shop}/jobs/${job}/method/lanes`, (text) => text.includes("lanes-key"));
    console.log(`comparison of job ${job}: ${took.toFixed(1)} s`);
  }
});

test("the lists of a demo at an even pace", async ({ shop }) => {
  console.log(`/ at 200 a second: ${told(await steady(200, 5, () => ask(`${shop}/`)))}`);
});

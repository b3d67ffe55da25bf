// The application is killed again and again while presses, marks and acts come in: none that was acknowledged is lost.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { begunJob, command, expect, start, temporaryFolder, test, token } from "../harness.mjs";
import { ask } from "./load.mjs";

const KILLS = Number(process.env.KILLS ?? 200);
const repository = join(import.meta.dirname, "../..");

test(`${KILLS} kills in the middle of writing`, async () => {
  test.setTimeout(1_200_000);
  const { folder, remove } = temporaryFolder();
  const data = join(folder, "shop");
  command("init", "--data", data);
  command("import", "--data", data, join(repository, "demo/stations/1-gull.json"), join(repository, "demo/boards/quillon-tern-15.json"));
  let shop = await start("serve", "--data", data);
  const at = await begunJob(shop.address);
  const acknowledged = { events: 0, serial: "", mark: "", name: "" };
  let [sent, killed] = [0, 0];
  while (killed < KILLS) {
    const page = (await ask(`${shop.address}${at}/run`)).text;
    const [run, step] = ["run", "step"].map((name) => page.match(new RegExp(`data-${name}="(\\d+)"`))[1]);
    let alive = true;
    const after = 5 + Math.floor(40 * Math.random());
    setTimeout(() => shop.child.kill("SIGKILL"), after);
    shop.child.on("exit", () => (alive = false));
    // Values sent since the last answer: the last of them that arrived is kept.
    let since = [];
    const one = async (form, path, taken) => {
      try {
        const answer = await ask(`${shop.address}${path}`, { method: "POST", form });
        if (answer.status === 200) taken();
      } catch {
        // The answer was lost: it may have been kept or not.
      }
    };
    while (alive) {
      sent += 1;
      const value = `n${sent}`;
      await one({ kind: "fed", run, step, token: token() }, `${at}/run/events`, () => (acknowledged.events += 1));
      since.push(value);
      await one({ field: "serial", value }, `${at}/intake`, () => {
        acknowledged.serial = value;
        since = [];
      });
      const mark = sent % 2 ? "firm" : "moves";
      await one({ pin: "plus", mark, token: token() }, `${at}/pins`, () => (acknowledged.mark = mark));
    }
    killed += 1;
    shop = await start("serve", "--data", data);
    const kept = (await ask(`${shop.address}${at}/intake`)).text.match(/id="serial"[^>]*value="([^"]*)"/)[1];
    expect([acknowledged.serial, ...since]).toContain(kept);
    acknowledged.serial = kept;
  }
  await shop.stop();
  const out = join(folder, "out");
  command("export", "--data", data, out);
  const record = JSON.parse(readFileSync(join(out, "jobs/000001.json"), "utf8"));
  const fed = record.runs[0].events.filter((event) => event.kind === "fed").length;
  expect(fed).toBeGreaterThanOrEqual(acknowledged.events);
  expect(fed).toBeLessThanOrEqual(acknowledged.events + killed);
  expect(command("check", "--data", data)).toContain("everything can be read");
  console.log(`${killed} kills, ${sent} rounds of entries: ${acknowledged.events} presses were acknowledged, ${fed} are kept`);
  remove();
});

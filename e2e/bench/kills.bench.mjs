// The application is killed again and again while presses, marks and acts come in: none that was acknowledged is lost.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { begunJob, command, expect, start, temporaryFolder, test, token } from "../harness.mjs";
import { ask } from "./load.mjs";

const KILLS = Number(process.env.KILLS ?? 200);
const repository = join(import.meta.dirname, "../..");

const MARKS = ["firm", "moves", "bridged", "starved"];

/** What the shop shows of the entries after it has come up again. */
async function keptOf(shop, { at, draft }) {
  const [intake, pins, board] = await Promise.all([`${at}/intake`, `${at}/pins`, draft].map((path) => ask(`${shop}${path}`)));
  return {
    serial: intake.text.match(/id="serial"[^>]*value="([^"]*)"/)[1],
    mark: pins.text.match(/aria-label="plus: (\w+)"/)[1],
    acts: Number(board.text.match(/data-revision="(\d+)"/)[1]),
  };
}

test(`${KILLS} kills in the middle of writing`, async () => {
  test.setTimeout(1_200_000);
  const folder = temporaryFolder();
  const data = join(folder, "shop");
  command("init", "--data", data);
  command("import", "--data", data, join(repository, "demo/stations/1-gull.json"), join(repository, "demo/boards/quillon-tern-15.json"));
  let shop = await start("serve", "--data", data);
  const at = await begunJob(shop.address);
  const draft = (await ask(`${shop.address}/boards/drafts`, { method: "POST", form: { board: "" } })).headers.location;
  const acknowledged = { events: 0, acts: 0, serial: "", mark: "unwalked" };
  let [sent, killed] = [0, 0];
  while (killed < KILLS) {
    const page = (await ask(`${shop.address}${at}/run`)).text;
    const [run, step] = ["run", "step"].map((name) => page.match(new RegExp(`data-${name}="(\\d+)"`))[1]);
    let alive = true;
    const after = 5 + Math.floor(40 * Math.random());
    setTimeout(() => shop.child.kill("SIGKILL"), after);
    shop.child.on("exit", () => (alive = false));
    // Values sent since the last answer: the last of them that arrived is kept.
    let since = { serial: [], mark: [] };
    const one = async (sent, path, taken) => {
      try {
        const answer = await ask(`${shop.address}${path}`, { method: "POST", ...sent });
        if (answer.status === 200) taken();
      } catch {
        // The answer was lost: it may have been kept or not.
      }
    };
    while (alive) {
      sent += 1;
      const value = `n${sent}`;
      await one({ form: { kind: "fed", run, step, token: token() } }, `${at}/run/events`, () => (acknowledged.events += 1));
      since.serial.push(value);
      await one({ form: { field: "serial", value } }, `${at}/intake`, () => {
        acknowledged.serial = value;
        since.serial = [];
      });
      const mark = MARKS[sent % MARKS.length];
      since.mark.push(mark);
      await one({ form: { pin: "plus", mark, token: token() } }, `${at}/pins`, () => {
        acknowledged.mark = mark;
        since.mark = [];
      });
      const edit = { do: "set", of: "board", field: "maker", value };
      await one({ json: { token: token(), client: "kills", on: 0, show: "", edit } }, `${draft}/edit`, () => (acknowledged.acts += 1));
    }
    killed += 1;
    shop = await start("serve", "--data", data);
    const kept = await keptOf(shop.address, { at, draft });
    expect([acknowledged.serial, ...since.serial]).toContain(kept.serial);
    expect([acknowledged.mark, ...since.mark]).toContain(kept.mark);
    // Of the acts that were under way when it was killed, one may have been kept without its answer.
    expect(kept.acts).toBeGreaterThanOrEqual(acknowledged.acts);
    expect(kept.acts).toBeLessThanOrEqual(acknowledged.acts + killed);
    Object.assign(acknowledged, { serial: kept.serial, mark: kept.mark });
  }
  await shop.stop();
  const out = join(folder, "out");
  command("export", "--data", data, out);
  const record = JSON.parse(readFileSync(join(out, "jobs/000001.json"), "utf8"));
  const fed = record.runs[0].events.filter((event) => event.kind === "fed").length;
  expect(fed).toBeGreaterThanOrEqual(acknowledged.events);
  expect(fed).toBeLessThanOrEqual(acknowledged.events + killed);
  expect(command("check", "--data", data)).toContain("everything can be read");
  console.log(
    `${killed} kills, ${sent} rounds of entries: ${acknowledged.events} presses were acknowledged, ${fed} are kept; ${acknowledged.acts} acts on a board; the last mark is ${acknowledged.mark}`,
  );
});

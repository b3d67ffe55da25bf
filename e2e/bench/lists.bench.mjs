// A shop with a hundred thousand finished jobs: its lists at 200 requests a second, its start, its memory. Printed, never judged.
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { command, expect, start, temporaryFolder, test } from "../harness.mjs";
import { ask, memory, steady, told } from "./load.mjs";

const JOBS = process.env.JOBS ?? "100000";
const repository = join(import.meta.dirname, "../..");

test(`lists of ${JOBS} finished jobs`, async () => {
  test.setTimeout(600_000);
  const folder = temporaryFolder();
  const data = join(folder, "shop");
  command("init", "--data", data);
  const boards = ["quillon-tern-15", "brannoc-deck", "vennick-lume-3", "osprake-quay-14", "tullimar-brook"];
  command(
    "import",
    "--data",
    data,
    join(repository, "demo/stations/1-gull.json"),
    ...boards.map((name) => join(repository, `demo/boards/${name}.json`)),
  );
  console.log(execFileSync("python3", [join(repository, "tools/fill_shop.py"), join(data, "shop.db"), JOBS], { encoding: "utf8" }).trim());
  const began = performance.now();
  const shop = await start("serve", "--data", data);
  console.log(`start: ${(performance.now() - began).toFixed(0)} ms until the address`);
  for (const path of ["/", "/boards", "/boards/1", "/jobs", "/jobs?q=moor"]) {
    const first = await ask(`${shop.address}${path}`);
    expect(first.status).toBe(200);
    console.log(
      `${path} at 200 a second: ${told(await steady(200, 10, () => ask(`${shop.address}${path}`)))}; ${memory(shop).toFixed(0)} MB`,
    );
  }
});

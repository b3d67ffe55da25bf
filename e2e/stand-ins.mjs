// The demo shop with simulated instruments.
import { cpSync } from "node:fs";
import { join } from "node:path";
import { expect, start, temporaryFolder } from "./harness.mjs";

/** The demo shop with stand-ins that hide this; they are made on the first open job that is not at the bench yet. */
export async function shopWithLoggers(page, ...hidden) {
  const { folder, remove } = temporaryFolder();
  const data = join(folder, "shop");
  cpSync(process.env.PREPARED_SHOP, data, { recursive: true });
  const shop = await start("serve", "--data", data, "--stand-ins", ...hidden);
  const line = (name) => page.locator(".instruments li").filter({ has: page.locator(`input[value="${name}"]`) });
  // The shop was kept with stand-ins of another start: theirs is another address. The meter's is renewed last; what is tried is what
  // the page shows, so a page that was opened before that answers nothing.
  await expect(async () => {
    await page.goto(`${shop.address}/instruments`);
    await line("Stand-in meter").getByRole("button", { name: "Test" }).click({ timeout: 500 });
    await expect(line("Stand-in meter").locator(".tried.kept")).toBeVisible({ timeout: 3000 });
  }).toPass({ timeout: 60_000 });
  const end = async () => {
    await shop.stop();
    remove();
  };
  return { ...shop, line, end };
}

/** The bench's logger and its station are read at the heat step; answers the logger's address. */
export async function readAtTheBench(shop) {
  const station = shop.line("Stand-in station");
  await station.getByLabel("read at the heat step").check();
  await station.getByRole("button", { name: "Save" }).click();
  const bench = shop.line("Stand-in logger, bench");
  await bench.getByLabel("read at the heat step").check();
  await bench.getByRole("button", { name: "Save" }).click();
  return bench.getByLabel("Address of Stand-in logger, bench").inputValue();
}

// The demo shop with simulated instruments.
import { connect } from "node:net";
import { expect, preparedShop } from "./harness.mjs";

/** Tells a stand-in something that no real instrument understands. */
export const tell = (address, words) =>
  new Promise((done, lost) => {
    const [host, port] = address.split(":");
    const socket = connect(Number(port), host, () => socket.end(`${words}\n`, done));
    socket.on("error", lost);
  });

/** The demo shop with stand-ins that hide this; they are made on the first open job that is not at the bench yet. */
export async function shopWithLoggers(page, ...hidden) {
  const shop = await preparedShop("--stand-ins", ...hidden);
  const line = (name) => page.locator(".instruments li").filter({ has: page.locator(`input[value="${name}"]`) });
  // The shop was kept with stand-ins of another start: theirs is another address. The meter's is renewed last; what is tried is what
  // the page shows, so a page that was opened before that answers nothing.
  await expect(async () => {
    await page.goto(`${shop.address}/instruments`);
    await line("Stand-in meter").getByRole("button", { name: "Test" }).click({ timeout: 500 });
    await expect(line("Stand-in meter").locator(".tried.kept")).toBeVisible({ timeout: 3000 });
  }).toPass({ timeout: 60_000 });
  return { ...shop, line };
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

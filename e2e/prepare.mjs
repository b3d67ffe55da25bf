// The demo shop with all its plans, made once: every test serves a copy of it.
import { join } from "node:path";
import { clear, prepared, start, temporaryFolder } from "./harness.mjs";

export default async function prepare() {
  process.env.PREPARED_SHOP = join(temporaryFolder(), "shop");
  const demo = await start("demo", "--keep", process.env.PREPARED_SHOP);
  await prepared(demo.address);
  await demo.stop();
  return clear;
}

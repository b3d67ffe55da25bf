// The demo shop with all its plans, made once: every test serves a copy of it.
import { join } from "node:path";
import { prepared, start, temporaryFolder } from "./harness.mjs";

export default async function prepare() {
  const { folder, remove } = temporaryFolder();
  process.env.PREPARED_SHOP = join(folder, "shop");
  const demo = await start("demo", "--keep", process.env.PREPARED_SHOP);
  await prepared(demo.address);
  await demo.stop();
  return remove;
}

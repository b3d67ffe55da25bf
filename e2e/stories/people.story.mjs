// A shop that others reach: its owner comes in by a link, a trainee by another; a PIN is enough at the bench; the name of who
// did it stands on the record; a session that ends keeps what was entered.
import { join } from "node:path";
import { spawn } from "node:child_process";
import { binary, command, expect, expectAccessible, temporaryFolder, test as base } from "../harness.mjs";

const PHRASE = "seven herons on the mole";

/** An empty shop that asks for names: its address and the owner's link. */
async function signedShop() {
  const folder = temporaryFolder();
  const data = join(folder, "shop");
  command("init", "--data", data);
  const child = spawn(binary, ["serve", "--data", data, "--listen", "127.0.0.1:0", "--sign-in"], {
    stdio: ["ignore", "pipe", "inherit"],
  });
  const link = await new Promise((found) => {
    let said = "";
    child.stdout.on("data", (data) => {
      said += data;
      const path = said.match(/http:\/\/\S+\/welcome\/\S+/);
      if (path) found(path[0]);
    });
  });
  const stop = () => new Promise((done) => child.on("exit", done) && child.kill("SIGTERM"));
  return { link, address: new URL(link).origin, stop };
}

const test = base.extend({
  signed: async ({}, use) => {
    const shop = await signedShop();
    await use(shop);
    await shop.stop();
  },
  shop: async ({ signed }, use) => use(signed.address),
  allowed: /status of (401|422|429)|Error Code 401/,
});

/** Chooses a passphrase and a PIN where a link leads. */
async function welcome(page, { name, passphrase, pin }) {
  if (name) await page.getByLabel("Your name").fill(name);
  await page.getByLabel("Passphrase").fill(passphrase);
  await page.getByLabel("PIN").fill(pin);
  await page.getByRole("button", { name: "Save and sign in" }).click();
}

test("an owner comes in by a link, a trainee by theirs, and a PIN is enough at the bench", async ({ page, signed, browser }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Who is here?" })).toBeVisible();
  await expectAccessible(page);
  await page.goto(signed.link);
  await welcome(page, { name: "Olga Quist", passphrase: "short", pin: "1234" });
  await expect(page.locator(".findings")).toContainText("15 to 128 characters");
  await expectAccessible(page);
  await welcome(page, { passphrase: PHRASE, pin: "4071" });
  await expect(page.locator(".who")).toContainText("Olga Quist");

  await page.goto("/people");
  const add = page.getByRole("form", { name: "Add somebody" });
  await add.getByLabel("Name").fill("Tilda Roe");
  await add.getByLabel("Role").selectOption("trainee");
  await add.getByRole("button", { name: "Add" }).click();
  const address = await page.getByRole("region", { name: "Link for Tilda Roe" }).getByRole("link").textContent();
  await expectAccessible(page);
  const theirs = await browser.newPage();
  await theirs.goto(address);
  await expect(theirs.getByRole("heading", { name: "Welcome, Tilda Roe" })).toBeVisible();
  await welcome(theirs, { passphrase: `${PHRASE} too`, pin: "5082" });
  await expect(theirs.locator(".who")).toContainText("Tilda Roe");
  await expect(theirs.getByRole("link", { name: "Shop", exact: true })).toHaveAttribute("href", "/equipment");
  await theirs.close();

  // The owner has taken the job in; at the same browser the trainee goes on.
  await page.getByRole("navigation", { name: "Places" }).getByRole("button", { name: "New job" }).click();
  await page.locator("#device").fill("Quay 4");
  await page.locator("#device").blur();
  await expect(page.locator("#note-device")).toContainText(/saved/i);
  const job = page.url().replace("/intake", "");
  await page.locator(".who").click();
  await page.getByRole("radio", { name: "Tilda Roe" }).check();
  await page.getByLabel("PIN or passphrase").fill("4444");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toContainText("do not belong together");
  await expect(page.getByRole("radio", { name: "Tilda Roe" })).toBeChecked();
  await page.getByLabel("PIN or passphrase").fill("5082");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.locator(".who")).toContainText("Tilda Roe");
  await page.locator("#customer").fill("Mara Lund");
  await page.locator("#customer").blur();
  await expect(page.locator("#note-customer")).toContainText(/saved/i);
  await page.goto(`${job}/record`);
  await expect(page.getByRole("row", { name: "Quay 4" })).toContainText("Olga Quist");
  await expect(page.getByRole("row", { name: "Mara Lund" })).toContainText("Tilda Roe");
  await expectAccessible(page);
  const refused = await page.request.get("/settings");
  expect(refused.status()).toBe(403);
});

test("what is typed after a session has ended is kept, and sent once somebody signs in", async ({ page, signed }) => {
  await page.goto(signed.link);
  await welcome(page, { name: "Olga Quist", passphrase: PHRASE, pin: "4071" });
  await page.getByRole("navigation", { name: "Places" }).getByRole("button", { name: "New job" }).click();
  // The shift is over: somebody has signed out in another tab.
  await page.request.post("/sign-out", { headers: { origin: signed.address } });
  await page.locator("#customer").fill("Mara Lund");
  await page.locator("#customer").blur();
  await expect(page.locator("#unsaved")).toContainText("Nobody is signed in: 1 entry is kept here");
  await page.request.post("/sign-in", { headers: { origin: signed.address }, form: { name: "Olga Quist", secret: "4071" } });
  await expect(page.locator("#unsaved")).toBeHidden({ timeout: 10_000 });
  await page.reload();
  await expect(page.locator("#customer")).toHaveValue("Mara Lund");
});

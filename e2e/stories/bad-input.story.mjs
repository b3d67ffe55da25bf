// Bad input gets a clear message and a 4xx, and loses nothing that was typed.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, expectAccessible, test, token } from "../harness.mjs";

test.use({ allowed: /the server responded with a status of 4\d\d|Response Status Error Code 4\d\d/ });

const board = () => JSON.parse(readFileSync(join(import.meta.dirname, "../../demo/boards/osprake-quay-14.json"), "utf8"));
const changed = (change) => {
  const made = { ...board(), name: `Bad ${Math.random()}` };
  change(made);
  return JSON.stringify(made);
};

const boards = [
  ["malformed JSON", '{ "format": "urgent-mend/board/2", ', /file.*EOF/i],
  ["no board at all", "[1, 2, 3]", /invalid/i],
  ["negative thickness", changed((b) => (b.thickness_mm = -0.8)), /Thickness.*-0.8 mm can't be.*between 0.1 and 5 mm/s],
  [
    "a joint outside the outline",
    changed((b) => (b.connector.joints[2].at_mm = [900, 2])),
    /joint leg 1.*\(900, 2\).*outside the outline.*move it inside/s,
  ],
  ["an unknown material", changed((b) => (b.components[0].material = "cheese")), /components\[0\].material.*cheese/s],
  ["an unknown field", changed((b) => (b.colour = "green")), /colour/],
  ["a number out of this world", changed((b) => (b.outline_mm[1] = [1e300, 0])), /Outline.*1e300 mm across/s],
];

for (const [name, text, said] of boards) {
  test(`a board with ${name} is refused in words`, async ({ page }) => {
    await page.goto("/boards/import");
    await page.getByLabel("Or paste its text").fill(text);
    const [answer] = await Promise.all([
      page.waitForResponse((r) => r.request().method() === "POST"),
      page.getByRole("button", { name: "Import" }).click(),
    ]);
    expect(answer.status()).toBe(422);
    await expect(page.getByRole("alert")).toHaveText(said);
    await expect(page.getByLabel("Or paste its text")).toHaveValue(text);
    await expectAccessible(page);
  });
}

test("a good board is imported and drawn, and its name is taken after that", async ({ page }) => {
  const text = changed((b) => (b.name = "Quay 14, second revision"));
  for (const expected of [/\/boards\/\d+$/, /\/boards\/import$/]) {
    await page.goto("/boards/import");
    await page.getByLabel("Or paste its text").fill(text);
    await page.getByRole("button", { name: "Import" }).click();
    await expect(page).toHaveURL(expected);
  }
  await expect(page.getByRole("alert")).toContainText("already");
});

test("a 50 MB upload is refused in words", async ({ request }) => {
  const buffer = Buffer.alloc(50_000_000, "x");
  const answer = await request.post("/boards/import", { multipart: { file: { name: "b.json", mimeType: "application/json", buffer } } });
  expect(answer.status()).toBe(413);
  expect(await answer.text()).toContain("A file of 50 MB is too large: a board or layout file has up to 24 MB");
});

test("absurd settings are refused one by one and the last plan stays", async ({ page }) => {
  await page.goto("/jobs/5/heat");
  const good = await page.locator(".verdict .huge").textContent();
  const absurd = [
    ["#set", "900", /Air.*900 °C.*Tern, bench 2 takes 100 to 450 °C/s],
    ["#flow", "0", /Flow.*0 L\/min/s],
    ["#distance", "-4", /Distance.*-4 mm/s],
  ];
  for (const [field, value, said] of absurd) {
    const before = await page.locator(field).inputValue();
    await page.locator(field).fill(value);
    await expect(page.locator("#plan [role=alert]")).toContainText(said);
    await expect(page.locator(field)).toHaveValue(value);
    await page.locator(field).fill(before);
    await expect(page.locator(".verdict .huge")).toHaveText(good);
  }
});

test("unknown alloys, stations, pins, presses, jobs and wrong methods are refused in words", async ({ request }) => {
  const settings = {
    station: "Tern, bench 2",
    set: "400",
    flow: "28",
    nozzle: "8",
    distance: "12",
    longest: "240",
    face: "top",
    motion: "sweeping",
  };
  const heat = (form) => request.post("/jobs/5/heat", { form: { ...settings, ...form } });
  const charge = { feed: "Sn42Bi58", share: "40", wire: "0.5", flux: "2", row: "pins" };
  const alloy = (form) => request.post("/jobs/7/alloy", { form: { ...charge, ...form } });
  // What is on the bench of job 4 now.
  const shown = await (await request.get("/jobs/4/run")).text();
  const [run, step] = ["run", "step"].map((name) => shown.match(new RegExp(`data-${name}="(\\d+)"`))[1]);
  const bench = (form) => request.post("/jobs/4/run/events", { form: { run, step, token: token(), ...form } });
  const cases = [
    [await alloy({ feed: "Unobtainium" }), 422, "“Unobtainium” is not in the alloy table"],
    [await alloy({ alloy: "Sn=60,Pb=37" }), 422, "the parts sum to 97.00 %"],
    [await alloy({ share: "1e300" }), 422, "can&#39;t be fed"],
    [await alloy({ wire: "-1" }), 422, "-1 mm can&#39;t be"],
    [await alloy({ year: "soon" }), 422, "“soon” is no number"],
    [await alloy({ row: "attic" }), 422, "“attic” is no row here"],
    [await alloy({ find: "yes" }), 422, "no working temperature is given"],
    [await alloy({ find: "yes", want: "60" }), 422, "can&#39;t bring"],
    [await request.get("/alloys?a=Sn%3D103,Pb%3D-3"), 422, "is no share"],
    [await request.get("/alloys?share=-5"), 422, "“-5” is no share"],
    [await bench({ kind: "licked" }), 422, "is nothing that happens at the bench"],
    [await bench({ kind: "overridden" }), 422, "is not given"],
    [await bench({ kind: "wicked", row: "attic" }), 422, "is no row here"],
    [await bench({ kind: "go", step: "1" }), 409, "It was entered at step 2"],
    [await bench({ kind: "go", run: "77" }), 409, "in another bench run"],
    [await bench({ kind: "go", token: "" }), 422, "1 to 64 characters"],
    [await request.post("/jobs/4/run/events", { form: { kind: "go" } }), 422, "missing field"],
    [
      await request.post("/jobs/4/run/events", { data: "kind=go", headers: { "content-type": "text/plain" } }),
      422,
      "Form requests must have",
    ],
    [await request.get("/jobs?before=soon"), 422, "address"],
    [await request.post("/boards/drafts/999/edit", { data: { token: "t" } }), 422, "missing field"],
    [await heat({ station: "Nobody" }), 422, "none of the shop"],
    [await heat({ set: "hot" }), 422, "“hot” is no number"],
    [await heat({ keep_intact: "nobody" }), 422, "“nobody” is none of the choices"],
    [await request.post("/jobs/5/method/live", { form: { keep_intact: "nobody" } }), 422, "board, part or both"],
    [await request.post("/jobs/5/method/choose", { form: { family: "hammer" } }), 422, "“hammer” is no family of methods"],
    [await request.post("/equipment", { form: { alloys: "Unobtainium" } }), 422, "Unobtainium"],
    [await request.get("/jobs/5/method/hammer"), 404, "There is no such family of methods"],
    [await request.get("/jobs/10/method"), 409, "has no board yet"],
    [await request.post("/jobs/3/pins", { form: { pin: "Z9", mark: "firm", token: "t" } }), 422, "is no pin of this connector"],
    [await request.post("/jobs/3/pins", { form: { pin: "A1", mark: "lovely", token: "t" } }), 422, "is no mark"],
    [await request.post("/jobs/10/intake", { form: { field: "price", value: "cheap" } }), 422, "“cheap” can"],
    [await request.get("/jobs/999/heat"), 404, "There is no such job"],
    [await request.get("/jobs/seven/heat"), 404, "There is no such job"],
    [await request.get("/nowhere"), 404, "There is no such page"],
    [await request.get("/jobs/10/heat"), 409, "has no board yet"],
    [await request.delete("/jobs/5/heat"), 405, "does not take that method"],
    [await request.post("/jobs", { headers: { origin: "http://elsewhere.example", "sec-fetch-site": "cross-site" } }), 403, "<h1>"],
    [
      await request.get("/jobs/5/heat", { headers: { "sec-fetch-site": "cross-site", "sec-fetch-mode": "no-cors" } }),
      403,
      "Another site asked",
    ],
    [
      await request.get("/jobs/5/heat", { headers: { "sec-fetch-site": "cross-site", "sec-fetch-mode": "navigate" } }),
      200,
      "came from another site",
    ],
    [await request.get("/", { headers: { host: "elsewhere.example" } }), 421, "does not answer to that name"],
    [
      await request.post("/jobs/5/heat", {
        data: "x".repeat(3_000_000),
        headers: { "content-type": "application/x-www-form-urlencoded", connection: "close" },
      }),
      413,
      "too large",
    ],
    [await request.post("/stations", { form: { template: "steam" } }), 422, "“steam” is no template"],
    [await request.get("/stations/99"), 404, "There is no such station"],
    [await request.post("/stations/1", { form: { name: "Gull, bench 1", "set-low": "hot" } }), 422, "“hot” is no number"],
    [await request.post("/settings", { form: { rate: "much", opens: "9", closes: "17:00" } }), 422, "is no time of day"],
    [await request.post("/jobs/4/handover/reopen", { form: { who: "", reason: " " } }), 422, "stays on record"],
  ];
  for (const [answer, status, said] of cases) {
    expect(answer.status(), answer.url()).toBe(status);
    expect(await answer.text()).toContain(said);
  }
});

// A station is measured on an empty shop: flow by a bag, air by a thermocouple, a probe on a board; plans follow, and a lesson can
// be left out.
import { emptyShop, expect, expectAccessible, test } from "../harness.mjs";

test.use({ allowed: /status of 422/ });

/** Warms as a board under weak air does, then cools: seconds and degrees. */
const warmed = (gain, of = (t) => t) =>
  Array.from({ length: 13 }, (_, k) => {
    const at = 10 * k;
    const rise = gain * (1 - Math.exp(-Math.min(at, 60) / 28)) * Math.exp(-Math.max(at - 60, 0) / 80);
    return `${at}, ${of(23 + rise).toFixed(1)}`;
  });

async function shopWithStation(page) {
  const shop = await emptyShop("boards/tullimar-brook.json");
  await page.goto(`${shop.address}/stations`);
  await page.getByRole("button", { name: /^Bench station with a fan/ }).click();
  return { shop, station: page.url() };
}

const enter = async (page, label, value) => {
  const kept = page.waitForResponse((answer) => answer.request().method() === "POST");
  await page.getByLabel(label, { exact: true }).fill(value);
  await page.getByLabel(label, { exact: true }).blur();
  await kept;
};

test("a station is measured in four ways and plans are nearer for it", async ({ page }) => {
  const { shop, station } = await shopWithStation(page);
  await expect(page.locator("#known")).toContainText("a guess: nobody has measured it");
  await page.getByRole("link", { name: "Measure the flow" }).click();
  await expectAccessible(page);
  await enter(page, "Seconds in row 1, first time", "36");
  await expect(page.locator("#found")).toContainText("at least two values");
  await enter(page, "Seconds in row 3, first time", "6,25");
  await expect(page.locator("#found")).toContainText("becomes the display's own");
  await expect(page.locator(".plan-change b")).toContainText(/^release /);
  // Gone and back: everything is there.
  await page.goto(station);
  await page.getByRole("link", { name: "Measure the flow" }).click();
  await expect(page.getByLabel("Seconds in row 3, first time")).toHaveValue("6,25");
  await page.getByRole("button", { name: "Use this" }).click();
  await expect(page.locator("#known")).toContainText("before it was measured");

  await page.getByRole("link", { name: "Measure the air" }).click();
  await enter(page, "Reading in row 2 at the first flow", "hot");
  await expect(page.locator("#found")).toContainText("“hot” is no number");
  await enter(page, "Reading in row 2 at the first flow", "272");
  await expect(page.locator("#found h2")).toContainText("cooler than expected");
  await enter(page, "Reading in row 3 at the first flow", "366");
  await enter(page, "Reading in row 3 at the second flow", "373");
  await expect(page.locator("#found h2")).toContainText(/% of what is set arrives, and the nozzle loses 0\.0\d\d W\/K/);
  await expect(page.locator(".plan-change b")).toContainText(/^release /);
  await expectAccessible(page);
  await page.getByRole("button", { name: "Use this" }).click();

  await page.getByRole("link", { name: "Measure the air" }).click();
  await expect(page.getByLabel("Reading in row 3 at the first flow"), "it is taken, and begins anew").toHaveValue("");
  await page.goto(station);
  await page.getByRole("link", { name: "Probe on a board" }).click();
  await enter(page, /Readings, a line each/, warmed(80).slice(0, 4).join("\n"));
  await expect(page.locator("#found")).toContainText("they end after 30 s");
  await enter(page, /Readings, a line each/, warmed(80).join("\n"));
  await expect(page.locator("#found h2")).toContainText(/release .* became .* s/);
  await expect(page.locator(".probe-picture .read")).not.toHaveCount(0);
  await expectAccessible(page);
  await page.getByRole("button", { name: "Use this" }).click();
  await expect(page.locator(".lessons li")).toHaveCount(3);

  // The bag leaked: that lesson does not count any more, and can again.
  const flow = page.locator(".lessons li").filter({ hasText: "Flow, by a bag" });
  await flow.getByRole("textbox").fill("the bag leaked");
  await flow.getByRole("button", { name: /^Leave out/ }).click();
  await expect(flow).toContainText("left out: the bag leaked");
  await expectAccessible(page);
  await flow.getByRole("button", { name: /^Count it again/ }).click();
  await expect(flow).not.toContainText("left out");

  // The iron beside it, by a block of copper: what was measured stands in the form.
  await page.getByRole("link", { name: "Measure the iron" }).click();
  await enter(page, "Before touch 1", "350");
  await enter(page, "Lowest of touch 1", "345");
  await enter(page, "Seconds of touch 1", "30");
  await expect(page.locator("#found")).toContainText("the tip dips by less than 20 K");
  await enter(page, "Lowest of touch 1", "215");
  await expect(page.locator("#found h2")).toContainText(/^Heater to tip .* K\/W \(.*\), at most .* W \(/);
  await expect(page.locator(".plan-change b")).toContainText(/^the tip for its heaviest joint /);
  await expectAccessible(page);
  await page.getByRole("button", { name: "Use this" }).click();
  await expect(page.getByLabel("Iron beside it, at most")).not.toHaveValue("65");
  await expect(page.locator(".lessons li").first()).toContainText("change it there");

  // A new heater is another station's: what was learnt of the old one counts no longer, and a slip is taken back.
  const known = page.locator("#known");
  await expect(known).toContainText("before it was measured");
  await page.getByLabel("Changed since:").selectOption("the heater");
  await page.getByRole("button", { name: "It is new" }).click();
  await expect(known).not.toContainText("before it was measured");
  const changed = page.locator(".lessons li").filter({ hasText: "New heater" });
  await changed.getByRole("textbox").fill("a slip");
  await changed.getByRole("button", { name: /^Leave out/ }).click();
  await expect(known).toContainText("before it was measured");
});

test("a probe whose bead came off teaches nothing, and a logger's file is read whatever it looks like", async ({ page }) => {
  const { shop } = await shopWithStation(page);
  await page.getByRole("link", { name: "Probe on a board" }).click();
  await enter(page, /Readings, a line each/, warmed(3).join("\n"));
  await expect(page.locator("#found .misfit")).toContainText("Has the bead come off");
  await page.getByRole("button", { name: "Use this" }).click();
  await expect(page.locator("main")).toContainText("tape the bead flat and probe again");
  await page.goBack();
  const fahrenheit = [
    "Time s;TC1 (°F)",
    ...warmed(60, (t) => t * 1.8 + 32).map((line) => line.replace(", ", ";").replace(".", ",")),
    "130;OPEN",
  ];
  await page
    .getByLabel("Or a logger's file")
    .setInputFiles({ name: "log.csv", mimeType: "text/csv", buffer: Buffer.from(fahrenheit.join("\r\n")) });
  await page.getByRole("button", { name: "Read the file" }).click();
  await expect(page.getByLabel(/Readings, a line each/)).toHaveValue(/^0\.0, 23\.0/);
  await expect(page.locator("#found h2")).toContainText("became");
  // Three columns: the first thermocouple lay in the room; whoever taped them picks the other.
  const three = ["Time s;TC1 °C;TC2 °C", ...warmed(60).map((line) => line.replace(", ", ";20.0;"))];
  await page
    .getByLabel("Or a logger's file")
    .setInputFiles({ name: "two.csv", mimeType: "text/csv", buffer: Buffer.from(three.join("\n")) });
  await page.getByRole("button", { name: "Read the file" }).click();
  await expect(page.getByLabel(/Readings, a line each/)).toHaveValue(/^0\.0, 20\.00/);
  await page.getByLabel("temperature", { exact: true }).selectOption("TC2 °C");
  await page.getByRole("button", { name: "Read these" }).click();
  await expect(page.getByLabel(/Readings, a line each/)).toHaveValue(/^0\.0, 23\.00/);
  await expectAccessible(page);
  await page
    .getByLabel("Or a logger's file")
    .setInputFiles({ name: "photo.jpg", mimeType: "image/jpeg", buffer: Buffer.from([255, 216, 255, 224, 0, 16]) });
  await page.getByRole("button", { name: "Read the file" }).click();
  await expect(page.locator("main")).toContainText("there are not two readings in it");
});

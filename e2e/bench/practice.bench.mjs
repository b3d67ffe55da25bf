// Fifty at the practice bench, each over a connection of their own, hands moving at every step: cargo xtask bench. Printed; that the
// fifty-first is told that the bench is full is asserted, times are not. The browser that listens has the same two cores.
import { expect, preparedShop, test } from "../harness.mjs";
import { ask, memory, shareOf } from "./load.mjs";

const SESSIONS = 50;
const SECONDS = 60;

/** In the page: sits down at every attempt, heats with a nozzle that goes round, and notes when each frame comes. */
async function sitDown({ ids, seconds }) {
  const seats = ids.map((id) => {
    const socket = new WebSocket(`ws://${location.host}/practice/${id}/bench`);
    socket.binaryType = "arraybuffer";
    const seat = { socket, frames: [], bytes: [], lost: false };
    socket.addEventListener("message", ({ data }) => {
      if (typeof data === "string") return;
      seat.frames.push(performance.now());
      seat.bytes.push(data.byteLength);
    });
    socket.addEventListener("close", () => (seat.lost = true));
    return seat;
  });
  await new Promise((done) => setTimeout(done, 5000));
  let seq = 1;
  const move = (does) => seats.forEach(({ socket }) => socket.readyState === WebSocket.OPEN && socket.send(JSON.stringify({ seq, does })));
  move({ kind: "air", on: true });
  const from = performance.now();
  const hand = setInterval(() => {
    seq += 1;
    move({ kind: "aim", x_mm: 30 + 5 * Math.cos(seq * 0.3), y_mm: 6 + 5 * Math.sin(seq * 0.3) });
  }, 100);
  await new Promise((done) => setTimeout(done, 1000 * seconds));
  clearInterval(hand);
  return seats.map(({ frames, bytes, lost }) => ({ frames: frames.filter((at) => at >= from), bytes, lost }));
}

test(`${SESSIONS} at the practice bench over their connections`, async ({ page }) => {
  test.setTimeout(600_000);
  const shop = await preparedShop();
  const begin = async (k) => {
    const begun = await ask(`${shop.address}/practice`, {
      method: "POST",
      form: { task: "", board: 1 + (k % 5), station: "Gull, bench 1" },
    });
    return begun.headers.location.split("/").at(-1);
  };
  const ids = [];
  for (let k = 0; k <= SESSIONS; k += 1) ids.push(await begin(k));
  await page.goto(`${shop.address}/practice`);
  const before = memory(shop);
  const sitting = page.evaluate(sitDown, { ids: ids.slice(0, SESSIONS), seconds: SECONDS });
  await page.waitForTimeout(20_000);
  const full = await ask(`${shop.address}/practice/${ids.at(-1)}`);
  const held = memory(shop) - before;
  const seats = await sitting;
  expect(seats.every(({ lost }) => !lost)).toBe(true);
  expect([full.status, full.text.includes("practice bench is full")]).toEqual([409, true]);
  const gaps = seats.flatMap(({ frames }) => frames.slice(1).map((when, k) => when - frames[k]));
  const steps = seats.map(({ frames }) => frames.length);
  const bytes = seats.flatMap((seat) => seat.bytes);
  console.log(
    `${SESSIONS} at it for ${SECONDS} s: between two frames ${shareOf(gaps, 0.5).toFixed(1)} ms in the middle, p99 ${shareOf(gaps, 0.99).toFixed(1)} ms, ` +
      `longest ${shareOf(gaps, 1).toFixed(0)} ms; ${shareOf(steps, 0.01)}-${shareOf(steps, 1)} frames of ${10 * SECONDS}; ` +
      `a frame ${shareOf(bytes, 0.5)} bytes, largest ${shareOf(bytes, 1)}; ${(held / SESSIONS).toFixed(2)} MB each`,
  );
});

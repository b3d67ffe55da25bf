// The connection of an attempt: what hands do goes to the shop as it is done, what can be seen comes back ten times a second. What
// the shop has not said that it keeps is sent again when a lost connection is back.

/** Moves are numbered from 1, as the shop counts them. */
const numbered = (sent) => JSON.parse(sent).seq;

/**
 * Opens the line of an attempt; answers how a move is sent. It is heard:
 *
 * - `told(known)`: what is laid on; with `taken`, as it greets, what the hands hold too
 * - `seen(tick, cues)`: a step, and everything that can be seen at it
 * - `lost(is)`: whether the connection is lost
 * - `finished()`: is the attempt over, so that nothing is to come back?
 */
export function openLine(attempt, heard) {
  let socket = null;
  let greeted = false;
  let cues = new Uint8Array(0);
  let next = 1;
  let unkept = [];
  let wait = 400;

  function connect() {
    const url = new URL(`/practice/${attempt}/bench`, location.href);
    url.protocol = url.protocol.replace("http", "ws");
    socket = new WebSocket(url);
    socket.binaryType = "arraybuffer";
    socket.addEventListener("message", ({ data }) => (typeof data === "string" ? told(JSON.parse(data)) : frame(new DataView(data))));
    socket.addEventListener("open", () => {
      wait = 400;
      heard.lost(false);
    });
    socket.addEventListener("close", () => {
      if (heard.finished()) return;
      heard.lost(true);
      setTimeout(connect, wait);
      wait = Math.min(2 * wait, 5000);
    });
  }

  /** As it greets, the shop says what it has of the hands: what it has not is sent once more, in its order. */
  function told(known) {
    const greets = "taken" in known;
    if (greets) {
      unkept = unkept.filter((sent) => numbered(sent) > known.taken);
      next = Math.max(next, known.taken + 1);
      greeted = true;
      unkept.forEach((sent) => socket.send(sent));
    }
    heard.told(known, greets);
  }

  function frame(bytes) {
    const whole = bytes.getUint8(0) === 0;
    const [tick, kept] = [bytes.getUint32(1, true), bytes.getUint32(5, true)];
    unkept = unkept.filter((sent) => numbered(sent) > kept);
    if (whole) cues = new Uint8Array(bytes.buffer.slice(9));
    else for (let at = 9; at < bytes.byteLength; at += 3) cues[bytes.getUint16(at, true)] = bytes.getUint8(at + 2);
    heard.seen(tick, cues);
  }

  connect();
  return (move) => {
    unkept.push(JSON.stringify({ seq: next, does: move }));
    next += 1;
    if (socket.readyState === WebSocket.OPEN && greeted) socket.send(unkept.at(-1));
  };
}

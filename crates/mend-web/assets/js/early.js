// Presses that are made before the page's own script has arrived are kept, to be heard when it is there (`hear.js`). Once a
// press in that moment was lost with the network, and nothing on the screen said so.
window.earlyPresses = [];
window.keepEarly = (event) => window.earlyPresses.push(event);
document.addEventListener("keydown", window.keepEarly);
document.addEventListener("click", window.keepEarly);

// A page that loads again because its script never came (`arrive.js`) takes them along, with their time of day.
document.addEventListener("leaving", () => {
  const shown = document.getElementById("step");
  if (!shown) return;
  const { run, step } = shown.dataset;
  const presses = window.earlyPresses.map(({ type, key, target, timeStamp }) => ({
    type,
    key,
    button: type === "click" ? selector(target.closest("[data-press], [data-enter]")) : null,
    at: performance.timeOrigin + timeStamp,
  }));
  try {
    const before = JSON.parse(sessionStorage.getItem("early") ?? "null");
    const same = before?.path === location.pathname && before.run === run && before.step === step;
    if (same) presses.unshift(...before.presses);
    sessionStorage.setItem("early", JSON.stringify({ path: location.pathname, run, step, presses }));
  } catch {
    // Without a storage they end with the page, which has said so.
  }
});

function selector(button) {
  if (!button) return null;
  const { press, enter, row } = button.dataset;
  const tapped = `[data-enter="${CSS.escape(enter)}"]${row ? `[data-row="${CSS.escape(row)}"]` : ""}`;
  return press ? `[data-press="${CSS.escape(press)}"]` : tapped;
}

// The bench run's keys, clocks and entries. The shop decides what a press means; this sends it with the run and the step that
// were on the screen, and how long ago it was.
import { hear } from "./hear.js";
import { queue } from "./queue.js";
import * as twin from "./twin.js";

const KEYS = {
  " ": "go",
  Enter: "go",
  ArrowRight: "go",
  Backspace: "undo",
  ArrowLeft: "undo",
  s: "stopped",
  S: "stopped",
};
/** A pedal bounces: two presses within this are one. */
const BOUNCE_MS = 300;
const step = () => document.getElementById("step");
let shownAt = performance.now();
let lastPress = -Infinity;

const entries = queue({
  name: `run ${location.pathname}`,
  send: ({ data, token }, ago) =>
    fetch(`${location.pathname}/events`, {
      method: "POST",
      body: new URLSearchParams({ ...data, token, ago_ms: ago }),
    }),
  shown: (html) => show(html),
  // What was refused stays in the queue; the screen shows where the bench is.
  refused: async () => {
    const page = await fetch(location.pathname);
    if (page.ok) show(await page.text());
    return false;
  },
  // The same entry, made on what is on the screen now.
  move: (data) => ({
    ...data,
    run: step().dataset.run,
    step: step().dataset.step,
    phase: "",
  }),
});

function bounced(moment) {
  if (moment - lastPress < BOUNCE_MS) return true;
  lastPress = moment;
  return false;
}

function press(kind, moment) {
  const { next, run, phase } = step().dataset;
  if (next && kind === "go") return location.assign(next);
  const button = step().querySelector(`[data-press="${kind}"]`);
  if (!run || !button || button.disabled || bounced(moment)) return;
  if (button.dataset.shut) return say(button.dataset.shut);
  // While entries wait to be sent the screen does not show the phase that they lead to.
  const label = button.firstChild.textContent.trim() || button.textContent;
  enter({ label, moment }, { kind, phase: entries.waiting() ? "" : phase });
}

function enter({ label, moment }, data) {
  const { run, title } = step().dataset;
  entries.add({ label: `“${label}” at ${title}`, moment }, { run, step: step().dataset.step, ...data });
}

function tap(button, moment) {
  const label = button.firstChild.textContent.trim();
  if (!bounced(moment)) enter({ label, moment }, { kind: button.dataset.enter, row: button.dataset.row ?? "" });
}

function say(text) {
  const hint = document.getElementById("shut-hint");
  if (hint) hint.textContent = text;
}

function show(html) {
  const fresh = new DOMParser().parseFromString(html, "text/html").getElementById("step");
  if (!fresh) return;
  step().replaceWith(fresh);
  shownAt = performance.now();
  draw();
  twin.shown();
}

/** The clock goes by the browser's own monotonic clock from what the shop says has elapsed: nobody's wall clock has a part. */
function draw() {
  const { phase, elapsedMs } = step().dataset;
  if (phase !== "running") return;
  const seconds = (Number(elapsedMs) + performance.now() - shownAt) / 1000;
  const clock = step().querySelector("[data-clock]");
  if (clock) clock.textContent = seconds.toFixed(0);
  const bar = step().querySelector(".time-bar");
  if (!bar) return;
  const share = (1000 * seconds) / Number(bar.dataset.endS);
  bar.querySelector(".hand")?.setAttribute("transform", `translate(${Math.min(1000, share)} 0)`);
  const stop = bar.querySelector(".stop-line");
  step().classList.toggle("overdue", Boolean(stop) && share >= Number(stop.getAttribute("x")));
}

function keydown(event) {
  if (event.target.closest("input, textarea, select, summary")) return;
  if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
  // Space and Enter on a button or a link press that one, nothing else.
  if ([" ", "Enter"].includes(event.key) && event.target.closest("a, button")) return;
  const key = step().querySelector(`[data-key="${CSS.escape(event.key.toUpperCase())}"]`);
  const kind = KEYS[event.key];
  if (!(kind || key)) return;
  event.preventDefault();
  if (key) tap(key, event.timeStamp);
  else press(kind, event.timeStamp);
}

function click(event) {
  const button = event.target.closest("[data-press]");
  const key = event.target.closest("[data-enter]");
  if (button) press(button.dataset.press, event.timeStamp);
  if (key) tap(key, event.timeStamp);
}

hear({ keydown, click });
document.addEventListener("submit", (event) => {
  if (!event.target.matches("[data-override]")) return;
  event.preventDefault();
  const reason = event.target.elements.reason.value.trim();
  if (reason) enter({ label: "Going on all the same", moment: event.timeStamp }, { kind: "overridden", reason });
  else event.target.elements.reason.focus();
});
document.addEventListener("twin", draw);
setInterval(draw, 200);
draw();
twin.watch();

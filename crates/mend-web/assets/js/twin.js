// The live twin: asked for once a second while the air is on. A warning is seen and, where sound is on, heard.

import { tones } from "./sound.js";

const ASK_MS = 1000;
/// Without word for so long, what is shown is old, ms.
const OLD_MS = 4000;
const SOUND = "sound";
const step = () => document.getElementById("step");
let asking = false;
let lastWord = performance.now();
let lastAdvice = "plan";

/** Sound is off where the browser keeps nothing. */
function isOn() {
  try {
    return localStorage.getItem(SOUND) === "on";
  } catch {
    return false;
  }
}

function turn(on) {
  try {
    localStorage.setItem(SOUND, on ? "on" : "off");
  } catch {
    // It stays as it is.
  }
}

/** Higher for what is worse; where sound is on. */
function sound(count, hertz) {
  if (isOn()) tones(count, hertz);
}

function heed(advice) {
  step().dataset.advice = advice;
  if (advice === "air-away") sound(3, 1320);
  else if (advice === "warning" && lastAdvice !== "warning") sound(2, 880);
  lastAdvice = advice;
}

/** Asks for the state of the heating that is on the screen, and shows it. */
export async function ask() {
  const twin = document.getElementById("twin");
  if (!twin?.matches("[data-asks]") || asking) return;
  asking = true;
  const { run, step: at } = step().dataset;
  try {
    const answer = await fetch(`${location.pathname}/watch`, { method: "POST", body: new URLSearchParams({ run, step: at }) });
    if (answer.status === 200) show(await answer.text(), at);
  } catch {
    // The network is gone: what is shown grows old, and says so.
  } finally {
    asking = false;
  }
  document.getElementById("twin")?.classList.toggle("old", performance.now() - lastWord > OLD_MS);
}

function show(html, at) {
  const fresh = new DOMParser().parseFromString(html, "text/html").getElementById("twin");
  // A press has led on meanwhile.
  if (!fresh || step().dataset.step !== at || step().dataset.phase !== "running") return;
  const focused = document.activeElement?.closest("#twin [data-key]")?.dataset.key;
  document.getElementById("twin").replaceWith(fresh);
  if (focused) fresh.querySelector(`[data-key="${focused}"]`)?.focus({ preventScroll: true });
  lastWord = performance.now();
  heed(fresh.dataset.advice);
  document.dispatchEvent(new Event("twin"));
}

function label() {
  const button = document.getElementById("sound");
  if (!button) return;
  button.textContent = isOn() ? "Sound on" : "Sound off";
  button.setAttribute("aria-pressed", String(isOn()));
}

/** Begins, and goes on whatever step is on the screen. */
export function watch() {
  document.addEventListener("click", (event) => {
    if (!event.target.closest("#sound")) return;
    turn(!isOn());
    label();
    sound(1, 880);
  });
  setInterval(ask, ASK_MS);
  shown();
}

/** Another step, or another phase of it, is on the screen. */
export function shown() {
  lastWord = performance.now();
  lastAdvice = "plan";
  label();
  ask();
}

// Look and measure: a letter says in what state a land is; a reading is typed and entered, or taken off a meter hands-free.
import { arrow, choose, current, isElsewhere, move, onChoice, show, walk } from "./pin-keys.js";
import { queue } from "./queue.js";
import { tones } from "./sound.js";

const LISTEN_MS = 250;
let typed = "";
let listening = null;
let speaking = false;
let said = "";

const entries = queue({
  name: `checks ${location.pathname}`,
  send: ({ data, token }) => fetch(location.pathname, { method: "POST", body: new URLSearchParams({ ...data, token }) }),
  shown: (html, last) => last && show(html),
});

function type(text) {
  typed = text;
  const shown = walk().querySelector("[data-typed]");
  if (shown) shown.textContent = text;
}

onChoice((pin) => {
  walk().querySelector("[data-pin-name]").textContent = pin.dataset.pin;
  say(pin.dataset.pin);
  walk().querySelector("[data-pin-says]").textContent = pin.getAttribute("aria-label").split(": ").slice(1).join(": ");
  type("");
});

/** Letters and figures apart, as a person calls a pin out. */
function say(pin) {
  if (!speaking || pin === said) return;
  said = pin;
  speechSynthesis.cancel();
  speechSynthesis.speak(new SpeechSynthesisUtterance(pin.replace(/(\d+)/g, " $1")));
}

function speak(on) {
  speaking = on;
  said = "";
  label();
  if (on) say(current().dataset.pin);
}

function enter(value) {
  const [name, { list }] = [current().dataset.pin, walk().dataset];
  entries.add({ label: value ? `${name}: ${value}` : `${name}: taken back` }, { list, name, value });
  if (value) move(0, 1);
}

function skip(value) {
  entries.add({ label: value ? "Look: skipped" : "Look: not skipped" }, { list: "skipped", name: "look", value });
}

/** The probe rests on a pin: what it reads is entered, a sound says so, the next pin is shown. */
async function listen(seen) {
  try {
    const { count, volts, fault } = await (await fetch(`${location.pathname}/meter`)).json();
    walk().querySelector("[data-meter]").textContent = fault || `touch ${current().dataset.pin}`;
    if (seen !== null && count > seen && volts !== null) {
      enter(volts.toFixed(3));
      tones(1, 880);
    }
    return count;
  } catch {
    walk().querySelector("[data-meter]").textContent = "No word from the shop: type it.";
    return seen;
  }
}

function handsFree(on) {
  listening = on ? {} : null;
  const mine = listening;
  let seen = null;
  const again = async () => {
    if (listening !== mine) return;
    seen = await listen(seen);
    label();
    setTimeout(again, LISTEN_MS);
  };
  if (on) again();
  label();
}

function label() {
  const press = (what, on) => walk().querySelector(what)?.setAttribute("aria-pressed", String(on));
  press("[data-hands-free]", Boolean(listening));
  press("[data-speak]", speaking);
}

/** A reading that is being typed. */
function key(pressed) {
  if (/^[\d.,]$/.test(pressed)) type(typed + pressed);
  else if (pressed === "o") enter("OL");
  else if (pressed === "Enter" && typed) enter(typed);
  else if (pressed === "Backspace" && typed) type(typed.slice(0, -1));
  else if (pressed === "Backspace") enter("");
  else return false;
  return true;
}

document.addEventListener("keydown", (event) => {
  if (isElsewhere(event)) return;
  const pressed = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const state = walk().querySelector(`[data-key="${CSS.escape(pressed)}"]`);
  const lands = Boolean(walk().querySelector("[data-mark]"));
  if (pressed === "Escape") skip(walk().querySelector("[data-skip]").dataset.skip);
  else if (state) enter(state.dataset.mark);
  else if (lands && pressed === "Backspace") enter("");
  else if (!arrow(event.key) && (lands || !key(pressed))) return;
  event.preventDefault();
});
document.addEventListener("click", (event) => {
  const pin = event.target.closest("[data-pin]");
  const [state, skips] = [event.target.closest("[data-mark]"), event.target.closest("[data-skip]")];
  if (pin) choose(pin);
  if (state) enter(state.dataset.mark);
  if (skips) skip(skips.dataset.skip);
  if (event.target.closest("[data-hands-free]")) handsFree(!listening);
  if (event.target.closest("[data-speak]")) speak(!speaking);
});
choose(current());

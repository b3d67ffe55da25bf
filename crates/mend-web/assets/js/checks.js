// A table of checks, the functional test or what stands near: arrows move, a letter says what was found and goes on to the next; a value
// that was measured is typed beside it.
import { arrow, choose, current, isElsewhere, move, show, walk } from "./pin-keys.js";
import { queue } from "./queue.js";

const entries = queue({
  name: `checks ${location.pathname}`,
  send: ({ data, token }) => fetch(location.pathname, { method: "POST", body: new URLSearchParams({ ...data, token }) }),
  shown: (html, last) => last && show(html),
});

function enter(value) {
  if (!current()) return;
  const { list, pin } = current().dataset;
  entries.add({ label: value ? `${pin}: ${value}` : `${pin}: taken back` }, { list, name: pin, value });
  if (value) move(1, 0);
}

/** The button that skips the stop, or takes it up again, where it has one. */
function skip(button) {
  if (!button) return;
  const [name, { skip: value }] = [walk().dataset.stop, button.dataset];
  entries.add({ label: value ? "Skipped" : "Not skipped" }, { list: "skipped", name, value });
}

document.addEventListener("keydown", (event) => {
  if (isElsewhere(event)) return;
  const key = walk().querySelector(`[data-key="${CSS.escape(event.key.toLowerCase())}"]`);
  if (arrow(event.key)) event.preventDefault();
  else if (key) enter(key.dataset.mark);
  else if (event.key === "Backspace") enter("");
  else if (event.key === "Escape") skip(walk().querySelector("[data-skip]"));
  else if (event.key === "Enter" && walk().dataset.next) location.assign(walk().dataset.next);
  else return;
  event.preventDefault();
});
document.addEventListener("change", (event) => {
  const { value: name } = event.target.dataset;
  if (name) entries.add({ label: `${name}: ${event.target.value}` }, { list: "values", name, value: event.target.value });
});
document.addEventListener("click", (event) => {
  const [pin, found] = [event.target.closest("[data-pin]"), event.target.closest("[data-mark]")];
  if (pin) choose(pin);
  if (found) enter(found.dataset.mark);
  skip(event.target.closest("[data-skip]"));
});
choose(current());

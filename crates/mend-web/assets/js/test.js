// The functional test: arrows move, a letter says what a test showed and goes on to the next.
import { arrow, choose, current, isElsewhere, pins, show, walk } from "./pin-keys.js";
import { queue } from "./queue.js";

const entries = queue({
  name: `checks ${location.pathname}`,
  send: ({ data, token }) => fetch(location.pathname, { method: "POST", body: new URLSearchParams({ ...data, token }) }),
  shown: (html, last) => last && show(html),
});

/** Down the column, then down the next. */
function next() {
  const { row, column } = current().dataset;
  const at = (r, c) => pins().find((pin) => pin.dataset.row === String(r) && pin.dataset.column === String(c));
  choose(at(Number(row) + 1, column) ?? at(0, Number(column) + 1));
}

function enter(value) {
  const { list, name } = current().dataset;
  entries.add({ label: value ? `${name}: ${value}` : `${name}: taken back` }, { list, name, value });
  if (value) next();
}

function skip(value) {
  entries.add({ label: value ? "Test: skipped" : "Test: not skipped" }, { list: "skipped", name: "test", value });
}

document.addEventListener("keydown", (event) => {
  if (isElsewhere(event)) return;
  const key = walk().querySelector(`[data-key="${CSS.escape(event.key.toLowerCase())}"]`);
  if (arrow(event.key)) event.preventDefault();
  else if (key) enter(key.dataset.mark);
  else if (event.key === "Backspace") enter("");
  else if (event.key === "Escape") skip(walk().querySelector("[data-skip]").dataset.skip);
  else if (event.key === "Enter" && walk().dataset.next) location.assign(walk().dataset.next);
  else return;
  event.preventDefault();
});
document.addEventListener("click", (event) => {
  const pin = event.target.closest("[data-pin]");
  const [result, skips] = [event.target.closest("[data-mark]"), event.target.closest("[data-skip]")];
  if (pin) choose(pin);
  if (result) enter(result.dataset.mark);
  if (skips) skip(skips.dataset.skip);
});
choose(current());

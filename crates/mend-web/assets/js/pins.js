// The pin walk's keys: arrows move, a letter marks and goes on to the next pin.
import { arrow, choose, current, isElsewhere, move, show, walk } from "./pin-keys.js";
import { queue } from "./queue.js";

const marks = queue({
  name: `marks ${location.pathname}`,
  send: ({ data, token }) =>
    fetch(location.pathname, {
      method: "POST",
      body: new URLSearchParams({ ...data, token }),
    }),
  shown: (html, last) => last && show(html),
});

function mark(kind) {
  const pin = current().dataset.pin;
  const label = kind ? `Pin ${pin}: ${kind}` : `Pin ${pin}: mark taken back`;
  marks.add({ label }, { pin, mark: kind });
  if (kind) move(0, 1);
}

function skip(button) {
  if (!button) return;
  const { skip: value } = button.dataset;
  marks.add({ label: value ? "Inspect: skipped" : "Inspect: not skipped" }, { pin: "skipped", mark: value });
}

document.addEventListener("keydown", (event) => {
  if (isElsewhere(event)) return;
  const key = walk().querySelector(`[data-key="${CSS.escape(event.key.toLowerCase())}"]`);
  if (arrow(event.key)) event.preventDefault();
  else if (key) mark(key.dataset.mark);
  else if (event.key === "Backspace") mark("");
  else if (event.key === "Escape") skip(walk().querySelector("[data-skip]"));
  else if (event.key === "Enter" && walk().dataset.next) location.assign(walk().dataset.next);
  else return;
  event.preventDefault();
});
document.addEventListener("click", (event) => {
  const pin = event.target.closest("[data-pin]");
  const button = event.target.closest("[data-mark]");
  if (pin) choose(pin);
  if (button) mark(button.dataset.mark);
  skip(event.target.closest("[data-skip]"));
});
choose(current());

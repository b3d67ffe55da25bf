// The pin walk's keys: arrows move, a letter marks and goes on to the next pin.
import { queue } from "./queue.js";

const walk = () => document.getElementById("walk");
const pins = () => [...walk().querySelectorAll("[data-pin]")];
let chosen = walk().dataset.chosen || pins()[0]?.dataset.pin;

const marks = queue({
  name: `marks ${location.pathname}`,
  send: ({ data, token }) =>
    fetch(location.pathname, {
      method: "POST",
      body: new URLSearchParams({ ...data, token }),
    }),
  shown: (html, last) => last && show(html),
});

function choose(pin) {
  if (!pin) return;
  chosen = pin.dataset.pin;
  pins().forEach((other) => other.classList.toggle("chosen", other === pin));
}
const current = () => pins().find((pin) => pin.dataset.pin === chosen) ?? pins()[0];
const at = (row, column) => pins().find((pin) => Number(pin.dataset.row) === row && Number(pin.dataset.column) === column);

function move(rows, columns) {
  const here = current();
  const [row, column] = [Number(here.dataset.row) + rows, Number(here.dataset.column) + columns];
  const inRow = pins().filter((pin) => Number(pin.dataset.row) === row);
  const end =
    columns > 0
      ? at(row + 1, 0)
      : pins()
          .filter((pin) => Number(pin.dataset.row) === row - 1)
          .at(-1);
  choose(at(row, column) ?? (rows ? inRow.at(-1) : end));
}

function mark(kind) {
  const label = kind ? `Pin ${chosen}: ${kind}` : `Pin ${chosen}: mark taken back`;
  marks.add({ label }, { pin: chosen, mark: kind });
  if (kind) move(0, 1);
}

function show(html) {
  const fresh = new DOMParser().parseFromString(html, "text/html");
  const focused = walk().contains(document.activeElement);
  walk().replaceWith(fresh.getElementById("walk"));
  document.getElementById("job-head").replaceWith(fresh.getElementById("job-head"));
  document.getElementById("job-head").removeAttribute("hx-swap-oob");
  choose(current());
  if (focused) walk().querySelector(".scope").focus({ preventScroll: true });
}

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest("input, textarea, select")) return;
  // Space and Enter on a button or a link press that one, nothing else.
  if ([" ", "Enter"].includes(event.key) && event.target.closest("a, button")) return;
  const steps = {
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
  };
  const key = walk().querySelector(`[data-key="${CSS.escape(event.key.toLowerCase())}"]`);
  if (steps[event.key]) move(...steps[event.key]);
  else if (key) mark(key.dataset.mark);
  else if (event.key === "Backspace") mark("");
  else if (event.key === "Enter" && walk().dataset.next) location.assign(walk().dataset.next);
  else return;
  event.preventDefault();
});
document.addEventListener("click", (event) => {
  const pin = event.target.closest("[data-pin]");
  const button = event.target.closest("[data-mark]");
  if (pin) choose(pin);
  if (button) mark(button.dataset.mark);
});
choose(current());

// Moving over the pins of a picture by arrows and clicks, for whoever enters something of the chosen one.

export const walk = () => document.getElementById("walk");
export const pins = () => [...walk().querySelectorAll("[data-pin]")];
let chosen = walk().dataset.chosen || pins()[0]?.dataset.pin;
let told = () => {};

const at = (row, column) => pins().find((pin) => Number(pin.dataset.row) === row && Number(pin.dataset.column) === column);

/** The chosen pin. */
export const current = () => pins().find((pin) => pin.dataset.pin === chosen) ?? pins()[0];

export function choose(pin) {
  if (!pin) return;
  chosen = pin.dataset.pin;
  pins().forEach((other) => other.classList.toggle("chosen", other === pin));
  told(pin);
}

/** `tells` hears of every pin that is chosen. */
export function onChoice(tells) {
  told = tells;
}

export function move(rows, columns) {
  const here = current();
  if (!here) return;
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

const STEPS = {
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
};

/** Takes an arrow key; false for any other. */
export function arrow(key) {
  if (!STEPS[key]) return false;
  move(...STEPS[key]);
  return true;
}

/** Is a key meant for something else: a field, a button, the browser? */
export function isElsewhere(event) {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest("input, textarea, select")) return true;
  // Space and Enter on a button or a link press that one, nothing else.
  return [" ", "Enter"].includes(event.key) && Boolean(event.target.closest("a, button"));
}

/** Puts what the shop answered in the place of what is shown. */
export function show(html) {
  const fresh = new DOMParser().parseFromString(html, "text/html");
  const focused = walk().contains(document.activeElement);
  walk().replaceWith(fresh.getElementById("walk"));
  document.getElementById("job-head").replaceWith(fresh.getElementById("job-head"));
  document.getElementById("job-head").removeAttribute("hx-swap-oob");
  window.htmx?.process(walk());
  choose(current());
  if (focused) walk().querySelector(".scope")?.focus({ preventScroll: true });
}

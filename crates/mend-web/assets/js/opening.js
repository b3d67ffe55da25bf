// The opening map: taps count things out and in; a form and a tap add what the map lacks.
import { queue } from "./queue.js";
import { tones } from "./sound.js";

const part = () => document.getElementById("opening");
const form = () => part().querySelector("[data-add-form]");
const mark = (id) => part().querySelector(`[data-item="${id}"]`);
let picked = "";
// What is set in the form stays while the part is replaced.
let kept = new FormData();
let adding = false;

// Taps that the shop has not answered yet, in their order: drawn over whatever it says meanwhile.
const pending = [];

const send = (path, answered) =>
  queue({
    name: `opening ${path}`,
    send: ({ data, token }) => fetch(path, { method: "POST", body: new URLSearchParams({ ...data, token }) }),
    shown: (html, last, entry) => {
      if (entry) answered();
      if (last) show(html);
    },
    refused: () => {
      answered();
      return false;
    },
  });
const { job, taps: tapsTo } = part().dataset;
const taps = send(tapsTo, () => pending.shift());
const edits = send(`/jobs/${job}/opening/edits`, () => {});
// At the close everything goes back in, and nothing is added.
const closing = part().dataset.closing === "true";

function draw({ item, value }) {
  mark(item)?.classList.remove("in", "out", "back", "picked");
  mark(item)?.classList.add(value);
}

function show(html) {
  keepForm();
  const fresh = new DOMParser().parseFromString(html, "text/html");
  part().replaceWith(fresh.getElementById("opening"));
  document.getElementById("job-head").replaceWith(fresh.getElementById("job-head"));
  document.getElementById("job-head").removeAttribute("hx-swap-oob");
  restoreForm();
  pending.filter(({ item }) => item !== "undo").forEach(draw);
}

function keepForm() {
  if (!form()) return;
  kept = new FormData(form());
}

function restoreForm() {
  if (!form()) return;
  for (const [name, value] of kept) {
    // Not by `elements`: a field called length is hidden there by how many there are.
    const field = form().querySelector(`[name="${name}"]`);
    if (field?.type === "checkbox") field.checked = true;
    else if (field) field.value = value;
  }
  form().querySelector("[data-adding]").checked = adding;
  showFields();
  mark(picked)?.classList.add("picked");
}

/** Only what is to be said of the kind is asked. */
function showFields() {
  if (!form()) return;
  const kind = form().elements.kind.value;
  form()
    .querySelectorAll("[data-of]")
    .forEach((fields) => {
      fields.hidden = fields.dataset.of !== kind;
    });
}

const number = (item) => Number(item.getAttribute("aria-label").split(":")[0]);
/** Everything that comes out, in its order. */
const inOrder = () => [...part().querySelectorAll("[data-item]:not(.hazard)")].sort((a, b) => number(a) - number(b));

/** The next that comes out, or goes back: as it is drawn, so that quick taps do not wait for the shop. */
function due(value) {
  return value === "out"
    ? inOrder().find((item) => item.classList.contains("in"))
    : inOrder().findLast((item) => item.classList.contains("out"));
}

function tap(value, chosen) {
  const item = value === "undo" ? null : (chosen ?? mark(picked) ?? due(value));
  if (value !== "undo" && !item) {
    goOn();
    return;
  }
  const said = item ? item.getAttribute("aria-label") : "the last tap";
  const name = item?.dataset.item ?? "undo";
  picked = "";
  pending.push({ item: name, value });
  if (item) draw({ item: name, value });
  taps.add({ label: `${value}: ${said}` }, { list: "opening", name, value });
  tones(1, value === "out" ? 660 : 880);
}

/** Nothing is left to tap: to the next stop, as soon as the shop has all of it. */
function goOn() {
  if (part().dataset.next && !pending.length) location.assign(part().dataset.next);
}

// The close is skipped as an entry like any other: it waits for the network, and the page follows.
const skips = queue({
  name: `skip ${job}`,
  send: ({ data, token }) => fetch(`/jobs/${job}/close`, { method: "POST", body: new URLSearchParams({ ...data, token }) }),
  shown: (_, last) => last && location.reload(),
});

function edit(data, label) {
  edits.add({ label }, data);
}

function add(page, event) {
  const box = page.getBoundingClientRect();
  const [x, y] = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
  const data = Object.fromEntries([...new FormData(form())].filter(([name]) => name !== "adding"));
  edit({ act: "add", page: page.dataset.page, x: x.toFixed(4), y: y.toFixed(4), ...data }, `${data.kind} on the map`);
}

/** A thing that is in comes out, one that is out goes back, one that is back comes out again. */
function toggle(item) {
  if (item.classList.contains("hazard")) return;
  tap(item.classList.contains("out") ? "back" : "out", item);
}

document.addEventListener("click", (event) => {
  const [item, page] = [event.target.closest("[data-item]"), event.target.closest("[data-page]")];
  const button = event.target.closest("[data-tap]");
  if (button) tap(button.dataset.tap);
  else if (event.target.closest("[data-skip-close]"))
    skips.add({ label: "Close: skipped" }, { list: "skipped", name: "close", value: "skipped" });
  else if (event.target.closest("[data-remove]") && picked) edit({ act: "remove", item: picked }, "off the map");
  else if (event.target.closest("[data-earlier]") && picked) edit({ act: "move", item: picked, before: before(picked) }, "one earlier");
  else if (item && event.shiftKey) pick(item);
  else if (item && adding) pick(item);
  else if (item) toggle(item);
  else if (page && adding) add(page, event);
});

/** Chosen to be removed or moved, without a tap. */
function pick(item) {
  mark(picked)?.classList.remove("picked");
  picked = item.dataset.item;
  item.classList.add("picked");
}

/** The thing that comes out before another. */
function before(id) {
  const all = [...part().querySelectorAll("[data-item]")].sort((a, b) => number(a) - number(b));
  const at = all.findIndex((item) => item.dataset.item === id);
  return all[Math.max(0, at - 1)]?.dataset.item ?? id;
}

document.addEventListener("change", (event) => {
  if (event.target.matches("[data-adding]")) {
    adding = event.target.checked;
    // Space is the next thing out, not this box again.
    event.target.blur();
  }
  if (event.target.name === "kind") {
    adding = true;
    form().querySelector("[data-adding]").checked = true;
  }
  showFields();
});
document.addEventListener("submit", (event) => {
  if (!event.target.matches("[data-page-form], [data-add-form]")) return;
  event.preventDefault();
  if (event.target.matches("[data-page-form]")) {
    edit({ act: "page", name: event.target.elements.name.value }, "a page");
  }
});
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest("input, textarea, select")) return;
  if ([" ", "Enter"].includes(event.key) && event.target.closest("a, button")) return;
  const go = closing ? "back" : "out";
  const keys = { " ": go, Enter: go, ArrowRight: go, b: "back", Backspace: "undo", ArrowLeft: "undo" };
  const value = keys[event.key.length === 1 ? event.key.toLowerCase() : event.key];
  if (!value) return;
  tap(value);
  event.preventDefault();
});

/** What was chosen before this script had come counts too. */
function takeUp() {
  if (!form()) return;
  const box = form().querySelector("[data-adding]");
  box.checked ||= !form().elements.kind.options[0].selected;
  adding = box.checked;
  showFields();
}
takeUp();

// The process window's pointer and keys: they move the two settings in the form; the shop computes what comes of it.
const STEPS = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
const map = () => document.querySelector(".window-map");
let wanted = false;

function choose(set, flow) {
  const [sets, flows] = [map().dataset.sets.split(" "), map().dataset.flows.split(" ")];
  if (!(sets[set] && flows[flow])) return;
  map().dataset.atSet = set;
  map().dataset.atFlow = flow;
  document.getElementById("set").value = sets[set];
  const field = document.getElementById("flow");
  field.value = flows[flow];
  document.getElementById("set").dispatchEvent(new Event("input", { bubbles: true }));
  field.dispatchEvent(new Event("input", { bubbles: true }));
}

document.addEventListener("click", (event) => {
  const cell = event.target.closest?.("[data-set]");
  if (cell) choose(Number(cell.dataset.set), Number(cell.dataset.flow));
});
document.addEventListener("keydown", (event) => {
  const step = STEPS[event.key];
  if (!step || event.target !== map()) return;
  event.preventDefault();
  wanted = true;
  choose(Number(map().dataset.atSet) + step[0], Number(map().dataset.atFlow) + step[1]);
});
// The map is drawn anew with every plan: whoever was moving it with the keys goes on moving it.
document.addEventListener("htmx:afterSettle", () => {
  if (wanted && document.activeElement === document.body) map()?.focus({ preventScroll: true });
});

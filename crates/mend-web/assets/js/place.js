// Shields and jet on the map: dragged, or moved with the arrow keys. They change fields of the form; the shop computes.
const STEP_MM = 0.5;
const EDGE_MM = 1.2;
const ARROWS = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
const field = (name) => document.getElementById(name);
const value = (name) => Number(field(name).value);
const thing = (event) => event.target.closest?.("[data-place] [data-shield], [data-place] [data-tool]");
let held = null;
let wanted = null;

// Fields that a thing's place, or its size, is kept in.
function names(of, sizes) {
  if (of.dataset.shield === undefined) return ["aim-x", "aim-y"];
  const at = `shield-${of.dataset.shield}-`;
  return sizes ? [`${at}width`, `${at}depth`] : [`${at}x`, `${at}y`];
}

/** Where the same thing is in the map, whichever drawing of it that is. */
function selector(of) {
  const { shield } = of.dataset;
  return shield === undefined ? "[data-tool]" : `[data-face="${of.closest("svg").dataset.face}"] [data-shield="${shield}"]`;
}

function change(of, [dx, dy], sizes) {
  const round = (mm) => String(Math.round(mm * 10) / 10);
  const [a, b] = names(of, sizes);
  field(a).value = round(sizes ? Math.max(1, value(a) + dx) : value(a) + dx);
  field(b).value = round(sizes ? Math.max(1, value(b) + dy) : value(b) + dy);
  wanted = selector(of);
  field(b).dispatchEvent(new Event("input", { bubbles: true }));
}

// The jet's reach goes with its nozzle; it lies apart, so that what is pointed at is no larger than what is drawn.
function shift(of, by) {
  const reach = of.dataset.tool === undefined ? null : of.closest("svg").querySelector("[data-reach]");
  for (const moved of [of, reach]) moved?.setAttribute("transform", by);
}

const inverse = (svg) => svg.getScreenCTM().inverse();
const millimetres = (event, toMap) => {
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(toMap);
  return [at.x, -at.y];
};

// A map that was taken away has no scale any more: a shield once went 1.2 m aside when a new plan came while it was dragged.
function stillHeld() {
  if (held.of.isConnected) {
    held.toMap = inverse(held.of.closest("svg"));
    return;
  }
  const drawn = document.querySelector(`[data-place] ${selector(held.of)}`);
  if (!drawn) return;
  held.of = drawn;
  held.rect = drawn.querySelector("rect");
}

document.addEventListener("pointerdown", (event) => {
  const of = thing(event);
  if (!of) return;
  event.preventDefault();
  of.focus({ preventScroll: true });
  const toMap = inverse(of.closest("svg"));
  const from = millimetres(event, toMap);
  const rect = of.querySelector("rect");
  const box = rect?.getBBox();
  const sizes = Boolean(box) && (event.shiftKey || box.x + box.width - from[0] < EDGE_MM || box.y + box.height + from[1] < EDGE_MM);
  held = { of, from, toMap, sizes, rect, box };
  of.setPointerCapture(event.pointerId);
});

document.addEventListener("pointermove", (event) => {
  if (!held) return;
  stillHeld();
  const to = millimetres(event, held.toMap);
  held.by = [to[0] - held.from[0], to[1] - held.from[1]];
  if (!held.sizes) {
    shift(held.of, `translate(${held.by[0]} ${-held.by[1]})`);
    return;
  }
  // The lower right corner follows; the middle stays where it is.
  const [w, h] = [Math.max(1, held.box.width + 2 * held.by[0]), Math.max(1, held.box.height - 2 * held.by[1])];
  held.rect.setAttribute("width", w);
  held.rect.setAttribute("height", h);
  held.rect.setAttribute("x", held.box.x + (held.box.width - w) / 2);
  held.rect.setAttribute("y", held.box.y + (held.box.height - h) / 2);
});

document.addEventListener("pointerup", () => {
  const { of, by, sizes } = held ?? {};
  held = null;
  if (by && Math.hypot(...by) > 0.05) change(of, sizes ? [2 * by[0], -2 * by[1]] : by, sizes);
});

document.addEventListener("keydown", (event) => {
  const arrow = ARROWS[event.key];
  const of = thing(event);
  if (!arrow || !of) return;
  event.preventDefault();
  const sizes = event.shiftKey && of.dataset.shield !== undefined;
  const by = arrow.map((step) => step * STEP_MM);
  change(of, sizes ? by.map((mm) => 2 * mm) : by, sizes);
  if (!sizes) shift(of, `${of.getAttribute("transform") ?? ""} translate(${by[0]} ${-by[1]})`);
});

// The map is drawn anew with every plan: whoever was moving a thing with the keys goes on moving it.
document.addEventListener("htmx:afterSettle", () => {
  if (wanted && document.activeElement === document.body) {
    document.querySelector(`[data-place] ${wanted}`)?.focus({ preventScroll: true });
  }
});

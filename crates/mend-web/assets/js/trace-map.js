// Drawing on the map: choosing, dragging and sizing things, new ones, and clicks that a tool waits for. Nothing is sent
// while the pointer moves; what is done when it is let go is one act.
const { edit, show, onDrawn } = window.trace;
const view = window.traceView;
const svg = (name) => document.createElementNS("http://www.w3.org/2000/svg", name);
const map = () => document.getElementById("trace-map");
const pen = () => document.getElementById("trace-pen");
const round = (mm) => Math.round(mm * 100) / 100;
const point = ([x, y]) => ({ x: round(x), y: round(-y) });
const far = (a, b) => Math.hypot(a[0] - b[0], a[1] - b[1]);
const NUDGES = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
// What each tool waits for, and what it asks.
const CLICKS = {
  scale: [2, "Click the one end of the length.", "Click its other end."],
  "scale-part": [2, "Click the part's left edge.", "Click its right edge."],
  level: [2, "Click one end of an edge that is straight.", "Click its other end."],
  mark: [3, "Click a place that both faces show: a hole, a corner.", "A second one, far from it.", "And a third."],
  "line-up": [3, "Click the first marked place, as this photograph shows it.", "The second.", "The third."],
  outline: [2000, "Click the corners in order.", ""],
};
let tool = null;
let clicks = [];
let chosen = null;
let held = null;
let nudged = null;

const says = (text) => (document.getElementById("trace-says").textContent = text);
const things = () => [...map().querySelectorAll(".thing")];
const thing = () => (chosen ? things().find((t) => t.dataset.of === chosen) : null);
const panelOf = (of) => {
  const target = JSON.parse(of);
  return target === "part" ? "part" : `component-${target.component}`;
};

// The rim's corners, to be dragged while the outline is looked at.
const rim = () => map().querySelector(".rim");
const corners = () =>
  rim()
    .getAttribute("points")
    .split(" ")
    .filter(Boolean)
    .map((pair) => pair.split(",").map(Number));
function corner() {
  const radius = map().viewBox.baseVal.width / 150;
  for (const [k, [cx, cy]] of corners().entries()) {
    const dot = svg("circle");
    for (const [name, value] of Object.entries({
      class: "corner",
      cx,
      cy,
      r: radius,
      "data-k": k,
    }))
      dot.setAttribute(name, value);
    pen().append(dot);
  }
}

function handle() {
  pen().querySelector(".handle")?.remove();
  for (const dot of pen().querySelectorAll(".corner")) dot.remove();
  if (!tool && document.getElementById("trace-live").dataset.show === "outline") corner();
  const of = thing();
  if (!of || of.classList.contains("part")) return;
  const box = of.querySelector(".body").getBBox();
  const size = Math.max(0.5, map().viewBox.baseVal.width / 110);
  const grip = svg("rect");
  grip.setAttribute("class", "handle");
  for (const [name, value] of Object.entries({
    x: box.x + box.width - size / 2,
    y: box.y + box.height - size / 2,
    width: size,
    height: size,
  })) {
    grip.setAttribute(name, value);
  }
  pen().append(grip);
}

function choose(of, panel) {
  chosen = of;
  for (const other of things()) other.classList.toggle("chosen", other.dataset.of === of);
  handle();
  if (of && panel) show(panelOf(of));
}

function take(name, id) {
  tool = name ? { name, id } : null;
  clicks = [];
  pen().replaceChildren();
  map().classList.toggle("drawing", Boolean(tool));
  for (const button of document.querySelectorAll("[data-tool]")) {
    button.setAttribute("aria-pressed", String(button.dataset.tool === name && (!id || button.dataset.id === String(id))));
  }
  says(name === "drag" ? "Drag the photograph." : (CLICKS[name]?.[1] ?? (name ? "Drag from corner to corner." : "")));
  handle();
}

// The clicks so far, drawn; and what is done once there are enough.
function clicked(at) {
  const [count, ...asks] = CLICKS[tool.name];
  const closes = tool.name === "outline" && clicks.length > 2 && far(clicks[0], at) < map().viewBox.baseVal.width / 60;
  if (!closes) clicks.push(at);
  sketch();
  if (closes || clicks.length === count) return finish();
  says(asks[Math.min(clicks.length, asks.length - 1)] || `${clicks.length} corners. Enter closes the outline.`);
}

function sketch() {
  const line = svg("polyline");
  line.setAttribute("class", "sketch");
  line.setAttribute("points", clicks.map((p) => p.join(",")).join(" "));
  const dots = clicks.map(([x, y]) => {
    const dot = svg("circle");
    for (const [name, value] of Object.entries({
      class: "click",
      cx: x,
      cy: y,
      r: map().viewBox.baseVal.width / 220,
    }))
      dot.setAttribute(name, value);
    return dot;
  });
  pen().replaceChildren(line, ...dots);
}

function finish() {
  const { name, id } = tool;
  const points = clicks.map(point);
  const [a, b] = points;
  const length = name === "scale-part" ? "part" : document.querySelector(`[data-length="${id}"]`)?.value;
  if (name === "scale" && !length) {
    says("Now type the length in mm.");
    document.querySelector(`[data-length="${id}"]`).focus();
    return;
  }
  take(null);
  if (name === "outline") edit({ do: "outline", corners: points });
  else if (name === "level") edit({ do: "level", id, a, b });
  else if (name === "mark") edit({ do: "mark", points });
  else if (name === "line-up") edit({ do: "line-up", id, points });
  else edit({ do: "scale", id, a, b, length });
}

const box = ([x0, y0], [x1, y1]) => ({
  x: Math.min(x0, x1),
  y: Math.min(y0, y1),
  width: Math.abs(x1 - x0),
  height: Math.abs(y1 - y0),
});

function begin(event) {
  const at = view.place(event);
  if (tool && CLICKS[tool.name]) return clicked(at);
  if (tool?.name === "drag") {
    const photo = map().querySelector(`image[data-of='{"photo":${tool.id}}']`);
    held = {
      kind: "move",
      of: photo,
      from: at,
      base: photo.getAttribute("transform"),
    };
  } else if (tool) {
    const shape = svg(tool.name === "circle" ? "ellipse" : "rect");
    shape.setAttribute("class", "sketch");
    pen().append(shape);
    held = { kind: "new", of: shape, from: at };
  } else if (event.target.closest(".corner")) {
    held = { kind: "corner", of: event.target, from: at, points: corners() };
  } else if (event.target.closest(".handle")) {
    const body = thing().querySelector(".body");
    held = { kind: "size", of: body, from: at, box: body.getBBox() };
  } else if (event.target.closest(".thing")) {
    const of = event.target.closest(".thing");
    if (of.dataset.of !== chosen) choose(of.dataset.of, true);
    of.focus({ preventScroll: true });
    held = { kind: "move", of, from: at, base: "" };
  } else {
    choose(null);
    held = { kind: "pan", last: event };
  }
  map().setPointerCapture(event.pointerId);
}

function shape(of, { x, y, width, height }) {
  const set = (values) => Object.entries(values).forEach(([name, value]) => of.setAttribute(name, value));
  if (of.tagName === "rect") set({ x, y, width, height });
  else
    set({
      cx: x + width / 2,
      cy: y + height / 2,
      rx: width / 2,
      ry: height / 2,
    });
}

// Of a round thing or a circle both sides are the longer one.
function even(of, b) {
  const side = Math.max(b.width, b.height);
  return of.tagName === "rect"
    ? b
    : {
        x: b.x + (b.width - side) / 2,
        y: b.y + (b.height - side) / 2,
        width: side,
        height: side,
      };
}

function follow(event) {
  const at = view.place(event);
  document.getElementById("trace-at").textContent = `${at[0].toFixed(1)}, ${(-at[1]).toFixed(1)} mm`;
  if (!held) return;
  if (held.kind === "pan") {
    const scale = map().getScreenCTM().a;
    view.pan((event.clientX - held.last.clientX) / scale, (event.clientY - held.last.clientY) / scale);
    held.last = event;
    return;
  }
  held.by = [at[0] - held.from[0], at[1] - held.from[1]];
  if (held.kind === "move") held.of.setAttribute("transform", `translate(${held.by[0]} ${held.by[1]}) ${held.base}`);
  if (held.kind === "corner") {
    held.points[Number(held.of.dataset.k)] = at;
    held.of.setAttribute("cx", at[0]);
    held.of.setAttribute("cy", at[1]);
    rim().setAttribute("points", held.points.map((p) => p.join(",")).join(" "));
  }
  if (held.kind === "new") shape(held.of, even(held.of, box(held.from, at)));
  if (held.kind === "size") {
    // About the middle: both edges go apart.
    const [w, h] = [Math.max(0.2, held.box.width + 2 * held.by[0]), Math.max(0.2, held.box.height + 2 * held.by[1])];
    held.now = {
      x: held.box.x + (held.box.width - w) / 2,
      y: held.box.y + (held.box.height - h) / 2,
      width: w,
      height: h,
    };
    shape(held.of, even(held.of, held.now));
  }
}

function letGo() {
  const { kind, of, by, from, now, points } = held ?? {};
  held = null;
  if (!by || (kind === "move" && Math.hypot(...by) < 0.02)) return handle();
  if (kind === "move")
    edit({
      do: "move",
      of: JSON.parse(of.dataset.of),
      dx: round(by[0]),
      dy: round(-by[1]),
    });
  if (kind === "corner") edit({ do: "outline", corners: points.map(point) });
  if (kind === "size")
    edit({
      do: "resize",
      of: JSON.parse(chosen),
      width: round(now.width),
      depth: round(now.height),
    });
  if (kind === "new") {
    const drawn = even(of, box(from, [from[0] + by[0], from[1] + by[1]]));
    const centre = {
      x: round(drawn.x + drawn.width / 2),
      y: round(-drawn.y - drawn.height / 2),
    };
    const body = {
      centre,
      width: round(drawn.width),
      depth: round(drawn.height),
    };
    what = document.getElementById("trace-what")?.value ?? what;
    edit({
      do: "add",
      face: view.face(),
      round: tool.name === "circle",
      body,
      what,
    });
  }
}
let what = "ceramic-chip";

document.addEventListener("pointerdown", (event) => {
  if (!event.target.closest?.("#trace-map") || event.button !== 0) return;
  event.preventDefault();
  map().focus({ preventScroll: true });
  begin(event);
});
document.addEventListener("pointermove", (event) => {
  if (held || event.target.closest?.("#trace-map")) follow(event);
});
document.addEventListener("pointerup", letGo);
document.addEventListener("pointercancel", letGo);

// Presses of an arrow within a third of a second are one act.
function nudge([dx, dy], sizes) {
  const of = thing();
  if (!of) return;
  nudged ??= { of: chosen, dx: 0, dy: 0, sizes };
  nudged.dx += dx;
  nudged.dy += dy;
  if (!sizes) of.setAttribute("transform", `translate(${nudged.dx} ${-nudged.dy})`);
  clearTimeout(nudged.timer);
  nudged.timer = setTimeout(nudge.end, 330);
}
nudge.end = () => {
  if (!nudged) return;
  const { of, dx, dy, sizes } = nudged;
  const body = thing()?.querySelector(".body").getBBox();
  nudged = null;
  const target = JSON.parse(of);
  if (sizes)
    edit({
      do: "resize",
      of: target,
      width: round(body.width + dx),
      depth: round(body.height + dy),
    });
  else edit({ do: "move", of: target, dx: round(dx), dy: round(dy) });
};

function key(event) {
  const focused = document.activeElement?.closest?.(".thing");
  if (focused && focused.dataset.of !== chosen) choose(focused.dataset.of);
  const arrow = NUDGES[event.key];
  if (arrow && thing()) {
    const step = event.shiftKey ? 1 : 0.1;
    return (
      nudge(
        arrow.map((way) => way * step),
        event.altKey && !thing().classList.contains("part"),
      ) ?? true
    );
  }
  const target = chosen && JSON.parse(chosen);
  if (event.key === "Enter" && tool?.name === "outline") return finish() ?? true;
  if (event.key === "Backspace" && tool && clicks.length) return (clicks.pop(), sketch(), true);
  if ((event.key === "Enter" || event.key === " ") && thing()) return show(panelOf(chosen)) && true;
  if (event.key === "Escape") return (take(null), choose(null), true);
  if ((event.key === "Delete" || event.key === "Backspace") && target?.component !== undefined)
    return (edit({ do: "remove", of: target }), choose(null), true);
  const letter = event.key.toLowerCase();
  if (letter === "r") return (take("rectangle"), true);
  if (letter === "c") return (take("circle"), true);
  if (letter === "f") return (view.turnTo(view.face() === "top" ? "bottom" : "top"), true);
  if (letter === "d" && target?.component !== undefined) return (edit({ do: "copy", of: target }), true);
  return false;
}
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.target.matches("input, select, textarea, button, summary, a")) return;
  if (key(event)) event.preventDefault();
});

document.addEventListener("click", (event) => {
  const button = event.target.closest("[data-tool]");
  if (button) take(tool?.name === button.dataset.tool ? null : button.dataset.tool, Number(button.dataset.id) || undefined);
  const line = event.target.closest(".trace-list [data-of]");
  if (line) choose(line.dataset.of);
});
document.addEventListener("change", (event) => {
  if (event.target.id === "trace-what") what = event.target.value;
  if (event.target.dataset.length && tool?.name === "scale" && clicks.length === 2) finish();
});

// The map is new: the tool in hand stays, and so does what is chosen; the panel says which thing that is.
function drawn() {
  view.apply();
  const panel = document.getElementById("trace-live").dataset.show;
  const select = document.getElementById("trace-what");
  if (select) select.value = what;
  if (panel.startsWith("component-")) chosen = JSON.stringify({ component: Number(panel.slice(10)) });
  else if (panel === "part") chosen = JSON.stringify("part");
  else if (panel === "components") chosen = null;
  const name = tool?.name;
  if (name === "rectangle" || name === "circle") take(name);
  else if (!tool) pen().replaceChildren();
  for (const other of things()) other.classList.toggle("chosen", other.dataset.of === chosen);
  handle();
}
onDrawn(drawn);
drawn();
// A thing that was pressed before this script was here has the focus, and is what was meant.
const pressed = document.activeElement?.closest?.(".thing");
if (pressed) choose(pressed.dataset.of, true);

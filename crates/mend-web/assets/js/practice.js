// The practice bench: keys, pointer and fields become moves of the hands, and what can be seen is drawn and said. Nothing is computed
// here.
import { draw } from "./practice-draw.js";
import { fan } from "./practice-fan.js";
import { openLine } from "./practice-line.js";
import { inWords } from "./practice-words.js";

const place = document.getElementById("practice");
const scene = JSON.parse(place.dataset.scene);
const id = (name) => document.getElementById(name);
const canvas = id("scene");
const FAHRENHEIT = place.dataset.fahrenheit === "true";
const shown = (celsius) => Math.round(FAHRENHEIT ? celsius * 1.8 + 32 : celsius);
const read = (value) => (FAHRENHEIT ? (value - 32) / 1.8 : value);
const [FIXED, SECOND] = [8, 10];

let hands = null;
let cues = new Uint8Array(0);
let look = null;
let pointer = null;
let tool = document.querySelector("input[name=tool]:checked").value;
let tip = null;
let near = true;

// --- to the shop and back ---

const does = openLine(place.dataset.id, { told, seen: shows, lost: (is) => (id("lost").hidden = !is), finished });

/** What is laid on, and as it greets what the hands hold. */
function told(known, greets) {
  scene.shields = known.shields;
  if (!greets) return;
  hands = known;
  showHands();
  place.dataset.ready = "true";
}

function shows(tick, now) {
  cues = now;
  id("clock").textContent = `${Math.floor(tick / SECOND)} s`;
  place.dataset.tick = tick;
  say();
  fan(cues[3]);
  if (finished()) location.assign(`/practice/${place.dataset.id}/debrief`);
  requestAnimationFrame(paint);
}

const clock = () => Number(place.dataset.tick ?? 0);
function finished() {
  return (cues[2] & 4) !== 0;
}

// --- what can be seen ---

function seen() {
  const [shields, components] = [scene.shields.length, scene.components.length];
  const rest = cues.subarray(FIXED);
  return {
    flux: cues[0],
    body: cues[1],
    twitches: (cues[2] & 1) !== 0,
    partOff: (cues[2] & 2) !== 0,
    curls: [...rest.subarray(0, shields)],
    components: [...rest.subarray(shields, shields + components)].map((look) => ({ plastic: look & 3, moved: look > 3 })),
    joints: [...rest.subarray(shields + components)],
  };
}

function paint() {
  if (!hands) return;
  const holds = tool === "iron" ? null : hands;
  const touched = cues[4] ? scene.joints[cues[4] - 1].at : null;
  look = draw(canvas, scene, {
    ...seen(),
    close: near,
    hands: holds ?? (hands.blows ? hands : null),
    tip: touched ?? (tool === "iron" ? tip : null),
    braid: hands.braid,
  });
}

/** The cues in words, for whoever hears them, and for whoever does not look at the picture. */
function say() {
  const text = inWords(scene, { ...seen(), tip: cues[4], passes: cues[5] });
  if (id("cues").textContent !== text) id("cues").textContent = text;
}

// --- what hands hold ---

function pressed(name, on, words) {
  const button = id(name);
  if (!button) return;
  button.setAttribute("aria-pressed", on);
  if (words) button.firstChild.textContent = words;
}

function showHands() {
  const fields = {
    set: shown(hands.set_c),
    flow: Math.round(hands.flow),
    distance: Math.round(hands.distance_mm),
    "iron-set": shown(hands.iron_c),
  };
  for (const [name, value] of Object.entries(fields)) if (document.activeElement !== id(name)) id(name).value = value;
  id("nozzle").value = hands.nozzle_mm;
  id("face").value = hands.bottom ? "bottom" : "top";
  pressed("air", hands.blows, hands.blows ? "Air on " : "Air off ");
  pressed("grip", hands.grips);
  pressed("braid", hands.braid);
  pressed("tip", cues[4] > 0 || hands.tip === true);
  if (id("pull")) {
    id("pull").value = hands.pull_n;
    id("pulls").textContent = `${hands.pull_n} N`;
  }
  requestAnimationFrame(paint);
}

const within = (value, [low, high]) => Math.min(Math.max(value, low), high);

const acts = {
  air: () => does({ kind: "air", on: (hands.blows = !hands.blows) }),
  set: (value) => does({ kind: "set", celsius: (hands.set_c = within(value, scene.set_c)) }),
  flow: (value) => does({ kind: "flow", litres: (hands.flow = within(value, scene.flow)) }),
  distance: (value) => does({ kind: "distance", mm: (hands.distance_mm = within(value, scene.distance_mm)) }),
  nozzle: (value) => does({ kind: "nozzle", mm: (hands.nozzle_mm = value) }),
  face: (bottom) => does({ kind: "from", face: (hands.bottom = bottom) ? "bottom" : "top" }),
  aim: ([x, y]) => does({ kind: "aim", x_mm: x, y_mm: y, ...((hands.aim = [x, y]), {}) }),
  grip: (on) => {
    [hands.grips, hands.pull_n] = [on, 0];
    does({ kind: "grip", on });
  },
  pull: (newton) => {
    hands.pull_n = within(newton, [0, scene.most_pull_n]);
    hands.grips ||= hands.pull_n > 0;
    does({ kind: "pull", newton: hands.pull_n });
  },
  iron: ([x, y]) => {
    tip = [x, y];
    hands.tip = true;
    does({ kind: "iron", x_mm: x, y_mm: y });
  },
  lift: () => {
    hands.tip = false;
    does({ kind: "lift" });
  },
  ironSet: (value) => does({ kind: "iron-set", celsius: (hands.iron_c = within(value, scene.iron_c)) }),
  braid: () => does({ kind: "braid", on: (hands.braid = !hands.braid) }),
  wire: () => does({ kind: "wire" }),
  /** Tape over what stands there, or off it again, before anything is hot; the shop takes it the same way. */
  cover: ([x, y]) => {
    if (clock() > 0) return;
    const inside = ({ at: [left, near, width, depth] }) => Math.abs(x - left) <= width / 2 && Math.abs(y - near) <= depth / 2;
    const thing = scene.components.find(inside);
    if (!thing) return;
    does({ kind: "cover", x_mm: thing.at[0], y_mm: thing.at[1] });
  },
  touch: ([x, y]) => does({ kind: "touch", x_mm: x, y_mm: y }),
  finish: () => does({ kind: "finish" }),
};

function act(name, ...values) {
  if (!hands) return;
  acts[name](...values);
  showHands();
}

function moved(by) {
  const from = tool === "iron" ? (tip ?? hands.aim) : hands.aim;
  const to = [from[0] + by[0], from[1] + by[1]];
  if (tool === "iron") {
    tip = to;
    if (hands.tip) act("iron", to);
    else requestAnimationFrame(paint);
  } else act("aim", to);
}

const nextNozzle = (by) => {
  const all = scene.nozzles;
  const at = all.findIndex((mm) => mm === hands.nozzle_mm);
  return all[(at + by + all.length) % all.length];
};

function take(name) {
  const radio = document.querySelector(`input[name=tool][value=${name}]`);
  if (!radio) return;
  radio.checked = true;
  tool = name;
  requestAnimationFrame(paint);
}

/** Tape over the component that is nearest to the cross. */
function cover() {
  const from = hands.aim;
  const apart = ({ at }) => Math.hypot(at[0] - from[0], at[1] - from[1]);
  const nearest = [...scene.components].sort((a, b) => apart(a) - apart(b))[0];
  if (nearest) act("cover", nearest.at);
}

function zoom() {
  near = !near;
  pressed("zoom", near);
  requestAnimationFrame(paint);
}

const keys = {
  " ": () => act("air"),
  1: () => take("air"),
  2: () => take("tweezers"),
  3: () => take("iron"),
  t: (by) => act("set", hands.set_c + 10 * by),
  f: (by) => act("flow", hands.flow + 10 * by),
  n: (by) => act("nozzle", nextNozzle(by)),
  b: () => act("face", !hands.bottom),
  g: () => scene.grips && act("grip", !hands.grips),
  p: (by) => scene.grips && act("pull", hands.pull_n + 0.5 * by),
  i: () => (hands.tip ? act("lift") : act("iron", tip ?? hands.aim)),
  r: () => scene.braids && act("braid"),
  w: () => scene.braids && act("wire"),
  z: () => zoom(),
  c: () => cover(),
  x: () => scene.grips && act("touch", hands.aim),
  4: () => take("tape"),
  pageup: () => act("distance", hands.distance_mm + 1),
  pagedown: () => act("distance", hands.distance_mm - 1),
  arrowleft: (by, step) => moved([-step, 0]),
  arrowright: (by, step) => moved([step, 0]),
  arrowup: (by, step) => moved([0, step]),
  arrowdown: (by, step) => moved([0, -step]),
};

document.addEventListener("keydown", (event) => {
  if (!hands || event.ctrlKey || event.altKey || event.metaKey) return;
  if (event.target.matches("input, select, textarea")) return;
  if (event.target.matches("button, a") && [" ", "Enter"].includes(event.key)) return;
  const key = keys[event.key.toLowerCase()];
  if (!key) return;
  event.preventDefault();
  key(event.shiftKey ? -1 : 1, event.shiftKey ? 5 : 1);
});

// --- pointer: a mouse, a pen or a finger ---

let last = 0;

function where(event) {
  const rim = canvas.getBoundingClientRect();
  return look.mm([event.clientX - rim.left, event.clientY - rim.top]);
}

canvas.addEventListener("pointermove", (event) => {
  if (!look || !hands) return;
  const now = performance.now();
  if (tool === "tweezers" && pointer !== null && event.pointerType === "pen") act("pull", Math.round(16 * event.pressure) / 2);
  if (now - last < 90) return;
  last = now;
  if (tool === "air") act("aim", where(event));
  if (tool === "iron") {
    tip = where(event);
    if (hands.tip) act("iron", tip);
    else requestAnimationFrame(paint);
  }
});

canvas.addEventListener("pointerdown", (event) => {
  if (!look || !hands) return;
  pointer = event.pointerId;
  canvas.setPointerCapture(pointer);
  const at = where(event);
  if (tool === "air") act("aim", at);
  if (tool === "iron") hands.tip ? act("lift") : act("iron", at);
  if (tool === "tape") act("cover", at);
  if (tool === "tweezers") {
    const inside = ({ at: [x, y, width, depth] }) => Math.abs(at[0] - x) <= width / 2 && Math.abs(at[1] - y) <= depth / 2;
    if (scene.part && inside(scene.part)) act("grip", true);
    else act("touch", at);
  }
});

canvas.addEventListener("pointerup", () => {
  pointer = null;
  if (tool === "tweezers" && hands?.grips) act("grip", false);
});

canvas.addEventListener(
  "wheel",
  (event) => {
    if (!hands) return;
    event.preventDefault();
    const by = event.deltaY < 0 ? 1 : -1;
    if (tool === "tweezers") act("pull", hands.pull_n + 0.5 * by);
    else act("distance", hands.distance_mm + by);
  },
  { passive: false },
);

// --- fields and buttons ---

for (const mm of scene.nozzles) id("nozzle").add(new Option(`${mm} mm`, mm));
const changed = (name, act_) => id(name)?.addEventListener("change", (event) => hands && act_(event.target));
changed("set", (field) => act("set", read(Number(field.value))));
changed("flow", (field) => act("flow", Number(field.value)));
changed("distance", (field) => act("distance", Number(field.value)));
changed("iron-set", (field) => act("ironSet", read(Number(field.value))));
changed("nozzle", (field) => act("nozzle", Number(field.value)));
changed("face", (field) => act("face", field.value === "bottom"));
id("pull")?.addEventListener("input", (event) => hands && act("pull", Number(event.target.value)));
id("air").addEventListener("click", () => act("air"));
id("grip")?.addEventListener("click", () => act("grip", !hands.grips));
id("tip").addEventListener("click", keys.i);
id("braid")?.addEventListener("click", () => act("braid"));
id("wire")?.addEventListener("click", () => act("wire"));
id("cover")?.addEventListener("click", cover);
id("zoom").addEventListener("click", zoom);
id("done").addEventListener("click", () => act("finish"));
document.querySelectorAll("input[name=tool]").forEach((radio) => radio.addEventListener("change", () => take(radio.value)));
addEventListener("resize", () => requestAnimationFrame(paint));

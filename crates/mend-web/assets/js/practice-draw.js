// Draws a board of the practice bench true to scale on a canvas: what can be seen while it is done, or everything that was hidden.
const EDGE_PX = 26;
const COLOURS = {
  board: "#1d4f47",
  rim: "#7fb3a6",
  matt: "#8f938f",
  shiny: "#f4f8fa",
  hole: "#0b1413",
  part: "rgba(196, 203, 206, 0.30)",
  glossy: "rgba(255, 240, 200, 0.42)",
  sags: "rgba(226, 150, 90, 0.55)",
  damaged: "rgba(200, 40, 80, 0.55)",
  component: "#39322a",
  shield: "rgba(232, 196, 90, 0.55)",
  jet: "#57d6d2",
  words: "#efe9da",
};
const PLASTIC = [null, COLOURS.glossy, COLOURS.sags, COLOURS.damaged];

const ROUND_MM = 9;

/** What is shown: the whole board, or what stands about the part and its joints. */
function shown(scene, close) {
  const corners = scene.outline;
  if (!close) return corners;
  const things = [...scene.joints, ...(scene.part ? [scene.part] : [])].map(({ at }) => at);
  const rims = things.flatMap(([x, y, width, depth]) => [
    [x - width / 2 - ROUND_MM, y - depth / 2 - ROUND_MM],
    [x + width / 2 + ROUND_MM, y + depth / 2 + ROUND_MM],
  ]);
  const ends = [0, 1].map((axis) => [Math.min(...corners.map((c) => c[axis])), Math.max(...corners.map((c) => c[axis]))]);
  return rims.map((corner) => corner.map((value, axis) => Math.min(Math.max(value, ends[axis][0]), ends[axis][1])));
}

/** How the board lies on the canvas: as large as has room, the near edge below. */
export function view(canvas, scene, close) {
  const ratio = window.devicePixelRatio || 1;
  const { clientWidth: width, clientHeight: height } = canvas;
  if (canvas.width !== Math.round(width * ratio)) canvas.width = Math.round(width * ratio);
  if (canvas.height !== Math.round(height * ratio)) canvas.height = Math.round(height * ratio);
  const [xs, ys] = [0, 1].map((axis) => shown(scene, close).map((corner) => corner[axis]));
  const [left, right, near, far] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = Math.min((width - 2 * EDGE_PX) / (right - left), (height - 2 * EDGE_PX) / (far - near));
  const origin = [(width - scale * (right - left)) / 2 - scale * left, height - (height - scale * (far - near)) / 2 + scale * near];
  return {
    ratio,
    scale,
    width,
    height,
    at: ([x, y]) => [origin[0] + scale * x, origin[1] - scale * y],
    mm: ([x, y]) => [(x - origin[0]) / scale, (origin[1] - y) / scale],
  };
}

function box(context, look, [x, y, width, depth], grown = 0) {
  const [left, top] = look.at([x - width / 2 - grown, y + depth / 2 + grown]);
  context.beginPath();
  context.rect(left, top, look.scale * (width + 2 * grown), look.scale * (depth + 2 * grown));
}

function filled(context, colour, rim) {
  if (colour) {
    context.fillStyle = colour;
    context.fill();
  }
  if (rim) {
    context.strokeStyle = rim;
    context.stroke();
  }
}

/** Words about a place, a line each. */
function words(context, text, [x, middle], colour = COLOURS.words) {
  const lines = text.split("\n");
  lines.forEach((line, k) => oneLine(context, line, [x, middle + 16 * (k - (lines.length - 1) / 2)], colour));
}

function oneLine(context, text, [x, y], colour) {
  context.font = '600 14px "Archivo", sans-serif';
  context.textAlign = "center";
  context.textBaseline = "middle";
  context.lineWidth = 4;
  context.strokeStyle = "#0b1413";
  context.strokeText(text, x, y);
  context.fillStyle = colour;
  context.fillText(text, x, y);
}

function outline(context, look, scene) {
  context.beginPath();
  scene.outline.forEach((corner, k) => (k ? context.lineTo(...look.at(corner)) : context.moveTo(...look.at(corner))));
  context.closePath();
  filled(context, COLOURS.board, COLOURS.rim);
}

function joint(context, look, { at, hole, hidden }, state) {
  const colours = [COLOURS.matt, COLOURS.matt, COLOURS.shiny, COLOURS.damaged];
  if (hidden) return;
  if (hole) {
    const [x, y] = look.at(at);
    context.beginPath();
    context.arc(x, y, (look.scale * at[2]) / 2, 0, 2 * Math.PI);
    filled(context, colours[state]);
    context.beginPath();
    context.arc(x, y, (look.scale * at[2]) / 5, 0, 2 * Math.PI);
    filled(context, COLOURS.hole);
  } else {
    box(context, look, at);
    filled(context, colours[state]);
  }
  if (state === 2) {
    context.lineWidth = 2;
    filled(context, null, COLOURS.jet);
  }
}

function thing(context, look, { at, bottom, round, name }, { plastic, moved, says }) {
  context.setLineDash(bottom ? [5, 4] : []);
  context.lineWidth = 1.5;
  const place = moved ? [at[0] + 2, at[1] + 1.5, at[2], at[3]] : at;
  if (round) {
    const [x, y] = look.at(place);
    context.beginPath();
    context.arc(x, y, (look.scale * at[2]) / 2, 0, 2 * Math.PI);
  } else {
    box(context, look, place);
  }
  filled(context, bottom ? null : COLOURS.component, "#c9bfa8");
  if (PLASTIC[plastic]) filled(context, PLASTIC[plastic], moved ? COLOURS.damaged : null);
  context.setLineDash([]);
  words(context, says ?? `${name}${moved ? " ✕" : ""}`, look.at(place));
}

/** The rings of a nozzle: itself, and the cross where its axis meets the board. Below the board it is dashed. */
function nozzle(context, look, { aim, nozzle_mm: wide, bottom, blows }) {
  const [x, y] = look.at(aim);
  context.setLineDash(bottom ? [6, 5] : []);
  context.lineWidth = blows ? 3 : 1.5;
  context.beginPath();
  context.arc(x, y, (look.scale * (wide ?? 6)) / 2, 0, 2 * Math.PI);
  filled(context, blows ? "rgba(87, 214, 210, 0.10)" : null, COLOURS.jet);
  context.setLineDash([]);
  context.beginPath();
  context.moveTo(x - 7, y);
  context.lineTo(x + 7, y);
  context.moveTo(x, y - 7);
  context.lineTo(x, y + 7);
  filled(context, null, COLOURS.jet);
}

function smoke(context, look, scene, flux) {
  if (flux < 2) return;
  const middle = scene.part?.at ?? scene.joints[0]?.at;
  const [x, y] = look.at(middle);
  context.lineWidth = 3;
  for (const k of [-1, 0, 1]) {
    context.beginPath();
    const left = x + 22 * k;
    context.moveTo(left, y - 16);
    context.bezierCurveTo(left - 10, y - 30, left + 10, y - 42, left, y - 56);
    filled(context, null, flux > 2 ? "rgba(150, 110, 70, 0.75)" : "rgba(230, 230, 225, 0.55)");
  }
}

/** Everything: `state` has joints, components, body, curls, flux, offBoard, twitches and what the hands hold. */
export function draw(canvas, scene, state) {
  const look = view(canvas, scene, state.close);
  const context = canvas.getContext("2d");
  context.setTransform(look.ratio, 0, 0, look.ratio, 0, 0);
  context.clearRect(0, 0, look.width, look.height);
  outline(context, look, scene);
  scene.joints.forEach((each, k) => joint(context, look, each, state.joints[k] ?? 1));
  if (scene.part && !state.partOff) {
    const { at } = scene.part;
    const lifted = state.twitches ? [at[0], at[1] + 0.4, at[2], at[3]] : at;
    box(context, look, lifted);
    context.lineWidth = state.twitches ? 4 : 2;
    filled(context, PLASTIC[state.body] ?? COLOURS.part, state.twitches ? COLOURS.shiny : "#c4cbce");
  }
  scene.components.forEach((each, k) => thing(context, look, each, state.components[k] ?? {}));
  scene.shields.forEach(({ at }, k) => {
    box(context, look, at);
    context.setLineDash([5, 4]);
    filled(context, COLOURS.shield, state.curls?.[k] ? COLOURS.damaged : "#e8c45a");
    context.setLineDash([]);
  });
  smoke(context, look, scene, state.flux ?? 0);
  if (state.hands) nozzle(context, look, state.hands);
  if (state.tip) {
    const [x, y] = look.at(state.tip);
    context.beginPath();
    context.moveTo(x, y);
    context.lineTo(x + 34, y - 46);
    context.lineWidth = 7;
    filled(context, null, state.braid ? "#e2b48a" : "#d9d2c2");
  }
  for (const { text, at } of state.labels ?? []) words(context, text, look.at(at));
  return look;
}

// Draws the demo's photographs of the made-up Loom handheld's board, both faces as a camera above a bench would see them,
// and writes its draft from the same scene. Run: node tools/draw_photos.mjs (needs e2e/node_modules and Chromium).
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { chromium } from "../e2e/node_modules/playwright-core/index.mjs";

const root = join(import.meta.dirname, "..");
let seed = 7;
const random = () => ((seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648);

const outline = [[0, 0], [86, 0], [86, 34], [78, 34], [78, 50], [8, 50], [8, 34], [0, 34]];
const holes = [[4, 30], [82, 30], [12, 46], [74, 46], [43, 30]];
// name, what, face, x, y, width, depth, height, round
const things = [
  ["trigger flex", "flex-latch", "top", 20, 9.5, 12, 4.6, 1.2],
  ["U4 charger", "chip", "top", 43, 18.5, 5, 5, 0.9],
  ["U1 processor", "chip", "top", 43, 38, 14, 14, 1.2],
  ["C41", "ceramic-chip", "top", 36.2, 11.4, 1.6, 0.8, 0.8],
  ["C42", "ceramic-chip", "top", 49.8, 11.4, 1.6, 0.8, 0.8],
  ["FL2", "filter", "top", 43, 11.8, 2, 1.2, 0.9],
  ["C50 can", "electrolytic-can", "top", 64, 12, 6.3, 6.3, 5.8, true],
  ["L3 coil", "coil", "top", 54, 22, 6.6, 6.6, 3],
  ["stick socket", "header", "top", 70, 24, 9, 6, 4.5],
  ["microphone", "microphone", "top", 30, 3, 3, 2, 1],
  ["Y1", "crystal", "top", 30, 28, 3.2, 2.5, 0.8],
  ["card slot", "socket", "bottom", 22, 24, 15, 15, 1.6],
  ["speaker flex", "flex-latch", "bottom", 62, 8, 9, 4, 1.1],
  ["C61", "ceramic-chip", "bottom", 38, 14, 1, 0.5, 0.5],
  ["battery cable", "cable", "bottom", 55, 30, 8, 5, 2],
];
const part = { x: 43, y: 3.4, width: 8.94, depth: 7.35 };

const colours = {
  "flex-latch": "#e9e4d6", chip: "#1d1f22", "ceramic-chip": "#b58a5e", filter: "#7d7468", "electrolytic-can": "#c9ccd0", coil: "#3b3c40",
  header: "#ded8c4", microphone: "#c8b268", crystal: "#cfd2d6", socket: "#b9bcc0", cable: "#8c1d1d",
};

function body([name, what, , x, y, w, d, , round]) {
  const fill = colours[what];
  const pads = round ? "" : `<rect x="${x - w / 2 - 0.35}" y="${y - d / 2 + 0.1}" width="${w + 0.7}" height="${Math.max(0.2, d - 0.2)}" fill="#d9d4c4"/>`;
  const shade = `<g transform="translate(0.25 -0.25)" opacity="0.35"><rect x="${x - w / 2}" y="${y - d / 2}" width="${w}" height="${d}" rx="${round ? w / 2 : 0.2}"/></g>`;
  const shape = round
    ? `<circle cx="${x}" cy="${y}" r="${w / 2}" fill="${fill}"/><circle cx="${x}" cy="${y}" r="${w / 2 - 0.5}" fill="#e4e6e8"/><path d="M${x - 2.4} ${y + 1.2}a2.7 2.7 0 0 0 4.8 0z" fill="#33363a"/>`
    : `<rect x="${x - w / 2}" y="${y - d / 2}" width="${w}" height="${d}" rx="0.2" fill="${fill}"/>`;
  const latch = what === "flex-latch" ? `<rect x="${x - w / 2}" y="${y - d / 2}" width="${w}" height="${d * 0.36}" fill="#2a2a2c"/>` : "";
  const letters = what === "chip" ? `<text transform="translate(${x} ${y}) scale(1 -1)" font-size="${Math.min(1.6, w / 5)}" fill="#8d9094" text-anchor="middle">${name.split(" ")[0]}</text>` : "";
  return pads + shade + shape + latch + letters;
}

function port() {
  const { x, y, width, depth } = part;
  const pins = Array.from({ length: 12 }, (_, k) => `<rect x="${x - 2.9 + 0.5 * k}" y="${y + depth / 2 - 0.15}" width="0.3" height="1" fill="#d8d5cc"/>`).join("");
  const legs = [-4.32, 4.32].flatMap((dx) => [-2.08, 2.1].map((dy) => `<ellipse cx="${x + dx}" cy="${y + dy}" rx="0.65" ry="1" fill="#cfd1d4"/>`)).join("");
  return `${pins}${legs}<rect x="${x - width / 2}" y="${y - depth / 2}" width="${width}" height="${depth}" rx="0.9" fill="url(#steel)" stroke="#7d8084" stroke-width="0.12"/><path d="M${x - 1.4} ${y + 1}h0.7v1.4h-0.7zM${x + 0.7} ${y + 1}h0.7v1.4h-0.7z" fill="#55585c"/>`;
}

function traces() {
  let all = "";
  for (let k = 0; k < 150; k += 1) {
    const [x, y] = [2 + random() * 82, 2 + random() * 46];
    const [a, b] = [(random() - 0.5) * 22, (random() - 0.5) * 14];
    all += `<path d="M${x} ${y}h${a}l${b} ${b}" fill="none" stroke="#1f7a58" stroke-width="${0.12 + random() * 0.2}" opacity="0.8"/>`;
  }
  for (let k = 0; k < 260; k += 1) all += `<circle cx="${1 + random() * 84}" cy="${1 + random() * 48}" r="0.16" fill="#9fb8a4"/>`;
  for (let k = 0; k < 70; k += 1) {
    const [x, y] = [6 + random() * 74, 6 + random() * 40];
    all += `<rect x="${x - 0.5}" y="${y - 0.25}" width="1" height="0.5" fill="#a9845c"/><rect x="${x - 0.6}" y="${y - 0.25}" width="0.25" height="0.5" fill="#dcdcd4"/><rect x="${x + 0.35}" y="${y - 0.25}" width="0.25" height="0.5" fill="#dcdcd4"/>`;
  }
  return all;
}

function face(name, view) {
  const points = outline.map((p) => p.join(",")).join(" ");
  const legs = [-4.32, 4.32].flatMap((dx) => [-2.08, 2.1].map((dy) => `<circle cx="${part.x + dx}" cy="${part.y + dy}" r="0.7" fill="#d3d5d2"/><circle cx="${part.x + dx}" cy="${part.y + dy}" r="0.3" fill="#8b8d8a"/>`)).join("");
  const drilled = holes.map(([x, y]) => `<circle cx="${x}" cy="${y}" r="2.3" fill="#caa45b"/><circle cx="${x}" cy="${y}" r="1.3" fill="#4d463a"/>`).join("");
  const own = things.filter((t) => t[2] === name).map(body).join("");
  const flip = name === "top" ? `scale(${view.s} ${-view.s})` : `scale(${-view.s} ${-view.s})`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${view.w}" height="${view.h}" viewBox="0 0 ${view.w} ${view.h}"><defs>
<linearGradient id="steel" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#eceeef"/><stop offset="0.5" stop-color="#b4b8bc"/><stop offset="1" stop-color="#dfe1e3"/></linearGradient>
<radialGradient id="lamp" cx="0.3" cy="0.2" r="1"><stop offset="0" stop-color="#fff" stop-opacity="0.22"/><stop offset="0.6" stop-color="#fff" stop-opacity="0"/><stop offset="1" stop-color="#000" stop-opacity="0.28"/></radialGradient>
<clipPath id="rim"><polygon points="${points}"/></clipPath><filter id="grain"><feTurbulence type="fractalNoise" baseFrequency="0.9" numOctaves="2" seed="3"/><feColorMatrix values="0 0 0 0 0.5  0 0 0 0 0.5  0 0 0 0 0.5  0 0 0 0.16 0"/></filter>
<pattern id="mat" width="60" height="60" patternUnits="userSpaceOnUse"><rect width="60" height="60" fill="#6d7684"/><path d="M60 0H0V60" fill="none" stroke="#5f6876" stroke-width="2"/></pattern></defs>
<rect width="100%" height="100%" fill="url(#mat)"/>
<g transform="translate(${view.tx} ${view.ty}) rotate(${view.a}) ${flip}" font-family="sans-serif">
<polygon points="${points}" transform="translate(0.5 -0.6)" opacity="0.45"/>
<polygon points="${points}" fill="#0f5b41"/><g clip-path="url(#rim)">${traces()}</g>${drilled}${own}${name === "top" ? port() : legs}</g>
<rect width="100%" height="100%" filter="url(#grain)"/><rect width="100%" height="100%" fill="url(#lamp)"/></svg>`;
}

const round = (value) => Math.round(value * 1e6) / 1e6;
/** How the photograph lies on the board's map: the inverse of what `face` draws. */
function placement(name, { s, a, tx, ty }) {
  const turn = ((name === "top" ? a : -a) * Math.PI) / 180;
  const [p, q] = [Math.cos(turn) / s, Math.sin(turn) / s];
  const [re, im] = name === "top" ? [-tx, ty] : [tx, ty];
  return { mm_per_px: round(1 / s), turn_deg: round((turn * 180) / Math.PI), mirrored: name === "bottom", at_mm: [round(p * re - q * im), round(p * im + q * re)] };
}

const views = {
  top: { w: 1800, h: 1180, s: 18.4, a: 1.6, tx: 96, ty: 1046 },
  bottom: { w: 1800, h: 1180, s: 18.1, a: -2.2, tx: 1698, ty: 1084 },
};
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const page = await browser.newPage({ viewport: { width: 1800, height: 1180 } });
for (const [k, name] of ["top", "bottom"].entries()) {
  await page.setContent(`<body style="margin:0">${face(name, views[name])}</body>`);
  await page.screenshot({ path: join(root, `demo/photos/${k + 1}-loom-${name}.jpg`), type: "jpeg", quality: 80 });
}
await browser.close();

const materials = {
  "flex-latch": ["lcp", 0.05], chip: ["epoxy-package", 0.15], "ceramic-chip": ["ceramic", 0.4], filter: ["ceramic", 0.3], "electrolytic-can": ["electrolytic-can", 0.05],
  coil: ["metal", 0.2], header: ["pa66", 0.03], microphone: ["mems-microphone", 0.3], crystal: ["crystal", 0.3], socket: ["pa9t", 0.03], cable: ["pvc", 0],
};
const row = (letter, y, depth, hidden) =>
  Array.from({ length: 12 }, (_, k) => ({
    name: `${letter}${k + 1}`, row: `row ${letter}`, at_mm: [round(-2.75 + 0.5 * k), y],
    role: [0, 11].includes(k) ? "ground" : [3, 8].includes(k) ? "power" : "signal", pad_mm: [0.3, depth], hidden,
  }));
const legs = [[-4.32, -2.075], [4.32, -2.075], [-4.32, 2.105], [4.32, 2.105]].map((at_mm, k) => ({
  name: `leg ${k + 1}`, row: "legs", at_mm, role: "anchor", hole_mm: [0.7, 1.25], hidden: false,
}));
const draft = {
  format: "urgent-mend/draft/1",
  name: "Loom handheld board",
  maker: "Ferrin",
  outline_mm: outline,
  thickness_mm: 1.0,
  copper: { layers: 8, planes: 3, foil_um: 25, plane_coverage: 0.75, signal_coverage: 0.3, spread: 0.281 },
  looked: { light: "nowhere", vias: "covered", edge_lines: 7, bare: false },
  part: {
    made: {
      name: "USB-C port, top mount", family: "port", face: "top", at_mm: [0, 0], width_mm: 8.94, depth_mm: 7.35, height_mm: 3.26, material: "lcp", shell: true, pegs: 0,
      joints: [...row("A", 4.025, 1, false), ...row("B", 2.725, 0.8, true), ...legs],
      tests: ["charges with the plug either way up", "data at full speed, either way up", "picture over the port, where the device gives one", "the plug latches and does not rock"],
    },
    from: ["usb-c-top", {}],
    at_mm: [part.x, part.y], turn: "none", face: "top",
  },
  components: things.map(([name, what, on, x, y, width_mm, depth_mm, height_mm, roundness]) => ({
    name, what, face: on, at_mm: [x, y], width_mm, depth_mm, ...(roundness ? { round: true } : {}), height_mm, material: materials[what][0], own_joints: materials[what][1],
  })),
  photos: ["top", "bottom"].map((name, k) => ({ id: k + 1, face: name, size_px: [1800, 1180], placement: placement(name, views[name]) })),
  marks_mm: [holes[0], holes[1], holes[2]],
};
writeFileSync(join(root, "demo/drafts/ferrin-loom.json"), `${JSON.stringify(draft, null, 1)}\n`);

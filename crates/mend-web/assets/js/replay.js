// The replay's player: draws the frames that the shop computed, keeps faces, curves and words at the same second.
const WATCHED = 4;
let player = null;

function read(buffer) {
  const length = new DataView(buffer).getUint32(0, true);
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 4, length)));
  const bytes = new Uint8Array(buffer, 4 + length);
  const cells = bytes.length / head.frames;
  const frames = [];
  for (let f = 0; f < head.frames; f += 1) {
    const frame = bytes.slice(f * cells, (f + 1) * cells);
    // A byte is the difference to the frame before, round the clock.
    if (f > 0) for (let k = 0; k < cells; k += 1) frame[k] += frames[f - 1][k];
    frames.push(frame);
  }
  return { ...head, frames };
}

// 256 colours between the sixteen of the scale on the page.
function colours() {
  const steps = [...document.querySelectorAll(".heat-scale [class^=h]")].map((rect) =>
    getComputedStyle(rect).fill.match(/\d+/g).slice(0, 3).map(Number),
  );
  return Array.from({ length: 256 }, (_, k) => {
    const at = (k / 255) * (steps.length - 1);
    const [low, high] = [steps[Math.floor(at)], steps[Math.ceil(at)]];
    const mix = low.map((c, i) => Math.round(c + (high[i] - c) * (at % 1)));
    return `rgb(${mix.join(" ")})`;
  });
}

class Player {
  constructor(root, data) {
    Object.assign(this, {
      root,
      data,
      lut: colours(),
      time: Number(root.dataset.at),
      playing: false,
    });
    this.faces = ["top", "bottom"].map((face, k) => {
      const canvas = root.querySelector(`[data-field=${face}]`);
      return {
        face,
        canvas,
        svg: canvas.parentElement.querySelector("svg"),
        offset: k * data.inside.length,
      };
    });
    this.melted = new Map(data.joints);
    this.listen();
    this.draw();
  }

  find(selector) {
    return this.root.querySelector(selector);
  }

  listen() {
    this.find("[data-play]").addEventListener("click", () => this.play(!this.playing));
    this.find("#replay-time").addEventListener("input", (event) => this.go(Number(event.target.value)));
    this.find(".curves").addEventListener("pointerdown", (event) => {
      const svg = event.currentTarget;
      const x = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse()).x;
      const [left, width] = this.data.chart;
      this.go(((x - left) / width) * this.data.seconds);
    });
    for (const face of this.faces) face.svg.addEventListener("click", (event) => this.watch(face, event));
    new ResizeObserver(() => this.draw()).observe(this.faces[0].canvas);
  }

  play(on) {
    this.playing = on;
    const button = this.find("[data-play]");
    button.textContent = on ? "Pause" : "Play";
    button.setAttribute("aria-pressed", String(on));
    if (!on) return;
    if (this.time >= this.data.seconds) this.time = 0;
    let before = performance.now();
    const tick = (now) => {
      if (!this.playing || !this.root.isConnected) return;
      this.go(this.time + ((now - before) / 1000) * Number(this.find("#replay-speed").value));
      before = now;
      if (this.time >= this.data.seconds) this.play(false);
      else requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }

  go(time) {
    this.time = Math.min(Math.max(time, 0), this.data.seconds);
    this.draw();
  }

  draw() {
    const second = Math.floor(this.time);
    this.faces.forEach((face) => this.field(face));
    this.find("#replay-time").value = this.time;
    this.find("[data-clock]").textContent = `${second} s`;
    const [left, width] = this.data.chart;
    const x = left + (width * this.time) / this.data.seconds;
    for (const end of ["x1", "x2"]) this.find(".cursor").setAttribute(end, x);
    for (const joint of this.root.querySelectorAll("[data-key]:not([data-key=''])")) {
      const moment = this.melted.get(joint.dataset.key);
      joint.classList.toggle("molten", moment !== null && this.time >= moment);
    }
    const [k, room] = this.data.tightest[Math.min(second, this.data.tightest.length - 1)];
    const how = room >= 0 ? `${room} ${this.data.unit} below its limit` : `${-room} ${this.data.unit} past its limit`;
    const molten = [...this.melted.values()].filter((moment) => moment !== null && this.time >= moment).length;
    const off = this.time >= this.data.off_s ? " · all off" : "";
    this.find("[data-tightest]").textContent =
      `Tightest: ${this.data.names[k]}, ${how} · ${molten} of ${this.melted.size} joints molten${off}`;
  }

  field({ canvas, svg, offset }) {
    const { x_mm: xs, y_mm: ys, inside, every_s: every, frames } = this.data;
    const dots = devicePixelRatio;
    const [w, h] = [Math.round(canvas.clientWidth * dots), Math.round(canvas.clientHeight * dots)];
    if (canvas.width !== w || canvas.height !== h) Object.assign(canvas, { width: w, height: h });
    const pen = canvas.getContext("2d");
    const box = svg.viewBox.baseVal;
    const scale = w / box.width;
    const at = Math.min(this.time / every, frames.length - 1);
    const [before, after, part] = [frames[Math.floor(at)], frames[Math.ceil(at)], at % 1];
    pen.clearRect(0, 0, w, h);
    for (let j = 0; j + 1 < ys.length; j += 1) {
      const [top, bottom] = [(-ys[j + 1] - box.y) * scale, (-ys[j] - box.y) * scale];
      if (bottom < 0 || top > h) continue;
      for (let i = 0; i + 1 < xs.length; i += 1) {
        const k = j * (xs.length - 1) + i;
        const [left, right] = [(xs[i] - box.x) * scale, (xs[i + 1] - box.x) * scale];
        if (inside[k] === "0" || right < 0 || left > w) continue;
        const value = before[offset + k] + (after[offset + k] - before[offset + k]) * part;
        pen.fillStyle = this.lut[Math.round(value)];
        pen.fillRect(Math.floor(left), Math.floor(top), Math.ceil(right) - Math.floor(left), Math.ceil(bottom) - Math.floor(top));
      }
    }
  }

  async watch({ face, svg }, event) {
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    const asked = new URLSearchParams({
      face,
      x: at.x.toFixed(2),
      y: (-at.y).toFixed(2),
    });
    const answer = await fetch(`${this.root.dataset.point}?${asked}`);
    if (!answer.ok) return;
    const { name, points } = await answer.json();
    const group = this.find(".watched");
    const make = (kind, attributes, words = "") => {
      const made = document.createElementNS("http://www.w3.org/2000/svg", kind);
      Object.entries(attributes).forEach(([key, value]) => made.setAttribute(key, value));
      made.textContent = words;
      return made;
    };
    const [x, y] = points.split(" ").at(-1).split(",");
    const one = make("g", { class: "watch" });
    one.append(make("polyline", { points }), make("text", { x, y: Number(y) - 6, "text-anchor": "end" }, name));
    group.append(one);
    svg.append(make("circle", { class: "watch-mark", cx: at.x, cy: at.y, r: 0.7 }));
    while (group.children.length > WATCHED) {
      group.firstElementChild.remove();
      this.find(".watch-mark")?.remove();
    }
  }
}

async function begin() {
  const root = document.querySelector("#replay[data-frames]");
  if (!root || player?.root === root) return;
  player = { root };
  const answer = await fetch(root.dataset.frames);
  if (answer.status === 200 && root.isConnected) player = new Player(root, read(await answer.arrayBuffer()));
  if (root.isConnected) root.dataset.ready = "yes";
}

document.addEventListener("htmx:afterSettle", begin);
document.addEventListener("DOMContentLoaded", begin);

// Plays an attempt again with everything that was hidden: moves along the seconds, on the picture and on the chart.
import { draw } from "./practice-draw.js";

const replay = document.getElementById("replay");
const [scene, seconds, letsGo] = [replay.dataset.scene, replay.dataset.seconds, replay.dataset.letsGo].map((text) => JSON.parse(text));
const { unit } = replay.dataset;
const id = (name) => document.getElementById(name);
const chart = document.querySelector(".attempt-chart");
let playing = null;

function show() {
  const at = Number(id("second").value);
  const now = seconds[at];
  const joints = now.joints.map((degrees, k) => (degrees >= letsGo[k] ? 2 : 1));
  const components = now.components.map((degrees, k) => ({
    says: `${scene.components[k].name.replaceAll(" ", "\n")}\n${degrees} ${unit}`,
  }));
  const hottest = Math.max(...now.joints);
  const coldest = Math.min(...now.joints);
  const labels = scene.part ? [{ text: `${coldest}–${hottest} ${unit}`, at: [scene.part.at[0], scene.part.at[1]] }] : [];
  draw(id("scene"), scene, { joints, components, body: 0, hands: now, labels, flux: 0, close: true });
  const air = now.blows ? `air ${Math.round(now.distance_mm)} mm away` : "no air";
  const pull = now.pull_n ? `, pull ${now.pull_n} N` : "";
  id("second-says").textContent = `${at} s: joints ${coldest} to ${hottest} ${unit}, ${air}${pull}`;
  const line = chart.querySelector(".at");
  const [left, right] = [Number(chart.dataset.left), Number(chart.dataset.right)];
  const x = left + ((right - left) * at) / Number(chart.dataset.room);
  line.setAttribute("x1", x);
  line.setAttribute("x2", x);
}

function stop() {
  clearInterval(playing);
  playing = null;
  id("play").textContent = "Play";
}

id("second").addEventListener("input", show);
id("play").addEventListener("click", () => {
  if (playing) return stop();
  if (Number(id("second").value) >= seconds.length - 1) id("second").value = 0;
  id("play").textContent = "Stop";
  playing = setInterval(() => {
    id("second").value = Number(id("second").value) + 1;
    show();
    if (Number(id("second").value) >= seconds.length - 1) stop();
  }, 120);
});
addEventListener("resize", show);
show();

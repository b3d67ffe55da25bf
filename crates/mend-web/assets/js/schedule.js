// Moves a task of the schedule: dragged, or by keys. What becomes of it the shop says; where it lies is the picture's own place.
const STEP_MIN = 15;
const svg = () => document.querySelector(".bench-lanes");

function send(task, values) {
  const { job, task: name } = task.dataset;
  const at = { job, task: name, day: svg().dataset.day };
  htmx.ajax("POST", "/schedule/pins", { target: "#schedule", swap: "outerHTML", values: { ...at, ...values } }).then(() => {
    document.querySelector(`.task[data-job="${job}"][data-task="${name}"]`)?.focus();
  });
}

function point(event) {
  return new DOMPoint(event.clientX, event.clientY).matrixTransform(svg().getScreenCTM().inverse());
}

/** The lane of a person below a point: the last that begins above it; what runs by itself is nobody's. */
function laneAt(y) {
  const lanes = [...svg().querySelectorAll("[data-lane][data-y]")].slice(0, -1);
  const above = lanes.filter((lane) => Number(lane.dataset.y) <= y);
  return (above.at(-1) ?? lanes[0]).dataset.lane;
}

let held = null;

document.addEventListener("pointerdown", (event) => {
  const task = event.target.closest?.(".task[data-task]");
  if (!task) return;
  event.preventDefault();
  task.focus({ preventScroll: true });
  const from = point(event);
  held = { task, from, left: task.querySelector("rect").getBBox().x, moved: false };
  task.setPointerCapture(event.pointerId);
});

document.addEventListener("pointermove", (event) => {
  if (!held) return;
  const to = point(event);
  const by = [to.x - held.from.x, to.y - held.from.y];
  held.moved ||= Math.hypot(...by) > 4;
  if (!held.moved) return;
  held.task.classList.add("moved");
  held.task.setAttribute("transform", `translate(${by[0]} ${by[1]})`);
});

document.addEventListener("pointerup", (event) => {
  if (!held) return;
  const { task, from, left, moved } = held;
  held = null;
  if (!moved) return;
  const to = point(event);
  send(task, { lane: laneAt(to.y), x: left + to.x - from.x });
});

document.addEventListener("keydown", (event) => {
  const task = event.target.closest?.(".task[data-task]");
  if (!task) return;
  const [lane, from] = [Number(task.dataset.lane), Number(task.dataset.from)];
  const last = svg().querySelectorAll("[data-lane][data-y]").length - 2;
  const acts = {
    ArrowLeft: () => ({ lane, from: from - STEP_MIN }),
    ArrowRight: () => ({ lane, from: from + STEP_MIN }),
    ArrowUp: () => ({ lane: Math.max(0, lane - 1), from }),
    ArrowDown: () => ({ lane: Math.min(last, lane + 1), from }),
    Delete: () => ({}),
  };
  const act = acts[event.key];
  if (act) {
    event.preventDefault();
    send(task, act());
  } else if (event.key === "Enter") location.assign(`/jobs/${task.dataset.job}`);
});

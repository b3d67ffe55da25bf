// The bench run's keys, clocks and presses. The shop decides what a press means; this sends it, with how long ago it
// was, again and again until the shop has it. What is not sent yet survives a reload.
(() => {
  const KEYS = { " ": "go", Enter: "go", ArrowRight: "go", Backspace: "back", ArrowLeft: "back", s: "stopped", S: "stopped" };
  const BOUNCE_MS = 300;
  const step = () => document.getElementById("step");
  const queueName = `presses:${location.pathname}`;
  const load = () => JSON.parse(localStorage.getItem(queueName) ?? "[]");
  const keep = (queue) => localStorage.setItem(queueName, JSON.stringify(queue));
  let loadedAt = Date.now();
  let lastPress = 0;
  let sending = false;

  function press(kind) {
    if (step().dataset.next && kind === "go") return location.assign(step().dataset.next);
    if (Date.now() - lastPress < BOUNCE_MS) return;
    lastPress = Date.now();
    add("presses", { press: kind });
  }

  /** Queues something for the shop: to which address, with which fields. */
  function add(to, fields) {
    const token = `${Date.now().toString(36)}-${Math.random().toString(36).slice(2)}`;
    keep([...load(), { to, fields, token, at: Date.now() }]);
    send();
  }

  function enter(button) {
    if (Date.now() - lastPress < BOUNCE_MS) return;
    lastPress = Date.now();
    add("ledger", { act: button.dataset.enter, row: button.dataset.row ?? "" });
  }

  async function send() {
    if (sending) return;
    sending = true;
    try {
      for (let queue = load(); queue.length > 0; queue = load()) {
        const { to, fields, token, at } = queue[0];
        const body = new URLSearchParams({ ...fields, token, ago_ms: Math.max(0, Date.now() - at) });
        const answer = await fetch(`${location.pathname}/${to}`, { method: "POST", body });
        if (answer.status >= 500) throw new Error(`answered ${answer.status}`);
        keep(load().slice(1));
        if (answer.ok) show(await answer.text());
      }
      tell("");
    } catch {
      tell(`No connection: ${load().length} entries are kept here with their time and sent again.`);
      setTimeout(send, 1000);
    } finally {
      sending = false;
    }
  }

  function show(html) {
    const fresh = new DOMParser().parseFromString(html, "text/html").getElementById("step");
    if (!fresh) return;
    step().replaceWith(fresh);
    loadedAt = Date.now();
    draw();
  }

  function tell(text) {
    const note = document.getElementById("unsaved");
    note.hidden = text === "";
    note.textContent = text;
  }

  function draw() {
    const { phase, sinceMs, nowMs } = step().dataset;
    if (phase !== "running") return;
    const seconds = Math.max(0, (Number(nowMs) + Date.now() - loadedAt - Number(sinceMs)) / 1000);
    const clock = step().querySelector("[data-clock]");
    if (clock) clock.textContent = seconds.toFixed(0);
    const bar = step().querySelector(".time-bar");
    const hand = bar?.querySelector(".hand");
    if (hand) hand.setAttribute("transform", `translate(${Math.min(1000, (1000 * seconds) / Number(bar.dataset.endS))} 0)`);
    const stop = bar?.querySelector(".stop-line");
    if (stop) step().classList.toggle("overdue", (1000 * seconds) / Number(bar.dataset.endS) >= Number(stop.getAttribute("x")));
  }

  document.addEventListener("keydown", (event) => {
    if (event.target.closest("input, summary")) return;
    const tap = step().querySelector(`[data-key="${CSS.escape(event.key.toUpperCase())}"]`);
    const kind = KEYS[event.key];
    if (!(kind || tap) || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.target.closest("a") && event.key === "Enter") return;
    event.preventDefault();
    if (tap) enter(tap);
    else press(kind);
  });
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-press]");
    const tap = event.target.closest("[data-enter]");
    if (button) press(button.dataset.press);
    if (tap) enter(tap);
  });
  document.addEventListener("submit", (event) => {
    if (!event.target.matches("[data-override]")) return;
    event.preventDefault();
    const reason = event.target.elements.reason.value.trim();
    if (reason) add("ledger", { act: "overridden", reason });
    else event.target.elements.reason.focus();
  });
  setInterval(draw, 200);
  draw();
  if (load().length > 0) send();
})();

// The pin walk's keys: arrows move, a letter marks and goes on to the next pin. What the network loses is sent again.
(() => {
  const walk = () => document.getElementById("walk");
  const pins = () => [...walk().querySelectorAll("[data-pin]")];
  const queueName = `marks:${location.pathname}`;
  const load = () => JSON.parse(localStorage.getItem(queueName) ?? "[]");
  const keep = (queue) => localStorage.setItem(queueName, JSON.stringify(queue));
  let chosen = walk().dataset.chosen || pins()[0]?.dataset.pin;
  let sending = false;

  function choose(pin) {
    if (!pin) return;
    chosen = pin.dataset.pin;
    pins().forEach((other) => other.classList.toggle("chosen", other === pin));
  }
  const current = () => pins().find((pin) => pin.dataset.pin === chosen) ?? pins()[0];
  const at = (row, column) =>
    pins().find((pin) => Number(pin.dataset.row) === row && Number(pin.dataset.column) === column);

  function move(rows, columns) {
    const here = current();
    const [row, column] = [Number(here.dataset.row) + rows, Number(here.dataset.column) + columns];
    const inRow = pins().filter((pin) => Number(pin.dataset.row) === row);
    const end = columns > 0 ? at(row + 1, 0) : pins().filter((pin) => Number(pin.dataset.row) === row - 1).at(-1);
    choose(at(row, column) ?? (rows ? inRow.at(-1) : end));
  }

  function mark(kind) {
    const pin = chosen;
    keep([...load(), { pin, mark: kind }]);
    if (kind) move(0, 1);
    send();
  }

  async function send() {
    if (sending) return;
    sending = true;
    const note = document.getElementById("unsaved");
    try {
      for (let queue = load(); queue.length > 0; queue = load()) {
        const answer = await fetch(location.pathname, { method: "POST", body: new URLSearchParams(queue[0]) });
        if (answer.status >= 500) throw new Error(`answered ${answer.status}`);
        keep(load().slice(1));
        if (answer.ok && load().length === 0) show(await answer.text());
      }
      note.hidden = true;
    } catch {
      note.hidden = false;
      note.textContent = `No connection: ${load().length} marks are kept here and sent again.`;
      setTimeout(send, 1000);
    } finally {
      sending = false;
    }
  }

  function show(html) {
    const fresh = new DOMParser().parseFromString(html, "text/html");
    const focused = walk().contains(document.activeElement);
    walk().replaceWith(fresh.getElementById("walk"));
    document.getElementById("job-head").replaceWith(fresh.getElementById("job-head"));
    document.getElementById("job-head").removeAttribute("hx-swap-oob");
    choose(current());
    if (focused) walk().querySelector(".scope").focus({ preventScroll: true });
  }

  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const steps = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] };
    const key = walk().querySelector(`[data-key="${CSS.escape(event.key.toLowerCase())}"]`);
    if (steps[event.key]) move(...steps[event.key]);
    else if (key) mark(key.dataset.mark);
    else if (event.key === "Backspace") mark("");
    else if (event.key === "Enter" && walk().dataset.next && !event.target.closest("a, button")) location.assign(walk().dataset.next);
    else return;
    event.preventDefault();
  });
  document.addEventListener("click", (event) => {
    const pin = event.target.closest("[data-pin]");
    const button = event.target.closest("[data-mark]");
    if (pin) choose(pin);
    if (button) mark(button.dataset.mark);
  });
  choose(current());
  if (load().length > 0) send();
})();

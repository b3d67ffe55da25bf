// Acts on a draft: kept in this browser first, sent one after the other, shown as the shop answers them.
window.trace = (() => {
  const root = document.querySelector("[data-trace]");
  const address = root.dataset.trace;
  const queueName = `acts:${address}`;
  const load = () => JSON.parse(localStorage.getItem(queueName) ?? "[]");
  const keep = (queue) => localStorage.setItem(queueName, JSON.stringify(queue));
  const live = () => document.getElementById("trace-live");
  const typed = new Map();
  let sending = false;
  let drawn = () => {};

  function say(text) {
    document.getElementById("trace-saved").textContent = text;
  }

  // Where the hands are stays: the focused field with what is being typed in it, and how far the panel was scrolled.
  function put(html) {
    const focused = document.activeElement;
    const [id, of] = [focused?.id, focused?.closest?.(".thing")?.dataset.of];
    const value = typed.has(id) ? focused.value : null;
    const scrolled = live().querySelector(".trace-panel").scrollTop;
    const was = live().dataset.show;
    const fresh = new DOMParser().parseFromString(html, "text/html").getElementById("trace-live");
    live().replaceWith(fresh);
    if (fresh.dataset.show === was) fresh.querySelector(".trace-panel").scrollTop = scrolled;
    const again = id && id !== "trace-map" ? document.getElementById(id) : null;
    if (again && value !== null) again.value = value;
    const thing = of && [...document.querySelectorAll(".trace-map .thing")].find((t) => t.dataset.of === of);
    (thing || again || (id === "trace-map" ? document.getElementById(id) : null))?.focus({ preventScroll: true });
    history.replaceState(null, "", `${address}?show=${fresh.dataset.show}`);
    drawn();
  }

  async function send() {
    if (sending) return;
    sending = true;
    try {
      for (let queue = load(); queue.length > 0; queue = load()) {
        say("Saving…");
        const { path, body } = queue[0];
        const answer = await fetch(address + path, {
          method: "POST",
          headers: { "content-type": "application/json" },
          body: JSON.stringify(body),
        });
        if (answer.status >= 500) throw new Error(`answered ${answer.status}`);
        keep(load().slice(1));
        // The draft has ended, or the act was none: what the shop has is shown.
        if (!answer.ok && answer.status !== 422) {
          keep([]);
          location.reload();
          return;
        }
        const html = await answer.text();
        if (answer.status === 422) refuse(body.edit, html);
        else if (load().length === 0) put(html);
        say("Saved");
      }
    } catch {
      const count = load().length;
      say(`No connection: ${count === 1 ? "1 act is" : `${count} acts are`} kept here and sent again.`);
      setTimeout(send, 1000);
    } finally {
      sending = false;
    }
  }

  // What was typed and refused stays in its field, with the refusal above.
  function refuse(edit, html) {
    put(html);
    if (edit?.do !== "set") return;
    const field = document.querySelector(`[data-field="${edit.field}"][data-of='${JSON.stringify(edit.of)}']`);
    if (!field) return;
    field.value = edit.value;
    field.setAttribute("aria-invalid", "true");
    field.focus({ preventScroll: true });
  }

  function act(path, body) {
    keep([...load(), { path, body: { token: crypto.randomUUID(), show: live().dataset.show, ...body } }]);
    send();
  }

  async function show(panel) {
    try {
      const answer = await fetch(`${address}/live?show=${encodeURIComponent(panel)}`);
      if (answer.ok) put(await answer.text());
    } catch {
      say("No connection: what is drawn is kept here.");
    }
  }

  document.addEventListener("input", (event) => {
    if (event.target.dataset.field) typed.set(event.target.id, true);
  });
  document.addEventListener("change", (event) => {
    const field = event.target;
    if (!field.dataset.field) return;
    typed.delete(field.id);
    const value = field.type === "checkbox" ? String(field.checked) : field.value;
    act("/edit", { edit: { do: "set", of: JSON.parse(field.dataset.of), field: field.dataset.field, value } });
  });
  document.addEventListener("click", (event) => {
    const button = event.target.closest("button");
    if (!button || !root.contains(button)) return;
    if (button.dataset.edit) act("/edit", { edit: JSON.parse(button.dataset.edit) });
    else if (button.dataset.undo !== undefined) act("/undo", {});
    else if (button.dataset.redo !== undefined) act("/redo", {});
    else if (button.dataset.show) show(button.dataset.show);
  });
  document.addEventListener("keydown", (event) => {
    if (!(event.ctrlKey || event.metaKey) || event.target.matches("input, textarea")) return;
    const key = event.key.toLowerCase();
    if (key === "z") act(event.shiftKey ? "/redo" : "/undo", {});
    else if (key === "y") act("/redo", {});
    else return;
    event.preventDefault();
  });
  setTimeout(send, 0);
  return { edit: (edit) => act("/edit", { edit }), show, onDrawn: (then) => (drawn = then), root };
})();

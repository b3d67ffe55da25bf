// Acts on a draft: kept in this browser first, sent one after the other, shown as the shop answers them.
import { queue, token } from "./queue.js";

window.trace = (() => {
  const root = document.querySelector("[data-trace]");
  const address = root.dataset.trace;
  const live = () => document.getElementById("trace-live");
  const typed = new Map();
  /** This page, to the shop: acts on a state that another page has changed are refused. */
  const client = token();
  let drawn = () => {};
  /** The panel that was asked for and is not there yet. */
  let wanted = null;
  /** The panel on which something was done last. */
  let acting = null;

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

  // An answer to what was done shows the panel that it was done on: whoever has gone on since stays where they are.
  function putActed(html) {
    const now = live().dataset.show;
    put(html);
    if (acting !== null && now !== acting) show(now);
  }

  const acts = queue({
    name: `acts ${address}`,
    send: ({ data, token }) =>
      fetch(address + data.path, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ ...data.body, token }),
      }),
    shown: (html, last) => {
      if (last) putActed(html);
      say(last ? "Saved" : "Saving…");
    },
    // An objection to what was typed is shown beside its field, where it is mended.
    refused: async (answer, entry) => {
      say(answer.status === 422 ? "Saved" : "Not taken");
      if (answer.status !== 422) return false;
      const html = await answer.text();
      if (!html.includes('id="trace-live"')) return false;
      refuse(entry.data.body.edit, html);
      return true;
    },
    lost: () => say("Not saved yet"),
    // Done on what is on the screen now.
    move: (data) => ({
      ...data,
      body: { ...data.body, client, on: revision() },
    }),
  });
  const revision = () => Number(live().dataset.revision);

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
    const label = body.edit ? `“${body.edit.do}”` : path.slice(1);
    // Said at once: until the queue has its turn "Saved" would still stand there, of the act before.
    say("Saving…");
    acting = wanted ?? live().dataset.show;
    acts.add(
      { label },
      {
        path,
        body: { client, on: revision(), show: acting, ...body },
      },
    );
  }

  // Of two that were asked for one after the other the last is shown, whichever answer comes last.
  async function show(panel) {
    wanted = panel;
    try {
      const answer = await fetch(`${address}/live?show=${encodeURIComponent(panel)}`);
      const html = answer.ok ? await answer.text() : "";
      if (wanted !== panel) return;
      wanted = null;
      if (html) put(html);
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
    act("/edit", {
      edit: {
        do: "set",
        of: JSON.parse(field.dataset.of),
        field: field.dataset.field,
        value,
      },
    });
  });
  document.addEventListener("click", (event) => {
    // The steps are links: pressed before this script is here, they lead to the same place.
    const button = event.target.closest("button, a[data-show]");
    if (!button || !root.contains(button) || event.ctrlKey || event.metaKey) return;
    if (button.dataset.show) event.preventDefault();
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
  return {
    edit: (edit) => act("/edit", { edit }),
    show,
    onDrawn: (then) => (drawn = then),
    root,
  };
})();

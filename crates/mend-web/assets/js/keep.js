// Nothing typed is lost. A field whose saving failed is kept in this browser and sent again until the shop has it.
(() => {
  const note = () => document.getElementById("unsaved");
  const place = (field) => `field:${location.pathname}:${field.id}`;
  const fields = () => [...document.querySelectorAll("[data-keep]")];

  function tell() {
    const waiting = fields().filter((field) => localStorage.getItem(place(field)) !== null);
    note().hidden = waiting.length === 0;
    note().textContent = waiting.length ? `No connection: ${waiting.length} entries are kept here and sent again.` : "";
    return waiting;
  }

  document.addEventListener("input", (event) => {
    if (event.target.matches("[data-keep]")) localStorage.setItem(place(event.target), event.target.value);
  });

  document.addEventListener("htmx:afterRequest", (event) => {
    const field = event.detail.elt;
    if (!field.matches("[data-keep]")) return;
    // Saved, or refused in words beside the field: either way the shop has answered for this value.
    const sent = new URLSearchParams(event.detail.requestConfig.parameters).get("value");
    if (event.detail.successful && sent === field.value) localStorage.removeItem(place(field));
    if (!event.detail.xhr || event.detail.xhr.status === 0) tell();
  });

  document.addEventListener("DOMContentLoaded", () => {
    for (const field of fields()) {
      const kept = localStorage.getItem(place(field));
      if (kept !== null) field.value = kept;
    }
  });

  setInterval(() => tell().forEach((field) => htmx.trigger(field, "change")), 3000);

  // A slider and its number are one setting: the number is what is sent.
  document.addEventListener("input", (event) => {
    const other = document.getElementById(event.target.dataset.number ?? event.target.dataset.range ?? "");
    if (other) other.value = event.target.value;
  });
})();

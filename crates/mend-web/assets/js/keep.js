// Nothing typed is lost. A field whose saving failed is kept in this browser and sent again until the shop has it.
const note = () => document.getElementById("unsaved");
const place = (field) => `field:${location.pathname}:${field.id}`;
const fields = () => [...document.querySelectorAll("[data-keep]")];
/** Fields whose last sending did not arrive: what is merely being typed has not failed. */
const failed = new Set();

/** Did an answer not come, or does the shop wait for somebody to sign in? */
const isLost = (xhr) => !xhr || xhr.status === 0 || xhr.status >= 500 || xhr.status === 401;

function load(field) {
  try {
    return localStorage.getItem(place(field));
  } catch {
    return null;
  }
}

function store(field) {
  try {
    localStorage.setItem(place(field), field.value);
  } catch {
    say("This browser's storage is full or off: what is typed is kept by the shop alone.");
  }
}

function forget(field) {
  failed.delete(field.id);
  try {
    localStorage.removeItem(place(field));
  } catch {
    // It was never kept.
  }
}

function say(text) {
  if (!fields().length) return;
  note().hidden = text === "";
  note().textContent = text;
}

function tell(why = "No connection") {
  const count = failed.size;
  say(count ? `${why}: ${count === 1 ? "1 entry is" : `${count} entries are`} kept here and sent again.` : "");
}

document.addEventListener("input", (event) => {
  if (event.target.matches("[data-keep]")) store(event.target);
});

document.addEventListener("htmx:afterRequest", (event) => {
  const field = event.detail.elt;
  if (!field.matches("[data-keep]")) return;
  const { xhr } = event.detail;
  const sent = new URLSearchParams(event.detail.requestConfig.parameters).get("value");
  if (event.detail.successful) {
    // Saved; what was typed since is on its way.
    if (sent === field.value) forget(field);
    else failed.delete(field.id);
    tell();
  } else if (isLost(xhr)) {
    failed.add(field.id);
    const page = xhr?.responseText ? new DOMParser().parseFromString(xhr.responseText, "text/html") : null;
    tell(page?.querySelector(".refused h1")?.textContent);
  }
});

document.addEventListener("DOMContentLoaded", () => {
  for (const field of fields()) {
    const kept = load(field);
    if (kept === null || kept === field.value) continue;
    field.value = kept;
    failed.add(field.id);
  }
});

setInterval(() => {
  for (const field of fields()) if (failed.has(field.id)) htmx.trigger(field, "change");
}, 3000);

// A form of the shop whose change did not arrive is sent again, as it stands then, until it does.
const unsent = new Set();
document.addEventListener("htmx:afterRequest", (event) => {
  const form = event.detail.elt;
  if (!form.matches(".shop-form")) return;
  const { xhr } = event.detail;
  const lost = isLost(xhr);
  if (lost) unsent.add(form);
  else unsent.delete(form);
  const why = xhr?.responseText ? new DOMParser().parseFromString(xhr.responseText, "text/html").querySelector(".refused h1") : null;
  note().hidden = !lost;
  note().textContent = lost ? `${why?.textContent ?? "No connection"}: what was changed is not saved yet and is sent again.` : "";
});
setInterval(() => unsent.forEach((form) => htmx.trigger(form, "submit")), 3000);

// A slider and its number are one setting: the number is what is sent.
document.addEventListener("input", (event) => {
  const other = document.getElementById(event.target.dataset.number ?? event.target.dataset.range ?? "");
  if (other) other.value = event.target.value;
});

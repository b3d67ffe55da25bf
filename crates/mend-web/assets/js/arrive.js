// A page whose scripts did not all arrive says so, and loads again by itself as soon as the shop answers. Once the network
// went between a page and its scripts: the page looked whole, heard nothing and said nothing.
document.addEventListener(
  "error",
  ({ target }) => {
    if (target instanceof HTMLScriptElement) sayMissing();
  },
  true,
);

let waiting = null;
/** A page that came again and is still not whole is in no hurry: something else keeps its script away. */
const cameAgain = () => performance.getEntriesByType("navigation")[0]?.type === "reload";

function sayMissing() {
  waiting ??= setInterval(loadAgain, cameAgain() ? 10_000 : 2000);
  const note = document.getElementById("unsaved");
  if (!note) return document.addEventListener("DOMContentLoaded", sayMissing);
  note.hidden = false;
  note.textContent = "No connection: a part of this page is missing. What you enter is kept here; the page loads again by itself.";
}

async function loadAgain() {
  try {
    if (!(await fetch(location.href)).ok) return;
  } catch {
    return;
  }
  clearInterval(waiting);
  keepFields();
  document.dispatchEvent(new Event("leaving"));
  location.reload();
}

/** What was typed meanwhile goes over to the whole page, under the names by which `keep.js` finds it. */
function keepFields() {
  try {
    for (const field of document.querySelectorAll("[data-keep]"))
      if (field.value !== field.defaultValue) localStorage.setItem(`field:${location.pathname}:${field.id}`, field.value);
  } catch {
    // Without a storage the browser's own memory of a page's fields has to do.
  }
}

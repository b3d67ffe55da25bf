// Names what is pointed at or focused on a board map.
function name(event) {
  const thing = event.target.closest?.("[data-name]");
  const pointed = thing?.closest("[data-names]")?.querySelector("[data-pointed]");
  if (pointed) pointed.textContent = thing.dataset.name;
}
document.addEventListener("pointerover", name);
document.addEventListener("focusin", name);

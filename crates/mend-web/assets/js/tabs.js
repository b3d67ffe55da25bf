// A digit opens the tab that carries it, wherever the focus is but in a field.
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest("input, select, textarea")) return;
  document.querySelector(`.plan-tabs [data-key="${CSS.escape(event.key)}"]`)?.click();
});

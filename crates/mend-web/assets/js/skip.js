// Escape presses the button that skips this stop, where there is one.
document.addEventListener("keydown", (event) => {
  if (event.key !== "Escape" || event.target.closest("input, textarea, select")) return;
  document.querySelector("[data-skip-key]")?.click();
});

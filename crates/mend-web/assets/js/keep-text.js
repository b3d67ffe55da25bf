// A pasted board stays in this browser until it has been imported.
const text = document.querySelector("[data-keep-text]");
if (text.value === "") text.value = localStorage.getItem("board-text") ?? "";
text.addEventListener("input", () => localStorage.setItem("board-text", text.value));

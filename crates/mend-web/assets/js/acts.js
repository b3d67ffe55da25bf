// One act at a time. A button that changes the settings sends the whole form along; until the shop has answered the
// form waits. Once a dragged shield's own message, a moment late, called off the press that took the shield away, and
// the shield stayed.
const form = () => document.getElementById("settings");
const isAct = (event) => event.detail.elt.matches?.('[hx-include="#settings"]');

// What was changed just before the press is in what the press sent.
document.addEventListener("htmx:confirm", (event) => {
  if (event.detail.elt === form() && form().inert) event.preventDefault();
});
document.addEventListener("htmx:beforeRequest", (event) => {
  if (isAct(event)) form().inert = true;
});
document.addEventListener("htmx:afterRequest", (event) => {
  if (isAct(event) && form()) form().inert = false;
});

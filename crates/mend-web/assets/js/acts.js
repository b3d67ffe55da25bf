// One act at a time. A button that changes the settings sends the whole form along; from the press until the shop has
// answered the form waits. Once a dragged shield's own message, a moment late, called off the press that took the shield
// away, and the shield stayed.
//
// What is on its way is answered before the next is sent. Once a change that a press had called off was still kept by a
// busy shop, after the press, and the iron that the press had added was gone.
const form = () => document.getElementById("settings");
const isAct = (element) => element.matches?.('[hx-include="#settings"]');

document.addEventListener("htmx:confirm", (event) => {
  const { elt } = event.detail;
  if (isAct(elt)) form().inert = true;
  // What was changed just before the press is in what the press sends.
  else if (elt === form() && form().inert) event.preventDefault();
});
// A plan that comes while a press waits is outdated by it, and would take the pressed button away.
document.addEventListener("htmx:beforeSwap", (event) => {
  const waits = form()?.inert && !isAct(event.detail.requestConfig.elt);
  if (waits && event.detail.target.id === "plan") event.detail.shouldSwap = false;
});
document.addEventListener("htmx:afterRequest", (event) => {
  if (isAct(event.detail.elt) && form()) form().inert = false;
});

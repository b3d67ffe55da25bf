// Presses that are made before the page's own script has arrived are kept, to be heard when it is there (`hear.js`). Once a
// press in that moment was lost with the network, and nothing on the screen said so.
window.earlyPresses = [];
window.keepEarly = (event) => window.earlyPresses.push(event);
document.addEventListener("keydown", window.keepEarly);
document.addEventListener("click", window.keepEarly);

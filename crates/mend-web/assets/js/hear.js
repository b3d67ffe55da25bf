// Hears the presses of a page, first those that were made before its script had arrived.

/** `heard` names what hears a kind of event: keydown, click. */
export function hear(heard) {
  for (const [kind, hears] of Object.entries(heard)) {
    document.removeEventListener(kind, window.keepEarly);
    document.addEventListener(kind, hears);
  }
  for (const event of window.earlyPresses.splice(0)) heard[event.type]?.(event);
}

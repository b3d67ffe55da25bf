// Hears the presses of a page, first those that were made before its script had arrived.

/** `heard` names what hears a kind of event: keydown, click. */
export function hear(heard) {
  for (const [kind, hears] of Object.entries(heard)) {
    document.removeEventListener(kind, window.keepEarly);
    document.addEventListener(kind, hears);
  }
  for (const event of [...carriedOver(), ...window.earlyPresses.splice(0)]) heard[event.type]?.(event);
}

/** Presses of the same step on a page that never was whole (`early.js`): what was meant for another step is not for this one. */
function carriedOver() {
  try {
    const kept = JSON.parse(sessionStorage.getItem("early") ?? "null");
    sessionStorage.removeItem("early");
    const { run, step } = document.getElementById("step").dataset;
    if (kept?.path !== location.pathname || kept.run !== run || kept.step !== step) return [];
    return kept.presses.map(asEvent);
  } catch {
    return [];
  }
}

function asEvent({ type, key, button, at }) {
  const target = (button && document.querySelector(button)) || document.body;
  return { type, key, target, timeStamp: at - performance.timeOrigin, preventDefault() {} };
}

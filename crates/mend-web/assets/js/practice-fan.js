// The fan of a hot-air station, heard where somebody wants to: noise, louder and brighter with the flow.

let loud = null;
let level = 0;

const button = document.getElementById("sound");
button.addEventListener("click", () => {
  const on = button.getAttribute("aria-pressed") !== "true";
  button.setAttribute("aria-pressed", on);
  if (on) begin();
  else end();
});

function end() {
  loud?.context.close();
  loud = null;
}

function begin() {
  const context = new AudioContext();
  const buffer = context.createBuffer(1, context.sampleRate, context.sampleRate);
  buffer.getChannelData(0).forEach((_, k, all) => (all[k] = Math.random() * 2 - 1));
  const [noise, filter, gain] = [context.createBufferSource(), context.createBiquadFilter(), context.createGain()];
  [noise.buffer, noise.loop, filter.type, gain.gain.value] = [buffer, true, "lowpass", 0];
  noise.connect(filter).connect(gain).connect(context.destination);
  noise.start();
  loud = { context, filter, gain };
  fan(level);
}

/** How hard it blows now, 0-255 as the shop says it. */
export function fan(now) {
  level = now;
  if (!loud) return;
  loud.gain.gain.value = level / 800;
  loud.filter.frequency.value = 300 + 14 * level;
}

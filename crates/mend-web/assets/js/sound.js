// Short tones.

let audio = null;

/** So many, of this pitch. */
export function tones(count, hertz) {
  audio ??= new AudioContext();
  for (let k = 0; k < count; k += 1) {
    const [tone, loud] = [audio.createOscillator(), audio.createGain()];
    tone.frequency.value = hertz;
    loud.gain.value = 0.3;
    tone.connect(loud).connect(audio.destination);
    tone.start(audio.currentTime + 0.25 * k);
    tone.stop(audio.currentTime + 0.25 * k + 0.15);
  }
}

// What can be seen at the practice bench, as a sentence.

const FLUX = ["", "the flux runs", "the flux smokes", "the flux is brown"];
const PLASTIC = ["", "turns glossy", "sags", "is damaged"];
const SHINY = 2;

/** `seen` is what the cues say; `tip` the joint under the iron, from 1, or 0; `passes` those of the braid there. */
export function inWords(scene, seen) {
  const lines = [FLUX[seen.flux], shining(seen.joints), ...ofThePart(scene, seen), ...ofComponents(scene, seen)];
  if (seen.curls.some(Boolean)) lines.push("the tape curls");
  if (seen.tip) lines.push(`tip on ${scene.joints[seen.tip - 1].name}${seen.passes ? `, ${seen.passes} passes` : ""}`);
  const text = lines.filter(Boolean).join(", ") || "nothing is hot yet";
  return `${text[0].toUpperCase()}${text.slice(1)}.`;
}

/** Of joints that show. */
function shining(joints) {
  const open = joints.filter((look) => look !== 0).length;
  const shine = joints.filter((look) => look === SHINY).length;
  if (!shine) return "";
  return shine === open ? "every joint that shows is shiny" : `${shine} of ${open} joints shine`;
}

function ofThePart({ part }, { twitches, partOff, body }) {
  if (!part) return [partOff && "the part is up"];
  return [twitches && `${part.name} moves in your grip`, partOff && "the part is up", body && !partOff && `${part.name} ${PLASTIC[body]}`];
}

function ofComponents(scene, { components }) {
  return components.flatMap(({ plastic, moved }, k) => [
    plastic && `${scene.components[k].name} ${PLASTIC[plastic]}`,
    moved && `${scene.components[k].name} has moved`,
  ]);
}

// Which face is looked at, and how near. Both stay as they are when the map is drawn anew.
window.traceView = (() => {
  const map = () => document.getElementById("trace-map");
  const numbers = (text) => text.split(" ").map(Number);
  let box = null;
  let face = "top";

  function apply() {
    if (box) map().setAttribute("viewBox", box.join(" "));
    map().dataset.face = face;
    for (const button of document.querySelectorAll("[data-face][aria-pressed]")) {
      button.setAttribute("aria-pressed", String(button.dataset.face === face));
    }
  }

  const present = () => box ?? numbers(map().dataset.whole);

  function zoom(factor, at) {
    const [x, y, width, height] = present();
    const about = at ?? [x + width / 2, y + height / 2];
    const wide = Math.min(1200, Math.max(4, width * factor));
    const by = wide / width;
    box = [about[0] - (about[0] - x) * by, about[1] - (about[1] - y) * by, wide, height * by];
    apply();
  }

  function pan(dx, dy) {
    const [x, y, width, height] = present();
    box = [x - dx, y - dy, width, height];
    apply();
  }

  // What the jet reaches: the part and 25 mm round it.
  function nearPart() {
    const part = map().querySelector(".part .body")?.getBBox();
    if (!part) return;
    const height = part.height + 50;
    const width = (height * map().clientWidth) / map().clientHeight;
    box = [part.x + part.width / 2 - width / 2, part.y + part.height / 2 - height / 2, width, height];
  }

  // The place under the pointer, on paper: y downwards.
  function place(event) {
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(map().getScreenCTM().inverse());
    return [at.x, at.y];
  }

  document.addEventListener(
    "wheel",
    (event) => {
      if (!event.target.closest?.("#trace-map")) return;
      event.preventDefault();
      zoom(event.deltaY > 0 ? 1.15 : 1 / 1.15, place(event));
    },
    { passive: false },
  );
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-zoom], [data-face][aria-pressed]");
    if (!button) return;
    if (button.dataset.face) face = button.dataset.face;
    else if (button.dataset.zoom === "0") {
      box = null;
      map().setAttribute("viewBox", map().dataset.whole);
    } else if (button.dataset.zoom === "part") nearPart();
    else zoom(Number(button.dataset.zoom));
    apply();
  });
  return {
    apply,
    pan,
    place,
    face: () => face,
    turnTo: (other) => ((face = other), apply()),
  };
})();

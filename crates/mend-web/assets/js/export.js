// Every chart as an SVG or a PNG file: its drawing with the page's own styles written into it.
const STYLES = [
  "display",
  "fill",
  "fill-opacity",
  "stroke",
  "stroke-width",
  "stroke-dasharray",
  "stroke-linecap",
  "stroke-linejoin",
  "opacity",
  "font-family",
  "font-size",
  "font-weight",
  "font-stretch",
  "text-anchor",
  "dominant-baseline",
  "paint-order",
  "vector-effect",
];
const DOTS = 2;

function standing(svg) {
  const copy = svg.cloneNode(true);
  const [from, to] = [svg, copy].map((root) => [root, ...root.querySelectorAll("*")]);
  from.forEach((element, k) => {
    const style = getComputedStyle(element);
    for (const name of STYLES) to[k].setAttribute(name, style.getPropertyValue(name));
  });
  const { x, y, width, height } = svg.viewBox.baseVal;
  const paper = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  Object.entries({ x, y, width, height, fill: "#fffdf8" }).forEach(([name, value]) => paper.setAttribute(name, value));
  copy.prepend(paper);
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", Math.round(svg.clientWidth));
  copy.setAttribute("height", Math.round((svg.clientWidth * height) / width));
  return copy;
}

// A picture in a canvas may not fetch its font: the page's own is written into it.
async function font() {
  const rules = [...document.styleSheets].flatMap((sheet) => [...sheet.cssRules]);
  const face = rules.find((rule) => rule instanceof CSSFontFaceRule);
  const address = face.style.getPropertyValue("src").match(/url\("?([^")]+)/)[1];
  // The address stands in the stylesheet, and is meant from there.
  const at = new URL(address, face.parentStyleSheet.href);
  const bytes = new Uint8Array(await (await fetch(at)).arrayBuffer());
  const text = Array.from(bytes, (byte) => String.fromCharCode(byte)).join("");
  return `<style>@font-face{font-family:Archivo;font-weight:100 900;font-stretch:62% 125%;src:url(data:font/woff2;base64,${btoa(text)})}</style>`;
}

function save(blob, name) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

async function write(svg, name, kind) {
  const copy = standing(svg);
  const text = new XMLSerializer().serializeToString(copy);
  if (kind === "svg") return save(new Blob([text], { type: "image/svg+xml" }), `${name}.svg`);
  const whole = text.replace(/(<svg[^>]*>)/, `$1${await font()}`);
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(whole)}`;
  await image.decode();
  const canvas = document.createElement("canvas");
  Object.assign(canvas, {
    width: copy.getAttribute("width") * DOTS,
    height: copy.getAttribute("height") * DOTS,
  });
  canvas.getContext("2d").drawImage(image, 0, 0, canvas.width, canvas.height);
  canvas.toBlob((blob) => save(blob, `${name}.png`), "image/png");
}

function offer() {
  for (const figure of document.querySelectorAll("figure[data-export]:not([data-offered])")) {
    figure.dataset.offered = "yes";
    const name = figure.dataset.export;
    const row = document.createElement("p");
    row.className = "export";
    for (const kind of ["svg", "png"]) {
      const button = document.createElement("button");
      Object.assign(button, {
        type: "button",
        textContent: kind.toUpperCase(),
      });
      button.setAttribute("aria-label", `Save ${name.replaceAll("-", " ")} as ${kind.toUpperCase()}`);
      button.addEventListener("click", () => write(figure.querySelector("svg"), name, kind));
      row.append(button);
    }
    figure.append(row);
  }
}

document.addEventListener("htmx:afterSettle", offer);
document.addEventListener("DOMContentLoaded", offer);

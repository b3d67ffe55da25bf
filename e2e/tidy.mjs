// Is a page tidy? No two texts overlap, none is cut by its box or its picture, nothing lies past the right edge, and nothing
// that is pointed at is smaller than 24 px.
import { expect } from "@playwright/test";

/** Runs in the page; answers a line for each fault. */
export function faults() {
  const found = [];
  const said = (text) => `“${text.trim().replace(/\s+/g, " ").slice(0, 40)}”`;
  const hidden = (element) => {
    for (let at = element; at; at = at.parentElement) {
      const style = getComputedStyle(at);
      if (style.visibility === "hidden" || style.display === "none" || style.opacity === "0" || style.clipPath === "inset(50%)")
        return true;
      if (at.hasAttribute("inert") || at.matches("title, defs, option, script, style, .skip, details:not([open]) > :not(summary)"))
        return true;
    }
    return false;
  };

  // What a box scrolls out of sight lies over nothing.
  const scrolledAway = (element, rect) => {
    for (let box = element; box && box !== document.body; box = box.parentElement) {
      if (!["auto", "scroll"].includes(getComputedStyle(box).overflowY)) continue;
      const rim = box.getBoundingClientRect();
      if (rect.bottom > rim.bottom + 1 || rect.top < rim.top - 1) return true;
    }
    return false;
  };

  // Where each piece of text lies, line by line; the letters alone, without the leading.
  const texts = [];
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    if (!node.data.trim() || hidden(node.parentElement)) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const { left, right, top, bottom } of range.getClientRects()) {
      if (scrolledAway(node.parentElement, { left, right, top, bottom })) continue;
      const lead = 0.22 * (bottom - top);
      if (right - left > 1) texts.push({ node, left, right, top: top + lead, bottom: bottom - lead });
    }
  }
  const overlap = (a, b) =>
    Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1.5 && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 1.5;
  texts.sort((a, b) => a.top - b.top);
  texts.forEach((a, k) => {
    for (let j = k + 1; j < texts.length && texts[j].top < a.bottom; j += 1) {
      if (texts[j].node !== a.node && overlap(a, texts[j])) found.push(`${said(a.node.data)} and ${said(texts[j].node.data)} overlap`);
    }
  });

  for (const text of texts) {
    for (let box = text.node.parentElement; box && box !== document.body; box = box.parentElement) {
      const picture = box instanceof SVGSVGElement;
      const style = getComputedStyle(box);
      const cuts = picture ? style.overflow !== "visible" : ["hidden", "clip"].includes(style.overflowX);
      // What scrolls shows the rest when it is scrolled.
      if (["auto", "scroll"].includes(style.overflowY)) break;
      if (!cuts) continue;
      const rim = box.getBoundingClientRect();
      const over = Math.max(rim.left - text.left, text.right - rim.right, rim.top - text.top, text.bottom - rim.bottom);
      if (over > 1.5)
        found.push(
          `${said(text.node.data)} is cut by ${box.tagName.toLowerCase()}.${box.getAttribute("class") ?? ""}: ${over.toFixed(0)} px`,
        );
    }
  }

  const wide = document.documentElement.scrollWidth - innerWidth;
  if (wide > 0) found.push(`the page is ${wide} px wider than the screen`);

  for (const target of document.querySelectorAll("a[href], button, input:not([type=hidden]), select, textarea, summary, [role=button]")) {
    if (hidden(target) || target.disabled) continue;
    const { width, height } = target.getBoundingClientRect();
    const label = target.labels?.[0]?.getBoundingClientRect();
    const [w, h] = [Math.max(width, label?.width ?? 0), Math.max(height, label?.height ?? 0)];
    // A link within a sentence is as high as its line; what is drawn on a map has keys of its own.
    const sentence = getComputedStyle(target).display === "inline" && target.parentElement.textContent.trim() !== target.textContent.trim();
    if (width > 0 && Math.min(w, h) < 23.5 && !sentence && !target.closest("svg")) {
      found.push(
        `${target.tagName.toLowerCase()} ${said(target.textContent || target.getAttribute("aria-label") || target.id)} is ${w.toFixed(0)} by ${h.toFixed(0)} px`,
      );
    }
  }
  return [...new Set(found)];
}

/** Fails on what is untidy on the page as it stands, at the two sizes that count. */
export async function expectTidy(page) {
  const before = page.viewportSize();
  for (const [width, height] of [
    [1280, 800],
    [1024, 768],
  ]) {
    await page.setViewportSize({ width, height });
    expect(await page.evaluate(faults), `${page.url()} at ${width}x${height}`).toEqual([]);
  }
  await page.setViewportSize(before);
}

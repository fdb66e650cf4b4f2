/**
 * A short loop of a hull on the pond, while it is in view; one still where nothing should move.
 */

import { all, one } from "./dom.js";
import { Course } from "./pond-course.js";
import { View } from "./pond-view.js";

/** How long the last moment stays before it begins again, s. */
const RESTS = 1.5;

/** @param {HTMLElement} figure */
async function loops(figure) {
  const canvas = one(figure, "canvas", HTMLCanvasElement);
  const address = figure.dataset.pondLoop ?? "";
  if (!canvas) return;
  const course = new Course(address, {
    script: "",
    sea: "flat",
    until: 0,
    up: "false",
  });
  await course.open();
  canvas.hidden = false;
  const view = new View(canvas, undefined, course);
  if (window.matchMedia("(prefers-reduced-motion: reduce)").matches) {
    view.draw(course.furthest());
    return;
  }
  let shown = true;
  const begins = performance.now();
  /** @param {number} at ms */
  const frame = (at) => {
    if (!shown) return;
    view.draw(
      Math.min(((at - begins) / 1000) % (course.ends() + RESTS), course.ends()),
    );
    requestAnimationFrame(frame);
  };
  new IntersectionObserver(([entry]) => {
    const before = shown;
    shown = entry?.isIntersecting ?? false;
    if (shown && !before) requestAnimationFrame(frame);
  }).observe(figure);
  requestAnimationFrame(frame);
}

for (const figure of all(document, "[data-pond-loop]", HTMLElement)) {
  const near = new IntersectionObserver(
    ([entry]) => {
      if (!entry?.isIntersecting) return;
      near.disconnect();
      // Without an answer the way to the pond stands there all the same.
      loops(figure).catch(() => figure.classList.add("pond-loop-none"));
    },
    { rootMargin: "200px" },
  );
  near.observe(figure);
}

// Marks in a photo: two of the tape (1, 2), two ends of what is measured (A, B). They stand
// in the form's fields; what is clicked is only written there.

/** @typedef {{ x: HTMLInputElement, y: HTMLInputElement, name: string, dot: SVGGElement }} Mark */

const SVG = "http://www.w3.org/2000/svg";
const NAMES = ["1", "2", "A", "B"];
const SAID = ["mark 1 of the tape", "mark 2 of the tape", "end A", "end B"];
const KEYS = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Where in the picture a pointer is, in its pixels. @param {SVGSVGElement} svg @param {PointerEvent} event @returns {[number, number]} */
function spot(svg, event) {
  const box = svg.getBoundingClientRect();
  const { width, height } = svg.viewBox.baseVal;
  const share = [
    (event.clientX - box.left) / box.width,
    (event.clientY - box.top) / box.height,
  ];
  const within = (share, most) =>
    Math.round(Math.min(Math.max(share, 0), 1) * most * 10) / 10;
  return [within(share[0], width), within(share[1], height)];
}

/** @param {Mark} mark */
const placed = (mark) =>
  mark.x.value.trim() !== "" && mark.y.value.trim() !== "";

/** Draws a mark where its fields say. @param {Mark} mark */
function draw(mark) {
  mark.dot.toggleAttribute("hidden", !placed(mark));
  mark.dot.style.display = placed(mark) ? "" : "none";
  mark.dot.setAttribute(
    "transform",
    `translate(${mark.x.value || 0} ${mark.y.value || 0})`,
  );
}

/** Lines between the two of a kind. @param {Mark[]} marks @param {SVGLineElement[]} lines */
function join(marks, lines) {
  lines.forEach((line, k) => {
    const [from, to] = [marks[2 * k], marks[2 * k + 1]];
    line.style.display = placed(from) && placed(to) ? "" : "none";
    const ends = { x1: from.x, y1: from.y, x2: to.x, y2: to.y };
    for (const [name, field] of Object.entries(ends))
      line.setAttribute(name, field.value || "0");
  });
}

/** @param {string} name @param {Record<string, string>} attributes */
function made(name, attributes) {
  const element = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes))
    element.setAttribute(key, value);
  return element;
}

/** The dot of a mark, as large on every screen. @param {string} name @param {string} said @param {number} size */
function dot(name, said, size) {
  const group = /** @type {SVGGElement} */ (
    made("g", {
      tabindex: "0",
      role: "button",
      "aria-label": `${said}, moved by the arrow keys`,
    })
  );
  group.classList.add("photo-mark");
  group.append(made("circle", { r: String(size) }));
  group.append(made("path", { d: `M${-size} 0H${size}M0 ${-size}V${size}` }));
  const label = made("text", { x: String(size * 1.2), y: String(-size * 0.6) });
  label.setAttribute("font-size", String(size * 1.6));
  label.textContent = name;
  group.append(label);
  return group;
}

/** @param {HTMLElement} frame @param {HTMLFormElement} form */
function photo(frame, form) {
  const svg = /** @type {SVGSVGElement | null} */ (frame.querySelector("svg"));
  if (!svg) return;
  svg.removeAttribute("hidden");
  svg.setAttribute("tabindex", "0");
  const field = (name) =>
    /** @type {HTMLInputElement} */ (form.elements.namedItem(name));
  const size =
    Math.max(svg.viewBox.baseVal.width, svg.viewBox.baseVal.height) / 60;
  const lines = ["tape", "thing"].map((kind) => {
    const line = /** @type {SVGLineElement} */ (made("line", {}));
    line.classList.add("photo-line", `photo-${kind}`);
    svg.append(line);
    return line;
  });
  const marks = NAMES.map((name, k) => {
    const mark = {
      name,
      x: field(`x${k + 1}`),
      y: field(`y${k + 1}`),
      dot: dot(name, SAID[k], size),
    };
    svg.append(mark.dot);
    return mark;
  });
  const redraw = () => {
    marks.forEach(draw);
    join(marks, lines);
  };
  /** @param {Mark} mark @param {[number, number]} at */
  const put = (mark, [x, y]) => {
    mark.x.value = String(x);
    mark.y.value = String(y);
    redraw();
  };
  /** @type {Mark | null} */
  let held = null;
  svg.addEventListener("pointerdown", (event) => {
    const on = marks.find((m) =>
      m.dot.contains(/** @type {Node} */ (event.target)),
    );
    held = on ?? marks.find((m) => !placed(m)) ?? null;
    if (!held) return;
    event.preventDefault();
    if (!on) put(held, spot(svg, event));
    held.dot.focus();
    svg.setPointerCapture(event.pointerId);
  });
  svg.addEventListener(
    "pointermove",
    (event) => held && put(held, spot(svg, event)),
  );
  svg.addEventListener("pointerup", () => (held = null));
  svg.addEventListener("pointercancel", () => (held = null));
  svg.addEventListener("keydown", (event) => {
    const mark = marks.find((m) => m.dot === document.activeElement);
    const next = marks.find((m) => !placed(m));
    if (!mark && next && event.key === "Enter") {
      event.preventDefault();
      put(next, [
        svg.viewBox.baseVal.width / 2,
        svg.viewBox.baseVal.height / 2,
      ]);
      next.dot.focus();
      return;
    }
    const by = KEYS[event.key];
    if (!mark || !by) return;
    event.preventDefault();
    const step = event.shiftKey ? 10 : 1;
    const { width, height } = svg.viewBox.baseVal;
    const moved = (value, d, most) =>
      Math.min(Math.max(Number(value) + d * step, 0), most);
    put(mark, [
      moved(mark.x.value, by[0], width),
      moved(mark.y.value, by[1], height),
    ]);
  });
  form.addEventListener("input", redraw);
  redraw();
}

/** Lets marks be set in the photo of a page. @param {Document} page */
export function marksInPhoto(page) {
  const frame = /** @type {HTMLElement | null} */ (
    page.querySelector("[data-photo]")
  );
  const form = /** @type {HTMLFormElement | null} */ (
    page.querySelector("[data-tape]")
  );
  if (frame && form) photo(frame, form);
}

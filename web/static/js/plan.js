/**
 * The hull's plan as a field to point in: a zone's edges and a fitting's place
 * are dragged with a pointer or moved with the arrow keys, and stand in the
 * form's fields at once. Without this module the fields do the same.
 */

import { stepOf } from "./keys.js";

const SVG = "http://www.w3.org/2000/svg";

/** @param {Document} root */
export function planThatMoves(root) {
  const plan = root.querySelector("svg[data-plan]");
  if (!(plan instanceof SVGSVGElement)) return;
  // A picture holds nothing one can take hold of; a group does.
  plan.setAttribute("role", "group");
  const zone = root.querySelector("form[data-zone]");
  const place = root.querySelector("form[data-place]");
  if (zone instanceof HTMLFormElement) edges(plan, zone);
  if (place instanceof HTMLFormElement) mark(plan, place);
}

/** Turns places on the drawing into metres and back. */
function scaleOf(plan) {
  const { scale, bow, middle } = plan.dataset;
  const unit = Number(scale);
  return {
    x: (m) => Number(bow) + m * unit,
    y: (m) => Number(middle) + m * unit,
    metres(event) {
      const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(
        plan.getScreenCTM().inverse(),
      );
      return {
        x: (at.x - Number(bow)) / unit,
        y: (at.y - Number(middle)) / unit,
      };
    },
  };
}

/** Writes metres into a field, and tells whoever listens. */
function write(field, metres) {
  field.value = `${metres.toFixed(3)} m`;
  field.dispatchEvent(new Event("input", { bubbles: true }));
}

function handle(plan, label, x, y) {
  const grip = document.createElementNS(SVG, "circle");
  grip.setAttribute("r", "6.5");
  grip.setAttribute("cx", String(x));
  grip.setAttribute("cy", String(y));
  grip.setAttribute("class", "grip");
  grip.setAttribute("tabindex", "0");
  grip.setAttribute("role", "slider");
  grip.setAttribute("aria-label", label);
  plan.append(grip);
  return grip;
}

/** Lets a grip be dragged and moved by keys. */
function movable(grip, scale, onMove, onEnd) {
  grip.addEventListener("pointerdown", (event) => {
    event.preventDefault();
    grip.setPointerCapture(event.pointerId);
    grip.focus();
    const plan = grip.ownerSVGElement;
    // What arrives meanwhile does not pull it away.
    plan.dataset.held = "yes";
    const move = (moved) => onMove(scale.metres(moved));
    grip.addEventListener("pointermove", move);
    const end = () => {
      grip.removeEventListener("pointermove", move);
      delete plan.dataset.held;
      onEnd();
    };
    grip.addEventListener("pointerup", end, { once: true });
    grip.addEventListener("pointercancel", end, { once: true });
  });
  grip.addEventListener("keydown", (event) => {
    const by = stepOf(event.key, event.shiftKey);
    if (!by) return;
    event.preventDefault();
    onMove(undefined, { x: by[0], y: by[1] });
    onEnd();
  });
}

/** Grips on the edges of the zone at hand. */
function edges(plan, form) {
  let box = plan.querySelector(".zone-here");
  if (!(box instanceof SVGRectElement)) return;
  const scale = scaleOf(plan);
  const unit = Number(plan.dataset.scale);
  const read = (name) => Number(box.getAttribute(name));
  const field = (name) =>
    form.elements.namedItem(`${form.dataset.zone}${name}`);
  const measure = () => ({
    from: (read("x") - scale.x(0)) / unit,
    to: (read("x") + read("width") - scale.x(0)) / unit,
    middle: (read("y") + read("height") / 2 - scale.y(0)) / unit,
    width: read("height") / unit,
  });
  const now = measure();
  const grips = {
    from: handle(plan, "the edge toward the bow", 0, 0),
    to: handle(plan, "the edge toward the stern", 0, 0),
    width: handle(plan, "the edge to starboard", 0, 0),
  };
  const draw = () => {
    box.setAttribute("x", String(scale.x(now.from)));
    box.setAttribute("width", String((now.to - now.from) * unit));
    box.setAttribute("y", String(scale.y(now.middle - now.width / 2)));
    box.setAttribute("height", String(now.width * unit));
    const put = (grip, x, y, value) => {
      grip.setAttribute("cx", String(scale.x(x)));
      grip.setAttribute("cy", String(scale.y(y)));
      grip.setAttribute("aria-valuenow", value.toFixed(2));
      grip.setAttribute("aria-valuetext", `${value.toFixed(2)} m`);
    };
    put(grips.from, now.from, now.middle, now.from);
    put(grips.to, now.to, now.middle, now.to);
    const side = now.middle + now.width / 2;
    put(grips.width, (now.from + now.to) / 2, side, now.width);
  };
  const end = () => form.dispatchEvent(new Event("change", { bubbles: true }));
  const least = 0.02;
  movable(
    grips.from,
    scale,
    (at, by) => {
      now.from = Math.min(at ? at.x : now.from + by.x, now.to - least);
      write(field("from"), now.from);
      draw();
    },
    end,
  );
  movable(
    grips.to,
    scale,
    (at, by) => {
      now.to = Math.max(at ? at.x : now.to + by.x, now.from + least);
      write(field("to"), now.to);
      draw();
    },
    end,
  );
  movable(
    grips.width,
    scale,
    (at, by) => {
      const half = at ? Math.abs(at.y - now.middle) : now.width / 2 + by.y / 2;
      now.width = Math.max(2 * half, least);
      write(field("width"), now.width);
      draw();
    },
    end,
  );
  // Drawn anew from what was kept: the grips go where the edges are now.
  plan.addEventListener("redrawn", () => {
    const fresh = plan.querySelector(".zone-here");
    if (!(fresh instanceof SVGRectElement)) return;
    box = fresh;
    Object.assign(now, measure());
    draw();
  });
  draw();
}

/** The mark of the fitting at hand: pointed at, dragged, nudged. */
function mark(plan, form) {
  const scale = scaleOf(plan);
  const unit = Number(plan.dataset.scale);
  const field = (name) => form.elements.namedItem(name);
  const own = plan.querySelector(".fitting-here");
  const typed = Number.parseFloat(field("x").value.replace(",", "."));
  const metric = field("x").value.includes("m");
  const now = { x: metric && Number.isFinite(typed) ? typed : 1.5, y: 0 };
  if (own) {
    const at = own
      .getAttribute("transform")
      .match(/-?[\d.]+/g)
      .map(Number);
    now.x = (at[0] - scale.x(0)) / unit;
    now.y = (at[1] - scale.y(0)) / unit;
  }
  const grip = handle(plan, "its place on the hull", 0, 0);
  const draw = () => {
    grip.setAttribute("cx", String(scale.x(now.x)));
    grip.setAttribute("cy", String(scale.y(now.y)));
    own?.setAttribute(
      "transform",
      `translate(${scale.x(now.x)} ${scale.y(now.y)})`,
    );
    grip.setAttribute("aria-valuenow", now.x.toFixed(2));
    const side = now.y < 0 ? "to port" : "to starboard";
    const off = `${Math.abs(now.y).toFixed(2)} m ${side}`;
    const text = `${now.x.toFixed(2)} m from the bow, ${off}`;
    grip.setAttribute("aria-valuetext", text);
  };
  const put = () => {
    write(field("x"), now.x);
    write(field("y"), now.y);
    draw();
  };
  movable(
    grip,
    scale,
    (at, by) => {
      now.x = at ? at.x : now.x + by.x;
      now.y = at ? at.y : now.y + by.y;
      put();
    },
    () => {},
  );
  plan.addEventListener("click", (event) => {
    if (event.target === grip) return;
    const at = scale.metres(event);
    // Only in the view from above.
    if (Math.abs(at.y) > 0.8) return;
    Object.assign(now, at);
    put();
  });
  draw();
}

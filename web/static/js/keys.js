/**
 * What keys mean: a step on a drawing, a walk along a list.
 */

/** A tap of an arrow key on a drawing, m; with Shift ten times as far. */
export const STEP = 0.01;

/**
 * How far an arrow key moves a thing, m: along and across the drawing.
 * @param {string} key
 * @param {boolean} far whether Shift is held
 * @returns {[number, number] | undefined}
 */
export function stepOf(key, far) {
  const tap = far ? 10 * STEP : STEP;
  switch (key) {
    case "ArrowLeft":
      return [-tap, 0];
    case "ArrowRight":
      return [tap, 0];
    case "ArrowUp":
      return [0, -tap];
    case "ArrowDown":
      return [0, tap];
    default:
      return undefined;
  }
}

/**
 * Where a key leads from a place in a list; nowhere for any other key, or beyond its
 * ends.
 * @param {string} key
 * @param {number} here
 * @param {number} count
 * @param {{sideways?: boolean}} [how] whether left and right walk too
 * @returns {number | undefined}
 */
export function walkTo(key, here, count, { sideways = false } = {}) {
  const by = key.replace(/^Arrow/, "");
  const on = by === "Down" || (sideways && by === "Right");
  const back = by === "Up" || (sideways && by === "Left");
  const to = { Home: 0, End: count - 1 }[key];
  const there = to ?? (on ? here + 1 : back ? here - 1 : -1);
  return there >= 0 && there < count ? there : undefined;
}

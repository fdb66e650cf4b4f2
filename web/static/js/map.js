/**
 * Links the map and the rows: what is pointed at or has the focus in one is marked
 * in the other; arrow keys go from hull to hull on the map. Whether the map stands
 * open is remembered while the tab is.
 */

import { around, dataOf, one } from "./dom.js";
import { walkTo } from "./keys.js";

const OPEN = "galvet-map-open";

/** @param {HTMLElement} answer */
export function linkMap(answer) {
  /** @param {EventTarget | null} target */
  const near = (target) => {
    const at = dataOf(around(target, "[data-mark], li[data-hull]", Element));
    return at.mark ?? at.hull;
  };
  /** @param {string | undefined} key */
  const mark = (key) => {
    for (const at of answer.querySelectorAll(
      "[data-mark], [data-soft], li[data-hull]",
    )) {
      const { mark: marked, soft, hull } = dataOf(at);
      const same = (marked ?? soft ?? hull) === key;
      at.classList.toggle("linked", same && key !== undefined);
    }
  };
  answer.addEventListener("pointerover", (event) => mark(near(event.target)));
  answer.addEventListener("focusin", (event) => mark(near(event.target)));
  answer.addEventListener("pointerleave", () => mark(undefined));
  answer.addEventListener("keydown", (event) => {
    const at = event.target;
    if (!(at instanceof Element) || !at.matches("[data-mark]")) return;
    const marks = [...answer.querySelectorAll("[data-mark]")];
    const here = marks.indexOf(at);
    const to = walkTo(event.key, here, marks.length, { sideways: true });
    const next = to === undefined ? undefined : marks[to];
    if (!(next instanceof SVGElement || next instanceof HTMLElement)) return;
    event.preventDefault();
    next.focus();
  });
  const remember = () => {
    const map = one(answer, "details[data-map]", HTMLDetailsElement);
    if (!map || map.dataset.taken) return;
    map.dataset.taken = "yes";
    // Beside the list, where there is room, it stands open until it is closed.
    const beside = window.matchMedia("(min-width: 105rem)").matches;
    map.open =
      (sessionStorage.getItem(OPEN) ?? (beside ? "yes" : "no")) === "yes";
    map.addEventListener("toggle", () =>
      sessionStorage.setItem(OPEN, map.open ? "yes" : "no"),
    );
  };
  remember();
  new MutationObserver(remember).observe(answer, {
    childList: true,
    subtree: true,
  });
}

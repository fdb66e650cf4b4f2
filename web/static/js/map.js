/**
 * Links the map and the rows: what is pointed at or has the focus in one is marked
 * in the other; arrow keys go from hull to hull on the map. Whether the map stands
 * open is remembered while the tab is.
 */

const OPEN = "galvet-map-open";

/** @param {HTMLElement} answer */
export function linkMap(answer) {
  const near = (target) => {
    if (!(target instanceof Element)) return undefined;
    const at = target.closest("[data-mark], li[data-hull]");
    return at?.dataset.mark ?? at?.dataset.hull;
  };
  const mark = (key) => {
    for (const at of answer.querySelectorAll(
      "[data-mark], [data-soft], li[data-hull]",
    )) {
      const { mark: marked, soft, hull } = at.dataset;
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
    const to = {
      ArrowRight: here + 1,
      ArrowDown: here + 1,
      ArrowLeft: here - 1,
      ArrowUp: here - 1,
      Home: 0,
      End: marks.length - 1,
    }[event.key];
    if (to === undefined || !marks[to]) return;
    event.preventDefault();
    marks[to].focus();
  });
  const remember = () => {
    const map = answer.querySelector("details[data-map]");
    if (!map || map.dataset.taken) return;
    map.dataset.taken = "yes";
    map.open = sessionStorage.getItem(OPEN) === "yes";
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

/**
 * Up and down arrows walk from hull to hull while a hull's name has the focus;
 * Home and End go to the first and the last.
 */

import { all } from "./dom.js";
import { walkTo } from "./keys.js";

/** @param {HTMLElement} answer */
export function walkRows(answer) {
  answer.addEventListener("keydown", (event) => {
    const link = event.target;
    if (!(link instanceof HTMLElement) || !link.matches("[data-hull] h3 a"))
      return;
    const links = all(answer, "[data-hull] h3 a", HTMLElement);
    const here = links.indexOf(link);
    const target = walkTo(event.key, here, links.length);
    if (target === undefined) return;
    event.preventDefault();
    links[target].focus();
  });
}

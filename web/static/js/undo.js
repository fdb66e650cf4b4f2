/**
 * Undo and redo by the keys people know: they press the button that stands on the page,
 * which names the act. Nothing happens where there is none, or while somebody types.
 */

import { all, around } from "./dom.js";

/** @param {Document} page */
export function undoByKeys(page) {
  page.addEventListener("keydown", (event) => {
    const held = (event.ctrlKey || event.metaKey) && !event.altKey;
    if (!held || event.key.toLowerCase() !== "z") return;
    if (around(event.target, "input, select, textarea", Element)) return;
    const word = event.shiftKey ? "Redo" : "Undo";
    const button = all(page, "form.undo button", HTMLButtonElement).find(
      (one) => one.textContent.startsWith(word),
    );
    if (!button) return;
    event.preventDefault();
    button.click();
  });
}

/**
 * The conversation by keys: a figure chooses the answer it stands at. Without this
 * module Tab and Enter do the same.
 */

import { all, around } from "./dom.js";

/** @param {Document} root */
export function answersByFigure(root) {
  if (!root.querySelector("form[data-talk]")) return;
  root.addEventListener("keydown", (event) => {
    const typing = around(event.target, "input, select, textarea", Element);
    const held = event.ctrlKey || event.altKey || event.metaKey;
    if (typing || held || !/^[1-9]$/.test(event.key)) return;
    const choices = all(root, "form[data-talk] .talk-choice", HTMLElement);
    choices[Number(event.key) - 1]?.click();
  });
}

/**
 * The conversation by keys: a figure chooses the answer it stands at, and goes on to the
 * next question of the step. Without this module Tab, arrows and Enter do the same.
 */

import { all, around, one } from "./dom.js";

/** @param {Document} root */
export function answersByFigure(root) {
  const form = one(root, "form[data-talk]", HTMLFormElement);
  if (!form) return;
  root.addEventListener("keydown", (event) => {
    const typing = around(
      event.target,
      "input[type=text], select, textarea",
      Element,
    );
    const held = event.ctrlKey || event.altKey || event.metaKey;
    if (typing || held || !/^[1-9]$/.test(event.key)) return;
    const questions = all(form, ".talk-question", HTMLElement);
    const at = around(root.activeElement, ".talk-question", HTMLElement);
    const here = at ?? questions[0];
    const answers = all(here, "input[type=radio]", HTMLInputElement);
    const answer = answers[Number(event.key) - 1];
    if (!answer) return;
    answer.checked = true;
    answer.dispatchEvent(new Event("input", { bubbles: true }));
    const next = questions[questions.indexOf(here) + 1];
    const field =
      next?.querySelector("input:checked, input") ??
      form.querySelector(".keep-button");
    if (field instanceof HTMLElement) field.focus();
  });
}

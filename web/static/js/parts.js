/**
 * Parts of the sentence close with Escape (focus goes back to their words) and
 * when something else is clicked; opening one puts the focus into it.
 */

import { all, one } from "./dom.js";

/** @param {Document} root */
export function partsThatClose(root) {
  root.addEventListener("keydown", (event) => {
    if (event.key !== "Escape") return;
    const open =
      one(root, ".part[open]", HTMLDetailsElement) ??
      one(root, ".tool[open]", HTMLDetailsElement);
    if (!open) return;
    open.open = false;
    one(open, "summary", HTMLElement)?.focus();
  });
  // Not on click: Enter in a field sends a click to the form's first button.
  root.addEventListener("pointerdown", (event) => {
    const at = event.target instanceof Node ? event.target : null;
    for (const open of all(root, ".part[open]", HTMLDetailsElement)) {
      if (!open.contains(at)) open.open = false;
    }
  });
  // `toggle` does not bubble; it can be caught on its way down.
  root.addEventListener(
    "toggle",
    (event) => {
      const part = event.target;
      if (!(part instanceof HTMLDetailsElement) || !part.matches(".part[open]"))
        return;
      keepOnPage(part.querySelector(".part-body"));
      const which = "input:checked, input:not([type=radio])";
      const field = one(part, which, HTMLInputElement);
      if (part.contains(document.activeElement) && isTyped(field)) return;
      field?.focus();
      if (field?.type === "text") field.select();
    },
    true,
  );
}

/**
 * Whether somebody has typed in the field already: it is left alone then.
 * @param {HTMLInputElement | undefined} field
 */
function isTyped(field) {
  return field?.type === "text" && field.value !== field.defaultValue;
}

/**
 * Shifts an opened part left when it would run off the right edge.
 * @param {Element | null} body
 */
function keepOnPage(body) {
  if (!(body instanceof HTMLElement)) return;
  body.style.translate = "";
  const box = body.getBoundingClientRect();
  const over = box.right - (document.documentElement.clientWidth - 8);
  if (over > 0) body.style.translate = `${-Math.min(over, box.left - 8)}px 0`;
}

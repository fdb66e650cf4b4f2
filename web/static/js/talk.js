/**
 * The conversation by keys: a figure chooses the answer it stands at. Without this
 * module Tab and Enter do the same.
 */

/** @param {Document} root */
export function answersByFigure(root) {
  if (!root.querySelector("form[data-talk]")) return;
  root.addEventListener("keydown", (event) => {
    const typing = event.target.closest?.("input, select, textarea");
    const held = event.ctrlKey || event.altKey || event.metaKey;
    if (typing || held || !/^[1-9]$/.test(event.key)) return;
    const all = root.querySelectorAll("form[data-talk] .talk-choice");
    all[Number(event.key) - 1]?.click();
  });
}

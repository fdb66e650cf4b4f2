/**
 * A part of a page that is told line by line: fetched again until it is whole. Without
 * this the page does so itself.
 */

/** @param {Document} page */
export async function toldLineByLine(page) {
  let part = page.querySelector("[data-again]");
  while (part) {
    const answer = await fetch(window.location.href).catch(() => undefined);
    if (!answer?.ok) return;
    const fresh = new DOMParser().parseFromString(
      await answer.text(),
      "text/html",
    );
    const next = fresh.getElementById(part.id);
    if (!next) return;
    // The live region stays the one it is; what it says is new.
    part.replaceChildren(...next.childNodes);
    part.toggleAttribute("data-again", next.hasAttribute("data-again"));
    part.setAttribute("aria-busy", next.getAttribute("aria-busy") ?? "false");
    part = page.querySelector("[data-again]");
  }
}

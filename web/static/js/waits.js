/**
 * Work that takes longer than a page should: asked for again until it is there, and told
 * meanwhile how far it is.
 */

/** Milliseconds between two times of asking: the server waits for a while itself. */
const PAUSE = 300;

/** @param {string} html a page that is still being worked out */
export function soFar(html) {
  const page = new DOMParser().parseFromString(html, "text/html");
  return page.getElementById("so-far");
}

/**
 * Asks for an address until what it leads to is there.
 * @param {string} address
 * @param {AbortSignal} signal
 * @param {(far: HTMLElement) => void} tell is given how far it is
 */
export async function untilThere(address, signal, tell) {
  for (;;) {
    const answer = await fetch(address, {
      headers: { Accept: "text/html", Prefer: "respond-async" },
      signal,
    });
    if (answer.status !== 202) return answer;
    const far = soFar(await answer.text());
    if (far && !signal.aborted) tell(far);
    await new Promise((resolve) => setTimeout(resolve, PAUSE));
  }
}

/**
 * Puts how far it is into an element that stays; what has the focus keeps it.
 * @param {Element} there
 * @param {Element} far
 */
export function show(there, far) {
  const held = there.contains(document.activeElement)
    ? document.activeElement?.getAttribute("href")
    : undefined;
  there.replaceChildren(...far.childNodes);
  if (!held) return;
  // Never on to another hull: who is about to follow a link would land elsewhere.
  const again = there.querySelector(`[href="${CSS.escape(held)}"]`) ?? there;
  if (again instanceof HTMLElement) again.focus();
}

/** A page that stands for one which is not there yet. @param {Document} page */
export async function pageThatComes(page) {
  const there = page.querySelector("[data-comes]");
  if (!there) return;
  try {
    const asking = new AbortController();
    await untilThere(window.location.href, asking.signal, (far) =>
      show(there, far),
    );
  } catch {
    // Whatever came instead tells itself.
  }
  window.location.reload();
}

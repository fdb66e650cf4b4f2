/**
 * The customer's screen: asks whether the counter shows something else, and shows it too.
 * Without this the page loads itself anew every few seconds.
 */

/** Milliseconds between two looks. */
const PAUSE = 1500;

/** @param {Document} page */
export function screenThatFollows(page) {
  const shown = page.querySelector("[data-follows]");
  if (!(shown instanceof HTMLElement)) return;
  const where = shown.dataset.follows ?? "";
  const over = () => {
    shown.hidden = true;
    const said = page.getElementById("screen-over");
    if (said) said.hidden = false;
  };
  const look = async () => {
    const answer = await fetch(where).catch(() => undefined);
    if (answer?.status === 404) return over();
    const now = answer?.ok ? await answer.json() : undefined;
    if (now && String(now.version) !== shown.dataset.version) {
      const fresh = await fetch(page.location.pathname).catch(() => undefined);
      if (fresh?.status === 404) return over();
      if (fresh?.ok) {
        const text = await fresh.text();
        const next = new DOMParser()
          .parseFromString(text, "text/html")
          .querySelector("[data-follows]");
        if (next instanceof HTMLElement) {
          shown.replaceChildren(...next.childNodes);
          shown.dataset.version = next.dataset.version;
        }
      }
    }
    setTimeout(look, PAUSE);
  };
  setTimeout(look, PAUSE);
}

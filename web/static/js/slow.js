/**
 * Links and forms that lead to work that takes a while: a bar while it goes on, and a
 * way out. The page that was worked out is remembered, so that going there after it is
 * quick.
 */

import { queryOf } from "./answer.js";
import { around, dataOf, sentBy } from "./dom.js";
import { untilThere } from "./waits.js";

/** @param {Document} page */
export function workThatTakesTime(page) {
  page.addEventListener("click", (event) => {
    const link = around(event.target, "a[data-slow]", HTMLAnchorElement);
    if (!link || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    goSlowly(link.href, link.dataset.slow ?? "", link);
  });
  page.addEventListener("submit", (event) => {
    const form = event.target;
    if (!(form instanceof HTMLFormElement) || form.method !== "get") return;
    // The form itself, or one of the answers chosen in it.
    const chosen = form.querySelector("option:checked[data-slow]");
    const words = dataOf(chosen ?? form.closest("[data-slow]")).slow;
    if (!words) return;
    event.preventDefault();
    const query = new URLSearchParams(queryOf(form));
    const tried = sentBy(event);
    if (tried) query.set(...tried);
    const from = tried ? event.submitter : undefined;
    goSlowly(`${form.action}?${query}`, words, from ?? form, form);
  });
}

/**
 * @param {string} address
 * @param {string} words what goes on
 * @param {HTMLElement} from where it was asked for, and is returned to
 * @param {HTMLElement} [beside] what the bar stands under
 */
async function goSlowly(address, words, from, beside = from) {
  document.querySelector(".slow")?.remove();
  const asking = new AbortController();
  const box = document.createElement("div");
  box.className = "slow";
  box.setAttribute("role", "status");
  const said = document.createElement("p");
  said.textContent = `${words} …`;
  const bar = document.createElement("progress");
  bar.setAttribute("aria-label", words);
  const stop = document.createElement("button");
  stop.type = "button";
  stop.textContent = "Cancel";
  stop.addEventListener("click", () => asking.abort());
  box.append(said, bar, stop);
  beside.after(box);
  try {
    await untilThere(address, asking.signal, (far) => {
      const now = far.querySelector("progress");
      if (now) bar.max = now.max;
      if (now) bar.value = now.value;
    });
    window.location.assign(address);
  } catch {
    box.remove();
    from.focus();
  }
}

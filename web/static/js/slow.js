/**
 * Links to work that takes a while: a bar while it goes on, and a way out. The page
 * that was worked out is remembered, so that going there after it is quick.
 */

/** @param {Document} page */
export function linksThatTakeTime(page) {
  page.addEventListener("click", (event) => {
    const link = event.target.closest?.("a[data-slow]");
    if (!link || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    goSlowly(link);
  });
}

/** @param {HTMLAnchorElement} link */
async function goSlowly(link) {
  document.querySelector(".slow")?.remove();
  const asking = new AbortController();
  const box = document.createElement("div");
  box.className = "slow";
  box.setAttribute("role", "status");
  const words = document.createElement("p");
  words.textContent = `${link.dataset.slow} …`;
  const bar = document.createElement("progress");
  bar.setAttribute("aria-label", link.dataset.slow);
  const stop = document.createElement("button");
  stop.type = "button";
  stop.textContent = "Cancel";
  stop.addEventListener("click", () => asking.abort());
  box.append(words, bar, stop);
  link.after(box);
  try {
    await fetch(link.href, { signal: asking.signal });
    window.location.assign(link.href);
  } catch {
    box.remove();
    link.focus();
  }
}

/**
 * Pages that answer where one is: a search whose results follow what is typed, and steps
 * that stay put. Without this both are forms that load the page.
 */

import { all, one, sentBy } from "./dom.js";
import { carryOn } from "./ways.js";

/** Milliseconds without a key until what was typed is looked for. */
const PAUSE = 200;

/**
 * What somebody has opened or chosen in a part, to be so again in what takes its place.
 * @param {HTMLElement} part
 */
function opened(part) {
  /** @param {HTMLDetailsElement} details */
  const which = (details) => {
    const summary = details.querySelector("summary");
    return summary?.getAttribute("aria-label") ?? summary?.textContent;
  };
  const were = all(part, "details[open]", HTMLDetailsElement).map(which);
  // So is what was chosen meanwhile.
  const chosen = all(part, "select[id]", HTMLSelectElement)
    .filter((field) => !field.selectedOptions[0]?.defaultSelected)
    .map((field) => ({ id: field.id, value: field.value }));
  return () => {
    for (const { id, value } of chosen) {
      const field = one(part, `#${CSS.escape(id)}`, HTMLSelectElement);
      if (field) field.value = value;
    }
    for (const details of all(part, "details", HTMLDetailsElement))
      if (were.includes(which(details))) details.open = true;
  };
}

/**
 * Puts the parts of a page that are live into this one; the rest stays as it is.
 * @param {Document} page
 * @param {string} text
 * @param {string} [only] the parts wanted, by name
 */
function show(page, text, only) {
  const fresh = new DOMParser().parseFromString(text, "text/html");
  for (const part of all(page, "[data-live-part]", HTMLElement)) {
    const name = part.dataset.livePart ?? "";
    if (only && !only.split(" ").includes(name)) continue;
    const selector = `[data-live-part="${CSS.escape(name)}"]`;
    const next = fresh.querySelector(selector);
    if (!next) continue;
    const openUp = opened(part);
    part.replaceChildren(...next.childNodes);
    openUp();
  }
}

/**
 * A page's own address and its question, as it says them itself.
 * @param {string} text
 * @returns {[string, string]}
 */
function meant(text) {
  const fresh = new DOMParser().parseFromString(text, "text/html");
  const here = one(fresh, ".masthead input[name=back]", HTMLInputElement);
  const place = fresh.querySelector("a[data-place='/']");
  const query = place?.getAttribute("href")?.split("?")[1] ?? "";
  return [here?.value ?? "/", query];
}

/** @param {Document} page */
export function searchAsTyped(page) {
  for (const form of all(page, "form[data-live]", HTMLFormElement)) {
    /** @type {ReturnType<typeof setTimeout> | undefined} */
    let resting;
    let count = 0;
    const look = async () => {
      const mine = ++count;
      const query = new URLSearchParams();
      for (const [name, value] of new FormData(form))
        query.append(name, String(value));
      // A step of the conversation is told of as it stands, not as the one after it.
      if (form.dataset.step) query.set("step", form.dataset.step);
      const own = (form.getAttribute("action") ?? "").split("?")[0];
      const path = form.dataset.step ? "/ask" : own;
      const address = `${path}?${query}`;
      const answer = await fetch(address).catch(() => undefined);
      if (!answer?.ok || mine !== count) return;
      const text = await answer.text();
      show(page, text, form.dataset.live);
      if (!form.dataset.step) window.history.replaceState(null, "", address);
      carryOn(...meant(text));
    };
    form.addEventListener("input", () => {
      clearTimeout(resting);
      resting = setTimeout(look, PAUSE);
    });
    form.addEventListener("submit", (event) => {
      if (form.dataset.step) return;
      event.preventDefault();
      clearTimeout(resting);
      look();
    });
  }
}

/** What can have the focus. */
const HELD = "button, select, input, summary, a[href]";

/**
 * What can have the focus and is called as an element is; it is one of them.
 * @param {Document} page
 * @param {{label: string, tag: string}} held
 */
function calledAs(page, held) {
  return all(page, HELD, HTMLElement).filter((one) => {
    const { label, tag } = called(one);
    return label === held.label && tag === held.tag;
  });
}

/**
 * What an element is called.
 * @param {Element} element
 */
function called(element) {
  const label = element.getAttribute("aria-label") ?? element.id;
  const said = label || (element.textContent ?? "");
  return { label: said.trim().split(",")[0], tag: element.tagName };
}

/**
 * Keeps the focus where it is while the page is new around it: it goes to what is called
 * alike, to the first, second, third of those as before.
 * @param {Document} page
 * @param {() => void} renew
 */
function keepingFocus(page, renew) {
  const held = page.activeElement;
  if (!held?.matches(HELD)) return renew();
  const name = called(held);
  const nth = calledAs(page, name).findIndex((one) => one === held);
  renew();
  if (page.activeElement === held) return;
  const now = calledAs(page, name);
  (now[nth] ?? now.at(-1))?.focus();
}

/** @param {Document} page */
export function stepsThatStay(page) {
  // One after the other: the answer shown last is that of the last step.
  let before = Promise.resolve();
  page.addEventListener("submit", (event) => {
    const form = event.target;
    if (!(form instanceof HTMLFormElement) || !("stay" in form.dataset)) return;
    event.preventDefault();
    const body = new URLSearchParams();
    for (const [name, value] of new FormData(form))
      body.append(name, String(value));
    const by = sentBy(event);
    if (by) body.append(...by);
    const to = form.getAttribute("action") ?? "";
    before = before.then(() => step(page, to, body));
  });
}

/**
 * Takes a step and shows what came of it; what is refused is told on the page as it comes.
 * @param {Document} page
 * @param {string} to
 * @param {URLSearchParams} body
 */
async function step(page, to, body) {
  const answer = await fetch(to, { method: "POST", body }).catch(
    () => undefined,
  );
  if (!answer || (!answer.ok && answer.status !== 422)) {
    // Nobody knows whether it was done: the page as it stands now tells.
    window.location.reload();
    return;
  }
  const text = await answer.text();
  // Who went on meanwhile stays where they are.
  keepingFocus(page, () => show(page, text));
  const said = one(page, "#said", HTMLElement);
  const head = one(page, '[data-live-part="rig-head"] .lead', HTMLElement);
  if (said && head) said.textContent = head.textContent;
}

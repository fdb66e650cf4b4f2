/**
 * Puts a new answer into the page, region by region: the parts of the sentence
 * one by one, and the results. A part somebody is typing in stays as it is;
 * what is typed elsewhere is taken over.
 */

import { all, dataOf } from "./dom.js";

/**
 * @param {HTMLElement} answer
 * @param {string} html the answer, with the same regions
 * @param {URLSearchParams} sent the question it answers
 * @param {string} [focus] name of the part that was changed
 */
export function swap(answer, html, sent, focus) {
  const before = order(answer);
  const places = tops(answer);
  const fresh = document.createElement("template");
  fresh.innerHTML = html;
  for (const region of all(fresh.content, "[data-region]", HTMLElement)) {
    const name = region.dataset.region ?? "";
    const old = answer.querySelector(`[data-region="${CSS.escape(name)}"]`);
    if (!old || isTypedIn(old, sent)) continue;
    if (isSlid(old)) {
      // Only what it says: the slider stays under the hand.
      const said = region.querySelector("summary")?.childNodes ?? [];
      old.querySelector("summary")?.replaceChildren(...said);
      continue;
    }
    const takeOver = typedOutsideTheBrief(old);
    const openUp = opened(old);
    old.replaceWith(region);
    openUp(region);
    takeOver(region);
  }
  if (focus) refocus(answer, focus);
  tell(answer, before);
  glide(answer, places);
}

/** How long a row takes to its new place, ms. */
const GLIDE = 260;

/** Where each row stands on the page now. */
function tops(answer) {
  const rows = answer.querySelectorAll("[data-rows] > [data-hull]");
  return new Map(
    [...rows].map((row) => [
      dataOf(row).hull ?? "",
      row.getBoundingClientRect().top + window.scrollY,
    ]),
  );
}

/**
 * Rows that changed place glide there from where they stood, unless the reader wants
 * nothing to move.
 * @param {HTMLElement} answer
 * @param {Map<string, number>} before
 */
function glide(answer, before) {
  if (window.matchMedia("(prefers-reduced-motion: reduce)").matches) return;
  for (const [hull, top] of tops(answer)) {
    const was = before.get(hull);
    if (was === undefined || Math.abs(was - top) < 2) continue;
    const row = answer.querySelector(
      `[data-rows] > [data-hull="${CSS.escape(hull)}"]`,
    );
    row?.animate(
      [
        { transform: `translateY(${was - top}px)` },
        { transform: "translateY(0)" },
      ],
      { duration: GLIDE, easing: "ease-out" },
    );
  }
}

/**
 * Whether somebody types in a field of this region: it holds neither what
 * stood there nor what was asked.
 */
function isTypedIn(region, sent) {
  if (!region.open) return false;
  const fields = region.querySelectorAll("input[type=text]");
  return [...fields].some(
    (field) =>
      field.value !== field.defaultValue &&
      field.value !== sent.get(field.name),
  );
}

/** Whether a slider of this region is in use. */
function isSlid(region) {
  const held = document.activeElement;
  return (
    region.open === true &&
    held instanceof HTMLInputElement &&
    held.type === "range" &&
    region.contains(held)
  );
}

/**
 * What has been typed in a region's other forms (a name to keep the question
 * by), to be put into the same fields of its successor.
 * @param {Element} region
 * @returns {(successor: Element) => void}
 */
function typedOutsideTheBrief(region) {
  const fields = "form:not([data-brief]) input[id]";
  const typed = all(region, fields, HTMLInputElement)
    .filter((field) => field.value !== field.defaultValue)
    .map((field) => ({
      id: field.id,
      value: field.value,
      at: document.activeElement === field ? field.selectionStart : undefined,
    }));
  return (successor) => {
    for (const { id, value, at } of typed) {
      const field = successor.querySelector(`#${CSS.escape(id)}`);
      if (!(field instanceof HTMLInputElement)) continue;
      field.value = value;
      if (at === undefined) continue;
      field.focus();
      field.setSelectionRange(at, at);
    }
  };
}

/**
 * What somebody has opened in a region (the map, more of a hull, a figure's meaning),
 * to be opened in its successor. Parts of the sentence close once they are answered.
 * @param {Element} region
 * @returns {(successor: Element) => void}
 */
function opened(region) {
  const which = (details) =>
    [
      dataOf(details.closest("[data-hull]")).hull,
      details.className,
      // What it is about, whatever amount it tells.
      details.querySelector("summary")?.textContent.replace(/[\d.,]+/g, ""),
    ].join("|");
  const were = [...region.querySelectorAll("details[open]:not(.part)")];
  const open = new Set(were.map(which));
  return (successor) => {
    const now = all(successor, "details:not(.part)", HTMLDetailsElement);
    for (const details of now)
      if (open.has(which(details))) details.open = true;
  };
}

/** The hulls shown, in their order. */
function order(answer) {
  const rows = answer.querySelectorAll("[data-rows] > [data-hull]");
  return [...rows].map((row) => row.dataset.hull);
}

/** Title and live region follow what is shown. */
function tell(answer, before) {
  const now = order(answer);
  const said = document.getElementById("said");
  const name =
    answer.querySelector("[data-rows] h3 a") ?? answer.querySelector("h1");
  if (answer.querySelector("[data-rows]")) {
    document.title = `${name.textContent.trim()} first · Galvet`;
    const moved = now.filter(
      (hull, place) => before.includes(hull) && before[place] !== hull,
    ).length;
    const places =
      moved === 0 ? "none changed place" : `${moved} changed place`;
    if (said) said.textContent = `${now.length} in order, ${places}`;
  } else if (answer.dataset.page === "/") {
    document.title = "None in order · Galvet";
    if (said) said.textContent = "None in order: all are ruled out";
  } else if (said && answer.querySelector("[data-told]")) {
    // The page says itself what is to be told of it.
    said.textContent = answer.querySelector("[data-told]").dataset.told;
  } else if (said && !/^\/(hulls\/[^/]+|new-hull)$/.test(answer.dataset.page)) {
    said.textContent = `${name.textContent.trim()}: the figures are new`;
  } else if (said) {
    const out = answer.querySelector(".verdict")
      ? "ruled out"
      : "not ruled out";
    said.textContent = `Figures of the ${name.textContent.trim()} are new: ${out} for this brief`;
  }
}

/**
 * Puts the focus back on the part that was changed: on its field when it was
 * not understood, else on its words.
 */
function refocus(answer, name) {
  const escaped = CSS.escape(name);
  const field = answer.querySelector(
    `.part [name="${escaped}"]:checked, .part [name="${escaped}"]:not([type=radio])`,
  );
  const part = field?.closest(".part");
  // Meanwhile somebody may have gone on to another part, or another field.
  const elsewhere = answer.querySelector(".part[open]");
  if (!part || (elsewhere && elsewhere !== part)) return;
  const held = document.activeElement;
  if (held && held !== document.body && !part.contains(held)) return;
  if (part.open) {
    field.focus();
    // Typing goes on where it ended.
    if (field.type === "text")
      field.setSelectionRange(field.value.length, field.value.length);
  } else part.querySelector("summary").focus();
}

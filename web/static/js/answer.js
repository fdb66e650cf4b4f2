/**
 * Keeps the answer in step with the brief: asks for it when the brief changes,
 * puts the new results in, and lets Back and Forward return to other questions.
 * What somebody is typing in is never touched.
 */
import { around, one, sentBy } from "./dom.js";
import { swap } from "./swap.js";
import { show as showFar, untilThere } from "./waits.js";
import { carryOn } from "./ways.js";

/**
 * The brief as a query. A weight nobody has touched stays out of it, so that
 * it follows the water.
 * @param {HTMLFormElement} form
 * @returns {string}
 */
export function queryOf(form) {
  const query = new URLSearchParams();
  for (const [name, value] of new FormData(form)) {
    const field = form.elements.namedItem(name);
    const untouched =
      field instanceof HTMLInputElement && field.dataset.default !== undefined;
    if (!untouched) query.append(name, String(value));
  }
  for (const [name, value] of along()) query.append(name, value);
  return query.toString();
}

/**
 * What travels along with the brief: the fields of a hull being put in, of a
 * search. Those left empty need not.
 */
function along() {
  const form = document.querySelector("form[data-along]");
  if (!(form instanceof HTMLFormElement)) return [];
  // What the brief says itself it says better.
  const brief = one(document, "form[data-brief]", HTMLFormElement)?.elements;
  return [...new FormData(form)]
    .map(([name, value]) => [name, String(value)])
    .filter(([name, value]) => value !== "" && !brief?.namedItem(name));
}

/**
 * The brief on a page as a query; empty where there is none.
 * @param {HTMLElement} answer
 */
function briefOf(answer) {
  const brief = one(answer, "form[data-brief]", HTMLFormElement);
  return brief ? queryOf(brief) : "";
}

/**
 * The brief alone, as a query.
 * @param {HTMLElement} answer
 */
function briefOnly(answer) {
  const query = new URLSearchParams(briefOf(answer));
  for (const [name] of along()) query.delete(name);
  return query.toString();
}

/** Milliseconds without a key until what was typed is floated. */
const TYPING_PAUSE = 250;

/** Milliseconds a slider rests until its order is shown. */
const DRAWING_PAUSE = 60;

/** @param {HTMLElement} answer */
export function keepInStep(answer) {
  const { part, page } = answer.dataset;
  /** The question whose answer is shown. */
  let shown = window.location.search.slice(1);
  /** @type {AbortController | undefined} */
  let asking;
  let swapping = false;
  /** @type {HTMLElement | undefined} */
  let far;

  /**
   * Fetches and shows the answer to a query; an answer still on its way to an
   * earlier one is given up.
   * @param {string} query
   * @param {string} [focus] name of the part to return the focus to
   * @returns {Promise<"shown" | "overtaken" | "failed">}
   */
  async function show(query, focus) {
    asking?.abort();
    const mine = (asking = new AbortController());
    answer.setAttribute("aria-busy", "true");
    try {
      const address = `${part}?${query}`;
      const response = await untilThere(address, mine.signal, howFar);
      // 422 is an answer too: the sentence says what was not understood.
      if (!response.ok && response.status !== 422) return "failed";
      const html = await response.text();
      if (mine.signal.aborted) return "overtaken";
      // A field that goes away while it has the focus reports a change.
      swapping = true;
      swap(answer, html, new URLSearchParams(query), focus);
      swapping = false;
      shown = query;
      trouble(false);
      return "shown";
    } catch {
      return mine.signal.aborted ? "overtaken" : "failed";
    } finally {
      if (asking === mine) {
        answer.removeAttribute("aria-busy");
        far?.remove();
        far = undefined;
      }
    }
  }

  /**
   * Tells over the answer of the question before how far the new one is.
   * @param {HTMLElement} now
   */
  function howFar(now) {
    if (!far) {
      const stop = document.createElement("button");
      stop.type = "button";
      stop.textContent = "Cancel";
      stop.addEventListener("click", () => asking?.abort());
      const told = document.createElement("div");
      told.tabIndex = -1;
      far = document.createElement("section");
      far.className = "slow so-far-over";
      far.setAttribute("aria-label", "The new question, so far");
      far.append(stop, told);
      answer.before(far);
      const said = document.getElementById("said");
      if (said) said.textContent = "The new question is being worked out";
    }
    if (far.lastElementChild) showFar(far.lastElementChild, now);
  }

  /** Says that a request failed, and offers to ask again. */
  function trouble(there, again) {
    const box = document.getElementById("trouble");
    if (!box) return;
    box.hidden = !there;
    const button = one(box, "button", HTMLButtonElement);
    if (there && button) button.onclick = again;
  }

  /**
   * Asks for a query; `enter` puts it into the browser's history.
   * @param {string} query
   * @param {{focus?: string, enter: boolean}} how
   */
  async function ask(query, { focus, enter }) {
    const outcome = await show(query, focus);
    if (outcome === "failed") trouble(true, () => ask(query, { focus, enter }));
    if (outcome !== "shown") return;
    const address = `${page}?${query}`;
    if (enter) history.pushState(null, "", address);
    carryOn(address, briefOnly(answer));
  }

  answer.addEventListener("submit", (event) => {
    if (!(event.target instanceof HTMLFormElement)) return;
    if (!event.target.matches("[data-brief]")) return;
    event.preventDefault();
    const query = new URLSearchParams(queryOf(event.target));
    // A change to try stands on the button itself.
    const tried = sentBy(event);
    if (tried) query.set(...tried);
    ask(query.toString(), { focus: openPart(answer), enter: true });
  });
  // A slider reorders while it is drawn; where it is let go enters the history.
  let drawn;
  answer.addEventListener("input", (event) => {
    const field = event.target;
    if (!(field instanceof HTMLInputElement)) return;
    delete field.dataset.default;
    const form = field.form;
    if (field.type !== "range" || !form?.matches("[data-brief]")) return;
    clearTimeout(drawn);
    drawn = setTimeout(
      () => ask(queryOf(form), { focus: field.name, enter: false }),
      DRAWING_PAUSE,
    );
  });
  answer.addEventListener("change", (event) => {
    const field = event.target;
    if (swapping || !(field instanceof HTMLInputElement) || !field.form) return;
    if (!field.form.matches("[data-brief]")) return;
    // Arrow keys walk through radios: only a pointer's choice is final at once.
    const final = field.type === "range" || (field.type === "radio" && pointed);
    if (final) clearTimeout(drawn);
    if (final) ask(queryOf(field.form), { focus: field.name, enter: true });
  });
  // A hull being put in floats, and hulls are found, while one types.
  let waiting;
  answer.addEventListener("input", (event) => {
    if (!around(event.target, "form[data-along]", HTMLFormElement)) return;
    clearTimeout(waiting);
    waiting = setTimeout(() => {
      const brief = answer.querySelector("form[data-brief]");
      if (brief instanceof HTMLFormElement) {
        const query = queryOf(brief);
        const address = `${page}?${query}`;
        history.replaceState(null, "", address);
        ask(query, { enter: false });
      }
    }, TYPING_PAUSE);
  });
  answer.addEventListener("submit", (event) => {
    const form = event.target;
    if (!(form instanceof HTMLFormElement) || !form.matches("[data-along]"))
      return;
    // What takes a while has a bar of its own.
    if (form.querySelector("option:checked[data-slow]")) return;
    // One of its buttons may only look.
    const looks = event.submitter?.getAttribute("formmethod") === "get";
    if (form.method === "post" && !looks) {
      // Kept under the brief as it stands now.
      form.action = `${page}?${briefOnly(answer)}`;
    } else {
      event.preventDefault();
      ask(briefOf(answer), { enter: true });
    }
  });
  let pointed = false;
  answer.addEventListener("pointerdown", () => (pointed = true));
  answer.addEventListener("keydown", () => (pointed = false));
  window.addEventListener("popstate", () => {
    const query = window.location.search.slice(1);
    // Only the mark behind # has changed: the same question.
    if (query === shown) return;
    ask(query, { enter: false });
  });
}

/** Name of a field in the part that is open. */
function openPart(answer) {
  const field = answer.querySelector(".part[open] input");
  return field instanceof HTMLInputElement ? field.name : undefined;
}

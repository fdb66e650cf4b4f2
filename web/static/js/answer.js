/**
 * Redraws the answer in place when the brief changes, keeps the address bar in
 * step, and lets Back return to the question before.
 */

/**
 * The brief as a query. A weight nobody has touched stays out of it, so that
 * it follows the water; so do limits left empty.
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
  return query.toString();
}

/** @param {HTMLElement} answer */
export function keepInStep(answer) {
  const part = answer.dataset.part;
  let latest = 0;
  let swapping = false;

  /**
   * Fetches and shows the answer to a query.
   * @param {string} query
   * @param {{focus?: string}} [options] name of the part to return focus to
   * @returns {Promise<boolean>} whether it was shown
   */
  async function show(query, { focus } = {}) {
    const turn = ++latest;
    answer.setAttribute("aria-busy", "true");
    try {
      const response = await fetch(`${part}?${query}`, {
        headers: { Accept: "text/html" },
      });
      // 422 is an answer too: the sentence says what was not understood.
      if (!response.ok && response.status !== 422) return false;
      const html = await response.text();
      if (turn !== latest) return true;
      const typing = halfTyped(answer, query);
      // A field that goes away while it has the focus reports a change.
      swapping = true;
      answer.innerHTML = html;
      swapping = false;
      if (typing) typeOn(answer, typing);
      else if (focus) refocus(answer, focus);
      return true;
    } catch {
      return false;
    } finally {
      if (turn === latest) answer.removeAttribute("aria-busy");
    }
  }

  /**
   * @param {HTMLFormElement} form
   * @param {string} [focus]
   */
  async function ask(form, focus) {
    const query = queryOf(form);
    const address = `${answer.dataset.page}?${query}`;
    if (!(await show(query, { focus }))) {
      // The network failed or the server is gone: let the browser say so.
      window.location.assign(address);
      return;
    }
    history.pushState(null, "", address);
    keepUnitsBack(address);
  }

  answer.addEventListener("submit", (event) => {
    if (!(event.target instanceof HTMLFormElement)) return;
    if (!event.target.matches("[data-brief]")) return;
    event.preventDefault();
    ask(event.target, openPart(answer));
  });
  answer.addEventListener("input", (event) => {
    if (event.target instanceof HTMLInputElement)
      delete event.target.dataset.default;
  });
  answer.addEventListener("change", (event) => {
    const field = event.target;
    if (swapping || !(field instanceof HTMLInputElement) || !field.form) return;
    if (!field.form.matches("[data-brief]")) return;
    // Arrow keys walk through radios: only a pointer's choice is final at once.
    const final = field.type === "range" || pointed;
    if (final) ask(field.form, field.name);
  });
  let pointed = false;
  answer.addEventListener("pointerdown", () => (pointed = true));
  answer.addEventListener("keydown", () => (pointed = false));
  window.addEventListener("popstate", () => {
    keepUnitsBack(window.location.pathname + window.location.search);
    show(window.location.search.slice(1));
  });
}

/** The units switch returns to the address shown now. */
function keepUnitsBack(address) {
  const back = document.querySelector(".units input[name=back]");
  if (back instanceof HTMLInputElement) back.value = address;
}

/** Name of a field in the part that is open. */
function openPart(answer) {
  const field = answer.querySelector(".part[open] input");
  return field instanceof HTMLInputElement ? field.name : undefined;
}

/**
 * A field somebody is typing in while the answer to an earlier change arrives:
 * it holds neither what stood there nor what was asked.
 * @returns {{name: string, value: string, caret: number} | undefined}
 */
function halfTyped(answer, query) {
  const field = answer.querySelector(".part[open] input[type=text]");
  if (!(field instanceof HTMLInputElement)) return undefined;
  const sent = new URLSearchParams(query).get(field.name);
  const changed = field.value !== field.defaultValue && field.value !== sent;
  const { name, value, selectionStart: caret } = field;
  return changed ? { name, value, caret } : undefined;
}

/** Opens the part again with what was typed so far. */
function typeOn(answer, { name, value, caret }) {
  const field = answer.querySelector(`.part [name="${CSS.escape(name)}"]`);
  field.closest(".part").open = true;
  field.value = value;
  field.focus();
  field.setSelectionRange(caret, caret);
}

/**
 * Puts the focus back on the part that was changed: on its field when it was
 * not understood, else on its words.
 */
function refocus(answer, name) {
  const field = answer.querySelector(
    `.part [name="${CSS.escape(name)}"]:checked, .part [name="${CSS.escape(name)}"]:not([type=radio])`,
  );
  const part = field?.closest(".part");
  if (!part) return;
  if (part.open) {
    field.focus();
    // Typing goes on where it ended.
    if (field.type === "text")
      field.setSelectionRange(field.value.length, field.value.length);
  } else part.querySelector("summary").focus();
}

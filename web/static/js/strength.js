/**
 * How hard a new password is to guess, told while it is typed. Without this it is judged
 * when it is sent.
 */

import { all } from "./dom.js";

/** How long nobody types before it is asked, ms. */
const PAUSE = 250;

/** @param {Document} page */
export function newPasswords(page) {
  for (const field of all(page, "input[data-strength]", HTMLInputElement)) {
    const meter = page.createElement("meter");
    Object.assign(meter, { max: 4, low: 2, high: 3, optimum: 4, hidden: true });
    meter.setAttribute("aria-label", "How hard it is to guess");
    const words = page.createElement("span");
    words.setAttribute("role", "status");
    const told = page.createElement("p");
    told.className = "strength";
    told.append(meter, " ", words);
    field.closest(".field")?.append(told);

    let asked = 0;
    /** @param {number} time */
    const ask = async (time) => {
      // Whose it will be: a name is no password.
      const name = field.form?.elements.namedItem(field.dataset.strength ?? "");
      const answer = await fetch("/account/strength", {
        method: "POST",
        body: new URLSearchParams({
          password: field.value,
          name: name instanceof HTMLInputElement ? name.value : "",
        }),
      });
      if (!answer.ok || time !== asked) return;
      const said = await answer.json();
      meter.hidden = said.words === "";
      meter.value = said.score;
      words.textContent = said.words;
    };
    field.addEventListener("input", () => {
      const time = ++asked;
      setTimeout(() => {
        // It says nothing where nobody answers: the server judges once more.
        if (time === asked) ask(time).catch(() => {});
      }, PAUSE);
    });
  }
}

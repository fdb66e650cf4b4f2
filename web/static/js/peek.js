/**
 * A password can be looked at while it is typed. Without this it stays hidden.
 */

import { all } from "./dom.js";

/** @param {Document} page */
export function passwordsToLookAt(page) {
  for (const field of all(
    page,
    "input[type=password]:not([aria-hidden])",
    HTMLInputElement,
  )) {
    const button = page.createElement("button");
    button.type = "button";
    button.className = "peek";
    const say = () => {
      const hidden = field.type === "password";
      button.textContent = hidden ? "show" : "hide";
      const label = field.labels?.[0]?.textContent ?? "password";
      button.setAttribute("aria-label", `${button.textContent}: ${label}`);
    };
    button.addEventListener("click", () => {
      field.type = field.type === "password" ? "text" : "password";
      say();
    });
    // It is sent as what it is, and browsers know it for a password.
    field.form?.addEventListener("submit", () => {
      field.type = "password";
    });
    say();
    field.after(button);
  }
}

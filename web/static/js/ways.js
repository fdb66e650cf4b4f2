/**
 * What stands around an answer follows the question as it is now: ways to elsewhere take it
 * along, and the page comes back, is saved, kept and handed out as it stands.
 */

import { all } from "./dom.js";

/**
 * An address of ours with another question behind it.
 * @param {string} href
 * @param {string} brief
 */
function asking(href, brief) {
  const path = href.split("?")[0];
  return brief ? `${path}?${brief}` : path;
}

/**
 * @param {string} address the page as it stands now
 * @param {string} brief the question it answers, as a query
 */
export function carryOn(address, brief) {
  const ours = "a[href^='/']";
  const around = `.masthead ${ours}, .foot ${ours}, ${ours}[data-carries]`;
  for (const link of all(document, around, HTMLAnchorElement)) {
    const { leads } = link.dataset;
    const href = link.dataset.place ?? link.getAttribute("href") ?? "/";
    const next = asking(href, brief);
    // The page itself is saved, or kept for somebody.
    if (leads === "file") {
      const joint = address.includes("?") ? "&" : "?";
      link.setAttribute("href", `${address}${joint}as=file`);
    } else if (leads === "keep") {
      const joint = next.includes("?") ? "&" : "?";
      const page = encodeURIComponent(address);
      link.setAttribute("href", `${next}${joint}keep=${page}`);
    } else {
      link.setAttribute("href", next);
    }
  }
  const forms = ".foot form, form[data-carries]";
  for (const form of all(document, forms, HTMLFormElement))
    form.setAttribute(
      "action",
      asking(form.getAttribute("action") ?? "", brief),
    );
  const back = ".masthead input[name=back], .foot input[name=page]";
  for (const field of all(document, back, HTMLInputElement))
    field.value = address;
}

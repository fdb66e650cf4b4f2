/** The sentence at the head of the page, as a person uses it. */

/** The words of the part of the sentence whose spoken name starts so. */
export function part(page, title) {
  return page.locator(`.part > summary[aria-label^="${title}:"]`);
}

/** Picks an answer with the pointer. */
export async function pick(page, title, label) {
  await part(page, title).click();
  await page
    .locator(".part[open] .choice")
    .filter({ has: page.getByText(label, { exact: true }) })
    .click();
}

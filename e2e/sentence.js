/** The sentence at the head of the page, as a person uses it. */

/** The words of the part of the sentence whose spoken name starts so. */
export function part(page, title) {
  return page.locator(`.part > summary[aria-label^="${title}:"]`);
}

/** Opens what does not always stand in the sentence. */
export async function openMore(page) {
  const more = page.locator(".part-more");
  if ((await more.getAttribute("open")) === null)
    await more.locator("> summary").click();
}

/** Makes one of the small changes offered. */
export async function tryOut(page, words) {
  const tool = page.locator(".what-if");
  if ((await tool.getAttribute("open")) === null)
    await tool.locator("> summary").click();
  await page.getByRole("button", { name: words }).click();
}

/** Opens what stands below a row. */
export async function openRow(page, name) {
  await page.getByLabel(`More of the ${name}`).click();
}

/** Picks an answer with the pointer. */
export async function pick(page, title, label) {
  if (!(await part(page, title).isVisible())) await openMore(page);
  await part(page, title).click();
  await page
    .locator(".part[open] .choice")
    .filter({ has: page.getByText(label, { exact: true }) })
    .click();
}

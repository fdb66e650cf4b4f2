/**
 * What a tried layout would move: told before it is done.
 *
 * @typedef {{thing: string, nth: string, name: string, place: string}} Lying a thing and
 *   the name of its place; an empty one where it finds none
 */

/**
 * What would lie elsewhere, or nowhere, without what is being moved itself.
 *
 * @param {Lying[]} now
 * @param {Lying[]} then
 * @param {{thing: string, nth: number}} moving
 * @returns {{thing: string, nth: string, words: string}[]}
 */
export function displaced(now, then, moving) {
  const key = ({ thing, nth }) => `${thing} ${nth}`;
  const places = new Map(then.map((lying) => [key(lying), lying.place]));
  return now
    .filter((lying) => key(lying) !== `${moving.thing} ${moving.nth}`)
    .map((lying) => ({ ...lying, to: places.get(key(lying)) ?? "" }))
    .filter(({ place, to }) => place !== to)
    .map(({ thing, nth, name, to }) => ({
      thing,
      nth,
      words: to
        ? `${name} would go to the ${to}`
        : `${name} would find no place`,
    }));
}

/**
 * What lies where on a page of the board.
 *
 * @param {ParentNode} page
 * @returns {Lying[]}
 */
export function lyingOn(page) {
  /** @type {NodeListOf<HTMLElement>} */
  const links = page.querySelectorAll("a[data-thing]");
  return [...links].map(({ dataset, textContent }) => ({
    thing: dataset.thing ?? "",
    nth: dataset.nth ?? "",
    name: (textContent ?? "").trim(),
    place: dataset.place ?? "",
  }));
}

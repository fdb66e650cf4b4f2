/**
 * Up and down arrows walk from hull to hull while a hull's name has the focus;
 * Home and End go to the first and the last.
 */

/** @param {HTMLElement} answer */
export function walkRows(answer) {
  answer.addEventListener("keydown", (event) => {
    const link = event.target;
    if (!(link instanceof HTMLElement) || !link.matches("[data-hull] h3 a"))
      return;
    const links = [...answer.querySelectorAll("[data-hull] h3 a")];
    const here = links.indexOf(link);
    const target = {
      ArrowDown: here + 1,
      ArrowUp: here - 1,
      Home: 0,
      End: links.length - 1,
    }[event.key];
    if (target === undefined || !links[target]) return;
    event.preventDefault();
    links[target].focus();
  });
}

/**
 * What a page is looked through for, by selector and kind: what is found is of that
 * kind, or it is not there.
 */

/**
 * The elements of a kind among those a selector finds.
 * @template {Element} T
 * @param {ParentNode} within
 * @param {string} selector
 * @param {{ new (): T }} kind
 * @returns {T[]}
 */
export function all(within, selector, kind) {
  /** @type {T[]} */
  const found = [];
  for (const element of within.querySelectorAll(selector))
    if (element instanceof kind) found.push(element);
  return found;
}

/**
 * The first element a selector finds, if it is of a kind.
 * @template {Element} T
 * @param {ParentNode} within
 * @param {string} selector
 * @param {{ new (): T }} kind
 * @returns {T | undefined}
 */
export function one(within, selector, kind) {
  const found = within.querySelector(selector);
  return found instanceof kind ? found : undefined;
}

/**
 * What a selector finds at an event's target or around it, if it is of a kind.
 * @template {Element} T
 * @param {EventTarget | null} target
 * @param {string} selector
 * @param {{ new (): T }} kind
 * @returns {T | undefined}
 */
export function around(target, selector, kind) {
  const found = target instanceof Element ? target.closest(selector) : null;
  return found instanceof kind ? found : undefined;
}

/**
 * What is said of an element in its data, HTML or drawing alike.
 * @param {Element | null | undefined} element
 * @returns {DOMStringMap}
 */
export function dataOf(element) {
  const known = element instanceof HTMLElement || element instanceof SVGElement;
  return known ? element.dataset : {};
}

/**
 * Name and value of the button a form was sent by; nothing for one without a name.
 * @param {SubmitEvent} event
 * @returns {[string, string] | undefined}
 */
export function sentBy(event) {
  const button = event.submitter;
  const named = button instanceof HTMLButtonElement && button.name !== "";
  return named ? [button.name, button.value] : undefined;
}

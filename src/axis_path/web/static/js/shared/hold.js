// @ts-check
/** Takes hold of what a pointer presses: it goes on getting the pointer's events, wherever that goes. */

/**
 * Take hold of the element that a pointer presses.
 * @param {any} event of the press, at the element. @param {{isFocused?: boolean}} [how] whether the element gets the focus.
 * @returns {boolean} whether it is held: another button than the first holds nothing.
 */
export function takeHold(event, { isFocused = false } = {}) {
  if (event.button > 0) return false;
  const { currentTarget: element, pointerId } = event;
  if (isFocused) {
    event.preventDefault();
    element.focus({ preventScroll: true });
  }
  element.setPointerCapture(pointerId);
  return true;
}

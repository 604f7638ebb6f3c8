// @ts-check
/**
 * How much larger the plane and the lanes are shown than they are computed.
 *
 * Numbers, strokes, flags and marks grow alike: with the text of the browser, and for projecting.
 * What is computed and painted counts px of the plane; the page has so many times more of them.
 */

/** The usual size of a letter, in px. */
const USUAL_PX = 16;
/** In plane-only mode everything is so much larger. */
const PROJECTED = 1.5;

/** Set when the plane is measured. */
const scale = { value: 1 };

/** Px of the page for one of the plane. */
export const planeScale = () => scale.value;

/** Dots of the screen for one px of the plane. */
export const dotsPerPx = () => (window.devicePixelRatio || 1) * scale.value;

/** Take over the size of the page's text. @param {boolean} isProjected @returns {number} */
export function measureScale(isProjected) {
  const letter = Number.parseFloat(getComputedStyle(document.documentElement).fontSize);
  scale.value = (letter / USUAL_PX) * (isProjected ? PROJECTED : 1);
  return scale.value;
}

/** Where a pointer stands on an element of the plane or of a lane, in px of the plane. @param {Element} element @param {{clientX: number, clientY: number}} event */
export function pointOn(element, event) {
  const box = element.getBoundingClientRect();
  return {
    x: (event.clientX - box.left) / scale.value,
    y: (event.clientY - box.top) / scale.value,
  };
}

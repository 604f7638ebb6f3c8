// @ts-check
/**
 * Changes of elements that are made for every picture. The browser takes each attribute that is set
 * as a change, and works out its style anew: what already stands is left alone.
 */

/** @param {Element} element @param {Record<string, string>} attributes */
export function setAttributes(element, attributes) {
  for (const [name, value] of Object.entries(attributes)) {
    if (element.getAttribute(name) !== value) element.setAttribute(name, value);
  }
}

/** @param {HTMLElement} element @param {boolean} isHidden */
export function setHidden(element, isHidden) {
  if (element.hidden !== isHidden) element.hidden = isHidden;
}

/** A number for an ARIA attribute, which knows no powers of ten. @param {number} value */
export const decimal = (value) =>
  (value + 0).toLocaleString("en", { useGrouping: false, maximumFractionDigits: 12 });

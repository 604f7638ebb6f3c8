// @ts-check
/** Elements of a picture: described first, then put in place of those that stand, which are kept where they can be. */

const SVG = "http://www.w3.org/2000/svg";

/** @typedef {{name: string, attributes: Record<string, string | number>, text: string, parts: Part[]}} Part */

/**
 * Describe an element.
 * @param {string} name @param {Record<string, string | number>} attributes
 * @param {string | Part[]} [inner] its text, or its parts. @returns {Part}
 */
export function svg(name, attributes, inner = "") {
  return typeof inner === "string"
    ? { name, attributes, text: inner, parts: [] }
    : { name, attributes, text: "", parts: inner };
}

/**
 * Describe a text at a place. The place is a shift: a text that only moves is not laid out anew.
 * @param {string} text @param {number} x @param {number} y @param {Record<string, string | number>} attributes
 * @param {string} [turned] a further transform about the place. @returns {Part}
 */
export const label = (text, x, y, attributes, turned = "") =>
  svg("text", { ...attributes, transform: `translate(${x} ${y})${turned}` }, text);

/** What each element was made from. @type {WeakMap<Element, Part>} */
const made = new WeakMap();

/** Let an element hold these parts and nothing else. @param {Element} target @param {Part[]} parts */
export function put(target, parts) {
  let child = target.firstElementChild;
  for (const part of parts) {
    const before = child && made.get(child);
    if (child && before?.name === part.name) {
      change(child, before, part);
      child = child.nextElementSibling;
    } else {
      const next = make(part);
      if (child) child.replaceWith(next);
      else target.append(next);
      child = next.nextElementSibling;
    }
  }
  while (child) {
    const next = child.nextElementSibling;
    child.remove();
    child = next;
  }
}

/** @param {Part} part */
function make(part) {
  const element = document.createElementNS(SVG, part.name);
  change(element, { name: part.name, attributes: {}, text: "", parts: [] }, part);
  return element;
}

/** @param {Element} element @param {Part} before @param {Part} part */
function change(element, before, part) {
  made.set(element, part);
  for (const [key, value] of Object.entries(part.attributes)) {
    if (before.attributes[key] !== value) element.setAttribute(key, String(value));
  }
  for (const key of Object.keys(before.attributes)) {
    if (!(key in part.attributes)) element.removeAttribute(key);
  }
  if (part.parts.length || before.parts.length) put(element, part.parts);
  else if (part.text !== before.text) element.textContent = part.text;
}

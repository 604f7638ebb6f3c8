// @ts-check
/** How large the parts of the Bench are, and between which limits; no DOM. */

/** @typedef {"side" | "panel" | "plane"} Part */
/** @typedef {{width: number, height: number}} Room what the parts share, in px. */

/** The plane is never narrower or lower than this, nor are the lanes lower, in px. */
const LEAST_PLANE = { width: 320, height: 160 };
const LEAST_LANES_PX = 112;

/** What each part measures until somebody drags its border: widths in px, the plane's height in percent. @type {Readonly<Record<Part, number>>} */
export const USUAL = Object.freeze({ side: 272, panel: 300, plane: 69 });

/**
 * Return the least and the most that a part may measure: widths in px, the plane's height in percent.
 * @param {Part} part @param {Room} room @param {Record<Part, number>} sizes of the other parts.
 * @returns {[number, number]}
 */
export function limitsOf(part, { width, height }, sizes) {
  if (part === "panel") return ordered(240, Math.min(width / 2, width - LEAST_PLANE.width));
  if (part === "side")
    return ordered(200, Math.min(0.45 * width, width - sizes.panel - LEAST_PLANE.width));
  return ordered((100 * LEAST_PLANE.height) / height, 100 - (100 * LEAST_LANES_PX) / height);
}

/** The definitions grow by themselves to so large a part of the width that the panel leaves. */
const MOST_GROWN = 0.3;

/**
 * Return how wide the definitions are that nobody has set: as wide as the longest, within limits.
 * @param {number} wanted @param {Room} room @param {Record<Part, number>} sizes
 */
export function grownSide(wanted, { width }, sizes) {
  const most = Math.max(USUAL.side, MOST_GROWN * (width - sizes.panel) - 14);
  return Math.round(Math.min(Math.max(wanted, USUAL.side), most));
}

/** @param {number} least @param {number} most @returns {[number, number]} */
const ordered = (least, most) => [Math.round(least), Math.round(Math.max(least, most))];

/**
 * Return a size within the limits of its part.
 * @param {Part} part @param {number} size @param {Room} room @param {Record<Part, number>} sizes
 */
export function fitted(part, size, room, sizes) {
  const [least, most] = limitsOf(part, room, sizes);
  return Math.min(Math.max(Math.round(size), least), most);
}

/**
 * Return the sizes that a stored text holds; what it does not hold, or not as a number, is as usual.
 * @param {string | null} text @returns {Record<Part, number>}
 */
export function readSizes(text) {
  const sizes = { ...USUAL };
  try {
    const stored = JSON.parse(text ?? "{}");
    for (const part of /** @type {Part[]} */ (Object.keys(USUAL))) {
      if (Number.isFinite(stored?.[part])) sizes[part] = stored[part];
    }
  } catch {
    // A text that somebody else has written there is left alone.
  }
  return sizes;
}

// @ts-check
/** A curve as sound: what is heard at each place of the window; no DOM. */

/** The lowest and the highest tone, in Hz: three octaves. */
const [LOW_HZ, HIGH_HZ] = [165, 1320];
/** Coordinates of scenes are tenths of px. */
const PER_PX = 10;

/**
 * @typedef {object} Sound
 * @property {(number | null)[]} tones in Hz, from the left of the window to the right; null where the curve is not in sight or has no value.
 * @property {number[]} clicks where zeros lie, as parts of the width.
 */

/** The tone of a height. @param {number} part of the plane's height, from 0 at its foot. */
export const toneOf = (part) => LOW_HZ * (HIGH_HZ / LOW_HZ) ** Math.min(Math.max(part, 0), 1);

/**
 * Return the heights of a curve at evenly spaced places.
 * @param {number[][]} pieces of the curve, each x and y in turn, in tenths of px.
 * @param {{width: number, height: number}} size of the plane, in px. @param {number} count of places.
 * @returns {(number | null)[]} parts of the height, from the foot; null where there is no curve.
 */
export function heightsOf(pieces, { width, height }, count) {
  /** @type {(number | null)[]} */
  const heights = Array.from({ length: count }, () => null);
  const step = (width * PER_PX) / (count - 1);
  for (const piece of pieces) {
    for (let k = 0; k + 3 < piece.length; k += 2) {
      const [x0, y0, x1, y1] = piece.slice(k, k + 4);
      if (!(x1 > x0)) continue;
      for (let at = Math.max(Math.ceil(x0 / step), 0); at < count && at * step <= x1; at += 1) {
        const y = y0 + ((at * step - x0) / (x1 - x0)) * (y1 - y0);
        const part = 1 - y / (height * PER_PX);
        heights[at] = part >= 0 && part <= 1 ? part : null;
      }
    }
  }
  return heights;
}

/**
 * Return what is heard of a row.
 * @param {{curve: any, lane: any}} row @param {{width: number, height: number}} size @param {number} count
 * @returns {Sound}
 */
export function soundOf(row, size, count) {
  const heights = heightsOf(row.curve?.pieces ?? [], size, count);
  const marks = row.lane?.scale ? [] : (row.lane?.marks ?? []);
  return {
    tones: heights.map((part) => (part === null ? null : toneOf(part))),
    clicks: marks
      .map((mark) => mark.x / (size.width * PER_PX))
      .filter((part) => part >= 0 && part <= 1),
  };
}

// @ts-check
/** What of columns that were read is drawn, and whether it is in sight; no DOM. */

/** @typedef {{name: string, cells: (string | null)[]}} ReadColumn */

/** So many columns are drawn by themselves, each against the first. */
const MOST_DRAWN = 4;
/** A part of the points that is in sight: with fewer the window is framed anew. */
const IN_SIGHT = 0.9;

/** @param {ReadColumn} column */
const numbersOf = (column) => column.cells.map(numberOf);

/** A cell as a number: a decimal, or a fraction. @param {string | null} text */
function numberOf(text) {
  if (text === null || text === "") return Number.NaN;
  const [top, bottom] = text.replace("−", "-").split("/").map(Number);
  return bottom === undefined ? top : top / bottom;
}

/** Return the pairs of columns that are drawn at once: each against the first. @param {ReadColumn[]} columns @returns {[ReadColumn, ReadColumn][]} */
export function drawnPairs([first, ...others]) {
  const isDrawn = (column) => numbersOf(column).some((value) => Number.isFinite(value));
  if (!first || !isDrawn(first)) return [];
  return others
    .filter(isDrawn)
    .slice(0, MOST_DRAWN)
    .map((column) => [first, column]);
}

/** Check whether nearly all points lie in a window. @param {[ReadColumn, ReadColumn][]} pairs @param {{x: number[], y: number[]}} window */
export function isInWindow(pairs, window) {
  const isWithin = (/** @type {number} */ value, /** @type {number[]} */ [low, high]) =>
    value >= low && value <= high;
  let [inside, all] = [0, 0];
  for (const [x, y] of pairs) {
    const ys = numbersOf(y);
    numbersOf(x).forEach((value, k) => {
      if (!Number.isFinite(value) || !Number.isFinite(ys[k])) return;
      all += 1;
      if (isWithin(value, window.x) && isWithin(ys[k], window.y)) inside += 1;
    });
  }
  return inside >= IN_SIGHT * all;
}

/** Return bytes in base 64. @param {ArrayBuffer} bytes */
export function base64Of(bytes) {
  const view = new Uint8Array(bytes);
  let text = "";
  // A call takes only so many arguments.
  for (let at = 0; at < view.length; at += 8192)
    text += String.fromCharCode(...view.subarray(at, at + 8192));
  return btoa(text);
}

// @ts-check
/** Numbers of a table in columns, and which of its rows are in sight. */

/** What happens between two rows, as a sign at the first. @type {Record<string, string>} */
export const SIGNS = { sign: "±", turn: "⌢", meet: "×" };
const FIGURE_SPACE = "\u2007";
const POINT_SPACE = "\u2008";
/** A page can be so high, in pixels; browsers give up not far beyond. */
const HIGHEST = 12_000_000;
/** So many rows are asked for while the table scrolls, and of them so many before those in sight. */
export const PART = 90;
const BEFORE = 30;
/** With fewer rows than this left before the edge of what is loaded, more are asked for. */
const NEAR = 15;

/** How many figures stand after the point. @param {string} text */
export const decimals = (text) => (text.includes("·") ? 0 : (text.split(".")[1] ?? "").length);

/** Return a number padded on the right, so that the decimal points of a column line up. @param {string} text @param {number} decimalPlaces */
export function aligned(text, decimalPlaces) {
  if (!text) return "—";
  const missing = decimalPlaces - decimals(text);
  const point = missing > 0 && !text.includes(".") ? POINT_SPACE : "";
  return text.includes("·") ? text : text + point + FIGURE_SPACE.repeat(missing);
}

/** A number as other programs read it. @param {string} text */
export const plainNumber = (text) => text.replaceAll(/[\u2007\u2008]/g, "").replaceAll("−", "-");

/**
 * The row at a place, or the two on either side of it; none if the place is outside of all rows.
 * @template {{value: number}} Line @param {readonly Line[]} lines @param {number | null} x @returns {Line[]}
 */
export function rowsAround(lines, x) {
  if (x === null) return [];
  const at = lines.find((line) => line.value === x);
  if (at) return [at];
  const k = lines.findIndex(
    (line, j) => j + 1 < lines.length && (line.value - x) * (lines[j + 1].value - x) < 0,
  );
  return k < 0 ? [] : lines.slice(k, k + 2);
}

/**
 * Rows of which only a part is loaded, in a frame that scrolls over all of them.
 *
 * A table too high for a browser is squeezed: between its loaded parts the frame moves over more
 * rows than it shows, within one it moves row by row.
 */
export class Rows {
  /** @param {{count: number, from: number, loaded: number, height: number}} given the height of a row in pixels. */
  constructor({ count, from, loaded, height }) {
    this.count = count;
    this.from = from;
    this.loaded = loaded;
    this.height = height;
    this.squeeze = Math.min(1, HIGHEST / Math.max(count * height, 1));
  }
  /** How much is left empty above the loaded rows, and below. */
  get above() {
    return this.from * this.height * this.squeeze;
  }
  get below() {
    return Math.max(
      this.count * this.height * this.squeeze - this.above - this.loaded * this.height,
      0,
    );
  }
  /** The row at the top of the frame, with its part that is out of sight. @param {number} top in pixels. @param {number} view */
  rowAt(top, view) {
    const within = top - this.above;
    const isLoaded = within >= 0 && within <= Math.max(this.loaded * this.height - view, 0);
    const row = isLoaded ? this.from + within / this.height : top / (this.height * this.squeeze);
    return Math.min(Math.max(row, 0), Math.max(this.count - 1, 0));
  }
  /** Where the frame stands with a row at its top. @param {number} row */
  topOf(row) {
    return this.above + (row - this.from) * this.height;
  }
  /** From which row on rows are wanted with this one at the top; null if those loaded do. @param {number} row @param {number} view */
  wanted(row, view) {
    const last = row + view / this.height;
    const isEnough =
      (row >= this.from + NEAR || !this.from) &&
      row >= this.from &&
      (last <= this.from + this.loaded - NEAR || this.from + this.loaded >= this.count);
    return isEnough ? null : Math.max(Math.floor(row) - BEFORE, 0);
  }
}

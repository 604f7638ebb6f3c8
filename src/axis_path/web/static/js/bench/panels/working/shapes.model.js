// @ts-check
/** The ways in which a result is written, in words; no DOM. */
import { say } from "../../../shared/words.js";

/** @typedef {import("#types/answers").WorkResult} WorkResult */

/** @type {Record<string, {words: string, title: string}>} */
const SHAPES = {
  exact: { words: say("exact"), title: say("Exact: fractions, roots, π") },
  decimal: { words: say("decimal"), title: say("Decimal") },
  mixed: { words: "1 ½", title: say("Mixed number") },
  percent: { words: "%", title: say("Percent") },
  scientific: { words: "×10ⁿ", title: say("Scientific notation") },
  engineering: { words: "×10³ⁿ", title: say("Engineering notation: powers of a thousand") },
};
/** @type {Record<string, {words: string, title: string}>} */
const COMPLEX_SHAPES = {
  rectangular: { words: "a + b i", title: say("By real and imaginary part") },
  polar: { words: "r eⁱᵠ", title: say("By absolute value and angle, with a power of e") },
  angle: { words: "r ∠ φ", title: say("By absolute value and angle") },
};

/** The buttons for the shapes that a result has. @param {WorkResult | null} result @param {any} chosen */
export function shapeButtons(result, chosen) {
  const offered = result?.shapes ?? [];
  return offered.length < 2
    ? []
    : buttons(offered, SHAPES, offered.includes(chosen) ? chosen : offered[0]);
}

/** The same for a complex number. @param {WorkResult | null} result @param {string} chosen */
export function complexButtons(result, chosen) {
  return buttons(result?.complex_shapes ?? [], COMPLEX_SHAPES, chosen);
}

/** @param {string[]} offered @param {Record<string, {words: string, title: string}>} all @param {string} chosen */
function buttons(offered, all, chosen) {
  return offered.map((shape) => ({ shape, ...all[shape], isChosen: shape === chosen }));
}

/** How large a list or a matrix is. @param {number[]} shape */
export function shapeWords(shape) {
  if (!shape.length) return "";
  return shape.length === 1
    ? say("list of {count}", { count: shape[0] })
    : say("{rows} by {columns} matrix", { rows: shape[0], columns: shape[1] });
}

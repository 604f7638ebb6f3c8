// @ts-check
/** The ways in which a result is written, in words; no DOM. */

/** @typedef {import("#types/answers").WorkResult} WorkResult */

/** @type {Record<string, {words: string, title: string}>} */
const SHAPES = {
  exact: { words: "exact", title: "Exact: fractions, roots, π" },
  decimal: { words: "decimal", title: "Decimal" },
  mixed: { words: "1 ½", title: "Mixed number" },
  percent: { words: "%", title: "Percent" },
  scientific: { words: "×10ⁿ", title: "Scientific notation" },
  engineering: { words: "×10³ⁿ", title: "Engineering notation: powers of a thousand" },
};
/** @type {Record<string, {words: string, title: string}>} */
const COMPLEX_SHAPES = {
  rectangular: { words: "a + b i", title: "By its parts" },
  polar: { words: "r eⁱᵠ", title: "By its size and angle, with a power of e" },
  angle: { words: "r ∠ φ", title: "By its size and angle" },
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
  return shape.length === 1 ? `list of ${shape[0]}` : `${shape[0]} by ${shape[1]} matrix`;
}

// @ts-check
/** The units among which a value is shown, as the core lists them. */

/**
 * @param {{shown: string, fits: {symbol: string, text: string}[]} | null | undefined} choice
 */
export function unitOptionsOf(choice) {
  if (!choice) return [];
  return choice.fits.map(({ symbol, text }) => ({
    symbol,
    text,
    isShown: symbol === choice.shown,
  }));
}

/**
 * The value without the unit that is chosen beside it.
 *
 * @param {string} text
 * @param {{text: string, isShown: boolean}[]} options
 */
export function withoutUnit(text, options) {
  const shown = options.find((option) => option.isShown);
  const end = shown ? ` ${shown.text}` : "";
  return end && text.endsWith(end) ? text.slice(0, -end.length) : text;
}

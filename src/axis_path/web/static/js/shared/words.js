// @ts-check
/**
 * What the scripts say, in the reader's language. The English text is the key of its translation;
 * `tools/refresh-catalogue` collects all that stand in `say` and `count`.
 */

/** @type {Record<string, string[]>} */
const words = read();
const decimalSign = globalThis.document?.documentElement?.dataset.decimalSign ?? ".";

/** Without a page, as in a worker, everything is said in English. */
function read() {
  const element = globalThis.document?.querySelector("#reader-words");
  return element?.textContent ? JSON.parse(element.textContent) : {};
}

/**
 * A sentence in the reader's language, with its gaps, such as `{name}`, filled.
 * @param {string} english @param {Record<string, unknown>} [values]
 */
export function say(english, values) {
  return filled(words[english]?.[0] || english, values);
}

/**
 * A sentence that differs for one thing and for several.
 * @param {string} one @param {string} many @param {number} count
 * @param {Record<string, unknown>} [values]
 */
export function sayCount(one, many, count, values) {
  const forms = words[one] ?? [];
  const text = count === 1 ? forms[0] || one : forms[1] || many;
  return filled(text, { count: numeral(String(count)), ...values });
}

/** A number, written with a decimal point, as the reader writes it. @param {string} text */
export function numeral(text) {
  return decimalSign === ","
    ? text.replaceAll(/[.,]/g, (sign) => (sign === "." ? "," : "."))
    : text;
}

/** @param {string} text @param {Record<string, unknown>} [values] */
function filled(text, values) {
  return values ? text.replaceAll(/\{(\w+)\}/g, (gap, name) => String(values[name] ?? gap)) : text;
}

/** A whole number in groups of three digits, as the reader writes it. @param {number} value */
export const grouped = (value) => numeral(value.toLocaleString("en"));

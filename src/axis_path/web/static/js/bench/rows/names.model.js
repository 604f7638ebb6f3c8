// @ts-check
/** The name that is being written, and the names it may become; no DOM. */

/** @typedef {{name: string, signature: string, meaning: string, insert: string, spellings?: string[]}} Known */

const WORD = /[\p{L}_](?:(?![\u03b1-\u03c9])[\p{L}0-9_])*$/u;
const MOST = 7;

/** The letters of a name that stand before the caret. @param {string} text @param {number} caret */
export function wordBefore(text, caret) {
  return WORD.exec(text.slice(0, caret))?.[0] ?? "";
}

/**
 * The known names that a word may become: those that begin with it, then those in which a word of
 * the meaning does.
 * @param {string} word @param {Known[]} names @returns {Known[]}
 */
export function matching(word, names) {
  const wanted = word.toLowerCase();
  const others = names.filter((entry) => entry.name !== word);
  const starts = others.filter((entry) =>
    [entry.name, ...(entry.spellings ?? [])].some((name) => name.toLowerCase().startsWith(wanted)),
  );
  const says = (entry) =>
    entry.meaning
      .toLowerCase()
      .split(/\W+/)
      .some((part) => part.startsWith(wanted));
  const means =
    wanted.length < 4 ? [] : others.filter((entry) => !starts.includes(entry) && says(entry));
  return [...starts, ...means].slice(0, MOST);
}

/** The text with a name put in for the word before the caret, and where the caret stands then. */
export function completed(text, caret, insert) {
  const start = caret - wordBefore(text, caret).length;
  // A bracket that is there already is not written twice.
  const put = insert.endsWith("(") && text[caret] === "(" ? insert.slice(0, -1) : insert;
  return inserted(text, start, caret, put);
}

/** The text with something put in; what is selected is surrounded by `|…|` and brackets. */
export function inserted(text, start, end, put) {
  const chosen = text.slice(start, end);
  const isAround = put.includes("…");
  const whole = isAround ? put.replace("…", chosen) : put;
  const caret = isAround && !chosen ? start + put.indexOf("…") : start + whole.length;
  return { text: text.slice(0, start) + whole + text.slice(end), caret };
}

const OPENING = "([";
const CLOSING = ")]";
const CALLED = /([\p{L}_][\p{L}0-9_]*)$/u;

/**
 * The call within whose brackets the caret stands, and which of its arguments is written.
 * @param {string} text @param {number} caret @returns {{name: string, index: number} | null}
 */
export function callAround(text, caret) {
  let depth = 0;
  let index = 0;
  for (let at = caret - 1; at >= 0; at -= 1) {
    const sign = text[at];
    if (CLOSING.includes(sign)) depth += 1;
    else if (sign === "," && depth === 0) index += 1;
    else if (OPENING.includes(sign) && depth > 0) depth -= 1;
    else if (OPENING.includes(sign)) {
      const name = sign === "(" ? CALLED.exec(text.slice(0, at))?.[1] : undefined;
      if (name) return { name, index };
      // A bracket of another kind is one argument of what stands around it.
      index = 0;
    }
  }
  return null;
}

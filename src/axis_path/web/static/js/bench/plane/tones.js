// @ts-check
/** The colours of the present theme, for what is painted on a canvas. */

export const TONES = 8;

/** @param {string} name @returns {string} */
const read = (name) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Whether the present theme is the dark one. */
export const isDark = () => document.documentElement.dataset.bsTheme === "dark";

/** The colours of the tones. */
export const readTones = () => Array.from({ length: TONES }, (_, k) => read(`--tone-${k}`));

/** The other colours and the faces, by their names. */
export const readInks = () => ({
  ink: read("--ink"),
  soft: read("--ink-soft"),
  line: read("--line"),
  paper: read("--paper"),
  doubt: read("--amber-deep"),
  text: read("--text-face"),
  maths: read("--maths-face"),
});

// @ts-check
/**
 * The numbers of the ledger while a pointer moves. They are written by hand: in every frame there are
 * more of them than bindings can follow.
 */

/** What can change from frame to frame, and where it stands in a row. @type {[string, string][]} */
const PLACES = [
  ["text", ".finding-x > span:last-child"],
  ["decimalText", ".finding-decimal"],
  ["valueText", ".finding-value"],
];
/** With any other of these an entry is shown anew. */
const SHAPE = ["lead", "doubt", "flagText", "isProved", "isDoubtful", "isLabelled", "canShow"];

/** @param {any} before @param {any} now */
const isSameShape = (before, now) =>
  SHAPE.every((name) => before[name] === now[name]) &&
  PLACES.every(([name]) => Boolean(before[name]) === Boolean(now[name]));

/**
 * Write the numbers of an entry into its card.
 * @param {Element | undefined} card @param {any} before what stands there, not watched by anybody; it becomes what is shown now. @param {any} now
 * @returns {boolean} false if more than numbers has changed; then nothing is written.
 */
export function writeNumbers(card, before, now) {
  const isSame =
    card &&
    before.rows.length === now.rows.length &&
    JSON.stringify(before.checks) === JSON.stringify(now.checks) &&
    ["where", "verdict", "complete", "note", "problem", "change", "total"].every(
      (name) => before[name] === now[name],
    ) &&
    before.rows.every((row, k) => isSameShape(row, now.rows[k]));
  if (!isSame) return false;
  const rows = card.querySelectorAll(".finding-row");
  if (rows.length !== now.rows.length) return false;
  now.rows.forEach((row, k) => {
    for (const [name, selector] of PLACES) {
      if (before.rows[k][name] === row[name]) continue;
      const element = rows[k].querySelector(selector);
      if (element) element.textContent = row[name];
    }
    Object.assign(before.rows[k], row);
  });
  sayLate(card, before, false);
  return true;
}

/** Say whether an entry is behind, or that it is no more. @param {Element} card @param {any} entry watched by nobody. @param {boolean} isLate */
export function sayLate(card, entry, isLate) {
  if (entry.isLate === isLate) return;
  entry.isLate = isLate;
  card.classList.toggle("is-behind", isLate);
  card.setAttribute("aria-busy", String(isLate));
}

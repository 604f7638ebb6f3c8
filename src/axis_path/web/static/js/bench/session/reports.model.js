// @ts-check
/** What is said to those who listen, in one sentence for each thing that happened; no DOM. */
import { say } from "../../shared/words.js";

/** So many things are named; of more only the number is said. */
const MOST_NAMED = 3;

/** @typedef {{id: number, text: string, name: string | null, kind: string, problem: any, value?: any, why?: any, disabled?: boolean}} Row */

/** Names and texts stand between backticks, which nobody wants to hear. @param {string} text */
export const plain = (text) => text.replaceAll("`", "");

/** @param {Row} row @param {number} k its place */
const nameOf = (row, k) => row.name ?? say("Line {number}", { number: k + 1 });

/** @param {string} text */
const sentence = (text) => (/[.!?…]$/.test(text) ? text : `${text}.`);

/** What a line does, in a sentence. @param {Row} row @param {number} k its place @param {boolean} isNew */
function stateOf(row, k, isNew) {
  const name = nameOf(row, k);
  if (row.disabled) return say("{name} is turned off.", { name });
  if (row.problem)
    return say("Line {number} does not work: {reason}", {
      number: k + 1,
      reason: plain(row.problem.message),
    });
  if (row.kind === "note") return isNew ? say("The note was changed.") : say("A note was added.");
  if (row.value) return say("{name} is {value}.", { name, value: row.value });
  if (row.why) return `${name}: ${plain(row.why.sentence)}`;
  return isNew ? say("{name} is drawn.", { name }) : say("{name} was redrawn.", { name });
}

/**
 * Say what a change did to the lines of a study.
 * @param {Row[]} before @param {Row[]} after @returns {string} empty if nothing changed.
 */
export function reportOf(before, after) {
  const known = new Map(before.map((row) => [row.id, row]));
  const remaining = new Set(after.map((row) => row.id));
  const said = [];
  after.forEach((row, k) => {
    const was = known.get(row.id);
    const isChanged =
      !was ||
      was.text !== row.text ||
      Boolean(was.disabled) !== Boolean(row.disabled) ||
      was.problem?.message !== row.problem?.message;
    if (isChanged) said.push(stateOf(row, k, !was));
  });
  before.forEach((row, k) => {
    if (!remaining.has(row.id)) said.push(say("{name} was deleted.", { name: nameOf(row, k) }));
  });
  if (said.length > MOST_NAMED) return say("{count} lines have changed.", { count: said.length });
  return said.map(sentence).join(" ");
}

/** An answer of the ledger in a sentence. @param {{title: string, variable: string, verdict: string, note: string, problem: string, rows: any[]}} entry */
export function foundReport(entry) {
  if (entry.problem) return `${plain(entry.title)}: ${plain(entry.problem)}`;
  const named = entry.rows.slice(0, MOST_NAMED).map((row) => {
    const label = row.label ? `${row.label} ` : "";
    const where = row.isPlace ? `${entry.variable} = ${row.text}` : row.text;
    return `${label}${where}${row.valueText ? `, ${row.valueText}` : ""}`;
  });
  const more = entry.rows.length - named.length;
  const items = named.length ? ` ${named.join("; ")}${more > 0 ? `; and ${more} more` : ""}.` : "";
  return `${plain(entry.title)}.${items} ${entry.verdict || entry.note}`.trim();
}

/** What the reading line reads. @param {{text: string} | null} reading @param {any[]} rows */
export function readingReport(reading, rows) {
  if (!reading) return "";
  const values = rows
    .filter((row) => row.reading && !row.hidden && row.name)
    .map((row) => `${row.name} ${row.reading.reason ? "is undefined" : row.reading.text}`);
  return `${reading.text}: ${values.join(", ") || "no curve"}`;
}

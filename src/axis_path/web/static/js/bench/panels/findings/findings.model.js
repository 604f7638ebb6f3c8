// @ts-check
/** What the Findings panel says and copies, without the page. */
import { say, sayCount } from "../../../shared/words.js";

/** The rows of which a question can be asked. @param {any[]} rows @param {string[]} kinds */
export function choicesFor(rows, kinds) {
  return rows.filter(
    (row) => row.name && kinds.includes(row.kind) && !row.problem && !row.disabled,
  );
}

/** A number with no more digits than a pixel can tell. @param {number} x @param {number} pixel */
export function shortest(x, pixel) {
  const step = 10 ** Math.floor(Math.log10(pixel));
  return String(Number((Math.round(x / step) * step).toPrecision(12)));
}

/**
 * Say what became of the answers since the last time.
 * @param {{total: number, change: string, doubles: number} | undefined} before
 * @param {any} entry
 */
export function changeOf(before, entry) {
  if (!before || entry.problem) return "";
  const more = entry.total - before.total;
  if (!more) return before.change;
  const doubles = entry.rows.filter((row) =>
    row.flags.some((flag) => flag === "double" || flag === "touches"),
  ).length;
  if (more === -1 && doubles > before.doubles) return say("Two have merged into one.");
  if (more === 1 && doubles < before.doubles) return say("One has separated into two.");
  const count = Math.abs(more);
  return more > 0
    ? sayCount("One has appeared.", "{count} have appeared.", count)
    : sayCount("One is gone.", "{count} are gone.", count);
}

/** An entry as text. @param {any} entry */
export function asText(entry) {
  const lines = [entry.title + (entry.where ? `, ${entry.where}` : "")];
  for (const row of entry.rows) {
    const where =
      row.label && !row.isPlace
        ? `${row.label}: ${row.text}`
        : `${row.label ? `${row.label} ` : ""}${entry.variable} = ${row.text}`;
    const parts = [where, row.decimalText, row.valueText, row.flagText, row.doubt].filter(Boolean);
    lines.push(parts.join("; "));
  }
  return [...lines, entry.verdict, entry.note, entry.remark].filter(Boolean).join("\n");
}

/** An entry as LaTeX. @param {any} entry */
export function asLatex(entry) {
  const lines = entry.rows.map((row) => {
    const decimal = row.decimal ? ` \\approx ${row.decimal.replace("−", "-")}` : "";
    const name = row.isPlace ? `${entry.variable} = ` : row.label ? `\\text{${row.label}: } ` : "";
    return `${name}${row.latex}${decimal}`;
  });
  return `\\begin{aligned}\n${lines.map((line) => `& ${line}`).join(" \\\\\n")}\n\\end{aligned}`;
}

/** An entry as CSV after RFC 4180. @param {any} entry */
export function asCsv(entry) {
  const quoted = (text) => (/[",\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
  const head = ["what", entry.variable, "decimal", "value", "proved", "note"];
  const lines = entry.rows.map((row) => [
    row.label || entry.what,
    row.text,
    row.decimal || row.text,
    row.value,
    row.proved === null ? "" : row.proved ? "yes" : "no",
    row.note,
  ]);
  return `${[head, ...lines]
    .map((line) => line.map((cell) => quoted(String(cell).replaceAll("−", "-"))).join(","))
    .join("\r\n")}\r\n`;
}

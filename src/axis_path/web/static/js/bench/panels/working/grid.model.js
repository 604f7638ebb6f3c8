// @ts-check
/** A matrix as cells and as the text that is typed; no DOM. */

export const MOST_ROWS = 60;
const EMPTY = "0";

/** The text of a matrix; of one column a list. @param {string[][]} cells */
export function typed(cells) {
  const filled = cells.map((row) => row.map((cell) => cell.trim() || EMPTY));
  if (filled[0].length === 1) return `[${filled.map(([cell]) => cell).join(", ")}]`;
  return `[${filled.map((row) => `[${row.join(", ")}]`).join(", ")}]`;
}

/**
 * The cells of a matrix or a list that is written out, and what stands before it; null for any other
 * text, and for rows of different lengths.
 * @param {string} text @returns {{head: string, cells: string[][]} | null}
 */
export function cellsOf(text) {
  const head = /^\s*(?:[\p{L}_][\p{L}0-9_]*\s*=\s*)?/u.exec(text)?.[0] ?? "";
  const body = text.slice(head.length).trim();
  const items = itemsOf(body);
  if (!items) return null;
  const rows = items.map((item) => itemsOf(item));
  if (rows.every((row) => row === null)) return { head, cells: items.map((item) => [item]) };
  const cells = rows.filter((row) => row !== null);
  const width = cells[0].length;
  if (cells.length < rows.length || cells.some((row) => row.length !== width)) return null;
  return { head, cells };
}

/** What stands between the commas of one pair of square brackets. @param {string} text @returns {string[] | null} */
function itemsOf(text) {
  const inner = text.trim();
  if (!inner.startsWith("[") || !inner.endsWith("]")) return null;
  const items = [""];
  let depth = 0;
  for (const sign of inner.slice(1, -1)) {
    if ("([".includes(sign)) depth += 1;
    if (")]".includes(sign)) depth -= 1;
    if (depth < 0) return null;
    if (sign === "," && depth === 0) items.push("");
    else items[items.length - 1] += sign;
  }
  return depth ? null : items.map((item) => item.trim());
}

/** Cells that were copied from a spreadsheet, or written in lines. @param {string} text @returns {string[][]} */
export function pasted(text) {
  const lines = text.replace(/\r/g, "").replace(/\n+$/, "").split("\n");
  const separator = lines.some((line) => line.includes("\t")) ? "\t" : /[;,]/;
  return lines.map((line) => line.split(separator).map((cell) => cell.trim()));
}

/** Put a block of cells in at a place; the grid grows for it. @param {string[][]} cells @param {string[][]} block @param {number} row @param {number} column */
export function withBlock(cells, block, row, column) {
  const height = Math.min(Math.max(cells.length, row + block.length), MOST_ROWS);
  const width = Math.min(
    Math.max(cells[0].length, column + Math.max(...block.map((line) => line.length))),
    MOST_ROWS,
  );
  return Array.from({ length: height }, (_, r) =>
    Array.from({ length: width }, (_, c) => block[r - row]?.[c - column] ?? cells[r]?.[c] ?? ""),
  );
}

/** The same cells with more or fewer rows and columns. @param {string[][]} cells @param {number} rows @param {number} columns */
export function resized(cells, rows, columns) {
  const clamp = (count) => Math.max(1, Math.min(count, MOST_ROWS));
  return Array.from({ length: clamp(rows) }, (_, r) =>
    Array.from({ length: clamp(columns) }, (_, c) => cells[r]?.[c] ?? ""),
  );
}

// @ts-check
/** A matrix that is entered cell by cell; the text that is typed stays in step with it. */

import { say } from "../../../shared/words.js";
import { focusCell, stepOf } from "./cell_keys.js";
import { cellsOf, MOST_ROWS, pasted, resized, typed, withBlock } from "./grid.model.js";

const START = [
  ["", ""],
  ["", ""],
];

export function makeGrid() {
  return {
    isGridOpen: false,
    /** @type {string[][]} */
    cells: START,
    /** What stands before the matrix in the text, as `M = `. */
    gridHead: "",

    get cellRows() {
      return this.cells.map((row, r) => ({
        key: r,
        number: r + 1,
        cells: row.map((text, c) => ({
          key: c,
          text,
          label: say("row {row}, column {column}", { row: r + 1, column: c + 1 }),
          r,
          c,
        })),
      }));
    },
    get gridColumns() {
      return this.cells[0].map((_, c) => c + 1);
    },
    get gridSize() {
      return say("{rows} by {columns}", { rows: this.cells.length, columns: this.cells[0].length });
    },
    get canShrinkRows() {
      return this.cells.length > 1;
    },
    get canShrinkColumns() {
      return this.cells[0].length > 1;
    },
    get isGridFull() {
      return this.cells.length >= MOST_ROWS || this.cells[0].length >= MOST_ROWS;
    },
    toggleGrid() {
      this.isGridOpen = !this.isGridOpen;
      if (!this.isGridOpen) return;
      this.readGrid();
      this.$nextTick(() => this.focusCell(0, 0));
    },
    /** Take over a matrix that is typed; one that is typed otherwise leaves the cells alone. */
    readGrid() {
      const read = cellsOf(this.text);
      if (read) Object.assign(this, { cells: read.cells, gridHead: read.head });
      else if (!this.text.trim()) Object.assign(this, { cells: START, gridHead: "" });
      else this.gridHead = /^\s*[\p{L}_][\p{L}0-9_]*\s*=\s*/u.exec(this.text)?.[0] ?? "";
    },
    /** @param {string[][]} cells */
    putCells(cells) {
      this.cells = cells;
      this.text = this.gridHead + typed(cells);
      this.preview?.();
    },
    cellTyped(event, cell) {
      this.putCells(withBlock(this.cells, [[event.target.value]], cell.r, cell.c));
    },
    cellPasted(event, cell) {
      const block = pasted(event.clipboardData?.getData("text") ?? "");
      if (block.length < 2 && block[0].length < 2) return;
      event.preventDefault();
      this.putCells(withBlock(this.cells, block, cell.r, cell.c));
    },
    cellKey(event, cell) {
      const step = stepOf(event);
      if (!step) return;
      event.preventDefault();
      const [r, c] = [cell.r + step[0], cell.c + step[1]];
      if (event.key === "Enter" && r === this.cells.length) {
        this.addRow();
        this.$nextTick(() => this.focusCell(r, c));
        return;
      }
      // At once: what is typed next belongs to the cell that the key leads to.
      this.focusCell(r, c);
    },
    cellPlace(cell) {
      return `${cell.r},${cell.c}`;
    },
    focusCell(r, c) {
      focusCell(this.$root, r, c);
    },
    addRow() {
      this.putCells(resized(this.cells, this.cells.length + 1, this.cells[0].length));
    },
    addColumn() {
      this.putCells(resized(this.cells, this.cells.length, this.cells[0].length + 1));
    },
    removeRow() {
      this.putCells(resized(this.cells, this.cells.length - 1, this.cells[0].length));
    },
    removeColumn() {
      this.putCells(resized(this.cells, this.cells.length, this.cells[0].length - 1));
    },
  };
}

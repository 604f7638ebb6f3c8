// @ts-check
/**
 * A list or a matrix as a table: a part of it at a time, with the numbers of its rows and columns.
 * Entries that are written out in their line are changed here. What it is a table of, `cellsOf`, is
 * given by the line around it.
 */
import { askFile } from "../../../shared/api.js";
import { saveAs } from "../../../shared/save.js";
import { grouped, say } from "../../../shared/words.js";
import { liveQuery } from "../../transport/live_query.js";
import { focusCell, stepOf } from "./cell_keys.js";
import { MOST_ROWS, pasted } from "./grid.model.js";

const STEP = 20;

/** @param {import("../../session/engine.js").Engine} engine */
export const workCells = (engine) => () => ({
  firstRow: 0,
  firstColumn: 0,
  /** @type {import("#types/answers").WorkCellsAnswer | null} */
  answer: null,
  isBehind: false,
  problem: "",
  /** What was refused, and of which cell: it stays to be corrected. */
  refused: { place: "", text: "" },
  /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),

  init() {
    this.live = liveQuery(engine, "work_cells", {
      take: (answer) => {
        this.answer = answer;
        this.isBehind = this.live.isPending;
        this.firstRow = answer.row;
        this.firstColumn = answer.column;
        if (!this.refused.place) this.problem = "";
      },
      body: () => ({ ...this.cellsOf.query, row: this.firstRow, column: this.firstColumn }),
      behind: (isBehind) => (this.isBehind = isBehind),
      fail: (error) => (this.problem = error.message),
    });
    this.live.ask();
  },
  destroy() {
    this.live.end();
  },
  get shape() {
    const [rows = 0, columns = 1] = this.answer?.shape ?? [];
    return { rows, columns };
  },
  get columnNumbers() {
    const width = this.answer?.cells[0]?.length ?? 0;
    return Array.from({ length: width }, (_, k) => this.firstColumn + k + 1);
  },
  get cellRows() {
    return (this.answer?.cells ?? []).map((cells, k) => ({
      key: k,
      number: this.firstRow + k + 1,
      cells: cells.map((text, key) => ({
        key,
        text,
        title: this.answer?.exact[k][key] ?? "",
        typed: this.answer?.typed[k]?.[key] ?? "",
        label: say("row {row}, column {column}", {
          row: this.firstRow + k + 1,
          column: this.firstColumn + key + 1,
        }),
        r: this.firstRow + k,
        c: this.firstColumn + key,
      })),
    }));
  },
  get partText() {
    const { rows, columns } = this.shape;
    const rowPart = {
      first: this.firstRow + 1,
      last: this.firstRow + this.cellRows.length,
      all: grouped(rows),
    };
    const columnPart = {
      first: this.firstColumn + 1,
      last: this.firstColumn + this.columnNumbers.length,
      all: grouped(columns),
    };
    return [
      this.cellRows.length < rows ? say("rows {first} to {last} of {all}", rowPart) : "",
      this.columnNumbers.length < columns
        ? say("columns {first} to {last} of {all}", columnPart)
        : "",
    ]
      .filter(Boolean)
      .join(", ");
  },
  get isWholeUp() {
    return this.firstRow === 0;
  },
  get isWholeDown() {
    return this.firstRow + STEP >= this.shape.rows;
  },
  get isWholeLeft() {
    return this.firstColumn === 0;
  },
  get isWholeRight() {
    return this.firstColumn + STEP >= this.shape.columns;
  },
  get isScrolled() {
    return this.shape.rows > STEP || this.shape.columns > STEP;
  },
  /** @param {number} down @param {number} right in parts. */
  go(down, right) {
    this.firstRow = Math.max(0, this.firstRow + down * STEP);
    this.firstColumn = Math.max(0, this.firstColumn + right * STEP);
    this.live.ask();
  },
  goUp() {
    this.go(-1, 0);
  },
  goDown() {
    this.go(1, 0);
  },
  goLeft() {
    this.go(0, -1);
  },
  goRight() {
    this.go(0, 1);
  },
  /** Whether the entries are written out in their line. */
  get isWritten() {
    return Boolean(this.answer?.typed.length);
  },
  get isComputed() {
    return this.answer !== null && !this.isWritten;
  },
  get isWrittenMatrix() {
    return this.isWritten && this.answer?.shape.length === 2;
  },
  get canRemoveRow() {
    return this.shape.rows > 1;
  },
  get canRemoveColumn() {
    return this.isWrittenMatrix && this.shape.columns > 1;
  },
  get isFullDown() {
    return this.shape.rows >= MOST_ROWS;
  },
  get isFullRight() {
    return this.shape.columns >= MOST_ROWS;
  },
  cellPlace(cell) {
    return `${cell.r},${cell.c}`;
  },
  /** @param {import("#types/commands").AnyCommand} command */
  async change(command) {
    const error = await engine.commit([command]);
    this.problem = error ? error.message : "";
    return !error;
  },
  async enter(event, cell) {
    const text = event.target.value.trim();
    if (text === cell.typed) return;
    const { r: row, c: column } = cell;
    this.refused = { place: "", text: "" };
    const isDone = await this.change({
      do: "enter_cells",
      ...this.cellsOf.target,
      row,
      column,
      cells: [[text]],
    });
    if (isDone) return;
    this.refused = { place: this.cellPlace(cell), text };
    event.target.focus();
  },
  textIn(cell) {
    const { place, text } = this.refused;
    return place === this.cellPlace(cell) ? text : cell.typed;
  },
  async paste(event, cell) {
    const block = pasted(event.clipboardData?.getData("text") ?? "");
    if (block.length < 2 && block[0].length < 2) return;
    event.preventDefault();
    const { r: row, c: column } = cell;
    await this.change({
      do: "enter_cells",
      ...this.cellsOf.target,
      row,
      column,
      cells: block.slice(0, MOST_ROWS).map((line) => line.slice(0, MOST_ROWS)),
    });
  },
  moveByKey(event, cell) {
    if (event.key === "Escape" && event.target.value !== cell.typed) {
      event.stopPropagation();
      event.target.value = cell.typed;
      this.refused = { place: "", text: "" };
      this.problem = "";
      return;
    }
    const step = stepOf(event);
    if (!step) return;
    event.preventDefault();
    focusCell(this.$root, cell.r + step[0], cell.c + step[1]);
    if (event.key === "Enter") this.enter(event, cell);
  },
  /** @param {number} rows @param {number} columns */
  resize(rows, columns) {
    const size = { rows: this.shape.rows + rows, columns: this.shape.columns + columns };
    return this.change({ do: "resize_cells", ...this.cellsOf.target, ...size });
  },
  addRow() {
    this.resize(1, 0);
  },
  addColumn() {
    this.resize(0, 1);
  },
  removeRow() {
    this.resize(-1, 0);
  },
  removeColumn() {
    this.resize(0, -1);
  },
  async copyCells() {
    const text = this.cellRows.map((row) =>
      row.cells.map((cell) => cell.text.replace("−", "-")).join("\t"),
    );
    try {
      await navigator.clipboard.writeText(text.join("\n"));
      this.$store.bench.say(say("The cells are copied."), true);
    } catch {
      this.$store.bench.say(say("The browser does not allow this page to copy."), true);
    }
  },
  async saveCsv() {
    try {
      const file = await askFile(`${engine.path}/work.csv`, engine.body(this.cellsOf.query));
      saveAs(file, `${this.cellsOf.name}.csv`);
    } catch (error) {
      this.problem = error.message;
    }
  },
});

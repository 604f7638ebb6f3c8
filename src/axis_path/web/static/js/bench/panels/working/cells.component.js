// @ts-check
/** A list or a matrix as a table: a part of it at a time, with the numbers of its rows and columns. */
import { askFile } from "../../../shared/api.js";
import { saveAs } from "../../../shared/save.js";
import { liveQuery } from "../../transport/live_query.js";

const STEP = 20;

/** @param {import("../../session/engine.js").Engine} engine */
export const workCells = (engine) => () => ({
  row: 0,
  column: 0,
  /** @type {import("#types/answers").WorkCellsAnswer | null} */
  answer: null,
  isBehind: false,
  problem: "",
  /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),

  init() {
    this.live = liveQuery(engine, "work_cells", {
      take: (answer) => {
        this.answer = answer;
        this.row = answer.row;
        this.column = answer.column;
        this.problem = "";
      },
      body: () => ({ id: this.line.id, row: this.row, column: this.column }),
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
  get heads() {
    const width = this.answer?.cells[0]?.length ?? 0;
    return Array.from({ length: width }, (_, k) => ({ key: k, text: this.column + k + 1 }));
  },
  get rows() {
    return (this.answer?.cells ?? []).map((cells, k) => ({
      key: k,
      number: this.row + k + 1,
      cells: cells.map((text, key) => ({ key, text, title: this.answer?.exact[k][key] ?? "" })),
    }));
  },
  get partText() {
    const { rows, columns } = this.shape;
    const part = (from, count, all, what) =>
      count < all ? `${what} ${from + 1} to ${from + count} of ${all.toLocaleString("en")}` : "";
    return [
      part(this.row, this.rows.length, rows, "rows"),
      part(this.column, this.heads.length, columns, "columns"),
    ]
      .filter(Boolean)
      .join(", ");
  },
  get isWholeUp() {
    return this.row === 0;
  },
  get isWholeDown() {
    return this.row + STEP >= this.shape.rows;
  },
  get isWholeLeft() {
    return this.column === 0;
  },
  get isWholeRight() {
    return this.column + STEP >= this.shape.columns;
  },
  get isScrolled() {
    return this.shape.rows > STEP || this.shape.columns > STEP;
  },
  /** @param {number} down @param {number} right in parts. */
  go(down, right) {
    this.row = Math.max(0, this.row + down * STEP);
    this.column = Math.max(0, this.column + right * STEP);
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
  async copyCells() {
    const text = this.rows.map((row) =>
      row.cells.map((cell) => cell.text.replace("−", "-")).join("\t"),
    );
    try {
      await navigator.clipboard.writeText(text.join("\n"));
      this.$store.bench.say("The cells are copied.", true);
    } catch {
      this.$store.bench.say("The browser does not let this page copy.", true);
    }
  },
  async saveCsv() {
    try {
      const file = await askFile(`${engine.path}/work.csv`, engine.body({ id: this.line.id }));
      saveAs(file, `${this.line.name ?? "working"}.csv`);
    } catch (error) {
      this.problem = error.message;
    }
  },
});

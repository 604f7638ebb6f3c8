// @ts-check
/** Values: the table of all shown functions. */
import { together } from "../../../shared/together.js";
import { say, sayCount } from "../../../shared/words.js";
import { liveQuery } from "../../transport/live_query.js";
import { makeExactCells } from "./exact_cells.js";
import { makeFinerRows } from "./finer_rows.js";
import { makeRowChoice } from "./row_choice.js";
import { makeTableFiles } from "./table_files.js";
import { makeTableForm } from "./table_form.js";
import { makeTableFrame } from "./table_frame.js";
import { aligned, decimals, SIGNS } from "./values.model.js";

/** @param {import("../../session/engine.js").Engine} engine */
export const values = (engine) => () =>
  together(
    makeTableForm(engine),
    makeTableFrame(),
    makeRowChoice(engine),
    makeFinerRows(),
    makeExactCells(),
    makeTableFiles(engine),
    {
      problem: "",
      reportedTable: "",
      /** Why what was typed could not be kept: it stays until it is typed anew, whatever answers arrive. */
      refused: "",
      /** @type {any[]} */
      columns: [],
      /** How many figures each column has after the point. @type {number[]} */
      figures: [],
      /** The rows that are loaded. @type {any[]} */
      lines: [],
      variable: "x",
      variableUnit: "",
      count: 0,
      /** The column that is looked at. */
      chosenColumn: "",
      isBehind: false,
      // Alpine puts what is not declared here into the outermost component.
      /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (
        null
      ),
      /** @type {import("../../transport/live_query.js").LiveQuery} */ exact: /** @type {any} */ (
        null
      ),

      init() {
        const isOpen = () => this.$store.bench.tab === "values";
        this.live = liveQuery(engine, "table", {
          take: (answer, body) => this.take(answer, body),
          body: () => ({
            ...(this.isSeeking ? { around: this.sought } : { from: this.wantedFrom }),
            ...this.stretch(),
          }),
          isOpen,
          behind: (isBehind) => (this.isBehind = isBehind),
          mark: () => {
            this.exact.drop();
            if (isOpen()) this.exactCells = [];
          },
          keepsLate: true,
        });
        this.exact = liveQuery(engine, "exact_cells", {
          take: (answer) => this.takeExact(answer),
          fail: (error) => {
            this.isLooking = false;
            this.hadNoTime = true;
            engine.complain(error);
          },
          outdated: () => this.askExact(),
          // It is asked for with the rows.
          isOpen: () => false,
        });
        this.readSpec();
        this.$watch("$store.bench.table", () => this.readSpec());
        this.$watch("$store.bench.valueWanted", (x) => this.seek(x));
        this.$watch("$store.bench.reading", (reading) => this.followReading(reading));
        // It is made when its tab is first opened: what happened before is taken over.
        this.followReading(this.$store.bench.reading);
        if (this.$store.bench.valueWanted !== null) this.seek(this.$store.bench.valueWanted);
        else this.live.ask();
      },
      destroy() {
        this.live.end();
        this.exact.end();
      },
      /** Announce a table that differs from the last one. */
      reportTable({ count, columns, problem }) {
        const words = problem
          ? say("No table: {problem}", { problem })
          : sayCount("Table of {count} row: {names}.", "Table of {count} rows: {names}.", count, {
              names: columns.map((column) => column.name).join(", "),
            });
        if (words !== this.reportedTable) this.$store.bench.said = words;
        this.reportedTable = words;
      },
      /** @param {import("#types/answers").TableAnswer} answer @param {any} body */
      take(answer, body) {
        const { table } = answer;
        // Another answer may have been on its way when the place was sought.
        const isSought = this.isSeeking && body.around === this.sought;
        this.problem = table.problem ?? "";
        this.reportTable(table);
        this.count = table.count;
        this.from = this.wantedFrom = table.from;
        this.variable = table.variable ?? "x";
        this.variableUnit = table.variable_unit
          ? say("in {unit}", { unit: table.variable_unit })
          : "";
        this.columns = table.columns.map((column, key) => ({
          ...column,
          key,
          unitText: column.unit ? say("in {unit}", { unit: column.unit }) : "",
          className: column.problem
            ? "is-lost"
            : column.tone === undefined || column.tone === null
              ? "is-added"
              : `tone-${column.tone % 8}`,
          description: column.problem || SERIES_TOLD[column.series].replace("…", column.text),
        }));
        if (!this.columns.some((column) => column.name === this.chosenColumn))
          this.chosenColumn = "";
        const decimalPlaces = this.columns.map((_, j) =>
          Math.max(0, ...table.rows.map((row) => decimals(row.cells[j].text))),
        );
        // Numbers that come into sight stand under those that are there.
        const isMore =
          body.isScroll && !decimalPlaces.some((decimals, j) => decimals > this.figures[j]);
        if (!isMore) this.figures = decimalPlaces;
        const previous = new Map(isMore ? this.lines.map((line) => [line.row, line]) : []);
        this.lines = /** @type {any[]} */ (
          Object.freeze(
            table.rows.map((row, k) => {
              const before = previous.get(row.row);
              if (before?.isWhole) return before;
              return Object.freeze({
                ...row,
                // Of the last rows it is not known yet what happens after them.
                isWhole: k + 2 < table.rows.length,
                sign: [...new Set(row.happenings.map(({ what }) => SIGNS[what]))].join(""),
                description: row.happenings.map(({ sentence }) => sentence).join("; "),
                next:
                  table.rows[Math.max(0, ...row.happenings.map(({ last }) => last - table.from))] ??
                  table.rows[k + 1],
                cells: row.cells.map((cell, j) => ({
                  shown: aligned(cell.text, this.figures[j]),
                  reason: cell.reason,
                  isUndefined: !cell.text,
                })),
              });
            }),
          )
        );
        this.place(isSought);
        this.isBehind = this.live.isPending || !engine.picture.isOf(body.drafts);
        if (isSought) {
          this.standAt(this.around[0]);
          this.isSeeking = false;
        }
        this.askExact();
      },
      get problemText() {
        return this.refused || this.problem;
      },
      get isEmptyTable() {
        return this.$store.bench.isReady && !this.columns.length && !this.isBehind;
      },
      get hasTable() {
        return this.columns.length > 0 && this.lines.length > 0;
      },
      get reasons() {
        const line = this.lines.find((row) => row.row === this.current);
        if (!line) return "";
        const missing = line.cells
          .map((cell, k) => (cell.isUndefined ? `${this.columns[k].name}: ${cell.reason}` : ""))
          .filter(Boolean);
        return missing.length
          ? say("No value at {place}. {reasons}.", { place: line.x, reasons: missing.join("; ") })
          : "";
      },

      chooseColumn(column) {
        this.chosenColumn = this.chosenColumn === column.name ? "" : column.name;
      },
    },
  );

const SERIES_TOLD = {
  value: say("Values of …"),
  difference: say("… in each row, minus the row before"),
  ratio: say("… in each row, divided by the row before"),
  sum: say("The sum of … over all rows so far"),
};

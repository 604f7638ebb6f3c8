// @ts-check
/** Data: columns that are typed, pasted or loaded, what they look like, and curves fitted to them. */

import { together } from "../../../shared/together.js";
import { say } from "../../../shared/words.js";
import { liveQuery } from "../../transport/live_query.js";
import { makeCells } from "./cells.js";
import { shownColumn, titleOf } from "./columns.model.js";
import { makeFitForm } from "./fit_form.js";
import { makeReading } from "./reading.js";
import { makeRowFilter } from "./row_filter.js";

/** @param {import("../../session/engine.js").Engine} engine */
export const dataPanel = (engine) => () =>
  together(makeReading(engine), makeCells(), makeFitForm(engine), makeRowFilter(engine), {
    /** @type {any[]} */
    columns: [],
    /** @type {any[]} */
    lines: [],
    /** @type {any[]} */
    plots: [],
    /** @type {any[]} */
    fits: [],
    rowCount: 0,
    from: 0,
    isBehind: false,
    dataProblem: "",
    // Alpine puts what is not declared here into the outermost component.
    /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (
      null
    ),

    init() {
      this.live = liveQuery(engine, "data", {
        take: (answer) => this.take(answer),
        body: () => ({ from: this.from, ...(this.wanted ? { predict: this.wanted } : {}) }),
        isOpen: () => this.$store.bench.tab === "data",
        behind: (isBehind) => (this.isBehind = isBehind),
      });
      this.live.ask();
      this.$watch("$store.bench.droppedFile", (file) => this.loadDropped(file));
      this.loadDropped(this.$store.bench.droppedFile);
    },
    destroy() {
      this.live.end();
    },
    /** @param {import("#types/answers").DataAnswer} answer */
    take(answer) {
      const { data } = answer;
      this.rowCount = data.count;
      this.from = data.from;
      this.columns = data.columns.map(shownColumn);
      if (this.knownFilter === null || this.filterText === this.knownFilter)
        this.filterText = data.filter;
      this.knownFilter = data.filter;
      this.filterProblem = data.filter_problem;
      this.keptCount = data.kept;
      this.chosenRows = data.chosen;
      const isChosen = new Set(data.chosen);
      const shown = Math.max(0, ...data.columns.map((column) => column.cells.length));
      // One row more is there to be written into.
      this.lines = Array.from({ length: shown + 1 }, (_, k) => ({
        row: data.from + k,
        number: data.from + k + 1,
        isOut: data.out[k] === true,
        isChosen: isChosen.has(data.from + k),
        cells: data.columns.map((column) => ({
          name: column.name,
          row: data.from + k,
          text: column.cells[k] ?? "",
          isFixed: column.formula !== "",
          label: say("{name}, row {row}", { name: column.name, row: data.from + k + 1 }),
        })),
      }));
      this.plots = data.plots.map((plot) => ({
        ...plot,
        words: [say("{y} against {x}", { y: plot.y, x: plot.x }), ...errorsOf(plot)].join(", "),
        awayLabel: say("Remove points: {y} against {x}", { y: plot.y, x: plot.x }),
      }));
      this.fits = data.fits.map((fit) => ({
        ...fit,
        title: titleOf(fit),
        coefficients: fit.coefficients ?? [],
        residuals: fit.residuals ?? [],
      }));
      const names = data.columns.map((column) => column.name);
      this.columnNames = names;
      if (!names.includes(this.yError)) this.yError = "";
      if (!names.includes(this.xError)) this.xError = "";
      if (!names.includes(this.xName)) this.xName = names[0] ?? "";
      if (!names.includes(this.yName)) this.yName = names[1] ?? names[0] ?? "";
      this.isBehind = this.live.isPending;
    },

    get hasColumns() {
      return this.columns.length > 0;
    },
    get lostColumns() {
      return this.columns.filter((column) => column.problem);
    },
    get hasLostColumns() {
      return this.lostColumns.length > 0;
    },
    get hasPair() {
      return this.columns.length > 1;
    },
    get hasMore() {
      return this.rowCount > this.lines.length - 1;
    },
    get pageText() {
      return say("rows {first} to {last} of {count}", {
        first: this.from + 1,
        last: this.from + this.lines.length - 1,
        count: this.rowCount,
      });
    },
    earlierRows() {
      this.from = Math.max(this.from - 200, 0);
      this.live.ask();
    },
    laterRows() {
      if (this.from + 200 < this.rowCount) this.from += 200;
      this.live.ask();
    },
    async change(command) {
      const error = await engine.commit([command]);
      this.dataProblem = error ? error.message : "";
      return error;
    },
    get hasPlots() {
      return this.plots.length > 0;
    },
  });

/** The columns of a plot that give its error bars. @param {any} plot */
const errorsOf = (plot) => [plot.y_error, plot.x_error].filter(Boolean).map((name) => `± ${name}`);

// @ts-check
/** Data: columns that are typed, pasted or loaded, what they look like, and curves fitted to them. */

import { put } from "../../plane/svg.js";
import { together } from "../../rows/together.js";
import { liveQuery } from "../../transport/live_query.js";
import { barsOf, residualParts } from "./data.model.js";
import { makeReading } from "./reading.js";

const MODELS = [
  { value: "linear", words: "a line" },
  { value: "polynomial", words: "a polynomial" },
  { value: "exponential", words: "an exponential" },
  { value: "power", words: "a power" },
  { value: "logarithmic", words: "a logarithm" },
  { value: "sinusoidal", words: "a sine" },
  { value: "logistic", words: "a logistic curve" },
  { value: "formula", words: "a formula of my own" },
];

/** @param {import("../../session/engine.js").Engine} engine */
export const dataPanel = (engine) => () =>
  together(makeReading(engine), {
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
    xName: "",
    yName: "",
    model: "linear",
    degree: "2",
    ownFormula: "",
    ownStart: "",
    fitProblem: "",
    /** A column that is to be calculated. */
    madeName: "",
    madeFormula: "",
    filterText: "",
    filterProblem: "",
    filterRefused: "",
    /** What the filter was in the last answer. @type {string | null} */
    knownFilter: null,
    /** @type {any} */
    keptCount: null,
    /** @type {any[]} */
    chosenRows: [],
    yError: "",
    xError: "",
    /** What is predicted: for which fit, of which side, and where. @type {any} */
    wanted: null,
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
          label: `${column.name}, row ${data.from + k + 1}`,
        })),
      }));
      this.plots = data.plots.map((plot) => ({
        ...plot,
        words: `${plot.y} against ${plot.x}${[plot.y_error, plot.x_error]
          .filter(Boolean)
          .map((name) => `, ± ${name}`)
          .join("")}`,
        awayLabel: `Take the points away: ${plot.y} against ${plot.x}`,
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
    get models() {
      return MODELS;
    },
    get isPolynomial() {
      return this.model === "polynomial";
    },
    get isFormula() {
      return this.model === "formula";
    },
    get hasMore() {
      return this.rowCount > this.lines.length - 1;
    },
    get pageText() {
      return `rows ${this.from + 1} to ${this.from + this.lines.length - 1} of ${this.rowCount}`;
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

    addColumn() {
      const taken = new Set(this.columns.map((column) => column.name));
      let k = this.columns.length + 1;
      while (taken.has(`col${k}`)) k += 1;
      this.change({ do: "columns", columns: [{ name: `col${k}`, cells: [], unit: "" }] });
    },
    async writeCell(cell, event) {
      const text = event.target.value.trim();
      if (text === cell.text) return;
      const error = await this.change({ do: "cell", name: cell.name, row: cell.row, text });
      if (error) event.target.value = cell.text;
    },
    async renameColumn(column, event) {
      const match = /^\s*(.*?)\s*(?:\/\s*(.*?))?\s*$/.exec(event.target.value);
      const to = match?.[1] ?? "";
      const unit = match?.[2] ?? "";
      if (to === column.name && unit === column.unit) return;
      const error = await this.change({ do: "rename_column", name: column.name, to, unit });
      if (error) event.target.value = column.head;
    },
    removeColumn(column) {
      this.change({ do: "remove_column", name: column.name });
    },
    sortBy(column) {
      this.change({ do: "sort_columns", name: column.name, falls: this.fallsNow(column) });
    },
    /** A column that rises already is turned round. */
    fallsNow(column) {
      const values = column.cells.filter(Boolean).map((text) => Number(text.replace("−", "-")));
      return values.length > 1 && values.every((value, k) => k === 0 || values[k - 1] <= value);
    },
    drawPoints() {
      this.change({
        do: "plot",
        x: this.xName,
        y: this.yName,
        x_error: this.xError,
        y_error: this.yError,
      });
    },
    takePointsAway(plot) {
      this.change({ do: "plot", x: plot.x, y: plot.y, away: true });
    },

    async calculate() {
      const error = await this.change({
        do: "calculate",
        name: this.madeName.trim(),
        formula: this.madeFormula,
      });
      if (!error) this.madeName = this.madeFormula = "";
    },
    get canCalculate() {
      return this.madeName.trim() !== "" && this.madeFormula.trim() !== "";
    },
    async writeFormula(column, event) {
      const formula = event.target.value.trim();
      if (formula === column.formula) return;
      const error = await this.change({ do: "calculate", name: column.name, formula });
      if (error) event.target.value = column.formula;
    },

    async filterRows() {
      const error = await engine.commit([{ do: "filter_rows", text: this.filterText }]);
      this.filterRefused = error ? error.message : "";
    },
    get filterTold() {
      return this.filterRefused || this.filterProblem;
    },
    get filterNote() {
      return this.keptCount === null
        ? ""
        : `${this.keptCount} of ${this.rowCount} rows are kept; the others take no part in points, fits and summaries.`;
    },
    /** Draw a box around points on the plane. */
    chooseByBox() {
      this.$store.bench.isChoosing = !this.$store.bench.isChoosing;
    },
    get hasChosen() {
      return Boolean(this.$store.bench.dataBox);
    },
    get chosenText() {
      const count = this.chosenRows.length;
      return count
        ? `${count} ${count === 1 ? "row is" : "rows are"} chosen.`
        : "No point lies in this box.";
    },
    get hasPlots() {
      return this.plots.length > 0;
    },
    get isChosenEmpty() {
      return !this.chosenRows.length;
    },
    async keepChosen() {
      const { x, y } = this.plots[0];
      if (!(await this.change({ do: "filter_rows", rows: [...this.chosenRows], x, y })))
        this.chooseNone();
    },
    async deleteChosen() {
      if (!(await this.change({ do: "remove_rows", rows: [...this.chosenRows] })))
        this.chooseNone();
    },
    chooseNone() {
      this.$store.bench.dataBox = null;
      engine.look();
      engine.changed();
    },

    async makeSliders() {
      const error = await engine.commit([{ do: "try_formula", formula: this.ownFormula }]);
      this.fitProblem = error ? error.message : "";
    },
    async fitCurve() {
      /** @type {import("#types/commands").FitCurve} */
      const command = {
        do: "fit",
        model: this.model,
        x: this.xName,
        y: this.yName,
        drawn: true,
      };
      if (this.isPolynomial) command.degree = Number(this.degree);
      if (this.isFormula) {
        command.formula = this.ownFormula;
        command.start = startOf(this.ownStart);
      }
      const error = await engine.commit([command]);
      this.fitProblem = error ? error.message : "";
      if (!error) this.$store.bench.say("The fitted curve is drawn, and follows the data.", "undo");
    },
    predict(wanted) {
      this.wanted = wanted;
      this.live.ask();
    },
  });

/** `p = 10, q = 1` as numbers by their names. @param {string} text */
function startOf(text) {
  const pairs = text.split(/[,;]/).map((part) => part.split("=").map((each) => each.trim()));
  return Object.fromEntries(
    pairs
      .filter((pair) => pair.length === 2 && pair[0] && Number.isFinite(Number(pair[1])))
      .map(([name, value]) => [name, Number(value)]),
  );
}

const MODEL_TITLES = {
  linear: "Line",
  polynomial: "Polynomial",
  exponential: "Exponential",
  power: "Power",
  logarithmic: "Logarithm",
  sinusoidal: "Sine",
  logistic: "Logistic curve",
  formula: "Formula",
};

const titleOf = (fit) =>
  `${MODEL_TITLES[fit.model] ?? fit.model}${fit.model === "polynomial" ? ` of degree ${fit.degree}` : ""}: ${fit.y} against ${fit.x}`;

/** A column as the panel shows it, with the names of its fields. @param {any} column */
const shownColumn = (column) => ({
  ...column,
  head: column.unit ? `${column.name} / ${column.unit}` : column.name,
  nameLabel: `Name of the column ${column.name}`,
  sortLabel: `Sort by ${column.name}`,
  deleteLabel: `Delete the column ${column.name}`,
  formulaLabel: `Formula of ${column.name}`,
  lost: column.problem ? `${column.name}: ${column.problem}` : "",
  plotLabel: `Histogram and box of ${column.name}`,
  ...toldOf(column.summary),
});

/** A column in a few numbers, and the bars of its histogram. @param {any} summary */
function toldOf(summary) {
  if (!summary) return { told: [], bars: "", boxPath: "" };
  const number = (value) =>
    value === null ? "—" : String(Number(value.toPrecision(6))).replace("-", "−");
  const rows = [
    ["count", summary.count],
    ["missing", summary.missing],
    ["mean", summary.mean],
    ["standard deviation", summary.sd],
    ["least", summary.least],
    ["first quartile", summary.quartiles[0]],
    ["median", summary.quartiles[1]],
    ["third quartile", summary.quartiles[2]],
    ["greatest", summary.greatest],
  ];
  return {
    told: rows.map(([name, value]) => ({ name, value: number(value) })),
    ...barsOf(summary),
  };
}

/** @param {import("../../session/engine.js").Engine} engine */
export const fitCard = (engine) => () => ({
  at: "",
  side: "x",

  init() {
    this.$watch("fit", () => this.paint());
    this.$nextTick(() => this.paint());
  },
  paint() {
    if (this.$refs.residuals) put(this.$refs.residuals, residualParts(this.fit.residuals));
  },
  get isGood() {
    return !this.fit.problem;
  },
  get followText() {
    return this.fit.follows
      ? `The definition ${this.fit.follows} follows this fit: it changes with the data.`
      : "";
  },
  get canFollow() {
    return !this.fit.follows;
  },
  get removeFitLabel() {
    return `Remove: ${this.fit.title}`;
  },
  get residualLabel() {
    return `Residuals of ${this.fit.y} against ${this.fit.x}`;
  },
  get curveText() {
    return `y = ${this.fit.form}`;
  },
  get qualityText() {
    return `r² = ${this.fit.r_squared}; residual standard deviation ${this.fit.residual_sd}, ${this.fit.freedom} degree${this.fit.freedom === 1 ? "" : "s"} of freedom`;
  },
  addFit() {
    engine.carryOut([{ do: "follow_fit", fit: this.fit.id }]);
  },
  removeFit() {
    engine.carryOut([{ do: "unfit", fit: this.fit.id }]);
  },
  predictHere() {
    const value = Number(this.at.replace("−", "-").replace(",", "."));
    if (this.at.trim() && Number.isFinite(value))
      this.predict({ fit: this.fit.id, of: this.side, value });
  },
});

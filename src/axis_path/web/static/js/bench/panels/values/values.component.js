// @ts-check
/** Values: the table of all shown functions. */
import { askFile } from "../../../shared/api.js";
import { saveAs } from "../../../shared/save.js";
import { liveQuery } from "../../transport/live_query.js";
import { askWindow, showAt } from "../../viewport/actions.js";
import { aligned, decimals, PART, plainNumber, Rows, rowsAround, SIGNS } from "./values.model.js";
import { editPlace, lineOf, markRows, paintRows, rowOf } from "./values.paint.js";

/** @param {import("../../session/engine.js").Engine} engine */
export const values = (engine) => () => ({
  start: "",
  stop: "",
  step: "",
  rows: "",
  places: "",
  digits: "6",
  /** @type {import("#types/commands").NumberForm} */
  form: "significant",
  /** The slider whose values the rows are; empty for those of the variable. */
  over: "",
  at: "1",
  /** How the places are given: by a step, by their number, or one by one. */
  by: "step",
  problem: "",
  toldTable: "",
  /** Why what was typed could not be kept: it stays until it is typed anew, whatever answers arrive. */
  refused: "",
  known: {},
  /** Stretches that are looked at more finely, each inside the one before. @type {{from: string, to: string, words: string}[]} */
  finer: [],
  copied: "",
  /** @type {any[]} */
  columns: [],
  /** How many figures each column has after the point. @type {number[]} */
  figures: [],
  /** The rows that are loaded. @type {any[]} */
  lines: [],
  variable: "x",
  count: 0,
  from: 0,
  wantedFrom: 0,
  /** The row at the top of the frame, and how high a row and the frame are, in pixels. */
  topRow: 0,
  rowHeight: 28,
  frameHeight: 400,
  /** @type {any} */
  current: null,
  /** Where a selection of rows began. @type {number | null} */
  anchor: null,
  isExtending: false,
  /** The column that is looked at. */
  chosenColumn: "",
  wantsExact: false,
  /** @type {any[]} */
  exactCells: [],
  hadNoTime: false,
  isLooking: false,
  isBehind: false,
  /** The place around which the rows are marked: the reading line's, or that of a finding. @type {number | null} */
  sought: null,
  /** Whether the rows around it are to come into sight. */
  isSeeking: false,
  // Alpine puts what is not declared here into the outermost component.
  /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),
  /** @type {import("../../transport/live_query.js").LiveQuery} */ exact: /** @type {any} */ (null),

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
  /** A table that has become another one is told. */
  reportTable({ count, columns, problem }) {
    const words = problem
      ? `No table: ${problem}`
      : `Table of ${count} ${count === 1 ? "row" : "rows"}: ${columns.map((column) => column.name).join(", ")}.`;
    if (words !== this.toldTable) this.$store.bench.said = words;
    this.toldTable = words;
  },
  /** Take over what is kept, but leave alone what was typed since. */
  readSpec() {
    const {
      start,
      stop,
      step,
      count = "",
      listed = "",
      digits = 6,
      form = "significant",
      over = "",
      at = "1",
    } = this.$store.bench.table;
    const kept = {
      start,
      stop,
      step,
      rows: count,
      places: listed,
      digits: String(digits),
      form,
      over,
      at,
    };
    for (const [name, value] of Object.entries(kept)) {
      if (this.known[name] === undefined || this[name] === this.known[name]) this[name] = value;
    }
    if (kept.rows !== this.known.rows || kept.places !== this.known.places)
      this.by = listed ? "own" : count ? "count" : "step";
    this.known = kept;
  },
  /** The stretch that is looked at more finely, if any. */
  stretch() {
    const last = this.finer.at(-1);
    return last ? { finer: [last.from, last.to] } : {};
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
    this.columns = table.columns.map((column, key) => ({
      ...column,
      key,
      className: column.problem
        ? "is-lost"
        : column.tone === undefined || column.tone === null
          ? "is-added"
          : `tone-${column.tone % 8}`,
      told: column.problem || SERIES_TOLD[column.series].replace("…", column.text),
    }));
    if (!this.columns.some((column) => column.name === this.chosenColumn)) this.chosenColumn = "";
    const places = this.columns.map((_, j) =>
      Math.max(0, ...table.rows.map((row) => decimals(row.cells[j].text))),
    );
    // Numbers that come into sight stand under those that are there.
    const isMore = body.isScroll && !places.some((each, j) => each > this.figures[j]);
    if (!isMore) this.figures = places;
    const kept = new Map(isMore ? this.lines.map((line) => [line.row, line]) : []);
    this.lines = /** @type {any[]} */ (
      Object.freeze(
        table.rows.map((row, k) => {
          const before = kept.get(row.row);
          if (before?.isWhole) return before;
          return Object.freeze({
            ...row,
            // Of the last rows it is not known yet what happens after them.
            isWhole: k + 2 < table.rows.length,
            sign: [...new Set(row.happenings.map(({ what }) => SIGNS[what]))].join(""),
            told: row.happenings.map(({ sentence }) => sentence).join("; "),
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
    this.isBehind = this.live.isPending || !engine.isShown(body.drafts);
    if (isSought) {
      this.standAt(this.around[0]);
      this.isSeeking = false;
    }
    this.askExact();
  },

  /** The rows at the place that is sought, or on either side of it. */
  get around() {
    return this.over ? [] : rowsAround(this.lines, this.sought);
  },
  /** Make a row the present one, and bring it into sight. */
  standAt(line) {
    if (!line) return;
    this.anchor = this.current = line.row;
    this.exactCells = [];
    this.markRows();
    rowOf(this.$refs.frame, line.row)?.scrollIntoView({ block: "nearest" });
  },
  /** The reading line was moved: the rows around it are marked, and come into sight. */
  followReading(reading) {
    const x = reading ? reading.value : null;
    if (x === this.sought) return;
    this.sought = x;
    // A table over a slider has no places of the reading line.
    if (x === null || this.over || !this.lines.length) return this.hasTable && this.markRows();
    // It was moved from here, by the choice of a row.
    if (this.chosenLine?.value === engine.reading) return this.markRows();
    const [line] = this.around;
    this.isSeeking = this.$store.bench.tab !== "values" || !line;
    this.current = this.anchor = null;
    this.standAt(line);
    this.markRows();
    this.askExact();
    // What stands here stays true while the rows of the place are on their way.
    if (!line && this.isLong && !this.isFiner && this.$store.bench.tab === "values")
      this.live.askMore(() => ({ around: this.sought }));
  },
  get problemText() {
    return this.refused || this.problem;
  },
  get rowTotal() {
    return this.count + 1;
  },
  /** The sliders over which a table can run. */
  get tableSliders() {
    return this.$store.bench.sliders.map(({ id, name }) => ({
      id,
      name,
      words: `values of ${name}`,
      isOver: name === this.over,
    }));
  },
  get isEmptyTable() {
    return this.$store.bench.isReady && !this.columns.length && !this.isBehind;
  },
  get hasTable() {
    return this.columns.length > 0 && this.lines.length > 0;
  },
  get reasons() {
    const line = this.lines.find((each) => each.row === this.current);
    if (!line) return "";
    const missing = line.cells
      .map((cell, k) => (cell.isUndefined ? `${this.columns[k].name}: ${cell.reason}` : ""))
      .filter(Boolean);
    return missing.length ? `No value at ${line.x}. ${missing.join("; ")}.` : "";
  },

  get isByStep() {
    return this.by === "step";
  },
  get isByCount() {
    return this.by === "count";
  },
  get isOwn() {
    return this.by === "own";
  },
  async keep() {
    const { start, stop, step, form, over, at } = this;
    const wanted = {
      start,
      stop,
      step,
      count: this.isByCount ? this.rows : "",
      listed: this.isOwn ? this.places : "",
      digits: Number(this.digits),
      form,
      over,
      at,
    };
    if ((this.isByCount && !wanted.count) || (this.isOwn && !wanted.listed)) return;
    const kept = {
      start: this.known.start,
      stop: this.known.stop,
      step: this.known.step,
      count: this.known.rows,
      listed: this.known.places,
      digits: Number(this.known.digits),
      form: this.known.form,
      over: this.known.over,
      at: this.known.at,
    };
    this.refused = "";
    if (JSON.stringify(wanted) === JSON.stringify(kept)) return;
    this.toTheTop();
    this.finer = [];
    const error = await engine.commit([{ do: "table", ...wanted }]);
    this.refused = error ? error.message : "";
    if (error)
      Object.assign(this, { start, stop, step, rows: wanted.count, places: wanted.listed });
  },

  /** Look more finely between two rows: that is how a zero is found by hand. */
  lookFiner(line) {
    const next = line.next ?? this.lines[this.lines.findIndex((each) => each.row === line.row) + 1];
    if (!next) return;
    this.finer.push({ from: line.typed, to: next.typed, words: `between ${line.x} and ${next.x}` });
    this.toTheTop();
    this.live.ask();
  },
  lookCoarser() {
    this.finer.pop();
    this.toTheTop();
    this.live.ask();
  },
  get isFiner() {
    return this.finer.length > 0;
  },
  get finerText() {
    return this.finer.at(-1)?.words ?? "";
  },
  /** Other rows come: nothing of these is chosen any more. */
  toTheTop() {
    this.from = this.wantedFrom = this.topRow = 0;
    this.current = this.anchor = null;
    this.exactCells = [];
    if (this.$refs.frame) this.$refs.frame.scrollTop = 0;
  },
  /** The present row. */
  get chosenLine() {
    return this.lines.find((each) => each.row === this.current);
  },
  get canLookFiner() {
    return Boolean(this.chosenLine?.next);
  },
  finerHere() {
    if (this.chosenLine) this.lookFiner(this.chosenLine);
  },
  /** The rows that stand here, for a spreadsheet. */
  async copyRows() {
    const head = [this.variable, ...this.columns.map((column) => column.name)].join("\t");
    const chosen = this.hasSelection
      ? this.lines.filter((line) => this.isSelected(line.row))
      : this.lines;
    const rows = chosen.map((line) =>
      [line.x, ...line.cells.map((cell) => (cell.isUndefined ? "" : plainNumber(cell.shown)))]
        .map(plainNumber)
        .join("\t"),
    );
    await navigator.clipboard.writeText([head, ...rows].join("\n"));
    this.copied = `${rows.length} row${rows.length === 1 ? "" : "s"} copied.`;
  },
  withUnits: false,
  withExact: false,
  isSaving: false,
  isPrinting: false,
  async save(kind) {
    this.isSaving = true;
    this.refused = "";
    try {
      const chosen = engine.body({ units: this.withUnits, exact: this.withExact });
      saveAs(await askFile(`${engine.path}/table.${kind}`, chosen), `values.${kind}`);
    } catch (error) {
      this.refused = error.message;
    }
    this.isSaving = false;
  },
  saveCsv() {
    return this.save("csv");
  },
  saveWorkbook() {
    return this.save("xlsx");
  },
  /** Print the table alone. */
  async printRows() {
    this.isPrinting = true;
    document.body.classList.add("prints-table");
    await this.$nextTick();
    print();
    document.body.classList.remove("prints-table");
    this.isPrinting = false;
  },

  /** Show the two rows that stand around a place. */
  seek(x) {
    if (x === null) return;
    this.sought = x;
    this.isSeeking = true;
    this.$store.bench.valueWanted = null;
    this.live.ask();
  },
  get soughtText() {
    if (this.sought === null || !this.lines.length) return "";
    return this.over || this.around.length ? "" : "The table does not reach this place.";
  },
  choose(line) {
    if (this.current === line.row && !this.isExtending) return;
    this.anchor = this.isExtending ? (this.anchor ?? this.current) : line.row;
    this.current = line.row;
    this.markRows();
    this.askExact();
    // The rows of a table over a slider are no places of the reading line.
    if (!this.over) showAt(engine, line.value, true);
  },
  /** A click, a double click or the focus in a row. */
  touchRow(event) {
    const line = lineOf(event);
    if (!line || event.target.closest("input")) return;
    if (event.type === "dblclick") this.edit(line);
    else if (event.target.closest(".row-happens")) event.type === "click" && this.lookFiner(line);
    else this.choose(line);
  },
  press(event) {
    this.isExtending = event.shiftKey;
  },
  release() {
    this.isExtending = false;
  },
  isSelected(row) {
    const { anchor, current } = this;
    if (anchor === null || current === null || anchor === current) return false;
    return row >= Math.min(anchor, current) && row <= Math.max(anchor, current);
  },
  get hasSelection() {
    return this.anchor !== null && this.current !== null && this.anchor !== this.current;
  },
  get canFrame() {
    return this.hasSelection && !this.over;
  },
  /** Look at the stretch between the first and the last selected row. */
  frameRows() {
    const ends = this.lines.filter((line) => this.isSelected(line.row)).map((line) => line.value);
    if (ends.length > 1)
      askWindow(engine, { how: "rows", from: Math.min(...ends), to: Math.max(...ends) });
  },

  /** Change the place of a row: from then on the table has places of its own. */
  edit(line) {
    if (this.isLong || this.isFiner) {
      this.refused = this.isFiner
        ? "Go back to the whole table to change a place."
        : `Places can be changed in a table of at most ${this.lines.length} rows.`;
      return;
    }
    editPlace(this.$refs.frame, line, (typed) => typed && this.writePlace(line, typed));
  },
  async writePlace(line, typed) {
    const listed = this.lines.map((each) => (each === line ? typed : each.typed)).join("; ");
    const error = await engine.commit([{ do: "table", listed }]);
    this.refused = error ? error.message : "";
  },

  /** Exact values of the present row, where there are any. */
  toggleExact() {
    this.wantsExact = !this.wantsExact;
    this.exactCells = [];
    this.askExact();
  },
  askExact() {
    const line = this.chosenLine;
    if (!this.wantsExact || !line) return;
    // While the rows are behind it is asked when they have come.
    this.isLooking = true;
    if (!this.isBehind) this.exact.askMore(() => ({ place: line.typed, ...this.stretch() }));
  },
  /** @param {import("#types/answers").ExactCellsAnswer} answer */
  takeExact(answer) {
    this.isLooking = false;
    this.exactCells = answer.cells.map((cell, key) => ({ ...cell, key }));
    this.hadNoTime = Boolean(answer.note);
  },
  get exactNote() {
    if (!this.wantsExact) return "";
    if (!this.chosenLine) return "Choose a row to see its exact values.";
    if (this.isLooking) return "Looking for exact forms …";
    const missing = this.hadNoTime
      ? "There was not enough time to look for exact forms; choose Exact values once more."
      : "No exact form is known here.";
    return this.exactCells.length
      ? `Exactly, at ${this.variable} = ${this.chosenLine.x}:`
      : missing;
  },

  chooseColumn(column) {
    this.chosenColumn = this.chosenColumn === column.name ? "" : column.name;
  },
  key(event) {
    if (event.target.closest("button, input, select")) return;
    if (event.key === "Enter" && this.canLookFiner) this.finerHere();
    if (event.key === "F2" && this.chosenLine) this.edit(this.chosenLine);
    if (event.key === "Backspace" && this.isFiner) this.lookCoarser();
    const by = { ArrowUp: -1, ArrowDown: 1, PageUp: -10, PageDown: 10 }[event.key];
    if (!by || !this.lines.length) return;
    event.preventDefault();
    const present = this.lines.findIndex((each) => each.row === this.current);
    const next = Math.min(Math.max(present + by, 0), this.lines.length - 1);
    rowOf(this.$refs.frame, this.lines[next].row)?.focus();
  },

  get pageText() {
    if (this.isPrinting)
      return `rows ${inGroups(this.from + 1)} to ${inGroups(this.from + this.lines.length)} of ${inGroups(this.count)}`;
    const seen = Math.max(Math.round(this.frameHeight / this.rowHeight) - 1, 1);
    const first = Math.min(Math.round(this.topRow), Math.max(this.count - seen, 0)) + 1;
    return `rows ${inGroups(first)} to ${inGroups(Math.min(first + seen - 1, this.count))} of ${inGroups(this.count)}`;
  },
  get isLong() {
    return this.count > this.lines.length;
  },
  /** The loaded rows among all. */
  get rowsInFrame() {
    return new Rows({
      count: this.count,
      from: this.from,
      loaded: this.lines.length,
      height: this.rowHeight,
    });
  },
  /** Paint the rows, leave room for those that are not loaded, and keep the one at the top where it is, unless another place was sought. */
  place(isSought) {
    const { frame, above, below } = this.$refs;
    const spaces = [above, below].map((space) => space.parentElement);
    // The frame must not get lower than it is scrolled while rows come and go.
    below.style.height = `${frame.scrollHeight + frame.clientHeight}px`;
    paintRows(spaces[0], spaces[1], this.lines);
    this.markRows();
    this.rowHeight = rowOf(frame, this.from)?.getBoundingClientRect().height || this.rowHeight;
    const rows = this.rowsInFrame;
    if (isSought) this.topRow = this.from;
    above.style.height = `${rows.above}px`;
    if (rows.squeeze < 1 && this.topRow >= this.from) frame.scrollTop = rows.topOf(this.topRow);
    below.style.height = `${rows.below}px`;
    this.frameHeight = frame.clientHeight || this.frameHeight;
  },
  markRows() {
    const { current, from } = this;
    markRows(this.$refs.frame, {
      current,
      first: from,
      around: this.around,
      isSelected: (row) => this.isSelected(row),
    });
  },
  scrolled() {
    const { scrollTop, clientHeight } = this.$refs.frame;
    const rows = this.rowsInFrame;
    this.topRow = rows.rowAt(scrollTop, clientHeight);
    this.frameHeight = clientHeight;
    const wanted = rows.wanted(this.topRow, clientHeight);
    if (wanted === null || wanted === this.wantedFrom) return;
    this.wantedFrom = wanted;
    // What stands here stays true while more of it is on its way.
    this.live.askMore(() => ({
      isScroll: true,
      from: this.wantedFrom,
      rows: PART,
      ...this.stretch(),
    }));
  },
});

const SERIES_TOLD = {
  value: "Values of …",
  difference: "… in each row, less the row before",
  ratio: "… in each row, divided by the row before",
  sum: "The sum of … over all rows up to each",
};
const inGroups = (number) => String(number).replace(/\B(?=(\d{3})+$)/g, ",");

// @ts-check
/** Values: the table of all shown functions. */
import { ask, askFile } from "../shared/api.js";
import { Follower } from "../shared/follower.js";
import { saveAs } from "../shared/save.js";
import { showAt } from "./steer.js";

/** @param {import("./engine.js").Engine} engine */
export const values = (engine) => () => ({
  start: "",
  stop: "",
  step: "",
  rows: "",
  places: "",
  digits: "6",
  form: "significant",
  /** How the places are given: by a step, by their number, or one by one. */
  by: "step",
  problem: "",
  /** Why what was typed could not be kept: it stays until it is typed anew, whatever answers arrive. */
  refused: "",
  known: {},
  /** Stretches that are looked at more finely, each inside the one before. @type {{from: string, to: string, words: string}[]} */
  finer: [],
  copied: "",
  columns: [],
  lines: [],
  count: 0,
  from: 0,
  current: null,
  isBehind: false,
  /** The place around which the rows are marked. @type {number | null} */
  sought: null,
  isSeeking: false,
  // Alpine puts what is not declared here into the outermost component.
  follower: null,
  watcher: null,

  init() {
    this.follower = new Follower(
      (body, dropped) => ask(`${engine.path}/table`, body, dropped),
      (answer) => this.take(answer),
      (error) => engine.complain(error),
    );
    this.watcher = { mark: () => this.mark(), ask: () => this.ask() };
    engine.watchers.add(this.watcher);
    this.readSpec();
    this.$watch("$store.bench.table", () => this.readSpec());
    this.$watch("$store.bench.isReady", () => this.ask());
    this.$watch("$store.bench.valueWanted", (x) => this.seek(x));
  },
  destroy() {
    this.follower.drop();
    engine.watchers.delete(this.watcher);
  },
  /** Take over what is kept, but leave alone what was typed since. */
  readSpec() {
    const { start, stop, step, count = "", listed = "", digits = 6, form = "significant" } = this.$store.bench.table;
    const kept = { start, stop, step, rows: count, places: listed, digits: String(digits), form };
    for (const [name, value] of Object.entries(kept)) {
      if (this.known[name] === undefined || this[name] === this.known[name]) this[name] = value;
    }
    if (kept.rows !== this.known.rows || kept.places !== this.known.places) this.by = listed ? "own" : count ? "count" : "step";
    this.known = kept;
  },
  /** What stands here belongs to the state before, until the answer comes. */
  mark() {
    this.follower.drop();
    if (this.$store.bench.tab === "values") this.isBehind = true;
  },
  ask() {
    if (this.$store.bench.tab !== "values" || !engine.size.width) return;
    this.isBehind = true;
    this.follower.ask(() => engine.body({ ...(this.isSeeking ? { around: this.sought } : { from: this.from }), ...this.stretch() }));
  },
  /** The stretch that is looked at more finely, if any. */
  stretch() {
    const last = this.finer.at(-1);
    return last ? { finer: [last.from, last.to] } : {};
  },
  take(answer) {
    if (answer.version !== engine.version) return;
    const { table } = answer;
    this.problem = table.problem ?? "";
    this.count = table.count;
    this.from = table.from;
    this.columns = table.columns.map((column) => ({ ...column, className: `tone-${(column.tone ?? 0) % 8}` }));
    const places = this.columns.map((_, j) => Math.max(0, ...table.rows.map((row) => decimals(row.cells[j].text))));
    this.lines = table.rows.map((row, k) => ({
      ...row,
      isCurrent: row.row === this.current,
      isAround: this.isAround(table.rows, k),
      happens: row.happenings.length > 0,
      sign: [...new Set(row.happenings.map(({ what }) => SIGNS[what]))].join(""),
      told: row.happenings.map(({ sentence }) => sentence).join("; "),
      next: table.rows[Math.max(0, ...row.happenings.map(({ last }) => last - table.from))] ?? table.rows[k + 1],
      tab: row.row === this.current || (this.current === null && k === 0) ? 0 : -1,
      cells: row.cells.map((cell, j) => ({ key: j, shown: aligned(cell.text, places[j]), reason: cell.reason, isUndefined: !cell.text })),
    }));
    this.isBehind = this.follower.wish !== null;
    if (this.isSeeking) this.$nextTick(() => this.$root.querySelector(".is-around")?.scrollIntoView({ block: "center" }));
    this.isSeeking = false;
  },

  /** Tell whether a row is one of the two around the place that was sought. */
  isAround(rows, k) {
    const x = this.sought;
    if (x === null) return false;
    const [here, next, before] = [rows[k].value, rows[k + 1]?.value, rows[k - 1]?.value];
    return here === x || (here < x && next > x) || (before < x && here > x);
  },
  get variable() {
    return this.columns[0]?.variable ?? "x";
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
    const line = this.lines.find((each) => each.row === this.current);
    if (!line) return "";
    const missing = line.cells.map((cell, k) => (cell.isUndefined ? `${this.columns[k].name}: ${cell.reason}` : "")).filter(Boolean);
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
    const { start, stop, step } = this;
    const wanted = { start, stop, step, count: this.isByCount ? this.rows : "", listed: this.isOwn ? this.places : "", digits: Number(this.digits), form: this.form };
    if ((this.isByCount && !wanted.count) || (this.isOwn && !wanted.listed)) return;
    const kept = { start: this.known.start, stop: this.known.stop, step: this.known.step, count: this.known.rows, listed: this.known.places, digits: Number(this.known.digits), form: this.known.form };
    this.refused = "";
    if (JSON.stringify(wanted) === JSON.stringify(kept)) return;
    this.from = 0;
    this.current = null;
    this.finer = [];
    const error = await engine.commit([{ do: "table", ...wanted }]);
    this.refused = error ? error.message : "";
    if (error) Object.assign(this, { start, stop, step, rows: wanted.count, places: wanted.listed });
  },

  /** Look more finely between two rows: that is how a zero is found by hand. */
  lookFiner(line) {
    const next = line.next ?? this.lines[this.lines.findIndex((each) => each.row === line.row) + 1];
    if (!next) return;
    this.finer.push({ from: line.typed, to: next.typed, words: `between ${line.x} and ${next.x}` });
    this.from = 0;
    this.current = null;
    this.ask();
  },
  lookCoarser() {
    this.finer.pop();
    this.from = 0;
    this.current = null;
    this.ask();
  },
  get isFiner() {
    return this.finer.length > 0;
  },
  get finerText() {
    return this.finer.at(-1)?.words ?? "";
  },
  /** The rows after which something happens, and the present one. */
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
    const rows = this.lines.map((line) => [line.x, ...line.cells.map((cell) => (cell.isUndefined ? "" : cell.shown.replaceAll(/[\u2007\u2008]/g, "")))].join("\t"));
    await navigator.clipboard.writeText([head, ...rows].join("\n").replaceAll("−", "-"));
    this.copied = `${rows.length} rows copied.`;
  },
  async saveRows() {
    try {
      saveAs(await askFile(`${engine.path}/table.csv`, engine.body()), "values.csv");
    } catch (error) {
      this.refused = error.message;
    }
  },

  /** Show the two rows that stand around a place. */
  seek(x) {
    if (x === null) return;
    this.sought = x;
    this.isSeeking = true;
    this.$store.bench.valueWanted = null;
    this.ask();
  },
  get soughtText() {
    if (this.sought === null || !this.lines.length) return "";
    return this.lines.some((line) => line.isAround) ? "" : "The table does not reach this place.";
  },
  choose(line) {
    if (this.current === line.row) return;
    this.current = line.row;
    for (const each of this.lines) {
      each.isCurrent = each.row === line.row;
      each.tab = each.isCurrent ? 0 : -1;
    }
    showAt(engine, line.value);
  },
  key(event) {
    if (event.key === "Enter" && this.canLookFiner) this.finerHere();
    if (event.key === "Backspace" && this.isFiner) this.lookCoarser();
    const by = { ArrowUp: -1, ArrowDown: 1, PageUp: -10, PageDown: 10 }[event.key];
    if (!by || !this.lines.length) return;
    event.preventDefault();
    const present = this.lines.findIndex((each) => each.row === this.current);
    const next = Math.min(Math.max(present + by, 0), this.lines.length - 1);
    this.$root.querySelector(`[data-value-row="${this.lines[next].row}"]`)?.focus();
  },

  get hasPages() {
    return this.count > this.lines.length;
  },
  get hasEarlier() {
    return this.from > 0;
  },
  get hasLater() {
    return this.from + this.lines.length < this.count;
  },
  get pageText() {
    return `rows ${this.from + 1} to ${this.from + this.lines.length} of ${this.count}`;
  },
  earlier() {
    this.from = Math.max(this.from - this.lines.length, 0);
    this.ask();
  },
  later() {
    this.from += this.lines.length;
    this.ask();
  },
});

/** What happens between two rows, as a sign at the first. */
const SIGNS = { sign: "±", turn: "⌢", meet: "×" };
const FIGURE_SPACE = "\u2007";
const POINT_SPACE = "\u2008";
const decimals = (text) => (text.includes("·") ? 0 : (text.split(".")[1] ?? "").length);

/** A number followed by empty places, so that the points of a column stand under one another. */
function aligned(text, places) {
  if (!text) return "—";
  const missing = places - decimals(text);
  const point = missing > 0 && !text.includes(".") ? POINT_SPACE : "";
  return text.includes("·") ? text : text + point + FIGURE_SPACE.repeat(missing);
}

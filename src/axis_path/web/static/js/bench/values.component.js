// @ts-check
/** Values: the table of all shown functions. */
import { ask } from "../shared/api.js";
import { Follower } from "../shared/follower.js";
import { showAt } from "./steer.js";

/** @param {import("./engine.js").Engine} engine */
export const values = (engine) => () => ({
  start: "",
  stop: "",
  step: "",
  problem: "",
  known: { start: "", stop: "", step: "" },
  columns: [],
  lines: [],
  count: 0,
  from: 0,
  current: null,
  isBehind: false,
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
  },
  destroy() {
    this.follower.drop();
    engine.watchers.delete(this.watcher);
  },
  /** Take over what is kept, but leave alone what was typed since. */
  readSpec() {
    const kept = this.$store.bench.table;
    for (const name of ["start", "stop", "step"]) {
      if (this[name] === this.known[name]) this[name] = kept[name];
    }
    this.known = { ...kept };
  },
  /** What stands here belongs to the state before, until the answer comes. */
  mark() {
    this.follower.drop();
    if (this.$store.bench.tab === "values") this.isBehind = true;
  },
  ask() {
    if (this.$store.bench.tab !== "values" || !engine.size.width) return;
    this.isBehind = true;
    this.follower.ask(() => engine.body({ from: this.from }));
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
      tab: row.row === this.current || (this.current === null && k === 0) ? 0 : -1,
      cells: row.cells.map((cell, j) => ({ key: j, shown: aligned(cell.text, places[j]), reason: cell.reason, isUndefined: !cell.text })),
    }));
    this.isBehind = this.follower.wish !== null;
  },

  get variable() {
    return this.columns[0]?.variable ?? "x";
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

  async keep() {
    const { start, stop, step } = this;
    const present = this.$store.bench.table;
    if (start === present.start && stop === present.stop && step === present.step) return;
    this.from = 0;
    this.current = null;
    const error = await engine.commit([{ do: "table", start, stop, step }]);
    this.problem = error ? error.message : "";
    if (error) Object.assign(this, { start, stop, step });
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

// @ts-check
/** A what-if table: other values of a name, and what they would make of the rest of the study. */
import { askFile } from "../../../shared/api.js";
import { saveAs } from "../../../shared/save.js";
import { say } from "../../../shared/words.js";
import { liveQuery } from "../../transport/live_query.js";

const USUAL = {
  name: "",
  start: "0",
  stop: "10",
  step: "1",
  count: "",
  listed: "",
  columns: /** @type {string[]} */ ([]),
  instead: "",
  is_drawn: true,
};

/** What is typed or chosen in the form. */
const TYPED = ["name", "start", "stop", "step", "count", "listed", "instead", "is_drawn"];

/** @param {import("../../session/engine.js").Engine} engine */
export const whatIf = (engine) => () => ({
  name: "",
  start: "",
  stop: "",
  step: "",
  count: "",
  listed: "",
  instead: "",
  is_drawn: true,
  /** How the values are given: by a step, by their number, or one by one. */
  by: "step",
  added: "",
  problem: "",
  /** What is kept. @type {any} */
  known: null,
  from: 0,
  /** @type {import("#types/answers").WhatIfAnswer | null} */
  answer: null,
  isBehind: false,
  // Alpine puts what is not declared here into the outermost component.
  /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),

  init() {
    this.live = liveQuery(engine, "what_if", {
      take: (answer) => {
        this.answer = answer;
        this.from = answer.from;
        this.isBehind = this.live.isPending;
      },
      body: () => ({ from: this.from }),
      isOpen: () => this.$store.bench.tab === "values",
      behind: (isBehind) => (this.isBehind = isBehind),
    });
    this.readSpec();
    this.$watch("$store.bench.whatIf", () => this.readSpec());
    this.$watch("$store.bench.tab", () => this.live.ask());
    this.live.ask();
  },
  destroy() {
    this.live.end();
  },
  /** Take over what is kept, but leave alone what was typed since. */
  readSpec() {
    const stored = { ...USUAL, ...this.$store.bench.whatIf };
    for (const key of TYPED)
      if (this.known === null || this[key] === this.known[key]) this[key] = stored[key];
    this.by = stored.listed ? "own" : stored.count ? "count" : "step";
    this.known = stored;
  },
  get names() {
    return (this.answer?.names ?? []).map(({ name, text }) => ({
      name,
      text,
      isChosen: name === this.name,
    }));
  },
  get hasNames() {
    return this.names.length > 0;
  },
  get isChosen() {
    return this.name !== "";
  },
  /** The given values of the same set, of which one has to follow from the name instead. */
  get given() {
    return (this.answer?.given ?? []).map((one) => ({
      ...one,
      isChosen: one.name === this.instead,
    }));
  },
  get needsInstead() {
    return this.isChosen && this.given.length > 0;
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
  get unitText() {
    return this.answer?.unit ? say("in {unit}", { unit: this.answer.unit }) : "";
  },
  /** @param {Partial<typeof USUAL>} changes */
  async commit(changes) {
    this.problem = "";
    const error = await engine.commit([{ do: "what_if", ...changes }]);
    if (error) this.problem = error.message;
    return !error;
  },
  choose(event) {
    this.name = event.target.value;
    this.from = 0;
    // Where a given value has to follow from the name, the core chooses the first one.
    this.commit({ name: this.name, instead: "" });
  },
  chooseInstead(event) {
    this.instead = event.target.value;
    this.commit({ instead: this.instead });
  },
  keep() {
    const { start, stop, step } = this;
    const count = this.isByCount ? String(this.count) : "";
    const listed = this.isOwn ? this.listed : "";
    if ((this.isByCount && !count) || (this.isOwn && !listed)) return;
    const wanted = { start, stop, step, count, listed };
    const isSame = Object.entries(wanted).every(([key, value]) => this.known[key] === value);
    if (!isSame) this.commit(wanted);
  },
  async addColumn() {
    const text = this.added.trim();
    if (!text) return;
    if (await this.commit({ columns: [...this.known.columns, text] })) this.added = "";
  },
  removeColumn(column) {
    this.commit({ columns: this.known.columns.filter((text) => text !== column.text) });
  },
  drawIt(event) {
    this.commit({ is_drawn: event.target.checked });
  },
  remove() {
    this.name = "";
    this.commit({ name: "" });
  },

  get columns() {
    return (this.answer?.columns ?? []).map((column, key) => ({
      ...column,
      key,
      head: column.unit
        ? say("{name} in {unit}", { name: column.label, unit: column.unit })
        : column.label,
      removeLabel: say("Remove the column {name}", { name: column.text }),
    }));
  },
  get rows() {
    return (this.answer?.rows ?? []).map(({ row, value, cells }) => ({
      row,
      value,
      cells: cells.map((cell, key) => ({
        key,
        text: cell.text || "–",
        reason: cell.reason,
        isMissing: !cell.text,
      })),
    }));
  },
  get hasTable() {
    return this.isChosen && this.rows.length > 0 && this.columns.length > 0;
  },
  get isWithoutColumns() {
    return this.isChosen && !this.answer?.problem && !this.columns.length;
  },
  get nameHead() {
    const shown = this.names.find((one) => one.isChosen)?.text ?? this.name;
    return this.answer?.unit
      ? say("{name} in {unit}", { name: shown, unit: this.answer.unit })
      : shown;
  },
  get missing() {
    return (this.answer?.missing ?? []).map((sentence, key) => ({ key, sentence }));
  },
  get drawn() {
    return (this.answer?.drawn ?? []).map((sentence, key) => ({ key, sentence }));
  },
  get problemText() {
    return this.problem || (this.isChosen ? (this.answer?.problem ?? "") : "");
  },
  get pageText() {
    const { count = 0 } = this.answer ?? {};
    return say("Rows {first} to {last} of {count}", {
      first: this.from + 1,
      last: this.from + this.rows.length,
      count,
    });
  },
  get isLong() {
    return this.hasTable && (this.answer?.count ?? 0) > this.rows.length;
  },
  get hasBefore() {
    return this.from > 0;
  },
  get hasAfter() {
    return this.from + this.rows.length < (this.answer?.count ?? 0);
  },
  before() {
    this.from = Math.max(this.from - this.rows.length, 0);
    this.live.ask();
  },
  after() {
    this.from += this.rows.length;
    this.live.ask();
  },
  async saveCsv() {
    this.problem = "";
    try {
      const file = await askFile(`${engine.path}/what_if.csv`, engine.body({}));
      saveAs(file, `what-if-${this.name}.csv`);
    } catch (error) {
      this.problem = /** @type {Error} */ (error).message;
    }
  },
});

// @ts-check
/** Working: a scratch calculator whose lines show the exact form and the decimal side by side. */
import { liveQuery } from "../../transport/live_query.js";

const DIGITS = [4, 7, 10, 20, 50, 100, 1000];

/** @param {import("../../session/engine.js").Engine} engine */
export const working = (engine) => () => ({
  text: "",
  digits: "10",
  problem: "",
  /** @type {any[]} */
  lines: [],
  isBehind: false,
  /** Whether a result is waited for, to be told. */
  isTold: false,
  // Alpine puts what is not declared here into the outermost component.
  /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),

  init() {
    this.live = liveQuery(engine, "working", {
      take: (answer) => this.take(answer),
      body: () => ({ digits: Number(this.digits) }),
      isOpen: () => this.$store.bench.tab === "working",
      behind: (isBehind) => (this.isBehind = isBehind),
    });
    this.live.ask();
    this.$watch("digits", () => this.live.ask());
  },
  destroy() {
    this.live.end();
  },
  get choices() {
    return DIGITS.map((count) => ({ value: String(count), words: `${count} digits` }));
  },
  /** @param {import("#types/answers").WorkingAnswer} answer */
  take(answer) {
    this.lines = answer.working.map((line) => ({
      ...line,
      message: line.problem?.message ?? "",
      exact: line.result?.mathml ?? "",
      isPlain: line.result?.is_plain ?? false,
      isEqual: line.result?.is_equal ?? false,
      decimal: line.result ? line.result.decimal : "",
      note: line.result ? line.result.reason || line.result.note : "",
    }));
    this.isBehind = this.live.isPending;
    const last = this.lines[this.lines.length - 1];
    if (this.isTold && last) {
      this.isTold = false;
      this.$store.bench.said = `${last.text}: ${last.message || `${last.decimal} ${last.note}`}`;
    }
  },
  get isEmpty() {
    return this.$store.bench.isReady && !this.lines.length && !this.isBehind;
  },
  async calculate() {
    const text = this.text.trim();
    if (!text) return;
    const error = await engine.commit([{ do: "work", id: null, text }]);
    this.problem = error ? error.message : "";
    this.isTold = !error;
    if (!error) this.text = "";
  },
});

/** @param {import("../../session/engine.js").Engine} engine */
export const workingLine = (engine) => () => ({
  isEditing: false,
  written: "",

  get removeLabel() {
    return `Delete ${this.line.text}`;
  },
  get editLabel() {
    return `Edit ${this.line.text}`;
  },
  get hasFormula() {
    return Boolean(this.line.mathml);
  },
  get showsExact() {
    return Boolean(this.line.exact) && !this.line.isPlain;
  },
  get relation() {
    return this.line.isPlain || this.line.isEqual ? "=" : "≈";
  },
  edit() {
    this.written = this.line.text;
    this.isEditing = true;
    this.$nextTick(() => this.$refs.field.focus());
  },
  cancel() {
    this.isEditing = false;
  },
  keep() {
    if (!this.isEditing) return;
    this.isEditing = false;
    const text = this.written.trim();
    if (text === this.line.text) return;
    engine.carryOut([
      text ? { do: "work", id: this.line.id, text } : { do: "unwork", id: this.line.id },
    ]);
  },
  remove() {
    engine.carryOut([{ do: "unwork", id: this.line.id }]);
  },
});

// @ts-check
/** Working: a scratch calculator whose lines show the exact form and the decimal side by side. */
import { ask } from "../shared/api.js";
import { Follower } from "../shared/follower.js";

const DIGITS = [4, 7, 10, 20, 50, 100, 1000];

/** @param {import("./engine.js").Engine} engine */
export const working = (engine) => () => ({
  text: "",
  digits: "10",
  problem: "",
  lines: [],
  isBehind: false,
  // Alpine puts what is not declared here into the outermost component.
  follower: null,
  watcher: null,

  init() {
    this.follower = new Follower(
      (body, dropped) => ask(`${engine.path}/working`, body, dropped),
      (answer) => this.take(answer),
      (error) => engine.failBeside(error),
    );
    this.watcher = { mark: () => this.mark(), ask: () => this.ask() };
    engine.panels.add(this.watcher);
    this.ask();
    this.$watch("digits", () => this.ask());
  },
  destroy() {
    this.follower.drop();
    engine.panels.delete(this.watcher);
  },
  get choices() {
    return DIGITS.map((count) => ({ value: String(count), words: `${count} digits` }));
  },
  mark() {
    this.follower.drop();
    if (this.$store.bench.tab === "working") this.isBehind = true;
  },
  ask() {
    if (this.$store.bench.tab !== "working" || !engine.size.width) return;
    this.isBehind = true;
    this.follower.ask(() => engine.body({ digits: Number(this.digits) }));
  },
  take(answer) {
    if (answer.version !== engine.version) return;
    this.lines = answer.working.map((line) => ({
      ...line,
      message: line.problem?.message ?? "",
      exact: line.result?.mathml ?? "",
      isPlain: line.result?.is_plain ?? false,
      isEqual: line.result?.is_equal ?? false,
      decimal: line.result ? line.result.decimal : "",
      note: line.result ? line.result.reason || line.result.note : "",
    }));
    this.isBehind = this.follower.wish !== null;
  },
  get isEmpty() {
    return this.$store.bench.isReady && !this.lines.length && !this.isBehind;
  },
  async calculate() {
    const text = this.text.trim();
    if (!text) return;
    const error = await engine.commit([{ do: "work", id: null, text }]);
    this.problem = error ? error.message : "";
    if (!error) this.text = "";
  },
});

/** @param {import("./engine.js").Engine} engine */
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
    engine.carryOut([text ? { do: "work", id: this.line.id, text } : { do: "unwork", id: this.line.id }]);
  },
  remove() {
    engine.carryOut([{ do: "unwork", id: this.line.id }]);
  },
});

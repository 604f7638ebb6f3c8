// @ts-check
/** The sampling check: points of a function over its true curve, and what they miss. */

/** @param {import("../session/engine.js").Engine} engine */
export const samplingCheck = (engine) => () => ({
  line: "",
  count: "5",
  step: "",
  by: "count",
  problem: "",

  init() {
    this.$watch("$store.bench.checkLine", () => this.meet());
    this.meet();
  },
  /** A row has asked for a check of its function. */
  meet() {
    const { checkLine } = this.$store.bench;
    if (checkLine === null) return;
    this.$store.bench.checkLine = null;
    this.line = String(checkLine);
    this.$nextTick(() => {
      this.$root.scrollIntoView({ block: "nearest" });
      this.$root.querySelector("input:not([hidden]), select").focus();
    });
  },
  get functions() {
    return this.$store.bench.functions;
  },
  get hasFunctions() {
    return this.functions.length > 0;
  },
  get shown() {
    return this.$store.bench.check;
  },
  get sentence() {
    return this.shown ? this.shown.sentence : "";
  },
  get isByCount() {
    return this.by === "count";
  },
  get isByStep() {
    return this.by === "step";
  },
  async show() {
    const { functions } = this;
    const line = functions.find((row) => String(row.id) === this.line) ?? functions[0];
    const spec = this.isByCount ? { count: this.count, step: "" } : { count: "", step: this.step };
    const error = await engine.commit([{ do: "check", line: line.id, ...spec }]);
    this.problem = error ? error.message : "";
  },
  hide() {
    engine.carryOut([{ do: "check", line: null }]);
  },
});

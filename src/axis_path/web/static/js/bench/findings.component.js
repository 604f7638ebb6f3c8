// @ts-check
/** Findings: what was located, computed anew with every change. */
import { ask } from "../shared/api.js";
import { Follower } from "../shared/follower.js";
import { unitsOf } from "./affine.model.js";
import { showAt } from "./steer.js";

/** @param {import("./engine.js").Engine} engine */
export const findings = (engine) => () => ({
  line: null,
  where: "window",
  low: "",
  high: "",
  problem: "",
  entries: [],
  isBehind: false,
  // Alpine puts what is not declared here into the outermost component.
  follower: null,
  watcher: null,

  init() {
    this.follower = new Follower(
      (body, dropped) => ask(`${engine.path}/findings`, body, dropped),
      (answer) => this.take(answer),
      (error) => engine.complain(error),
    );
    this.watcher = { mark: () => this.mark(), ask: () => this.ask() };
    engine.watchers.add(this.watcher);
    this.$watch("$store.bench.isReady", () => this.ask());
  },
  destroy() {
    this.follower.drop();
    engine.watchers.delete(this.watcher);
  },
  /** What stands here belongs to the state before, until the answer comes. */
  mark() {
    this.follower.drop();
    if (this.$store.bench.tab === "findings") this.isBehind = true;
  },
  ask() {
    if (this.$store.bench.tab !== "findings" || !engine.size.width) return;
    this.isBehind = true;
    this.follower.ask(() => engine.body());
  },
  take(answer) {
    if (answer.version !== engine.version) return;
    this.entries = answer.findings.map((entry) => ({
      ...entry,
      items: entry.items.map((item, k) => ({ ...item, key: k, decimalText: `≈ ${item.decimal}`, doubt: `found, not proved: ${item.note}` })),
    }));
    this.isBehind = this.follower.wish !== null;
  },

  get functionRows() {
    const rows = this.$store.bench.functions;
    if (rows.length && !rows.some((row) => String(row.id) === String(this.line))) this.line = String(rows[rows.length - 1].id);
    return rows;
  },
  get hasFunctions() {
    return this.$store.bench.functions.length > 0;
  },
  get chosen() {
    return this.$store.bench.functions.find((row) => String(row.id) === String(this.line));
  },
  get hasDomain() {
    const lane = engine.scene?.rows.find((row) => String(row.id) === String(this.line))?.lane;
    return Boolean(this.chosen?.domain && lane?.low && lane?.high);
  },
  get isTyped() {
    return this.where === "typed";
  },
  get isEmptyLedger() {
    return this.hasFunctions && this.$store.bench.isReady && !this.entries.length && !this.isBehind;
  },

  async find() {
    const bounds = this.bounds();
    const error = await engine.commit([{ do: "find", line: Number(this.line), ...bounds }]);
    this.problem = error ? error.message : "";
  },
  bounds() {
    if (this.where === "domain" && this.hasDomain) return { low: null, high: null };
    if (this.where === "typed") return { low: this.low, high: this.high };
    const [low, high] = unitsOf(engine.window.x, engine.window.log_x);
    return { low: shortest(low), high: shortest(high) };
  },
});

/** A bound of the window as a text that the language reads. */
const shortest = (x) => String(Number(x.toPrecision(12)));

/** @param {import("./engine.js").Engine} engine */
export const findingCard = (engine) => () => ({
  get cardTitle() {
    return `Zeros · ${this.entry.name}`;
  },
  get removeLabel() {
    return `Remove the zeros of ${this.entry.name}`;
  },
  goTo(item) {
    showAt(engine, item.x);
  },
  remove() {
    engine.commit([{ do: "forget", ask: this.entry.id }]);
  },
});

// @ts-check
/** Exact forms of the rows' computed values: asked for after the picture, because they may take time. */
import { liveQuery } from "../transport/live_query.js";

/** @param {import("../session/engine.js").Engine} engine */
export const exactForms = (engine) => () => ({
  // Alpine puts what is not declared here into the outermost component.
  /** @type {import("../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),

  init() {
    this.live = liveQuery(engine, "exact", {
      take: (answer) => this.take(answer),
      isOpen: () => this.isNeeded,
      mark: () => this.mark(),
    });
    this.$watch("$store.bench.isReady", () => this.live.ask());
  },
  destroy() {
    this.live.end();
  },
  get isNeeded() {
    return this.$store.bench.rows.some((row) => row.value);
  },
  /** An exact form of the state before does not stay beside a new decimal. */
  mark() {
    if (this.isNeeded) this.$store.bench.exact = {};
  },
  /** @param {import("#types/answers").ExactAnswer} answer */
  take(answer) {
    if (!this.live.isPending && !engine.scenes.isBehind) this.$store.bench.exact = answer.exact;
  },
});

// @ts-check
/** Curves of the what-if table for which equations are solved: asked for after the picture. */
import { liveQuery } from "../../transport/live_query.js";

/** @param {import("../../session/engine.js").Engine} engine */
export const whatIfCurves = (engine) => () => ({
  // Alpine puts what is not declared here into the outermost component.
  /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),

  init() {
    this.live = liveQuery(engine, "what_if_curves", {
      take: ({ curves }, body) =>
        engine.showWhatIf({ curves, window: body.window, drafts: body.drafts }),
      isOpen: () => this.isNeeded,
      seesWindow: true,
    });
    this.$watch("$store.bench.isReady", () => this.live.ask());
    this.$watch("$store.bench.whatIf", () => this.live.ask());
  },
  destroy() {
    this.live.end();
  },
  get isNeeded() {
    const { name, is_drawn: isDrawn = true, columns = [] } = this.$store.bench.whatIf;
    return Boolean(name && isDrawn && columns.length);
  },
});

// @ts-check
/** Exact forms of the rows' computed values: asked for after the picture, because they may take time. */
import { ask } from "../shared/api.js";
import { Follower } from "../shared/follower.js";

/** @param {import("./engine.js").Engine} engine */
export const exactForms = (engine) => () => ({
  // Alpine puts what is not declared here into the outermost component.
  follower: null,
  watcher: null,

  init() {
    this.follower = new Follower(
      (body, dropped) => ask(`${engine.path}/exact`, body, dropped),
      (answer) => this.take(answer),
      (error) => engine.failBeside(error),
    );
    this.watcher = { mark: () => this.mark(), ask: () => this.ask() };
    engine.panels.add(this.watcher);
    this.$watch("$store.bench.isReady", () => this.ask());
  },
  destroy() {
    this.follower.drop();
    engine.panels.delete(this.watcher);
  },
  get isNeeded() {
    return this.$store.bench.rows.some((row) => row.value);
  },
  /** An exact form of the state before does not stay beside a new decimal. */
  mark() {
    this.follower.drop();
    if (this.isNeeded) this.$store.bench.exact = {};
  },
  ask() {
    if (this.isNeeded && engine.size.width) this.follower.ask(() => engine.body());
  },
  take(answer) {
    if (answer.version === engine.version && !this.follower.wish && !engine.scenes.isBehind) this.$store.bench.exact = answer.exact;
  },
});

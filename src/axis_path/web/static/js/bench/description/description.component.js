// @ts-check
/** The plane in words, for those who do not see it or want to read it. */

import { say } from "../../shared/words.js";
import { liveQuery } from "../transport/live_query.js";

/** @param {import("../session/engine.js").Engine} engine */
export const planeWords = (engine) => () => ({
  window: "",
  /** @type {any[]} */
  lines: [],
  /** @type {string[]} */
  data: [],
  isBehind: false,
  // Alpine puts what is not declared here into the outermost component.
  /** @type {import("../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),

  init() {
    this.live = liveQuery(engine, "description", {
      take: (answer) => this.take(answer),
      isOpen: () => this.$store.bench.isDescribed,
      behind: (isBehind) => (this.isBehind = isBehind),
      seesWindow: true,
    });
    this.$watch("$store.bench.isDescribed", (isOpen) => {
      if (!isOpen) return;
      this.live.ask();
      this.$nextTick(() => this.$root.focus());
    });
  },
  destroy() {
    this.live.end();
  },
  /** @param {import("#types/answers").DescriptionAnswer} answer */
  take({ window, lines, data }) {
    const heard = new Set(engine.hearing.rows.map((row) => row.id));
    this.window = window;
    this.data = data;
    this.lines = lines.map((line) => ({
      ...line,
      canHear: heard.has(line.id),
      hearLabel: say("Hear {name}", { name: line.text.split("=")[0].trim() }),
    }));
    this.isBehind = this.live.isPending;
  },
  get isEmpty() {
    return !this.lines.length && !this.data.length && !this.isBehind;
  },
  hear(line) {
    engine.hearing.toggle(line.id);
  },
  close() {
    this.$store.bench.isDescribed = false;
  },
});

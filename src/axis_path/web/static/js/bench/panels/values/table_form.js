// @ts-check
/** What the table is made from: its values of x, its numbers, and the slider it runs over. */
import { say } from "../../../shared/words.js";

/** @param {import("../../session/engine.js").Engine} engine */
export function makeTableForm(engine) {
  return {
    start: "",
    stop: "",
    step: "",
    rows: "",
    ownAbscissae: "",
    digits: "6",
    /** @type {import("#types/commands").NumberForm} */
    form: "significant",
    /** The slider whose values the rows are; empty for those of the variable. */
    over: "",
    at: "1",
    /** How the places are given: by a step, by their number, or one by one. */
    by: "step",
    known: {},
    /** Take over what is kept, but leave alone what was typed since. */
    readSpec() {
      const {
        start,
        stop,
        step,
        count = "",
        listed = "",
        digits = 6,
        form = "significant",
        over = "",
        at = "1",
      } = this.$store.bench.table;
      const stored = {
        start,
        stop,
        step,
        rows: count,
        ownAbscissae: listed,
        digits: String(digits),
        form,
        over,
        at,
      };
      for (const [name, value] of Object.entries(stored)) {
        if (this.known[name] === undefined || this[name] === this.known[name]) this[name] = value;
      }
      if (stored.rows !== this.known.rows || stored.ownAbscissae !== this.known.ownAbscissae)
        this.by = listed ? "own" : count ? "count" : "step";
      this.known = stored;
    },
    /** The sliders over which a table can run. */
    get tableSliders() {
      return this.$store.bench.sliders.map(({ id, name }) => ({
        id,
        name,
        words: say("values of {name}", { name }),
        isOver: name === this.over,
      }));
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
    async keep() {
      const { start, stop, step, form, over, at } = this;
      const wanted = {
        start,
        stop,
        step,
        count: this.isByCount ? this.rows : "",
        listed: this.isOwn ? this.ownAbscissae : "",
        digits: Number(this.digits),
        form,
        over,
        at,
      };
      if ((this.isByCount && !wanted.count) || (this.isOwn && !wanted.listed)) return;
      const kept = {
        start: this.known.start,
        stop: this.known.stop,
        step: this.known.step,
        count: this.known.rows,
        listed: this.known.ownAbscissae,
        digits: Number(this.known.digits),
        form: this.known.form,
        over: this.known.over,
        at: this.known.at,
      };
      this.refused = "";
      if (JSON.stringify(wanted) === JSON.stringify(kept)) return;
      this.toTheTop();
      this.finer = [];
      const error = await engine.commit([{ do: "table", ...wanted }]);
      this.refused = error ? error.message : "";
      if (error)
        Object.assign(this, { start, stop, step, rows: wanted.count, ownAbscissae: wanted.listed });
    },
  };
}

// @ts-check
/** Which rows take part: a filter, and rows chosen by a box on the plane. */
import { say, sayCount } from "../../../shared/words.js";

/** @param {import("../../session/engine.js").Engine} engine */
export function makeRowFilter(engine) {
  return {
    filterText: "",
    filterProblem: "",
    filterRefused: "",
    /** What the filter was in the last answer. @type {string | null} */
    knownFilter: null,
    /** @type {any} */
    keptCount: null,
    /** @type {any[]} */
    chosenRows: [],

    async filterRows() {
      const error = await engine.commit([{ do: "filter_rows", text: this.filterText }]);
      this.filterRefused = error ? error.message : "";
    },
    get filterTold() {
      return this.filterRefused || this.filterProblem;
    },
    get filterNote() {
      return this.keptCount === null
        ? ""
        : say("{kept} of {count} rows are used. Points, fits and summaries leave out the others.", {
            kept: this.keptCount,
            count: this.rowCount,
          });
    },
    /** Draw a box around points on the plane. */
    chooseByBox() {
      this.$store.bench.isChoosing = !this.$store.bench.isChoosing;
    },
    get hasChosen() {
      return Boolean(this.$store.bench.dataBox);
    },
    get chosenText() {
      const count = this.chosenRows.length;
      return count
        ? sayCount("{count} row is selected.", "{count} rows are selected.", count)
        : say("There is no point in this box.");
    },
    get isChosenEmpty() {
      return !this.chosenRows.length;
    },
    async keepChosen() {
      const { x, y } = this.plots[0];
      if (!(await this.change({ do: "filter_rows", rows: [...this.chosenRows], x, y })))
        this.chooseNone();
    },
    async deleteChosen() {
      if (!(await this.change({ do: "remove_rows", rows: [...this.chosenRows] })))
        this.chooseNone();
    },
    chooseNone() {
      this.$store.bench.dataBox = null;
      engine.look();
      engine.changed();
    },
  };
}

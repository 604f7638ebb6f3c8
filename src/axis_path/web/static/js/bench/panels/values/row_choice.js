// @ts-check
/** Rows that are chosen, and their place beside the reading line. */

import { say } from "../../../shared/words.js";
import { askWindow, showAt } from "../../viewport/actions.js";
import { rowsAround } from "./values.model.js";
import { editPlace, lineOf, rowOf } from "./values.paint.js";

/** @param {import("../../session/engine.js").Engine} engine */
export function makeRowChoice(engine) {
  return {
    /** @type {any} */
    current: null,
    /** Where a selection of rows began. @type {number | null} */
    anchor: null,
    isExtending: false,
    /** The place around which the rows are marked: the reading line's, or that of a finding. @type {number | null} */
    sought: null,
    /** Whether the rows around it are to come into sight. */
    isSeeking: false,

    /** The rows at the place that is sought, or on either side of it. */
    get around() {
      return this.over ? [] : rowsAround(this.lines, this.sought);
    },
    /** Make a row the present one, and bring it into sight. */
    standAt(line) {
      if (!line) return;
      this.anchor = this.current = line.row;
      this.exactCells = [];
      this.markRows();
      rowOf(this.$refs.frame, line.row)?.scrollIntoView({ block: "nearest" });
    },
    /** The reading line was moved: the rows around it are marked, and come into sight. */
    followReading(reading) {
      const x = reading ? reading.value : null;
      if (x === this.sought) return;
      this.sought = x;
      // A table over a slider has no places of the reading line.
      if (x === null || this.over || !this.lines.length) return this.hasTable && this.markRows();
      // It was moved from here, by the choice of a row.
      if (this.chosenLine?.value === engine.reading) return this.markRows();
      const [line] = this.around;
      this.isSeeking = this.$store.bench.tab !== "values" || !line;
      this.current = this.anchor = null;
      this.standAt(line);
      this.markRows();
      this.askExact();
      // What stands here stays true while the rows of the place are on their way.
      if (!line && this.isLong && !this.isFiner && this.$store.bench.tab === "values")
        this.live.askMore(() => ({ around: this.sought }));
    },
    /** The present row. */
    get chosenLine() {
      return this.lines.find((row) => row.row === this.current);
    },

    /** Show the two rows that stand around a place. */
    seek(x) {
      if (x === null) return;
      this.sought = x;
      this.isSeeking = true;
      this.$store.bench.valueWanted = null;
      this.live.ask();
    },
    get soughtText() {
      if (this.sought === null || !this.lines.length) return "";
      return this.over || this.around.length ? "" : say("The table does not reach this value.");
    },
    choose(line) {
      if (this.current === line.row && !this.isExtending) return;
      this.anchor = this.isExtending ? (this.anchor ?? this.current) : line.row;
      this.current = line.row;
      this.markRows();
      this.askExact();
      // The rows of a table over a slider are no places of the reading line.
      if (!this.over) showAt(engine, line.value, true);
    },
    /** A click, a double click or the focus in a row. */
    touchRow(event) {
      const line = lineOf(event);
      if (!line || event.target.closest("input")) return;
      if (event.type === "dblclick") this.edit(line);
      else if (event.target.closest(".row-happens")) event.type === "click" && this.lookFiner(line);
      else this.choose(line);
    },
    press(event) {
      this.isExtending = event.shiftKey;
    },
    release() {
      this.isExtending = false;
    },
    isSelected(row) {
      const { anchor, current } = this;
      if (anchor === null || current === null || anchor === current) return false;
      return row >= Math.min(anchor, current) && row <= Math.max(anchor, current);
    },
    get hasSelection() {
      return this.anchor !== null && this.current !== null && this.anchor !== this.current;
    },
    get canFrame() {
      return this.hasSelection && !this.over;
    },
    /** Look at the stretch between the first and the last selected row. */
    frameRows() {
      const ends = this.lines.filter((line) => this.isSelected(line.row)).map((line) => line.value);
      if (ends.length > 1)
        askWindow(engine, { how: "rows", from: Math.min(...ends), to: Math.max(...ends) });
    },

    /** Change the place of a row: from then on the table has x-values of its own. */
    edit(line) {
      if (this.isLong || this.isFiner) {
        this.refused = this.isFiner
          ? say("Go back to the whole table to change an x-value.")
          : say("x-values can be changed in a table of at most {count} rows.", {
              count: this.lines.length,
            });
        return;
      }
      editPlace(this.$refs.frame, line, (typed) => typed && this.writePlace(line, typed));
    },
    async writePlace(line, typed) {
      const listed = this.lines.map((row) => (row === line ? typed : row.typed)).join("; ");
      const error = await engine.commit([{ do: "table", listed }]);
      this.refused = error ? error.message : "";
    },
    key(event) {
      if (event.target.closest("button, input, select")) return;
      if (event.key === "Enter" && this.canLookFiner) this.finerHere();
      if (event.key === "F2" && this.chosenLine) this.edit(this.chosenLine);
      if (event.key === "Backspace" && this.isFiner) this.lookCoarser();
      const by = { ArrowUp: -1, ArrowDown: 1, PageUp: -10, PageDown: 10 }[event.key];
      if (!by || !this.lines.length) return;
      event.preventDefault();
      const present = this.lines.findIndex((row) => row.row === this.current);
      const next = Math.min(Math.max(present + by, 0), this.lines.length - 1);
      rowOf(this.$refs.frame, this.lines[next].row)?.focus();
    },
  };
}

// @ts-check
/** The frame in which the rows scroll: only a part of a long table is loaded and painted. */

import { say } from "../../../shared/words.js";
import { PART, Rows } from "./values.model.js";
import { markRows, paintRows, rowOf } from "./values.paint.js";

export function makeTableFrame() {
  return {
    from: 0,
    wantedFrom: 0,
    /** The row at the top of the frame, and how high a row and the frame are, in pixels. */
    topRow: 0,
    rowHeight: 28,
    frameHeight: 400,
    get rowTotal() {
      return this.count + 1;
    },
    /** Other rows come: nothing of these is chosen any more. */
    toTheTop() {
      this.from = this.wantedFrom = this.topRow = 0;
      this.current = this.anchor = null;
      this.exactCells = [];
      if (this.$refs.frame) this.$refs.frame.scrollTop = 0;
    },

    get pageText() {
      if (this.isPrinting)
        return say("rows {first} to {last} of {count}", {
          first: inGroups(this.from + 1),
          last: inGroups(this.from + this.lines.length),
          count: inGroups(this.count),
        });
      const seen = Math.max(Math.round(this.frameHeight / this.rowHeight) - 1, 1);
      const first = Math.min(Math.round(this.topRow), Math.max(this.count - seen, 0)) + 1;
      return say("rows {first} to {last} of {count}", {
        first: inGroups(first),
        last: inGroups(Math.min(first + seen - 1, this.count)),
        count: inGroups(this.count),
      });
    },
    get isLong() {
      return this.count > this.lines.length;
    },
    /** The loaded rows among all. */
    get rowsInFrame() {
      return new Rows({
        count: this.count,
        from: this.from,
        loaded: this.lines.length,
        height: this.rowHeight,
      });
    },
    /** Paint the rows, leave room for those that are not loaded, and keep the one at the top where it is, unless another place was sought. */
    place(isSought) {
      const { frame, above, below } = this.$refs;
      const spaces = [above, below].map((space) => space.parentElement);
      // The frame must not get lower than it is scrolled while rows come and go.
      below.style.height = `${frame.scrollHeight + frame.clientHeight}px`;
      paintRows(spaces[0], spaces[1], this.lines);
      this.markRows();
      this.rowHeight = rowOf(frame, this.from)?.getBoundingClientRect().height || this.rowHeight;
      const rows = this.rowsInFrame;
      if (isSought) this.topRow = this.from;
      above.style.height = `${rows.above}px`;
      if (rows.squeeze < 1 && this.topRow >= this.from) frame.scrollTop = rows.topOf(this.topRow);
      below.style.height = `${rows.below}px`;
      this.frameHeight = frame.clientHeight || this.frameHeight;
    },
    markRows() {
      const { current, from } = this;
      markRows(this.$refs.frame, {
        current,
        first: from,
        around: this.around,
        isSelected: (row) => this.isSelected(row),
      });
    },
    scrolled() {
      const { scrollTop, clientHeight } = this.$refs.frame;
      const rows = this.rowsInFrame;
      this.topRow = rows.rowAt(scrollTop, clientHeight);
      this.frameHeight = clientHeight;
      const wanted = rows.wanted(this.topRow, clientHeight);
      if (wanted === null || wanted === this.wantedFrom) return;
      this.wantedFrom = wanted;
      // What stands here stays true while more of it is on its way.
      this.live.askMore(() => ({
        isScroll: true,
        from: this.wantedFrom,
        rows: PART,
        ...this.stretch(),
      }));
    },
  };
}

const inGroups = (number) => String(number).replace(/\B(?=(\d{3})+$)/g, ",");

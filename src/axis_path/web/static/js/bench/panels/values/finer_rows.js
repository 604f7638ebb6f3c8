// @ts-check
/** Looking more finely between two rows: that is how a zero is found by hand. */
import { say } from "../../../shared/words.js";

export function makeFinerRows() {
  return {
    /** Stretches that are looked at more finely, each inside the one before. @type {{from: string, to: string, words: string}[]} */
    finer: [],
    /** The stretch that is looked at more finely, if any. */
    stretch() {
      const last = this.finer.at(-1);
      return last ? { finer: [last.from, last.to] } : {};
    },

    /** Look more finely between two rows: that is how a zero is found by hand. */
    lookFiner(line) {
      const next = line.next ?? this.lines[this.lines.findIndex((row) => row.row === line.row) + 1];
      if (!next) return;
      this.finer.push({
        from: line.typed,
        to: next.typed,
        words: say("between {low} and {high}", { low: line.x, high: next.x }),
      });
      this.toTheTop();
      this.live.ask();
    },
    lookCoarser() {
      this.finer.pop();
      this.toTheTop();
      this.live.ask();
    },
    get isFiner() {
      return this.finer.length > 0;
    },
    get finerText() {
      return this.finer.at(-1)?.words ?? "";
    },
    get canLookFiner() {
      return Boolean(this.chosenLine?.next);
    },
    finerHere() {
      if (this.chosenLine) this.lookFiner(this.chosenLine);
    },
  };
}

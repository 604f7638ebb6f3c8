// @ts-check
/** Exact values of the chosen row, where there are any. */
import { say } from "../../../shared/words.js";

export function makeExactCells() {
  return {
    wantsExact: false,
    /** @type {any[]} */
    exactCells: [],
    hadNoTime: false,
    isLooking: false,

    /** Exact values of the present row, where there are any. */
    toggleExact() {
      this.wantsExact = !this.wantsExact;
      this.exactCells = [];
      this.askExact();
    },
    askExact() {
      const line = this.chosenLine;
      if (!this.wantsExact || !line) return;
      // While the rows are behind it is asked when they have come.
      this.isLooking = true;
      if (!this.isBehind) this.exact.askMore(() => ({ abscissa: line.typed, ...this.stretch() }));
    },
    /** @param {import("#types/answers").ExactCellsAnswer} answer */
    takeExact(answer) {
      this.isLooking = false;
      this.exactCells = answer.cells.map((cell, key) => ({ ...cell, key }));
      this.hadNoTime = Boolean(answer.note);
    },
    get exactNote() {
      if (!this.wantsExact) return "";
      if (!this.chosenLine) return say("Select a row to see its exact values.");
      if (this.isLooking) return say("Looking for exact forms …");
      const missing = this.hadNoTime
        ? say("There was not enough time to look for exact forms. Select Exact values again.")
        : say("No exact form is known here.");
      return this.exactCells.length
        ? say("Exactly, at {variable} = {value}:", {
            variable: this.variable,
            value: this.chosenLine.x,
          })
        : missing;
    },
  };
}

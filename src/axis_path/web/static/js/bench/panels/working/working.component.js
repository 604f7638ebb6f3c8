// @ts-check
/** Working: a calculator whose lines show the exact form and the decimal side by side. */

import { together } from "../../../shared/together.js";
import { say } from "../../../shared/words.js";
import { makeCompletion, rememberLine } from "../../rows/completion.js";
import { makeWriting } from "../../rows/writing.js";
import { liveQuery } from "../../transport/live_query.js";
import { makeGrid } from "./matrix_grid.js";

const DIGITS = [4, 7, 10, 20, 50, 100, 1000];
/** What is computed at all takes its time; the rest of a long Working is asked for after so long. */
const MORE_MS = 50;
const LARGEST_SEED = 2 ** 31;

/** @param {import("../../session/engine.js").Engine} engine */
export const working = (engine) => () =>
  together(
    makeWriting(engine, { isWorking: true }),
    makeCompletion(engine, { recall: "working-" }),
    makeGrid(),
    {
      row: { id: null, text: "" },
      digits: "10",
      problem: "",
      /** @type {any[]} */
      lines: [],
      isBehind: false,
      /** Whether a result is waited for, to be told. */
      isTold: false,
      /** A line that took too long, and is to be computed once more. @type {number | null} */
      again: /** @type {number | null} */ (null),
      // Alpine puts what is not declared here into the outermost component.
      /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (
        null
      ),

      init() {
        this.live = liveQuery(engine, "working", {
          take: (answer) => this.take(answer),
          body: () => ({ digits: Number(this.digits), again: this.again }),
          isOpen: () => this.$store.bench.tab === "working",
          behind: (isBehind) => (this.isBehind = isBehind),
        });
        this.live.ask();
        this.$watch("digits", () => this.live.ask());
      },
      destroy() {
        this.live.end();
      },
      nothing() {},
      get choices() {
        return DIGITS.map((count) => ({
          value: String(count),
          words: say("{count} digits", { count }),
        }));
      },
      get inputLabel() {
        return "Calculate";
      },
      get shownProblem() {
        return this.text ? this.writtenProblem : null;
      },
      get problemText() {
        return this.previewedText;
      },
      /** @param {import("#types/answers").WorkingAnswer} answer */
      take(answer) {
        this.lines = answer.working.map((line, k) => ({ ...line, number: k + 1 }));
        this.isBehind = this.live.isPending;
        this.again = null;
        if (answer.working.some((line) => line.is_waiting))
          setTimeout(() => this.live.ask(), MORE_MS);
        const last = this.lines[this.lines.length - 1];
        if (this.isTold && last) {
          this.isTold = false;
          const { result, problem } = last;
          const { large = "", beside = "", reason = "", note = "" } = result ?? {};
          const words = problem?.message ?? [large, beside, reason || note].join(" ");
          this.$store.bench.said = `${last.text}: ${words}`;
        }
      },
      get isEmpty() {
        return this.$store.bench.isReady && !this.lines.length && !this.isBehind;
      },
      get hasLines() {
        return this.lines.length > 0;
      },
      get drawsRandom() {
        return this.lines.some((line) => line.text.includes("random"));
      },
      async calculate() {
        const text = this.text.trim();
        if (!text) return;
        rememberLine(`working-${engine.store.id}`, text);
        const error = await engine.commit([{ do: "work", id: null, text }]);
        this.problem = error ? error.message : "";
        this.isTold = !error;
        if (error) return;
        Object.assign(this, { text: "", recallAt: null, call: null, isGridOpen: false });
        this.stopOffering();
        this.forgetPreview();
      },
      /** @param {any} line */
      computeAgain(line) {
        this.again = line.id;
        this.live.ask();
      },
      async clearAll() {
        const count = this.lines.length;
        const error = await engine.carryOut([{ do: "clear_work" }]);
        if (error) return;
        document.getElementById("work-line")?.focus();
        this.$store.bench.say(say("{count} lines of Working are deleted.", { count }), "undo");
      },
      drawAgain() {
        const seed = Math.floor(Math.random() * LARGEST_SEED);
        engine.carryOut([{ do: "draw_again", seed }]);
      },
      /** Move a line by one place. @param {any} line @param {number} by */
      shiftLine(line, by) {
        engine.carryOut([{ do: "move_work", id: line.id, to: line.number - 1 + by }]);
      },
    },
  );

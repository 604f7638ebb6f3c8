// @ts-check
/** What a line that is being written shows: how it reads, or what is wrong with it and where. */
import { ask } from "../../shared/api.js";
import { LatestAnswer } from "../../shared/latest_answer.js";
import { say } from "../../shared/words.js";

const SHOWN_LETTERS = 3;

/**
 * @param {import("../session/engine.js").Engine} engine
 * @param {{isWorking?: boolean}} [options] whether it is a line of Working.
 */
export function makeWriting(engine, { isWorking = false } = {}) {
  return {
    text: "",
    previewFormula: "",
    previewDomain: "",
    /** How it is read where it could be meant otherwise. */
    previewHint: "",
    previewedText: "",
    latex: "",
    copied: false,
    /** @type {any} */
    writtenProblem: null,
    /** @type {LatestAnswer | null} */
    previews: null,

    preview() {
      this.previews ??= new LatestAnswer(
        (body) => ask(`${engine.path}/preview`, body),
        (answer) => this.takePreview(answer),
        (error) => engine.failPart(error),
      );
      if (!this.text.trim()) {
        this.forgetPreview();
        return;
      }
      this.previews.ask(() =>
        engine.body({ drafts: [], text: this.text, id: this.row.id, is_working: isWorking }),
      );
    },
    takePreview(answer) {
      // An answer for what was written before would mark the wrong place.
      if (answer.text !== this.text) return;
      this.previewFormula = answer.mathml;
      this.previewDomain = answer.domain;
      this.previewHint = answer.hint;
      this.latex = answer.latex;
      this.copied = false;
      this.writtenProblem = answer.problem;
      this.previewedText = answer.text;
    },
    /** What was refused stays in the field, with the reason; what never arrived is said on top. */
    showRefusal(error) {
      if (error.status !== 400 && error.status !== 413) return;
      this.writtenProblem = { message: error.message, position: [0, 0], letters: [], repair: null };
    },
    forgetPreview() {
      Object.assign(this, {
        previewFormula: "",
        previewDomain: "",
        previewHint: "",
        writtenProblem: null,
        previewedText: "",
        latex: "",
      });
    },

    get problemMessage() {
      return this.shownProblem?.message ?? "";
    },
    get hasPlace() {
      const problem = this.shownProblem;
      return Boolean(problem) && problem.position[1] > problem.position[0];
    },
    get placeBefore() {
      return this.hasPlace ? this.problemText.slice(0, this.shownProblem.position[0]) : "";
    },
    get placeWrong() {
      return this.hasPlace ? this.problemText.slice(...this.shownProblem.position) : "";
    },
    get placeAfter() {
      return this.hasPlace ? this.problemText.slice(this.shownProblem.position[1]) : "";
    },
    get repairText() {
      return this.shownProblem?.repair?.label ?? "";
    },
    /** The text with what is wrong mended. */
    get mendedText() {
      const { position, text } = this.shownProblem.repair;
      return this.problemText.slice(0, position[0]) + text + this.problemText.slice(position[1]);
    },
    get copyText() {
      return this.copied ? say("LaTeX copied") : say("Copy as LaTeX");
    },
    async copyLatex() {
      await navigator.clipboard.writeText(this.latex);
      this.copied = true;
    },
    get slidersText() {
      const letters = this.shownProblem?.letters ?? [];
      if (!letters.length || this.shownProblem.repair) return "";
      if (letters.length > SHOWN_LETTERS)
        return say("Add {count} sliders", { count: letters.length });
      return letters.length === 1
        ? say("Add a slider for {name}", { name: letters[0] })
        : say("Add sliders for {names}", { names: letters.join(", ") });
    },
  };
}

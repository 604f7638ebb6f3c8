// @ts-check
/** One line of Working: its input, its result in the chosen shape, and what can be done with it. */
import { ask } from "../../../shared/api.js";
import { makePopoverMenu } from "../../../shared/popover_menu.js";
import { together } from "../../../shared/together.js";
import { grouped, say } from "../../../shared/words.js";
import { unitOptionsOf } from "../../units.js";
import { complexButtons, shapeButtons, shapeWords } from "./shapes.model.js";
import { paintWhenVisible } from "./sketch.paint.js";

const DIGITS = [0, 4, 7, 10, 20, 50, 100, 1000];

/** The work goes on in the field, once the line that had the focus is gone. */
const focusField = () => document.getElementById("work-line")?.focus();

/** @param {import("../../session/engine.js").Engine} engine */
export const workingLine = (engine) => () =>
  together(makePopoverMenu(), {
    isEditing: false,
    written: "",
    /** All of a long result, once it was asked for. */
    whole: "",
    /** @type {any} */
    sketch: null,
    sketchProblem: "",
    /** Which answer the sketch is of. */
    sketchedLine: null,
    /** Paints the sketch in the colours of another theme. @type {() => void} */
    themed: () => {},
    /** @type {"" | "cells" | "reduction"} */
    opened: /** @type {"" | "cells" | "reduction"} */ (""),

    init() {
      this.$watch("line", () => {
        this.whole = "";
        if (this.sketch || this.canPlot) this.showSketch();
        else this.sketchProblem = "";
      });
      this.sketchWhenVisible();
      const root = this.$root;
      this.themed = () => this.paint(root);
      document.addEventListener("themechange", this.themed);
    },
    destroy() {
      document.removeEventListener("themechange", this.themed);
    },
    /** A curve is sketched below its line as soon as the line is visible. */
    sketchWhenVisible() {
      const observer = new IntersectionObserver((entries) => {
        if (!entries.some((entry) => entry.isIntersecting)) return;
        observer.disconnect();
        if (this.canPlot && !this.sketch) this.showSketch();
      });
      observer.observe(this.$root);
    },
    get isNote() {
      return this.line.kind === "note";
    },
    get noteParts() {
      return this.line.words.map((part, key) => ({ ...part, key }));
    },
    get isCode() {
      return !this.hasFormula && !this.isNote;
    },
    get called() {
      return this.line.name ?? say("line {number}", { number: this.line.number });
    },
    get lineLabel() {
      return say("Calculation {number}: {text}", {
        number: this.line.number,
        text: this.line.text,
      });
    },
    get moreLabel() {
      return say("More for {text}", { text: this.line.text });
    },
    get editLabel() {
      return say("Edit {text}", { text: this.line.text });
    },
    get hasFormula() {
      return Boolean(this.line.mathml);
    },
    get message() {
      return this.line.problem?.message ?? "";
    },
    get result() {
      return this.line.result;
    },
    get hasResult() {
      return Boolean(this.result);
    },
    get formula() {
      return this.whole ? "" : (this.result?.mathml ?? "");
    },
    get large() {
      return this.formula ? "" : this.whole || (this.result?.large ?? "");
    },
    get relation() {
      const isDecimal = this.line.shape !== "exact" || !this.result?.shapes.includes("exact");
      return isDecimal && !this.result?.is_equal && this.result?.kind !== "truth" ? "≈" : "=";
    },
    get beside() {
      return this.hasCorner ? "" : (this.result?.beside ?? "");
    },
    get besideRelation() {
      return this.result?.is_equal ? "=" : "≈";
    },
    /** Of a long list or matrix the first rows stand as a table, unless all of it was asked for. */
    get hasCorner() {
      return !this.whole && Boolean(this.result?.corner.length);
    },
    get showsCorner() {
      return this.hasCorner && !this.isCells;
    },
    get cornerColumns() {
      return this.hasCorner ? this.result.corner[0].map((_, k) => k + 1) : [];
    },
    get cornerRows() {
      return (this.result?.corner ?? []).map((row, key) => ({
        key,
        number: key + 1,
        cells: row.map((text, cellKey) => ({ key: cellKey, text })),
      }));
    },
    openCells() {
      this.open("cells");
    },
    get restText() {
      const { result } = this;
      if (!result || this.whole || this.hasCorner) return "";
      if (result.length <= result.large.length) return "";
      return say("Show all {count} characters", { count: grouped(result.length) });
    },
    get note() {
      return this.result ? this.result.reason || this.result.note : "";
    },
    get sizeText() {
      return shapeWords(this.result?.shape ?? []);
    },
    get waitingText() {
      return this.line.is_waiting ? say("computing …") : "";
    },
    get canRetry() {
      return this.line.problem?.code === "limit.time";
    },
    retry() {
      this.computeAgain(this.line);
    },
    get shapes() {
      return shapeButtons(this.result, this.line.shape);
    },
    get complexShapes() {
      return complexButtons(this.result, this.line.complex_shape);
    },
    get shapesLabel() {
      return say("How to show the result of {name}", { name: this.called });
    },
    get digitsChoices() {
      return DIGITS.map((count) => ({
        value: String(count),
        words: count ? say("{count} digits", { count }) : say("digits"),
      }));
    },
    get hasCells() {
      return Boolean(this.result?.shape.length);
    },
    get isMatrix() {
      return this.result?.shape.length === 2;
    },
    get canReduce() {
      return this.isMatrix || (this.line.kind === "equation" && !this.line.problem);
    },
    get canSketch() {
      const { line } = this;
      if (line.problem) return false;
      return line.variables.length === 1 && line.kind !== "equation" ? true : this.hasCells;
    },
    get isCells() {
      return this.opened === "cells" && this.hasCells;
    },
    /** Equations have no result of their own: what can be done with them stands below. */
    get offersReduction() {
      return this.canReduce && !this.isMatrix && !this.isReduction;
    },
    openReduction() {
      this.open("reduction");
    },
    get isReduction() {
      return this.opened === "reduction" && this.canReduce;
    },
    get menuItems() {
      const { line } = this;
      const offered = [
        this.canSketch && {
          words: this.sketch ? say("Hide the sketch") : say("Sketch"),
          act: () => this.toggleSketch(),
        },
        this.hasCells && { words: say("Open as a table"), act: () => this.open("cells") },
        this.canReduce && { words: say("Reduce the rows …"), act: () => this.open("reduction") },
        {
          words: say("Copy the text"),
          act: () => this.copy(line.text, say("The input is copied.")),
        },
        this.hasResult && {
          words: say("Copy the result"),
          act: () => this.copy(this.whole || this.result.large, say("The result is copied.")),
        },
        line.latex && {
          words: say("Copy as LaTeX"),
          act: () => this.copy(this.asLatex, say("The line is copied as LaTeX.")),
        },
        line.mathml && {
          words: say("Copy as MathML"),
          act: () =>
            this.copy(this.result?.mathml || line.mathml, say("The line is copied as MathML.")),
        },
        !this.canPlot &&
          !this.isNote && { words: say("Make it a definition"), act: () => this.define() },
        { words: say("Move up"), act: () => this.shiftLine(line, -1), isOff: line.number === 1 },
        {
          words: say("Move down"),
          act: () => this.shiftLine(line, 1),
          isOff: line.number === this.lines.length,
        },
        { words: say("Delete"), act: () => this.remove() },
      ];
      return offered
        .filter((item) => item !== false && item)
        .map((item, key) => ({ title: "", isOff: false, ...item, key }));
    },
    get canPlot() {
      return this.line.variables.length === 1 && !this.line.problem;
    },
    get asLatex() {
      const result = this.result?.latex;
      return result ? `${this.line.latex} = ${result}` : this.line.latex;
    },
    /** @param {"cells" | "reduction"} what */
    open(what) {
      this.opened = what;
      const { $root: line } = this;
      // What opened it may be gone by then.
      this.$nextTick(() => line.querySelector(".work-cells, .work-reduction")?.focus());
    },
    /** What the table shows and changes. */
    get cellsOf() {
      const { id } = this.line;
      return {
        query: { id },
        target: { id, in_working: true },
        name: this.line.name ?? "working",
      };
    },
    closeCells() {
      this.close();
    },
    close() {
      this.opened = "";
      this.$refs.more.focus();
    },
    async copy(text, said) {
      try {
        await navigator.clipboard.writeText(text);
        this.$store.bench.say(said, true);
      } catch {
        this.$store.bench.say(say("The browser does not allow this page to copy."), true);
      }
    },
    show(shape) {
      engine.carryOut([{ do: "show_work", id: this.line.id, shape }]);
    },
    showComplex(shape) {
      engine.carryOut([{ do: "show_work", id: this.line.id, complex_shape: shape }]);
    },
    get unitOptions() {
      return unitOptionsOf(this.result?.units);
    },
    get hasUnits() {
      return this.unitOptions.length > 0;
    },
    get unitLabel() {
      return say("Unit of {name}, {measures}", {
        name: this.called,
        measures: this.result?.units?.measures ?? "",
      });
    },
    setUnit(event) {
      engine.carryOut([{ do: "show_work", id: this.line.id, unit: event.target.value }]);
    },
    setDigits(event) {
      engine.carryOut([{ do: "show_work", id: this.line.id, digits: Number(event.target.value) }]);
    },
    get lineDigits() {
      return String(this.line.digits);
    },
    async showRest() {
      const body = engine.body({ id: this.line.id, digits: Number(this.digits) });
      try {
        this.whole = (await ask(`${engine.path}/work_text`, body)).text;
      } catch (error) {
        engine.complain(error);
      }
    },
    toggleSketch() {
      if (this.sketch) this.sketch = null;
      else this.showSketch();
    },
    async showSketch() {
      // The item of the menu that asks for it is gone when the answer comes, and its references with it.
      const { line, $root: root } = this;
      try {
        const sketch = await ask(`${engine.path}/work_sketch`, engine.body({ id: line.id }));
        if (line !== this.line) return;
        this.sketchProblem = "";
        this.sketch = sketch;
        this.paint(root);
      } catch (error) {
        this.sketchProblem = error.message;
        this.sketch = null;
      }
    },
    /** @param {HTMLElement} root */
    paint(root) {
      const canvas = root.querySelector(".work-sketch canvas");
      if (canvas instanceof HTMLCanvasElement && this.sketch) paintWhenVisible(canvas, this.sketch);
    },
    get sketchText() {
      if (!this.sketch) return "";
      const { kind, x, y, is_cut: isCut } = this.sketch;
      const short = (value) => String(Number(value.toPrecision(3))).replace("-", "−");
      if (kind === "curve")
        return say("from {left} to {right}, heights {low} to {high}", {
          left: short(x[0]),
          right: short(x[1]),
          low: short(y[0]),
          high: short(y[1]),
        });
      return isCut ? say("the first entries") : "";
    },
    get sketchLabel() {
      return say("Sketch of {text}", { text: this.line.text });
    },

    edit() {
      this.written = this.line.text;
      this.isEditing = true;
      this.$nextTick(() => {
        const field = this.$refs.field;
        field.focus();
        field.setSelectionRange(field.value.length, field.value.length);
      });
    },
    cancel() {
      this.isEditing = false;
    },
    keep() {
      if (!this.isEditing) return;
      this.isEditing = false;
      const text = this.written.trim();
      if (text === this.line.text) return;
      engine.carryOut([
        text ? { do: "work", id: this.line.id, text } : { do: "unwork", id: this.line.id },
      ]);
    },
    async remove() {
      const error = await engine.carryOut([{ do: "unwork", id: this.line.id }]);
      if (error) return;
      focusField();
      this.$store.bench.say(say("{name} was deleted.", { name: this.called }), "undo");
    },
    async define() {
      const error = await engine.carryOut([{ do: "define_work", id: this.line.id }]);
      if (error) return;
      focusField();
      this.$store.bench.say(
        say("{name} is now a definition of the study.", { name: this.called }),
        "undo",
      );
    },
  });

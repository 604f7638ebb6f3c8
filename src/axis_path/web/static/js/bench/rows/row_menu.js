// @ts-check
/** The menu of a row: what can be done with it besides hiding and playing, and the forms that it opens. */
import { ask } from "../../shared/api.js";
import { say } from "../../shared/words.js";

/** @typedef {"" | "look" | "motion" | "family" | "cells"} Form */

/** @param {import("../session/engine.js").Engine} engine */
export function makeMenu(engine) {
  return {
    /** The form that is open below the row. @type {Form} */
    form: /** @type {Form} */ (""),
    /** What a form could not do. */
    lookProblem: "",

    get moreLabel() {
      return say("More for {name}", { name: this.called });
    },
    /** What the menu offers for this row, in groups. */
    get menuItems() {
      const { row } = this;
      const offered = [
        this.isDrawn && { words: say("Colour and line style …"), act: () => this.openForm("look") },
        this.canTrail && {
          words: this.hasRunner ? say("Runner and trail …") : say("Trail …"),
          act: () => this.openForm("motion"),
        },
        this.canFamily && { words: say("Family of curves …"), act: () => this.openForm("family") },
        this.hasCells && { words: say("Open as a table"), act: () => this.openForm("cells") },
        row.kind === "function" && {
          words: say("Sampling check …"),
          act: () => this.checkSampling(),
        },
        row.kind === "function" &&
          this.isDrawn && {
            words: say("Hear the curve"),
            act: () => engine.hearing.toggle(row.id),
          },
        row.fixed && { words: say("Make it a slider"), act: () => this.unfix() },
        { words: say("Duplicate"), act: () => this.duplicate() },
        this.hasFormula && { words: say("Copy as LaTeX"), act: () => this.copyRow() },
        { words: say("Move up"), act: () => this.shiftRow(-1), isOff: this.number === 1 },
        {
          words: say("Move down"),
          act: () => this.shiftRow(1),
          isOff: this.number === this.shownRows.length,
        },
        !this.isNote && {
          words: row.disabled ? say("Turn on") : say("Turn off"),
          title: row.disabled ? say("Use it again") : say("Keep it without using it"),
          act: () => this.toggleDisabled(),
        },
        { words: say("Delete"), act: () => this.remove() },
      ];
      return offered
        .filter((item) => item !== false && item)
        .map((item, key) => ({ title: "", isOff: false, ...item, key }));
    },
    /** @param {Form} form */
    openForm(form) {
      this.form = form;
      this.lookProblem = "";
      // The item of the menu that opens it is gone by then.
      const { $root: row } = this;
      this.$nextTick(() => {
        const box = row.querySelector(".row-form");
        box?.scrollIntoView({ block: "nearest" });
        box?.querySelector("button, select, input")?.focus();
      });
    },
    closeForm() {
      this.form = "";
      this.$refs.more.focus();
    },
    get isLookForm() {
      return this.form === "look" && this.isDrawn;
    },
    get isMotionForm() {
      return this.form === "motion" && this.canTrail;
    },
    get isFamilyForm() {
      return this.form === "family" && this.canFamily;
    },
    /** Whether the line is a list or a matrix with a name. */
    get hasCells() {
      const { kind, name, problem } = this.row;
      return Boolean(name) && !problem && (kind === "list" || kind === "matrix");
    },
    get isCellsForm() {
      return this.form === "cells" && this.hasCells;
    },
    get cellsLabel() {
      return say("Entries of {name}", { name: this.called });
    },
    get lookLabel() {
      return say("Style of {name}", { name: this.called });
    },
    get motionLabel() {
      return this.hasRunner
        ? say("Runner and trail of {name}", { name: this.called })
        : say("Trail of {name}", { name: this.called });
    },
    get familyLabel() {
      return say("Family of {name}", { name: this.called });
    },

    checkSampling() {
      this.$store.bench.checkLine = this.row.id;
      this.$store.bench.openTab("values");
      engine.view.saveSoon();
    },
    async copyRow() {
      try {
        const body = engine.body({ drafts: [], text: this.row.text, id: this.row.id });
        const { latex } = await ask(`${engine.path}/preview`, body);
        await navigator.clipboard.writeText(latex);
        this.$store.bench.say(say("{name} is copied as LaTeX.", { name: this.called }), true);
      } catch {
        this.$store.bench.say(say("The browser does not allow this page to copy."), true);
      }
    },
    shiftRow(by) {
      const { number } = this;
      this.shift(this.row.id, by);
      this.$store.bench.said = say("{name} is now line {number}.", {
        name: this.called,
        number: number + by,
      });
      this.$refs.more.focus();
    },
    unfix() {
      engine.carryOut([{ do: "fix", id: this.row.id, fixed: false }]);
    },
  };
}

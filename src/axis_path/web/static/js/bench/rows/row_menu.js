// @ts-check
/** The menu of a row: what can be done with it besides hiding and playing, and the forms that it opens. */
import { ask } from "../../shared/api.js";

/** Between the menu and its button, and the edges of the page, in px. */
const GAP_PX = 2;
const EDGE_PX = 6;

/** @typedef {"" | "look" | "motion" | "family"} Form */

/** @param {import("../session/engine.js").Engine} engine */
export function makeMenu(engine) {
  return {
    isMenuOpen: false,
    /** The form that is open below the row. @type {Form} */
    form: /** @type {Form} */ (""),
    /** What a form could not do. */
    lookProblem: "",

    get moreLabel() {
      return `More for ${this.called}`;
    },
    /** What the menu offers for this row, in groups. */
    get menuItems() {
      const { row } = this;
      const offered = [
        this.isDrawn && { words: "Colour and stroke …", act: () => this.openForm("look") },
        this.canTrail && {
          words: this.hasRunner ? "Runner and trail …" : "Trail …",
          act: () => this.openForm("motion"),
        },
        this.canFamily && { words: "Family of curves …", act: () => this.openForm("family") },
        row.kind === "function" && { words: "Sampling check …", act: () => this.checkSampling() },
        row.kind === "function" &&
          this.isDrawn && {
            words: "Hear the curve",
            act: () => engine.hearing.toggle(row.id),
          },
        row.fixed && { words: "Make it a slider", act: () => this.unfix() },
        { words: "Duplicate", act: () => this.duplicate() },
        this.hasFormula && { words: "Copy as LaTeX", act: () => this.copyRow() },
        { words: "Move up", act: () => this.shiftRow(-1), isOff: this.number === 1 },
        {
          words: "Move down",
          act: () => this.shiftRow(1),
          isOff: this.number === this.shownRows.length,
        },
        !this.isNote && {
          words: row.disabled ? "Turn on" : "Turn off",
          title: row.disabled ? "Use it again" : "Keep it without using it",
          act: () => this.toggleDisabled(),
        },
        { words: "Delete", act: () => this.remove() },
      ];
      return offered
        .filter((item) => item !== false && item)
        .map((item, key) => ({ title: "", isOff: false, ...item, key }));
    },
    toggleMenu() {
      if (this.isMenuOpen) return;
      this.isMenuOpen = true;
      this.$nextTick(() => {
        const menu = this.$refs.menu;
        menu.showPopover();
        this.placeMenu(menu);
        menu.querySelector("button:not(:disabled)").focus();
      });
    },
    /** Put the menu below its button, or above where the page ends. */
    placeMenu(menu) {
      const button = this.$refs.more.getBoundingClientRect();
      const { width, height } = menu.getBoundingClientRect();
      const below = button.bottom + GAP_PX;
      const isAbove = below + height > innerHeight - EDGE_PX;
      const top = isAbove ? button.top - GAP_PX - height : below;
      menu.style.left = `${Math.max(EDGE_PX, button.right - width)}px`;
      menu.style.top = `${Math.max(EDGE_PX, top)}px`;
    },
    /** The browser closes it too: by Escape, or by a press beside it. */
    menuToggled(event) {
      if (event.newState !== "closed") return;
      const hadFocus = this.$refs.menu?.contains(document.activeElement);
      this.isMenuOpen = false;
      if (hadFocus || document.activeElement === document.body) this.$refs.more.focus();
    },
    menuKey(event) {
      const items = [...this.$refs.menu.querySelectorAll("button:not(:disabled)")];
      const at = items.indexOf(document.activeElement);
      const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: -1 }[event.key];
      if (event.key === "Tab") this.$refs.menu.hidePopover();
      if (to === undefined) return;
      event.preventDefault();
      items.at(to % items.length)?.focus();
    },
    chooseItem(item) {
      this.$refs.menu.hidePopover();
      this.$refs.more.focus();
      item.act();
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
    get lookLabel() {
      return `Look of ${this.called}`;
    },
    get motionLabel() {
      return this.hasRunner ? `Runner and trail of ${this.called}` : `Trail of ${this.called}`;
    },
    get familyLabel() {
      return `Family of ${this.called}`;
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
        this.$store.bench.say(`${this.called} is copied as LaTeX.`, true);
      } catch {
        this.$store.bench.say("The browser does not let this page copy.", true);
      }
    },
    shiftRow(by) {
      const { number } = this;
      this.shift(this.row.id, by);
      this.$store.bench.said = `${this.called} is line ${number + by} now.`;
      this.$refs.more.focus();
    },
    unfix() {
      engine.carryOut([{ do: "fix", id: this.row.id, fixed: false }]);
    },
  };
}

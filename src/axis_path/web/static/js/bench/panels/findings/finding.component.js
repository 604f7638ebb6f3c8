// @ts-check
/** One entry of the ledger, and one line of it. */
import { ask } from "../../../shared/api.js";
import { saveAs } from "../../../shared/save.js";
import { say } from "../../../shared/words.js";
import { showAt } from "../../viewport/actions.js";
import { asCsv, asLatex, asText } from "./findings.model.js";

/** @param {import("../../session/engine.js").Engine} engine */
export const findingCard = (engine) => () => ({
  isOpen: false,
  copied: "",
  isNoting: false,

  get formulas() {
    return this.entry.mathml.map((mathml, key) => ({ key, mathml }));
  },
  get hasFormulas() {
    return this.entry.mathml.length > 0;
  },
  /** The solutions of a set, put into its equations. */
  get checks() {
    return this.entry.checks.map((check, key) => ({
      ...check,
      key,
      equations: check.equations.map((equation, place) => ({ ...equation, key: place })),
    }));
  },
  get hasChecks() {
    return this.entry.checks.length > 0;
  },
  get removeLabel() {
    return say("Remove: {title}", { title: this.entry.title });
  },
  get moreLabel() {
    return say("Copy, note, labels: {title}", { title: this.entry.title });
  },
  get rest() {
    const hidden = this.entry.total - this.entry.rows.length;
    return hidden > 0 ? say("and {count} more; copying includes them all", { count: hidden }) : "";
  },
  get canLabel() {
    return this.entry.rows.some((row) => row.canShow);
  },
  get isAllLabelled() {
    return this.entry.rows.every((row) => !row.canShow || row.isLabelled);
  },
  get labelText() {
    return this.isAllLabelled ? say("No labels") : say("Label all");
  },
  get hasDraw() {
    return this.entry.draw.length === 2;
  },
  get noteText() {
    return this.entry.remark || this.isNoting ? "" : say("Add a note");
  },
  get showsNote() {
    return Boolean(this.entry.remark) || this.isNoting;
  },
  toggle() {
    this.isOpen = !this.isOpen;
  },
  remove() {
    engine.carryOut([{ do: "forget", query: this.entry.id }]);
  },
  /** All rows, also those that are not shown here. */
  async whole() {
    if (this.entry.total <= this.entry.rows.length) return this.entry;
    const answer = await ask(`${engine.path}/findings`, engine.body({ whole: this.entry.id }));
    const answered = answer.findings.find((entry) => entry.id === this.entry.id);
    return {
      ...this.entry,
      rows: answered.rows.map((row) => ({
        ...row,
        isPlace: true,
        decimalText: row.decimal ? `≈ ${row.decimal}` : "",
        valueText: row.value,
        flagText: row.flags.join(", "),
        doubt: row.note,
      })),
    };
  },
  async copy(make, words) {
    await navigator.clipboard.writeText(make(await this.whole()));
    this.copied = words;
  },
  copyText() {
    return this.copy(asText, say("Copied as text."));
  },
  copyLatex() {
    return this.copy(asLatex, say("Copied as LaTeX."));
  },
  async saveCsv() {
    saveAs(
      new Blob([asCsv(await this.whole())], { type: "text/csv;charset=utf-8" }),
      "findings.csv",
    );
  },
  labelAll() {
    const labels = this.isAllLabelled
      ? []
      : this.entry.rows.filter((row) => row.canShow).map((row) => row.key);
    engine.carryOut([{ do: "label_finding", query: this.entry.id, labels }]);
  },
  beginNote() {
    this.isNoting = true;
    this.$nextTick(() => this.$refs.note.focus());
  },
  keepNote(event) {
    const note = event.target.value.trim();
    this.isNoting = false;
    if (note !== this.entry.remark)
      engine.carryOut([{ do: "note_finding", query: this.entry.id, note }]);
  },
  /** Definitions that may be added, each by a button. */
  get steps() {
    return this.entry.add.map((definition) => ({
      ...definition,
      words: definition.label.startsWith("draw")
        ? say("Draw {what}", { what: definition.label.slice(5) })
        : say("Add the {what}", { what: definition.label }),
    }));
  },
  get hasSteps() {
    return this.hasDraw || this.entry.add.length > 0;
  },
  /** Both sides of an equation as two functions. */
  drawSides() {
    engine.carryOut(this.entry.draw.map((text) => ({ do: "write", id: null, text })));
  },
  addStep(definition) {
    engine.carryOut([{ do: "write", id: null, text: definition.text }]);
  },
});

/** @param {import("../../session/engine.js").Engine} engine */
export const findingItem = (engine) => () => ({
  isExplained: false,

  get hasMark() {
    return this.item.proved !== null;
  },
  /** Proved or not: told by shape as well as by tone. */
  get markSign() {
    return this.item.isProved ? "●" : "○";
  },
  get hasWhy() {
    return this.item.why.length > 0 || this.item.canShow;
  },
  get goTitle() {
    return this.item.canShow ? say("Move the reading line here") : say("Show details");
  },
  get whyLabel() {
    return say("Why: {text}", { text: this.item.text });
  },
  get labelLabel() {
    return this.item.isLabelled
      ? say("Remove the label: {text}", this.item)
      : say("Label on the plane: {text}", this.item);
  },
  explain() {
    this.isExplained = !this.isExplained;
  },
  goTo() {
    if (this.item.canShow) showAt(engine, this.item.x);
    else this.explain();
  },
  /** The two rows of the table of values that stand around it. */
  showValues() {
    this.$store.bench.valueWanted = this.item.x;
    this.$store.bench.openTab("values");
    engine.changed();
  },
  toggleLabel() {
    const { labels } = this.entry;
    const { key } = this.item;
    engine.carryOut([
      {
        do: "label_finding",
        query: this.entry.id,
        labels: this.item.isLabelled ? labels.filter((label) => label !== key) : [...labels, key],
      },
    ]);
  },
});

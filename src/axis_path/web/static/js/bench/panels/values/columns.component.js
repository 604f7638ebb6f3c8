// @ts-check
/** The columns of the table of values: what they show, in how many digits, and which there are. */
import { say } from "../../../shared/words.js";

const SERIES = [
  {
    series: "difference",
    words: say("Differences"),
    title: say("A column in which each row is this row minus the row before"),
  },
  {
    series: "ratio",
    words: say("Ratios"),
    title: say("A column in which each row is this row divided by the row before"),
  },
  {
    series: "sum",
    words: say("Running sum"),
    title: say("A column with the sum of all rows so far"),
  },
];

/** Lives within the table of values. @param {import("../../session/engine.js").Engine} engine */
export const tableColumns = (engine) => () => ({
  added: "",
  columnProblem: "",
  /** The change that is on its way. */
  turn: Promise.resolve(true),
  seriesOffered: SERIES,

  get keptColumns() {
    return this.$store.bench.table.columns ?? [];
  },
  get column() {
    return this.columns.find((column) => column.name === this.chosenColumn);
  },
  get hasColumn() {
    return Boolean(this.column);
  },
  get isLost() {
    return Boolean(this.column?.problem);
  },
  get lostWords() {
    return this.column?.problem ?? "";
  },
  get columnTitle() {
    return this.column ? say("Column {name}", { name: this.column.name }) : "";
  },
  get columnDigits() {
    return String(this.ofChosen("digits") ?? "");
  },
  get columnForm() {
    return this.ofChosen("form") ?? "";
  },
  get removeWords() {
    return this.column?.tone === undefined || this.column.tone === null
      ? say("Remove this column")
      : say("Leave out of the table");
  },
  get leftOut() {
    return this.keptColumns
      .filter((column) => column.out)
      .map((column) => ({ ...column, words: say("Put back {name}", { name: column.text }) }));
  },
  get hasLeftOut() {
    return this.leftOut.length > 0;
  },
  ofChosen(field) {
    const own = this.column?.own;
    return own === null || own === undefined ? null : this.keptColumns[own]?.[field];
  },

  /** Change the columns as they are when it is this change's turn: the one before may be on its way. */
  change(make) {
    this.turn = this.turn.then(async () => {
      const error = await engine.commit([{ do: "table", columns: make([...this.keptColumns]) }]);
      this.columnProblem = error ? error.message : "";
      return !error;
    });
    return this.turn;
  },
  async addColumn() {
    const text = this.added.trim();
    if (!text) return;
    const isDone = await this.change((stored) => {
      const others = stored.filter((column) => !(column.out && column.text === text));
      return others.length < stored.length ? others : [...stored, { text }];
    });
    if (isDone) this.added = "";
  },
  addSeries({ series }) {
    const { text } = this.column;
    return this.change((stored) => [...stored, { text, series }]);
  },
  /** Change something of the chosen column; of a shown function it is stored from now on. */
  setOfColumn(fields) {
    const { own, text, tone } = this.column;
    return this.change((stored) => {
      const isOfFunction = tone !== undefined && tone !== null;
      const index = isOfFunction
        ? stored.findIndex((column) => column.text === text && column.series === "value")
        : own;
      return stored[index]
        ? stored.with(index, { ...stored[index], ...fields })
        : [...stored, { text, ...fields }];
    });
  },
  setDigits(event) {
    return this.setOfColumn({
      digits: event.target.value === "" ? null : Number(event.target.value),
    });
  },
  setForm(event) {
    return this.setOfColumn({ form: event.target.value || null });
  },
  removeColumn() {
    const { own, tone } = this.column;
    if (tone !== undefined && tone !== null) return this.setOfColumn({ out: true });
    return this.change((stored) => stored.filter((_, k) => k !== own));
  },
  putBack({ text }) {
    return this.change((stored) =>
      stored.filter((column) => !(column.out && column.text === text)),
    );
  },
});

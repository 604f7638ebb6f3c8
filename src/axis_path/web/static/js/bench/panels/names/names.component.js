// @ts-check
/** Names: what the study defines, its kind, size and value at a glance; a press jumps to the line. */

import { say, sayCount } from "../../../shared/words.js";
import { arranged, nameRows } from "./names_table.model.js";

const COLUMNS = [
  { column: "name", words: say("name") },
  { column: "kind", words: say("kind") },
  { column: "value", words: say("value") },
];

/** @param {import("../../session/engine.js").Engine} engine */
export const nameList = (engine) => () => ({
  sought: "",
  /** @type {import("./names_table.model.js").Column} */
  column: /** @type {import("./names_table.model.js").Column} */ ("place"),
  isDown: false,
  /** The line of which it is shown what it uses and what uses it. @type {string | null} */
  linked: /** @type {string | null} */ (null),

  get all() {
    return nameRows(this.$store.bench.rows, this.$store.bench.sliders, this.$store.bench.sets);
  },
  get names() {
    return arranged(this.all, this.sought, this.column, this.isDown);
  },
  get heads() {
    return COLUMNS.map((head) => ({
      ...head,
      sort: this.column !== head.column ? "none" : this.isDown ? "descending" : "ascending",
      sign: this.column !== head.column ? "" : this.isDown ? "▾" : "▴",
    }));
  },
  get isEmpty() {
    return engine.store.isReady && !this.all.length;
  },
  get isNotFound() {
    return this.all.length > 0 && !this.names.length;
  },
  get countText() {
    const count = this.all.length;
    return count ? sayCount("{count} name", "{count} names", count) : "";
  },
  sortBy(column) {
    if (this.column !== column) Object.assign(this, { column, isDown: false });
    else if (!this.isDown) this.isDown = true;
    else Object.assign(this, { column: "place", isDown: false });
  },
  hasLinks(row) {
    return row.uses.length + row.usedBy.length > 0;
  },
  isLinked(row) {
    return this.linked === row.key && this.hasLinks(row);
  },
  toggleLinks(row) {
    this.linked = this.linked === row.key ? null : row.key;
  },
  linksLabel(row) {
    return say("What {name} uses, and what uses it", { name: row.name });
  },
  usesText(row) {
    return row.uses.length
      ? say("uses {names}", { names: row.uses.join(", ") })
      : say("uses no other name");
  },
  usedText(row) {
    return row.usedBy.length
      ? say("used by {names}", { names: row.usedBy.join(", ") })
      : say("not used by another name");
  },
  jumpLabel(row) {
    return say("Go to the line of {name}", { name: row.name });
  },
  /** Go to a line: a slider is written in its line too. @param {any} row */
  jump(row) {
    const line = document.querySelector(`[data-row="${row.id}"]`);
    line?.scrollIntoView({ block: "center" });
    const target = line?.querySelector(".row-formula") ?? line?.querySelector("button, input");
    if (target instanceof HTMLElement) target.focus();
  },
  clear() {
    this.sought = "";
  },
});

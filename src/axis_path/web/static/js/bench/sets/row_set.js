// @ts-check
/** A set of equations in its row: the values of its unknowns, and how many solutions there are. */

import { say } from "../../shared/words.js";
import { unitOptionsOf, withoutUnit } from "../units.js";
import { equationsOf, setText } from "./set_text.js";

/** @param {string[]} names */
const listed = (names) =>
  names.length > 1 ? `${names.slice(0, -1).join(", ")} and ${names.at(-1)}` : (names[0] ?? "");

/** @param {import("../session/engine.js").Engine} engine */
export function makeRowSet(engine) {
  return {
    get rowSet() {
      return this.isEditing || this.row.disabled
        ? null
        : (this.$store.bench.sets[this.row.id] ?? null);
    },
    get hasSet() {
      return this.rowSet !== null && !this.row.problem;
    },
    get setValues() {
      return (this.rowSet?.values ?? []).map((value) => {
        const options = unitOptionsOf(value.choice);
        return {
          ...value,
          options,
          hasUnit: options.length > 0,
          text: `= ${withoutUnit(value.text, options)}`,
          label: say("Unit of {name}, {measures}", {
            name: value.name,
            measures: value.choice?.measures ?? "",
          }),
        };
      });
    },
    showValueIn(value, event) {
      engine.carryOut([
        { do: "show_in", id: this.row.id, name: value.name, unit: event.target.value },
      ]);
    },
    get setVerdict() {
      return this.rowSet?.verdict ?? "";
    },
    get setVerdictClass() {
      return { "is-sure": Boolean(this.rowSet?.is_sure) };
    },
    get setNames() {
      const set = this.rowSet;
      if (!set) return "";
      const unknown = say("Unknown: {names}.", { names: listed(set.unknown) });
      if (!set.known.length) return unknown;
      return `${say("Known: {names}.", { names: listed(set.known) })} ${unknown}`;
    },
    get setNote() {
      return this.rowSet?.note ?? "";
    },
    /** The solutions that can be used, if there are several. */
    get setChoices() {
      const set = this.rowSet;
      if (!set || set.count < 2) return [];
      return Array.from({ length: set.count }, (_, k) => ({
        k,
        words: say("solution {number} of {count}", { number: k + 1, count: set.count }),
        isChosen: k === set.chosen,
      }));
    },
    get hasChoices() {
      return this.setChoices.length > 0;
    },
    chooseSolution(event) {
      engine.carryOut([
        { do: "choose_solution", id: this.row.id, number: Number(event.target.value) },
      ]);
    },
    /** The letters that could be a name or a unit. */
    get setMeanings() {
      return (this.rowSet?.meanings ?? []).map((meaning, key) => ({
        ...meaning,
        key,
        label: say("Mean {name}", { name: meaning.other }),
      }));
    },
    meanOther(meaning) {
      const { label, equations } = equationsOf(this.row.text);
      const lines = equations.with(meaning.equation, meaning.text).join("\n");
      engine.carryOut([{ do: "write", id: this.row.id, text: setText(label, lines) }]);
    },
    openSet() {
      this.$store.bench.openedSet = this.row.id;
    },
  };
}

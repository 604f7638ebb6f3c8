// @ts-check
/** The unit of a row: in which one its value is shown, and names that hide a unit. */

import { say } from "../../shared/words.js";
import { unitOptionsOf, withoutUnit } from "../units.js";

/** @param {import("../session/engine.js").Engine} engine */
export function makeUnits(engine) {
  return {
    get rowUnits() {
      return this.$store.bench.units?.rows[this.row.id] ?? null;
    },
    /** The units in which the value can be shown; those of a curve stand with the axes. */
    get unitOptions() {
      return unitOptionsOf(this.row.value ? this.rowUnits?.choice : null);
    },
    get hasUnit() {
      return this.unitOptions.length > 0 && !this.row.disabled && Boolean(this.readingText);
    },
    get unitLabel() {
      return say("Unit of {name}, {measures}", {
        name: this.called,
        measures: this.rowUnits?.choice?.measures ?? "",
      });
    },
    showIn(event) {
      engine.carryOut([{ do: "show_in", id: this.row.id, unit: event.target.value }]);
    },
    /** The value without the unit that is chosen beside it. */
    get valueText() {
      return withoutUnit(this.readingText, this.unitOptions);
    },

    get hiddenUnit() {
      return this.isEditing ? null : (this.rowUnits?.hidden ?? null);
    },
    get hiddenText() {
      const hidden = this.hiddenUnit;
      return hidden ? say("`{name}` means the name in this study, not the {unit}.", hidden) : "";
    },
    get meanLabel() {
      return this.hiddenUnit ? say("Mean the {unit}", { unit: this.hiddenUnit.unit }) : "";
    },
    meanUnit() {
      engine.carryOut([{ do: "write", id: this.row.id, text: this.hiddenUnit.text }]);
    },
  };
}

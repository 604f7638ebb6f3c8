// @ts-check
/** How the axes and the grid look: every choice is kept at once and can be undone. */

import { say } from "../../shared/words.js";
import { unitOptionsOf } from "../units.js";
import { changeAxes } from "./actions.js";

/** What can be chosen for each dimension on an axis. @param {any[]} [choices] */
const unitChoices = (choices = []) =>
  choices.map((choice) => ({
    measures: choice.measures,
    ofDifference: choice.of_difference,
    words:
      choices.length > 1 ? say("unit of {measures}", { measures: choice.measures }) : say("unit"),
    options: unitOptionsOf(choice),
  }));

/** @param {import("../session/engine.js").Engine} engine */
export const axesBox = (engine) => () => ({
  isOpen: false,
  problem: "",
  /** The last change, until it is stored or refused. @type {Promise<void>} */
  pending: Promise.resolve(),

  toggle() {
    this.isOpen = !this.isOpen;
    if (this.isOpen) this.$nextTick(() => this.$refs.first.focus());
  },
  close() {
    this.isOpen = false;
    this.$refs.opener.focus();
  },
  get axes() {
    return this.$store.bench.axes;
  },
  get xUnits() {
    return unitChoices(this.$store.bench.units?.x);
  },
  get yUnits() {
    return unitChoices(this.$store.bench.units?.y);
  },
  async changeUnit(choice, event) {
    const { name, value } = event.target;
    const command = {
      do: /** @type {const} */ ("axis_unit"),
      axis: name,
      unit: value,
      of_difference: choice.ofDifference,
    };
    const error = await engine.commit([command]);
    this.problem = error ? error.message : "";
  },
  /** Close the form with Enter, unless what was just typed is refused. */
  async finish() {
    await this.pending;
    if (!this.problem) this.close();
  },
  async keep(axes) {
    const error = await changeAxes(engine, axes);
    this.problem = error ? error.message : "";
  },
  /** A field names the part it changes: `grid`, or `x.labels`. */
  change(event) {
    const field = event.target;
    const [part, inner] = field.name.split(".");
    const value = field.type === "checkbox" ? field.checked : field.value;
    this.pending = this.keep(inner ? { [part]: { [inner]: value } } : { [part]: value });
  },
});

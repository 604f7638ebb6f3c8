// @ts-check
/** The form of a row that draws it for several values of a slider: its family. */
import { say } from "../../shared/words.js";

/** What can be drawn for several values of a slider. */
const FAMILIES = new Set(["function", "path", "polar", "relation", "region"]);

/** @param {import("../session/engine.js").Engine} engine */
export function makeFamily(engine) {
  return {
    /** What was typed for a family and is not drawn yet. @type {any} */
    family: {},
    familyHow: "",

    get canFamily() {
      return FAMILIES.has(this.row.kind) && this.$store.bench.sliders.length > 0;
    },
    get familyText() {
      const { family } = this.row;
      if (!family || this.row.disabled) return "";
      return family.problem
        ? family.problem.message
        : say("{count} curves of {name}", { count: family.members.length, name: family.sign });
    },
    get familySlider() {
      const { sliders } = this.$store.bench;
      return (
        this.family?.slider ??
        this.row.family?.slider ??
        (sliders.find((slider) => slider.used_by.includes(this.row.name)) ?? sliders[0])?.id
      );
    },
    get familyForm() {
      const slider = this.$store.bench.sliders.find((slider) => slider.id === this.familySlider);
      const usual = { values: "", first: slider?.low ?? "", last: slider?.high ?? "", count: "5" };
      return { ...usual, ...(this.row.family ?? {}), ...this.family };
    },
    get familyByValues() {
      return (
        this.familyHow === "values" || (this.familyHow === "" && Boolean(this.row.family?.values))
      );
    },
    chooseHow(event) {
      this.familyHow = event.target.value;
    },
    setFamily(event) {
      const { name, value } = event.target;
      this.family = { ...this.family, [name]: name === "slider" ? Number(value) : value };
    },
    async drawFamily() {
      const { values, first, last, count } = this.familyForm;
      const texts = this.familyByValues ? { values } : { first, last, count };
      const error = await engine.commit([
        { do: "family", id: this.row.id, slider: this.familySlider, ...texts },
      ]);
      this.lookProblem = error ? error.message : "";
      if (!error) this.family = {};
    },
    takeFamily() {
      this.family = {};
      engine.carryOut([{ do: "family", id: this.row.id, slider: null }]);
    },
  };
}

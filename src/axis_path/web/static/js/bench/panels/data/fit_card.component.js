// @ts-check
/** One fit: its coefficients, how good it is, its residuals, and what it predicts. */
import { put } from "../../plane/svg.js";
import { residualParts } from "./data.model.js";

/** @param {import("../../session/engine.js").Engine} engine */
export const fitCard = (engine) => () => ({
  at: "",
  side: "x",

  init() {
    this.$watch("fit", () => this.paint());
    this.$nextTick(() => this.paint());
  },
  paint() {
    if (this.$refs.residuals) put(this.$refs.residuals, residualParts(this.fit.residuals));
  },
  get isGood() {
    return !this.fit.problem;
  },
  get followText() {
    return this.fit.follows
      ? `The definition ${this.fit.follows} follows this fit: it changes with the data.`
      : "";
  },
  get canFollow() {
    return !this.fit.follows;
  },
  get removeFitLabel() {
    return `Remove: ${this.fit.title}`;
  },
  get residualLabel() {
    return `Residuals of ${this.fit.y} against ${this.fit.x}`;
  },
  get curveText() {
    return `y = ${this.fit.form}`;
  },
  get qualityText() {
    return `r² = ${this.fit.r_squared}; residual standard deviation ${this.fit.residual_sd}, ${this.fit.freedom} degree${this.fit.freedom === 1 ? "" : "s"} of freedom`;
  },
  addFit() {
    engine.carryOut([{ do: "follow_fit", fit: this.fit.id }]);
  },
  removeFit() {
    engine.carryOut([{ do: "unfit", fit: this.fit.id }]);
  },
  predictHere() {
    const value = Number(this.at.replace("−", "-").replace(",", "."));
    if (this.at.trim() && Number.isFinite(value))
      this.predict({ fit: this.fit.id, of: this.side, value });
  },
});

// @ts-check
/** One fit: its coefficients, how good it is, its residuals, and what it predicts. */

import { say, sayCount } from "../../../shared/words.js";
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
      ? say("The definition {name} follows this fit: it changes with the data.", {
          name: this.fit.follows,
        })
      : "";
  },
  get canFollow() {
    return !this.fit.follows;
  },
  get removeFitLabel() {
    return say("Remove: {title}", { title: this.fit.title });
  },
  get residualLabel() {
    return say("Residuals of {y} against {x}", { y: this.fit.y, x: this.fit.x });
  },
  get curveText() {
    return `y = ${this.fit.form}`;
  },
  get qualityText() {
    return sayCount(
      "r² = {r_squared}; residual standard deviation {residual_sd}, {count} degree of freedom",
      "r² = {r_squared}; residual standard deviation {residual_sd}, {count} degrees of freedom",
      this.fit.freedom,
      this.fit,
    );
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

// @ts-check
/** Points that are drawn of two columns, and curves fitted to them. */
import { say } from "../../../shared/words.js";

const MODELS = [
  { value: "linear", words: say("a line") },
  { value: "polynomial", words: say("a polynomial") },
  { value: "exponential", words: say("an exponential") },
  { value: "power", words: say("a power") },
  { value: "logarithmic", words: say("a logarithm") },
  { value: "sinusoidal", words: say("a sine") },
  { value: "logistic", words: say("a logistic curve") },
  { value: "formula", words: say("my own formula") },
];

/** @param {import("../../session/engine.js").Engine} engine */
export function makeFitForm(engine) {
  return {
    xName: "",
    yName: "",
    model: "linear",
    degree: "2",
    ownFormula: "",
    ownStart: "",
    fitProblem: "",
    yError: "",
    xError: "",
    /** What is predicted: for which fit, of which side, and where. @type {any} */
    wanted: null,
    get models() {
      return MODELS;
    },
    get isPolynomial() {
      return this.model === "polynomial";
    },
    get isFormula() {
      return this.model === "formula";
    },
    drawPoints() {
      this.change({
        do: "plot",
        x: this.xName,
        y: this.yName,
        x_error: this.xError,
        y_error: this.yError,
      });
    },
    takePointsAway(plot) {
      this.change({ do: "plot", x: plot.x, y: plot.y, away: true });
    },

    async makeSliders() {
      const error = await engine.commit([{ do: "try_formula", formula: this.ownFormula }]);
      this.fitProblem = error ? error.message : "";
    },
    async fitCurve() {
      /** @type {import("#types/commands").FitCurve} */
      const command = {
        do: "fit",
        model: this.model,
        x: this.xName,
        y: this.yName,
        drawn: true,
      };
      if (this.isPolynomial) command.degree = Number(this.degree);
      if (this.isFormula) {
        command.formula = this.ownFormula;
        command.start = startOf(this.ownStart);
      }
      const error = await engine.commit([command]);
      this.fitProblem = error ? error.message : "";
      if (!error)
        this.$store.bench.say(
          say("The fitted curve is on the plane. It follows the data."),
          "undo",
        );
    },
    predict(wanted) {
      this.wanted = wanted;
      this.live.ask();
    },
  };
}

/** `p = 10, q = 1` as numbers by their names. @param {string} text */
function startOf(text) {
  const pairs = text.split(/[,;]/).map((part) => part.split("=").map((word) => word.trim()));
  return Object.fromEntries(
    pairs
      .filter((pair) => pair.length === 2 && pair[0] && Number.isFinite(Number(pair[1])))
      .map(([name, value]) => [name, Number(value)]),
  );
}

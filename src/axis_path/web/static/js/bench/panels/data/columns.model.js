// @ts-check
/** Columns and fits as the panel shows them; no DOM. */

import { say } from "../../../shared/words.js";
import { barsOf } from "./data.model.js";

const MODEL_TITLES = {
  linear: say("Line"),
  polynomial: say("Polynomial"),
  exponential: say("Exponential"),
  power: say("Power"),
  logarithmic: say("Logarithm"),
  sinusoidal: say("Sine"),
  logistic: say("Logistic curve"),
  formula: say("Formula"),
};

/** The title of a fit. @param {any} fit */
export const titleOf = (fit) =>
  fit.model === "polynomial"
    ? say("Polynomial of degree {degree}: {y} against {x}", fit)
    : say("{model}: {y} against {x}", { ...fit, model: MODEL_TITLES[fit.model] ?? fit.model });

/** A column as the panel shows it, with the names of its fields. @param {any} column */
export const shownColumn = (column) => ({
  ...column,
  head: column.unit ? `${column.name} / ${column.unit}` : column.name,
  nameLabel: say("Name of the column {name}", { name: column.name }),
  sortLabel: say("Sort by {name}", { name: column.name }),
  deleteLabel: say("Delete the column {name}", { name: column.name }),
  formulaLabel: say("Formula of {name}", { name: column.name }),
  lost: column.problem ? `${column.name}: ${column.problem}` : "",
  plotLabel: say("Histogram and box plot of {name}", { name: column.name }),
  ...summaryOf(column.summary),
});

/** A column in a few numbers, and the bars of its histogram. @param {any} summary */
function summaryOf(summary) {
  if (!summary) return { entries: [], bars: "", boxPath: "" };
  const number = (value) =>
    value === null ? "—" : String(Number(value.toPrecision(6))).replace("-", "−");
  const rows = [
    ["count", summary.count],
    ["missing", summary.missing],
    ["mean", summary.mean],
    [say("standard deviation"), summary.sd],
    ["least", summary.least],
    [say("first quartile"), summary.quartiles[0]],
    ["median", summary.quartiles[1]],
    [say("third quartile"), summary.quartiles[2]],
    ["greatest", summary.greatest],
  ];
  return {
    entries: rows.map(([name, value]) => ({ name, value: number(value) })),
    ...barsOf(summary),
  };
}

// @ts-check
/** Columns and fits as the panel shows them; no DOM. */
import { barsOf } from "./data.model.js";

const MODEL_TITLES = {
  linear: "Line",
  polynomial: "Polynomial",
  exponential: "Exponential",
  power: "Power",
  logarithmic: "Logarithm",
  sinusoidal: "Sine",
  logistic: "Logistic curve",
  formula: "Formula",
};

/** The title of a fit. @param {any} fit */
export const titleOf = (fit) =>
  `${MODEL_TITLES[fit.model] ?? fit.model}${fit.model === "polynomial" ? ` of degree ${fit.degree}` : ""}: ${fit.y} against ${fit.x}`;

/** A column as the panel shows it, with the names of its fields. @param {any} column */
export const shownColumn = (column) => ({
  ...column,
  head: column.unit ? `${column.name} / ${column.unit}` : column.name,
  nameLabel: `Name of the column ${column.name}`,
  sortLabel: `Sort by ${column.name}`,
  deleteLabel: `Delete the column ${column.name}`,
  formulaLabel: `Formula of ${column.name}`,
  lost: column.problem ? `${column.name}: ${column.problem}` : "",
  plotLabel: `Histogram and box of ${column.name}`,
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
    ["standard deviation", summary.sd],
    ["least", summary.least],
    ["first quartile", summary.quartiles[0]],
    ["median", summary.quartiles[1]],
    ["third quartile", summary.quartiles[2]],
    ["greatest", summary.greatest],
  ];
  return {
    entries: rows.map(([name, value]) => ({ name, value: number(value) })),
    ...barsOf(summary),
  };
}

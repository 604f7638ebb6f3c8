// @ts-check
/** Small drawings of data: bars, boxes, residuals. */
import { svg } from "../../plane/svg.js";

const WIDTH = 150;
const HEIGHT = 46;
const RESIDUALS = { width: 290, height: 110, edge: 10 };

/** The bars of a histogram and a box drawing above them, as paths. @param {any} summary */
export function barsOf({ edges, heights, least, greatest, quartiles }) {
  const span = greatest - least || 1;
  const across = (value) => ((value - least) / span) * (WIDTH - 2) + 1;
  const most = Math.max(...heights, 1);
  const bars = heights.map((height, k) => {
    const [left, right] = [across(edges[k]), across(edges[k + 1])];
    return `M${left} ${HEIGHT}V${HEIGHT - (height / most) * 30}H${right}V${HEIGHT}Z`;
  });
  const [first, median, third] = quartiles.map(across);
  const box = `M${across(least)} 7H${first}M${third} 7H${across(greatest)}M${first} 2H${third}V12H${first}ZM${median} 2V12`;
  return { bars: bars.join(""), boxPath: box };
}

/** Residuals over x, with the line of none. @param {number[][]} residuals */
export function residualParts(residuals) {
  if (!residuals.length) return [];
  const { width, height, edge } = RESIDUALS;
  const xs = residuals.map(([x]) => x);
  const [low, high] = [Math.min(...xs), Math.max(...xs)];
  const reach = Math.max(...residuals.map(([, y]) => Math.abs(y))) || 1;
  const at = (/** @type {number[]} */ [x, y]) => [
    edge + ((x - low) / (high - low || 1)) * (width - 2 * edge),
    height / 2 - (y / reach) * (height / 2 - edge),
  ];
  return [
    svg("line", { class: "residual-axis", x1: 0, x2: width, y1: height / 2, y2: height / 2 }),
    ...residuals.map((pair) => {
      const [x, y] = at(pair);
      return svg("circle", { class: "residual-dot", cx: x, cy: y, r: 2.6 });
    }),
  ];
}

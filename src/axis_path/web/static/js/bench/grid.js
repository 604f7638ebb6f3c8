// @ts-check
/** Paints the grid, the axes with their names and labels, the title and the reading line. */
import { across, down, svg } from "./paint.js";

const crisp = (px) => Math.round(px) + 0.5;
/** Lines of the title are so far apart. */
const TITLE_PX = 20;
/** How wide a letter of a label is. */
const LETTER_PX = 7.2;

export function paintGrid(target, scene, shift, size) {
  const { axes } = scene;
  const parts = [];
  const upright = (x, name) => parts.push(svg("line", { class: name, x1: x, x2: x, y1: 0, y2: size.height }));
  const level = (y, name) => parts.push(svg("line", { class: name, x1: 0, x2: size.width, y1: y, y2: y }));
  const isSquare = axes.grid === "fine" || axes.grid === "coarse";
  if (axes.grid === "fine") {
    for (const x of axes.x.finer) upright(crisp(across(shift, x)), "grid-finer");
    for (const y of axes.y.finer) level(crisp(down(shift, y)), "grid-finer");
  }
  if (isSquare) {
    for (const x of axes.x.places) upright(crisp(across(shift, x)), "grid-line");
    for (const y of axes.y.places) level(crisp(down(shift, y)), "grid-line");
  }
  if (axes.polar) parts.push(...polar(axes.polar, shift));
  const yAxis = axes.y_axis === null ? null : across(shift, axes.y_axis);
  const xAxis = axes.x_axis === null ? null : down(shift, axes.x_axis);
  if (axes.left_edge) upright(0.5, "axis-line");
  if (axes.lower_edge) level(size.height - 0.5, "axis-line");
  if (yAxis !== null) upright(crisp(yAxis), "axis-line");
  if (xAxis !== null) level(crisp(xAxis), "axis-line");
  if (!isSquare) parts.push(...strokes(axes, shift, size, xAxis, yAxis));
  if (scene.reading) {
    // Below the labels and curves, so that it covers none.
    const x = across(shift, scene.reading.x);
    parts.push(svg("line", { class: "reading-line", x1: x, x2: x, y1: 0, y2: size.height }));
  }
  parts.push(...xLabels(axes.x, shift, size, xAxis), ...yLabels(axes.y, shift, size, yAxis), ...names(axes, size, xAxis, yAxis));
  target.replaceChildren(...parts);
}

/** Without lines of a grid the axes carry short strokes at their labels. */
function strokes(axes, shift, size, xAxis, yAxis) {
  const y = xAxis ?? size.height;
  const x = yAxis ?? 0;
  return [
    ...axes.x.places.map((place) => svg("line", { class: "axis-line", x1: across(shift, place), x2: across(shift, place), y1: y - 4, y2: y + 4 })),
    ...axes.y.places.map((place) => svg("line", { class: "axis-line", x1: x - 4, x2: x + 4, y1: down(shift, place), y2: down(shift, place) })),
  ];
}

function polar(grid, shift) {
  const [cx, cy] = [across(shift, grid.x), down(shift, grid.y)];
  const parts = grid.circles.map((circle) => svg("ellipse", { class: "grid-line grid-circle", cx, cy, rx: (circle.rx * shift.ax) / 10, ry: (circle.ry * shift.ay) / 10 }));
  for (const spoke of grid.spokes) {
    parts.push(svg("line", { class: spoke.text ? "grid-line" : "grid-finer", x1: cx, y1: cy, x2: across(shift, spoke.x), y2: down(shift, spoke.y) }));
  }
  for (const spoke of grid.spokes) {
    if (!spoke.label) continue;
    const [x, y] = [across(shift, spoke.label[0]), down(shift, spoke.label[1])];
    parts.push(svg("text", { class: "tick-label angle-label", x, y: y + 4, "text-anchor": "middle" }, spoke.text));
  }
  return parts;
}

/** Labels stand below the x axis; where that is out of sight, at the nearest edge. */
function xLabels(axis, shift, size, xAxis) {
  const y = Math.min(Math.max((xAxis ?? size.height - 21) + 15, 14), size.height - 6);
  // The name of the axis stands at its right end.
  const free = size.width - 12 - 9 * axis.name.length;
  return axis.places.flatMap((place, k) => {
    const x = across(shift, place);
    const isOrigin = axis.labels[k] === "0" && x > 20;
    // A label at the edge stays whole.
    const half = 3.6 * axis.labels[k].length + 2;
    const inside = Math.min(Math.max(x, half), size.width - half);
    if (inside + half > free && y > size.height - 30) return [];
    return [svg("text", { class: "tick-label", x: isOrigin ? x - 5 : inside, y, "text-anchor": isOrigin ? "end" : "middle" }, axis.labels[k])];
  });
}

function yLabels(axis, shift, size, yAxis) {
  // A label at the edge stays whole.
  const longest = Math.max(4, ...axis.labels.map((label) => label.length));
  const x = Math.min(Math.max((yAxis ?? 0) - 6, LETTER_PX * longest + 5), size.width - 6);
  return axis.places
    .map((place, k) => [down(shift, place), axis.labels[k]])
    .filter(([y, label]) => label !== "0" && y > 22 && y < size.height - 8)
    .map(([y, label]) => svg("text", { class: "tick-label", x, y: y + 4, "text-anchor": "end" }, label));
}

/** The names stand at the ends of the axes. */
function names(axes, size, xAxis, yAxis) {
  const y = Math.min(Math.max((xAxis ?? size.height - 14) - 7, 16), size.height - 12);
  const x = Math.min(Math.max((yAxis ?? 0) + 8, 8), size.width - 12 * axes.y.name.length);
  return [
    svg("text", { class: "axis-name", x: size.width - 8, y, "text-anchor": "end" }, axes.x.name),
    // Below the title, where there is one.
    svg("text", { class: "axis-name", x, y: 16 + (axes.title.length ? TITLE_PX * axes.title.length + 8 : 0) }, axes.y.name),
  ];
}

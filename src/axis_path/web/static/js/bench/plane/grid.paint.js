// @ts-check
/** Paints the grid, the axes with their names and labels, the title and the reading line. */

import { BEYOND_PX, slideBy } from "../viewport/slide.model.js";
import { across, down } from "./marks.paint.js";
import { label, svg } from "./svg.js";

const crisp = (px) => Math.round(px) + 0.5;
/** Lines of the title are so far apart. */
const TITLE_PX = 20;
/** The bounds of the window stand at the ends of the axes; the names stand before them. */
const BOUND_PX = 88;
const BELOW_BOUND_PX = 46;
/** How wide a letter of a label is. */
const LETTER_PX = 7.2;

/**
 * The layers of a grid, from the lowest: its lines, the axes at the edge, the labels of angles and of both axes, and
 * the names at their ends.
 * @typedef {{grid: Element, edges: Element, angleLabels: Element, xLabels: Element, yLabels: Element, xName: Element, yName: Element}} Layers
 */

/** How much of the top of the plane its title takes, in px. */
export const titleHeight = ({ title }) => (title.length ? TITLE_PX * title.length + 8 : 0);

/** Where the axes stand, in px; null for one that is out of sight. */
export function axesAt(axes, shift) {
  return {
    upright: axes.y_axis === null ? null : across(shift, axes.y_axis),
    level: axes.x_axis === null ? null : down(shift, axes.x_axis),
  };
}

/** What each layer of a grid is made of. @returns {Record<keyof Layers, import("./svg.js").Part[]>} */
export function gridParts(scene, shift, size) {
  const { axes } = scene;
  const at = axesAt(axes, shift);
  const lines = { "grid-finer": [], "grid-line": [], "axis-line": [], "reading-line": [] };
  const upright = (x, name) => lines[name].push(`M${x} ${-BEYOND_PX}V${size.height + BEYOND_PX}`);
  const level = (y, name) => lines[name].push(`M${-BEYOND_PX} ${y}H${size.width + BEYOND_PX}`);
  const isSquare = axes.grid === "fine" || axes.grid === "coarse";
  if (axes.grid === "fine") {
    for (const x of axes.x.finer) upright(crisp(across(shift, x)), "grid-finer");
    for (const y of axes.y.finer) level(crisp(down(shift, y)), "grid-finer");
  }
  if (isSquare) {
    for (const x of axes.x.positions) upright(crisp(across(shift, x)), "grid-line");
    for (const y of axes.y.positions) level(crisp(down(shift, y)), "grid-line");
  }
  if (at.upright !== null) upright(crisp(at.upright), "axis-line");
  if (at.level !== null) level(crisp(at.level), "axis-line");
  if (!isSquare) strokes(axes, shift, size, at, lines["axis-line"]);
  // Below the curves, so that it covers none.
  if (scene.reading) upright(across(shift, scene.reading.x), "reading-line");
  const paths = Object.entries(lines).filter(([, parts]) => parts.length);
  const drawn = paths.map(([name, parts]) => svg("path", { class: name, d: parts.join("") }));
  return {
    grid: [...(axes.polar ? polar(axes.polar, shift) : []), ...drawn],
    angleLabels: axes.polar ? angleLabels(axes.polar, shift) : [],
    xLabels: xLabels(axes.x, shift, size, at.level),
    yLabels: yLabels(axes.y, shift, size, at.upright),
    edges: edges(axes, size),
    xName: [
      label(axes.x.name, size.width - BOUND_PX, nameLevel(at.level, size), {
        class: "axis-name",
        "text-anchor": "end",
      }),
    ],
    // Below the title, where there is one.
    yName: [
      label(axes.y.name, nameUpright(axes, at.upright, size), BELOW_BOUND_PX + titleHeight(axes), {
        class: "axis-name",
      }),
    ],
  };
}

/**
 * Let the grid slide; labels stay at their axes, or at the edge if these are out of sight.
 * @param {Layers} layers
 */
export function slideGrid(layers, axes, painted, size, dx, dy) {
  const before = axesAt(axes, painted);
  const now = {
    upright: before.upright === null ? null : before.upright + dx,
    level: before.level === null ? null : before.level + dy,
  };
  for (const layer of [layers.grid, layers.angleLabels]) slideBy(layer, dx, dy);
  slideBy(layers.xLabels, dx, labelsLevel(now.level, size) - labelsLevel(before.level, size));
  slideBy(
    layers.yLabels,
    labelsUpright(axes.y, now.upright, size) - labelsUpright(axes.y, before.upright, size),
    dy,
  );
  slideBy(layers.xName, 0, nameLevel(now.level, size) - nameLevel(before.level, size));
  slideBy(
    layers.yName,
    nameUpright(axes, now.upright, size) - nameUpright(axes, before.upright, size),
    0,
  );
}

/** An axis at the edge does not move. */
function edges(axes, size) {
  const left = axes.left_edge ? `M0.5 0V${size.height}` : "";
  const lower = axes.lower_edge ? `M0 ${size.height - 0.5}H${size.width}` : "";
  return left || lower ? [svg("path", { class: "axis-line", d: left + lower })] : [];
}

/** Without lines of a grid the axes carry short strokes at their labels. */
function strokes(axes, shift, size, at, lines) {
  const y = at.level ?? size.height;
  const x = at.upright ?? 0;
  for (const position of axes.x.positions) lines.push(`M${across(shift, position)} ${y - 4}v8`);
  for (const position of axes.y.positions) lines.push(`M${x - 4} ${down(shift, position)}h8`);
}

function polar(grid, shift) {
  const [cx, cy] = [across(shift, grid.x), down(shift, grid.y)];
  const parts = grid.circles.map((circle) =>
    svg("ellipse", {
      class: "grid-line grid-circle",
      cx,
      cy,
      rx: (circle.rx * shift.ax) / 10,
      ry: (circle.ry * shift.ay) / 10,
    }),
  );
  for (const spoke of grid.spokes) {
    parts.push(
      svg("line", {
        class: spoke.text ? "grid-line" : "grid-finer",
        x1: cx,
        y1: cy,
        x2: across(shift, spoke.x),
        y2: down(shift, spoke.y),
      }),
    );
  }
  return parts;
}

const angleLabels = (grid, shift) =>
  grid.spokes
    .filter((spoke) => spoke.label)
    .map(({ text, label: [x, y] }) =>
      label(text, across(shift, x), down(shift, y) + 4, {
        class: "tick-label angle-label",
        "text-anchor": "middle",
      }),
    );

const labelsLevel = (level, size) =>
  Math.min(Math.max((level ?? size.height - 21) + 15, 14), size.height - 6);

/** Labels stand left of the y axis, whole where that is at the edge. */
function labelsUpright(axis, upright, size) {
  const longest = Math.max(4, ...axis.labels.map((label) => label.length));
  return Math.min(Math.max((upright ?? 0) - 6, LETTER_PX * longest + 5), size.width - 6);
}

/** Labels stand below the x axis; where that is out of sight, at the nearest edge. */
function xLabels(axis, shift, size, level) {
  const y = labelsLevel(level, size);
  // The name of the axis stands at its right end.
  const free = size.width - 12 - 9 * axis.name.length;
  return axis.positions.flatMap((position, k) => {
    const x = across(shift, position);
    const isOrigin = axis.labels[k] === "0" && x > 20;
    const half = 3.6 * axis.labels[k].length + 2;
    // A label at the edge stays whole; what is beyond it may slide into sight.
    const inside = x < 0 || x > size.width ? x : Math.min(Math.max(x, half), size.width - half);
    if (inside <= size.width && inside + half > free && y > size.height - 30) return [];
    return [
      label(axis.labels[k], isOrigin ? x - 5 : inside, y, {
        class: "tick-label",
        "text-anchor": isOrigin ? "end" : "middle",
      }),
    ];
  });
}

function yLabels(axis, shift, size, upright) {
  const x = labelsUpright(axis, upright, size);
  return axis.positions
    .map((position, k) => [down(shift, position), axis.labels[k]])
    .filter(
      ([y, text]) => text !== "0" && (y < 0 || y > 22) && (y < size.height - 8 || y > size.height),
    )
    .map(([y, text]) => label(text, x, y + 4, { class: "tick-label", "text-anchor": "end" }));
}

/** The names stand at the ends of the axes, or at the edge if these are out of sight. */
const nameLevel = (level, size) =>
  Math.min(Math.max((level ?? size.height - 14) - 7, 16), size.height - 12);
const nameUpright = (axes, upright, size) =>
  Math.min(Math.max((upright ?? 0) + 8, 8), size.width - 12 * axes.y.name.length);

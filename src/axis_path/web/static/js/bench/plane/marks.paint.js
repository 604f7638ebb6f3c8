// @ts-check
/** What stands on the curves, as parts of a picture. */

import { BEYOND_PX } from "../viewport/slide.model.js";
import { DASHES, shadeOf, WEIGHTS } from "./curves.paint.js";
import { label, svg } from "./svg.js";
import { TONES } from "./tones.js";

/** How far the strokes at zeros reach. */
const ZERO_PX = 6;

/** Where a place of the scene, in tenths, stands now, in px. */
export const across = (shift, tenths) => (shift.ax * tenths) / 10 + shift.bx;
export const down = (shift, tenths) => (shift.ay * tenths) / 10 + shift.by;

/** Numbers on level curves. */
function levelMarks(row, shift, colour) {
  const levels = row.curve.levels ?? [];
  const parts = [];
  for (const level of levels) {
    for (const { x, y, angle } of level.labels) {
      const look = { class: "level-label", y: 4, fill: colour, "text-anchor": "middle" };
      parts.push(label(level.text, across(shift, x), down(shift, y), look, ` rotate(${angle})`));
    }
  }
  return parts;
}

const SCALE_STEP = 15;

function levelScale(row, levels, size, colour) {
  if (!levels.length) return [];
  const bottom = size.height - 14;
  const top = bottom - SCALE_STEP * levels.length;
  const width = 40 + 7 * Math.max(...levels.map((level) => level.text.length), 2);
  const parts = [
    svg("rect", { class: "scale-box", x: 6, y: top - 22, width, height: bottom - top + 28, rx: 2 }),
    label(row.name ?? "", 13, top - 7, { class: "scale-name", fill: colour }),
  ];
  levels.forEach((level, k) => {
    const y = bottom - SCALE_STEP * (k + 1);
    parts.push(
      svg("rect", {
        x: 13,
        y,
        width: 18,
        height: SCALE_STEP,
        fill: colour,
        "fill-opacity": shadeOf(k, levels.length),
      }),
    );
    if (k) parts.push(label(level.text, 36, y + SCALE_STEP + 4, { class: "tick-label" }));
  });
  return parts;
}

/** A dot of a list is smaller than a point's own; very many make a dotted line. */
const DOT_PX = 4.5;
const DOTS_PX = 3;
const FINE_PX = 1.2;
const SPECK_PX = 1.6;
const MANY = 80;

function dots(row, shift, colour) {
  const numbers = row.curve.dots ?? [];
  const isFine = numbers.length > 2 * MANY;
  const r = isFine ? FINE_PX : numbers.length > 2 ? DOTS_PX : DOT_PX;
  const parts = [];
  const specks = row.curve.specks ?? [];
  for (let k = 0; k < specks.length; k += 2)
    parts.push(
      mark("fine", across(shift, specks[k]), down(shift, specks[k + 1]), SPECK_PX, colour),
    );
  if (row.style.joined && numbers.length > 2) {
    const points = [];
    for (let k = 0; k < numbers.length; k += 2)
      points.push(`${across(shift, numbers[k])},${down(shift, numbers[k + 1])}`);
    const dash = DASHES[row.style.stroke ?? row.tone % TONES].join(" ");
    parts.push(
      svg("polyline", {
        points: points.join(" "),
        fill: "none",
        stroke: colour,
        "stroke-width": WEIGHTS[row.style.weight] - 0.4,
        "stroke-dasharray": dash,
      }),
    );
  }
  for (let k = 0; k < numbers.length; k += 2) {
    parts.push(
      mark(
        isFine ? "fine" : row.style.mark,
        across(shift, numbers[k]),
        down(shift, numbers[k + 1]),
        r,
        colour,
      ),
    );
  }
  return parts;
}

function mark(kind, x, y, r, colour) {
  if (kind === "ring")
    return svg("circle", { class: "point-ring", cx: x, cy: y, r, stroke: colour });
  if (kind === "cross")
    return svg("path", {
      class: "point-cross",
      d: `M${x - r} ${y - r}l${2 * r} ${2 * r}m0 ${-2 * r}l${-2 * r} ${2 * r}`,
      stroke: colour,
    });
  if (kind === "square")
    return svg("rect", {
      class: "point-dot",
      x: x - r,
      y: y - r,
      width: 2 * r,
      height: 2 * r,
      fill: colour,
    });
  return svg("circle", {
    class: kind === "fine" ? "" : "point-dot",
    cx: x,
    cy: y,
    r,
    fill: colour,
  });
}

/** Ends, zeros, flags, and what the reading line meets. */
export function markParts(scene, shift, size, tones) {
  const parts = [];
  for (const row of scene.rows) {
    if (!row.curve) continue;
    const colour = tones[row.tone % TONES];
    for (const guide of (scene.axes.guides && row.curve.guides) || []) {
      const x = across(shift, guide);
      parts.push(
        svg("line", {
          class: "guide-line",
          x1: x,
          x2: x,
          y1: -BEYOND_PX,
          y2: size.height + BEYOND_PX,
          stroke: colour,
        }),
      );
    }
    for (const end of row.curve.ends) {
      parts.push(
        svg("circle", {
          class: end.closed ? "end-dot" : "end-dot end-open",
          cx: across(shift, end.x),
          cy: down(shift, end.y),
          r: 4.5,
          stroke: colour,
          ...(end.closed ? { fill: colour } : {}),
        }),
      );
    }
    parts.push(...levelMarks(row, shift, colour), ...dots(row, shift, colour));
    if (row.lane && scene.axes.x_axis !== null)
      parts.push(...zeroMarks(row.lane.marks, shift, down(shift, scene.axes.x_axis)));
    if (row.flag) parts.push(flag(row, colour, shift));
    for (const member of row.family?.members ?? [])
      if (member.flag) parts.push(valueFlag(member, colour, shift));
  }
  parts.push(...runnerDots(scene, shift, tones), ...checkMarks(scene.check, shift));
  parts.push(...dataDots(scene.data ?? [], shift, tones));
  if (scene.reading) parts.push(...readingDots(scene, shift));
  return parts;
}

/** What keeps its height while the picture moves: the place of the reading line, and scales of shades. */
export function pinnedParts(scene, shift, size, tones) {
  const rows = scene.rows.filter((row) => row.curve?.levels?.length);
  const scales = rows.flatMap((row) =>
    levelScale(row, row.curve.levels, size, tones[row.tone % TONES]),
  );
  const x = scene.reading ? across(shift, scene.reading.x) : -1;
  return [
    ...scales,
    ...(x >= 0 && x <= size.width ? [readingTag(scene.reading, shift, size)] : []),
  ];
}

/** The zeros of a row as short strokes at a level; doubtful ones look it. */
function zeroMarks(marks, shift, y) {
  const strokes = (isProved) =>
    marks
      .filter((mark) => mark.proved === isProved)
      .map((mark) => `M${across(shift, mark.x)} ${y - ZERO_PX}v${2 * ZERO_PX}`);
  return [
    ["mark-line", strokes(true)],
    ["mark-line mark-doubt", strokes(false)],
  ]
    .filter(([, parts]) => parts.length)
    .map(([name, parts]) => svg("path", { class: name, d: parts.join("") }));
}

/** A flag keeps to its curve's end while the picture moves. */
function flag(row, colour, shift) {
  const { x, y, width } = row.flag;
  const left = across(shift, x * 10);
  const top = down(shift, y * 10);
  return svg("g", { class: "flag", transform: `translate(${left} ${top})` }, [
    svg("rect", { width, height: 18, rx: 2, fill: colour }),
    label(row.name, width / 2, 13, { class: "flag-text", "text-anchor": "middle" }),
  ]);
}

/** The value of a curve of a family, at its end. */
function valueFlag({ flag: { x, y, width }, text }, colour, shift) {
  const left = across(shift, x * 10);
  const top = down(shift, y * 10);
  return svg("g", { class: "value-flag", transform: `translate(${left} ${top})` }, [
    svg("rect", { width, height: 18, rx: 2, stroke: colour }),
    label(text, width / 2, 13, { class: "value-flag-text", "text-anchor": "middle", fill: colour }),
  ]);
}

/** Columns as points; very many are one path of small squares. */
function dataDots(data, shift, tones) {
  return data.flatMap(({ points, tone, chosen = [], x_bars = [], y_bars = [] }) => {
    const at = (k) => [across(shift, points[2 * k]), down(shift, points[2 * k + 1])];
    const path = [];
    for (let k = 0; k < points.length / 2; k += 1) {
      const [x, y] = at(k);
      path.push(`M${x - 3} ${y}h6m-3 -3v6`);
    }
    const bars = [
      ...x_bars.map(
        ([a, b, c]) =>
          `M${across(shift, a)} ${down(shift, b)}m0 -3v6m0 -3H${across(shift, c)}m0 -3v6`,
      ),
      ...y_bars.map(
        ([a, b, , d]) =>
          `M${across(shift, a)} ${down(shift, b)}m-3 0h6m-3 0V${down(shift, d)}m-3 0h6`,
      ),
    ];
    const stroke = tones[(tone + 3) % TONES];
    return [
      ...(bars.length ? [svg("path", { class: "data-bar", d: bars.join(""), stroke })] : []),
      svg("path", { class: "data-dot", d: path.join(""), stroke }),
      ...chosen.map((k) =>
        svg("circle", { class: "data-chosen", cx: at(k)[0], cy: at(k)[1], r: 7 }),
      ),
    ];
  });
}

/** The points of a sampling check, joined as a student would join them. */
function checkMarks(check, shift) {
  const numbers = check?.points ?? [];
  const dots = [];
  for (let k = 0; k < numbers.length; k += 2)
    dots.push([across(shift, numbers[k]), down(shift, numbers[k + 1])]);
  if (!dots.length) return [];
  return [
    svg("polyline", { class: "check-line", points: dots.map((dot) => dot.join(",")).join(" ") }),
    ...dots.map(([x, y]) =>
      svg("rect", { class: "check-dot", x: x - 3.5, y: y - 3.5, width: 7, height: 7 }),
    ),
  ];
}

/** The runners of paths, once they were moved. */
function runnerDots(scene, shift, tones) {
  return scene.rows
    .filter((row) => row.curve && row.runner?.is_set && row.runner.x !== null)
    .map((row) =>
      svg("circle", {
        class: "runner-dot",
        cx: across(shift, row.runner.x),
        cy: down(shift, row.runner.y),
        r: 5.5,
        fill: tones[row.tone % TONES],
      }),
    );
}

/** Where the reading line meets the curves. */
function readingDots(scene, shift) {
  const x = across(shift, scene.reading.x);
  const parts = [];
  for (const row of scene.rows) {
    if (row.curve && row.reading?.y !== null && row.reading?.y !== undefined) {
      // A path is read at its own place, a function on the line.
      const cx = row.reading.x === undefined ? x : across(shift, row.reading.x);
      parts.push(svg("circle", { class: "reading-dot", cx, cy: down(shift, row.reading.y), r: 4 }));
    }
  }
  return parts;
}

/** The place that the reading line stands at. */
function readingTag({ x: tenths, text }, shift, size) {
  const x = across(shift, tenths);
  const width = 7.2 * text.length + 12;
  const left = Math.min(Math.max(x - width / 2, 2), size.width - width - 2);
  return svg("g", { class: "reading-tag" }, [
    svg("rect", { x: left, y: 4, width, height: 18, rx: 2 }),
    label(text, left + width / 2, 17, { "text-anchor": "middle" }),
  ]);
}

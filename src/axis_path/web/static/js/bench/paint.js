// @ts-check
/** Paints curves on a canvas, and what stands on them as SVG. It draws what it is told. */

import { BEYOND_PX } from "./slide.model.js";
import { label, svg } from "./svg.js";
import { TONES } from "./tones.js";

/** Dashes of the tones; the samples in bench.css show the same. */
const DASHES = [[], [9, 5], [2.5, 3], [10, 3, 2.5, 3], [14, 4], [5, 3], [10, 3, 2, 3, 2, 3], [6, 3, 2, 3]];
/** How far the strokes at zeros reach. */
const ZERO_PX = 6;
/** How large the dots of a trail are. */
const TRAIL_TENTHS = 22;
/** The widths of thin, usual and thick lines. */
const WEIGHTS = { 1: 1.4, 2: 2.4, 3: 4 };

/** Where a place of the scene, in tenths, stands now, in px. */
export const across = (shift, tenths) => (shift.ax * tenths) / 10 + shift.bx;
export const down = (shift, tenths) => (shift.ay * tenths) / 10 + shift.by;

/**
 * A canvas as large as this and the space beyond it, and its pen, with nothing on it.
 * @param {HTMLCanvasElement} canvas @param {{width: number, height: number}} size in px.
 * @param {number} across so far it reaches beyond on the left and the right, in px. @param {number} [down] and above and below.
 */
export function cleared(canvas, { width, height }, across, down = 0) {
  const ratio = window.devicePixelRatio || 1;
  const [outerWidth, outerHeight] = [width + 2 * across, height + 2 * down];
  const [wide, high] = [Math.round(outerWidth * ratio), Math.round(outerHeight * ratio)];
  if (canvas.width !== wide || canvas.height !== high) {
    canvas.width = wide;
    canvas.height = high;
    Object.assign(canvas.style, { width: `${outerWidth}px`, height: `${outerHeight}px`, left: `${-across}px`, top: `${-down}px`, transformOrigin: `${across}px ${down}px` });
  }
  const pen = canvas.getContext("2d");
  pen.setTransform(1, 0, 0, 1, 0, 0);
  pen.clearRect(0, 0, wide, high);
  /** Let places count from the corner of what is seen. */
  const place = (ax, ay, bx, by) => pen.setTransform(ratio * ax, 0, 0, ratio * ay, ratio * (bx + across), ratio * (by + down));
  return { pen, ratio, place };
}

/** All curves. */
export function paintCurves(canvas, scene, shift, size, tones, trails) {
  const { beyond } = scene.window;
  const { pen, ratio, place } = cleared(canvas, size, beyond, beyond);
  place(shift.ax / 10, shift.ay / 10, shift.bx, shift.by);
  for (const row of scene.rows) {
    if (row.curve) paintFills(pen, row, tones[row.tone % TONES]);
  }
  for (const row of scene.rows) {
    if (row.trail && row.curve) paintTrail(pen, trails.last(row.id, row.trail.most), scene.window, tones[row.tone % TONES], shift);
  }
  for (const row of scene.rows) {
    if (row.family && row.curve) paintFamily(pen, row, tones[row.tone % TONES], ratio);
  }
  for (const row of scene.rows) {
    if (!row.curve) continue;
    paintLevels(pen, row, tones[row.tone % TONES], ratio);
    paintDashed(pen, row, tones[row.tone % TONES], ratio);
    paintCurve(pen, row, tones[row.tone % TONES], ratio);
  }
}

/** How strong the first and the last curve of a family are. */
const FAINT = 0.22;
const STRONG = 0.75;

/** The curves of a family, as ghosts behind the present one: the later their value, the stronger. */
function paintFamily(pen, row, colour, ratio) {
  const { members } = row.family;
  members.forEach((member, k) => {
    const alpha = FAINT + ((STRONG - FAINT) * (k + 1)) / members.length;
    fillBands(pen, member.bands, colour, 0.4 * alpha);
    trace(pen, [...member.pieces, ...member.dashed]);
    strokeIn(pen, ratio, { colour, width: 1.5, alpha, dash: member.dashed.length ? [5, 5] : [] });
  });
}

/** Stroke what was traced, with a width in px however the picture is stretched. */
function strokeIn(pen, ratio, { colour, width, alpha, dash }) {
  const present = pen.getTransform();
  pen.setTransform(ratio, 0, 0, ratio, 0, 0);
  pen.strokeStyle = colour;
  pen.lineWidth = width;
  pen.globalAlpha = alpha;
  pen.setLineDash(dash);
  pen.stroke();
  pen.setLineDash([]);
  pen.globalAlpha = 1;
  pen.setTransform(present);
}

/** Where a point has been: dots that grow fainter with age. */
function paintTrail(pen, places, window, colour, shift) {
  const { width, height } = window;
  const flat = (value, isLog) => (isLog ? Math.log10(value) : value);
  pen.fillStyle = colour;
  places.forEach(([x, y], k) => {
    const px = ((flat(x, window.log_x) - window.x[0]) / (window.x[1] - window.x[0])) * width;
    const py = ((window.y[1] - flat(y, window.log_y)) / (window.y[1] - window.y[0])) * height;
    if (!(px > -BEYOND_PX && px < width + BEYOND_PX && py > -BEYOND_PX && py < height + BEYOND_PX)) return;
    pen.globalAlpha = 0.25 + (0.5 * (k + 1)) / places.length;
    pen.beginPath();
    pen.ellipse(px * 10, py * 10, TRAIL_TENTHS / Math.abs(shift.ax), TRAIL_TENTHS / Math.abs(shift.ay), 0, 0, 2 * Math.PI);
    pen.fill();
  });
  pen.globalAlpha = 1;
}

function trace(pen, pieces) {
  pen.beginPath();
  for (const piece of pieces) {
    pen.moveTo(piece[0], piece[1]);
    for (let k = 2; k < piece.length; k += 2) pen.lineTo(piece[k], piece[k + 1]);
  }
}

/** What a region fills; regions upon one another stay readable. */
function paintFills(pen, row, colour) {
  const { fills = [], dense = [] } = row.curve;
  pen.fillStyle = colour;
  pen.globalAlpha = 0.16;
  trace(pen, fills);
  pen.fill("evenodd");
  paintShades(pen, row.curve.levels ?? []);
  pen.globalAlpha = 0.4;
  for (let k = 0; k < dense.length; k += 4) pen.fillRect(dense[k], dense[k + 1], dense[k + 2], dense[k + 3]);
  pen.globalAlpha = 1;
}

/** The shade of a level: the higher, the darker. */
const shadeOf = (k, count) => 0.04 + (0.42 * k) / Math.max(count - 1, 1);

function paintShades(pen, levels) {
  levels.forEach((level, k) => {
    pen.globalAlpha = shadeOf(k, levels.length);
    trace(pen, level.fills);
    pen.fill("evenodd");
  });
}

/** Level curves are finer than curves, so that many are readable. */
function paintLevels(pen, row, colour, ratio) {
  if (!row.curve.levels) return;
  trace(pen, row.curve.levels.flatMap((level) => level.lines));
  const present = pen.getTransform();
  pen.setTransform(ratio, 0, 0, ratio, 0, 0);
  pen.lineWidth = 1.3;
  pen.strokeStyle = colour;
  pen.setLineDash([]);
  pen.stroke();
  pen.setTransform(present);
}

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
    parts.push(svg("rect", { x: 13, y, width: 18, height: SCALE_STEP, fill: colour, "fill-opacity": shadeOf(k, levels.length) }));
    if (k) parts.push(label(level.text, 36, y + SCALE_STEP + 4, { class: "tick-label" }));
  });
  return parts;
}

/** A border that does not belong to its region is dashed, and thinner. */
function paintDashed(pen, row, colour, ratio) {
  if (!row.curve.dashed?.length) return;
  trace(pen, row.curve.dashed);
  const present = pen.getTransform();
  pen.setTransform(ratio, 0, 0, ratio, 0, 0);
  pen.lineWidth = 1.6;
  pen.strokeStyle = colour;
  pen.setLineDash([5, 5]);
  pen.stroke();
  pen.setTransform(present);
}

function paintCurve(pen, row, colour, ratio) {
  trace(pen, row.curve.pieces);
  const present = pen.getTransform();
  // The line keeps its width while the picture is stretched.
  pen.setTransform(ratio, 0, 0, ratio, 0, 0);
  pen.lineWidth = WEIGHTS[row.style.weight];
  pen.lineJoin = "round";
  pen.strokeStyle = colour;
  // Dashes of a border would say that it is left out.
  pen.setLineDash(row.kind === "region" && row.style.stroke === null ? [] : DASHES[row.style.stroke ?? row.tone % TONES]);
  pen.stroke();
  pen.setTransform(present);
  fillBands(pen, row.curve.bands, colour, 0.4);
}

/** Where a curve is faster than the pixels. */
function fillBands(pen, bands, colour, alpha) {
  pen.fillStyle = colour;
  pen.globalAlpha = alpha;
  for (const band of bands) {
    trace(pen, [band]);
    pen.fill();
  }
  pen.globalAlpha = 1;
}

/** A dot of a list is smaller than a point's own; very many make a dotted line. */
const DOT_PX = 4.5;
const DOTS_PX = 3;
const FINE_PX = 1.2;
const SPECK_PX = 1.6;
const MANY = 80;

function dots(row, shift, colour) {
  const places = row.curve.dots ?? [];
  const isFine = places.length > 2 * MANY;
  const r = isFine ? FINE_PX : places.length > 2 ? DOTS_PX : DOT_PX;
  const parts = [];
  const specks = row.curve.specks ?? [];
  for (let k = 0; k < specks.length; k += 2) parts.push(mark("fine", across(shift, specks[k]), down(shift, specks[k + 1]), SPECK_PX, colour));
  if (row.style.joined && places.length > 2) {
    const points = [];
    for (let k = 0; k < places.length; k += 2) points.push(`${across(shift, places[k])},${down(shift, places[k + 1])}`);
    const dash = DASHES[row.style.stroke ?? row.tone % TONES].join(" ");
    parts.push(svg("polyline", { points: points.join(" "), fill: "none", stroke: colour, "stroke-width": WEIGHTS[row.style.weight] - 0.4, "stroke-dasharray": dash }));
  }
  for (let k = 0; k < places.length; k += 2) {
    parts.push(mark(isFine ? "fine" : row.style.mark, across(shift, places[k]), down(shift, places[k + 1]), r, colour));
  }
  return parts;
}

function mark(kind, x, y, r, colour) {
  if (kind === "ring") return svg("circle", { class: "point-ring", cx: x, cy: y, r, stroke: colour });
  if (kind === "cross") return svg("path", { class: "point-cross", d: `M${x - r} ${y - r}l${2 * r} ${2 * r}m0 ${-2 * r}l${-2 * r} ${2 * r}`, stroke: colour });
  if (kind === "square") return svg("rect", { class: "point-dot", x: x - r, y: y - r, width: 2 * r, height: 2 * r, fill: colour });
  return svg("circle", { class: kind === "fine" ? "" : "point-dot", cx: x, cy: y, r, fill: colour });
}

/** Ends, zeros, flags, and what the reading line meets. */
export function markParts(scene, shift, size, tones) {
  const parts = [];
  for (const row of scene.rows) {
    if (!row.curve) continue;
    const colour = tones[row.tone % TONES];
    for (const guide of (scene.axes.guides && row.curve.guides) || []) {
      const x = across(shift, guide);
      parts.push(svg("line", { class: "guide-line", x1: x, x2: x, y1: -BEYOND_PX, y2: size.height + BEYOND_PX, stroke: colour }));
    }
    for (const end of row.curve.ends) {
      parts.push(svg("circle", { class: end.closed ? "end-dot" : "end-dot end-open", cx: across(shift, end.x), cy: down(shift, end.y), r: 4.5, stroke: colour, ...(end.closed ? { fill: colour } : {}) }));
    }
    parts.push(...levelMarks(row, shift, colour), ...dots(row, shift, colour));
    if (row.lane && scene.axes.x_axis !== null) parts.push(...zeroMarks(row.lane.marks, shift, down(shift, scene.axes.x_axis)));
    if (row.flag) parts.push(flag(row, colour, shift));
    for (const member of row.family?.members ?? []) if (member.flag) parts.push(valueFlag(member, colour, shift));
  }
  parts.push(...runnerDots(scene, shift, tones), ...checkMarks(scene.check, shift));
  parts.push(...dataDots(scene.data ?? [], shift, tones));
  if (scene.reading) parts.push(...readingDots(scene, shift));
  return parts;
}

/** What keeps its height while the picture moves: the place of the reading line, and scales of shades. */
export function pinnedParts(scene, shift, size, tones) {
  const rows = scene.rows.filter((row) => row.curve?.levels?.length);
  const scales = rows.flatMap((row) => levelScale(row, row.curve.levels, size, tones[row.tone % TONES]));
  const x = scene.reading ? across(shift, scene.reading.x) : -1;
  return [...scales, ...(x >= 0 && x <= size.width ? [readingTag(scene.reading, shift, size)] : [])];
}

/** The zeros of a row as short strokes at a level; doubtful ones look it. */
function zeroMarks(marks, shift, y) {
  const strokes = (isProved) => marks.filter((mark) => mark.proved === isProved).map((mark) => `M${across(shift, mark.x)} ${y - ZERO_PX}v${2 * ZERO_PX}`);
  return [["mark-line", strokes(true)], ["mark-line mark-doubt", strokes(false)]]
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
      ...x_bars.map(([a, b, c]) => `M${across(shift, a)} ${down(shift, b)}m0 -3v6m0 -3H${across(shift, c)}m0 -3v6`),
      ...y_bars.map(([a, b, , d]) => `M${across(shift, a)} ${down(shift, b)}m-3 0h6m-3 0V${down(shift, d)}m-3 0h6`),
    ];
    const stroke = tones[(tone + 3) % TONES];
    return [
      ...(bars.length ? [svg("path", { class: "data-bar", d: bars.join(""), stroke })] : []),
      svg("path", { class: "data-dot", d: path.join(""), stroke }),
      ...chosen.map((k) => svg("circle", { class: "data-chosen", cx: at(k)[0], cy: at(k)[1], r: 7 })),
    ];
  });
}

/** The points of a sampling check, joined as a student would join them. */
function checkMarks(check, shift) {
  const places = check?.points ?? [];
  const dots = [];
  for (let k = 0; k < places.length; k += 2) dots.push([across(shift, places[k]), down(shift, places[k + 1])]);
  if (!dots.length) return [];
  return [
    svg("polyline", { class: "check-line", points: dots.map((each) => each.join(",")).join(" ") }),
    ...dots.map(([x, y]) => svg("rect", { class: "check-dot", x: x - 3.5, y: y - 3.5, width: 7, height: 7 })),
  ];
}

/** The runners of paths, once they were moved. */
function runnerDots(scene, shift, tones) {
  return scene.rows
    .filter((row) => row.curve && row.runner?.is_set && row.runner.x !== null)
    .map((row) => svg("circle", { class: "runner-dot", cx: across(shift, row.runner.x), cy: down(shift, row.runner.y), r: 5.5, fill: tones[row.tone % TONES] }));
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

// @ts-check
/** Paints curves on a canvas, on the page or in a worker: nothing here knows of a document. */

import { TONES } from "./tones.js";

/** Dashes of the tones; the samples in bench.css show the same. */
export const DASHES = [
  [],
  [9, 5],
  [2.5, 3],
  [10, 3, 2.5, 3],
  [14, 4],
  [5, 3],
  [10, 3, 2, 3, 2, 3],
  [6, 3, 2, 3],
];
/** The widths of thin, usual and thick lines. */
export const WEIGHTS = { 1: 1.4, 2: 2.4, 3: 4 };
/** Farther outside nothing of a trail is painted, in tenths of px. */
const FAR_TENTHS = 100_000;

/**
 * All curves.
 * @param {{pen: any, ratio: number, place: Function}} canvas cleared, with the space beyond the window. @param {any} scene
 * @param {any} shift @param {string[]} tones @param {(id: number, most: number) => ([number, number] | null)[]} lastOf the last places of a trail.
 */
export function paintCurves({ pen, ratio, place }, scene, shift, tones, lastOf) {
  place(shift.ax / 10, shift.ay / 10, shift.bx, shift.by);
  for (const row of scene.rows) {
    if (row.curve) paintFills(pen, row, tones[row.tone % TONES]);
  }
  for (const row of scene.rows) {
    if (row.trail && row.curve)
      paintTrail(pen, lastOf(row.id, row.trail.most), scene.window, tones[row.tone % TONES], ratio);
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

/** So many numbers of places are painted in every frame without losing any: six curves have some 2,400. */
const QUICK = 4_000;

/** Whether the curves of a scene take little time to paint. @param {any} scene */
export function isQuick(scene) {
  const all = (lines) => lines.reduce((sum, line) => sum + line.length, 0);
  const ofCurve = ({ pieces, bands, fills = [], dashed = [], levels = [], dense = [] }) =>
    all(pieces) +
    all(bands) +
    all(fills) +
    all(dashed) +
    dense.length +
    levels.reduce((sum, level) => sum + all(level.lines) + all(level.fills), 0);
  const ofRow = ({ curve, family, trail }) =>
    (curve ? ofCurve(curve) : 0) +
    (trail ? trail.most : 0) +
    (family?.members ?? []).reduce((sum, member) => sum + ofCurve(member), 0);
  return scene.rows.reduce((sum, row) => sum + ofRow(row), 0) < QUICK;
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

/** Trails fade in so many steps. */
const FADES = 10;
const TRAIL_PX = 3;

/** Where a point has been: a line that grows fainter with age; a position that is joined to none is a dot. */
function paintTrail(pen, positions, window, colour, ratio) {
  const { width, height } = window;
  const flat = (value, isLog) => (isLog ? Math.log10(value) : value);
  const tenths = positions.map((position) => {
    if (!position) return null;
    const px = (flat(position[0], window.log_x) - window.x[0]) / (window.x[1] - window.x[0]);
    const py = (window.y[1] - flat(position[1], window.log_y)) / (window.y[1] - window.y[0]);
    const at = [10 * width * px, 10 * height * py];
    return at.every((number) => Math.abs(number) < FAR_TENTHS) ? at : null;
  });
  const perBand = Math.ceil(tenths.length / FADES);
  for (let band = 0; band * perBand < tenths.length; band += 1) {
    pen.beginPath();
    for (let k = band * perBand; k < Math.min((band + 1) * perBand, tenths.length); k += 1) {
      const [before, now] = [tenths[k - 1], tenths[k]];
      if (!now) continue;
      pen.moveTo(...(before ?? now));
      pen.lineTo(...now);
    }
    const alpha = 0.3 + (0.5 * (band + 1)) / FADES;
    pen.lineCap = pen.lineJoin = "round";
    strokeIn(pen, ratio, { colour, width: TRAIL_PX, alpha, dash: [] });
    pen.lineCap = "butt";
  }
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
  for (let k = 0; k < dense.length; k += 4)
    pen.fillRect(dense[k], dense[k + 1], dense[k + 2], dense[k + 3]);
  pen.globalAlpha = 1;
}

/** The shade of a level: the higher, the darker. */
export const shadeOf = (k, count) => 0.04 + (0.42 * k) / Math.max(count - 1, 1);

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
  trace(
    pen,
    row.curve.levels.flatMap((level) => level.lines),
  );
  const present = pen.getTransform();
  pen.setTransform(ratio, 0, 0, ratio, 0, 0);
  pen.lineWidth = 1.3;
  pen.strokeStyle = colour;
  pen.setLineDash([]);
  pen.stroke();
  pen.setTransform(present);
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
  pen.setLineDash(
    row.kind === "region" && row.style.stroke === null
      ? []
      : DASHES[row.style.stroke ?? row.tone % TONES],
  );
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

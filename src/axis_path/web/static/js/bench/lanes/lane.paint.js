// @ts-check
/** Paints lanes: where a function is defined, its signs and its zeros. */

import { across } from "../plane/marks.paint.js";
import { LANE_PX } from "./lanes.model.js";

/** How high the band of a lane lies. */
const MIDDLE = LANE_PX / 2;
const BAND_PX = 10;
const MARK_PX = 9;
const NUMBER_Y = MIDDLE + 22;
const SIGN_Y = 14;
/** Narrower stretches than this have no sign or arrow. */
const LEAST_STRETCH_PX = 16;
const HATCH_PX = 7;

/**
 * @typedef {{pen: CanvasRenderingContext2D, inks: Record<string, string>, colour: string, shift: any, width: number, beyond: number}} Tools
 */

/**
 * @param {CanvasRenderingContext2D} pen at the upper left corner of the lane. @param {any} row the row of the scene.
 * @param {any} shift @param {number} width @param {{colour: string, inks: Record<string, string>, beyond: number}} look
 */
export function paintLane(pen, row, shift, width, look) {
  pen.fillStyle = look.inks.line;
  pen.fillRect(-look.beyond, MIDDLE, width + 2 * look.beyond, 1);
  const tools = { pen, shift, width, ...look };
  const { lane } = row;
  scaleOf(tools, row);
  if (lane.band) {
    band(tools, lane.band);
    core(tools, lane.band);
  }
  for (const stretch of lane.bands ?? []) band(tools, stretch);
  for (const stretch of lane.undefined) hatched(tools, stretch);
  for (const hole of lane.holes) ring(tools, hole);
  const signs = signsOf(tools, lane.signs ?? []);
  arrowsOf(tools, lane.trends ?? [], signs);
  marksOf(tools, lane.marks);
}

/** @param {Tools} tools @param {[number, number]} stretch */
function band({ pen, colour, shift }, [from, to]) {
  pen.globalAlpha = 0.24;
  pen.fillStyle = colour;
  pen.fillRect(
    across(shift, from),
    MIDDLE - BAND_PX / 2,
    Math.max(across(shift, to) - across(shift, from), 0),
    BAND_PX,
  );
  pen.globalAlpha = 1;
}

/** @param {Tools} tools @param {[number, number]} stretch */
function core({ pen, colour, shift }, [from, to]) {
  pen.globalAlpha = 0.75;
  pen.fillStyle = colour;
  pen.fillRect(
    across(shift, from),
    MIDDLE - 1,
    Math.max(across(shift, to) - across(shift, from), 0),
    2,
  );
  pen.globalAlpha = 1;
}

/** A stretch without values: slanted lines over the band. @param {Tools} tools @param {[number, number]} stretch */
function hatched({ pen, inks, shift }, [from, to]) {
  const [left, right] = [across(shift, from), across(shift, to)];
  pen.fillStyle = inks.paper;
  pen.fillRect(left, MIDDLE - 6, right - left, 12);
  pen.beginPath();
  for (let x = Math.ceil(left / HATCH_PX) * HATCH_PX; x < right - 6; x += HATCH_PX) {
    pen.moveTo(x, MIDDLE + 5);
    pen.lineTo(x + 6, MIDDLE - 5);
  }
  stroke(pen, inks.soft, 1, 0.7);
}

/** A single x that is left out. @param {Tools} tools @param {number} x */
function ring({ pen, inks, colour, shift }, x) {
  pen.beginPath();
  pen.arc(across(shift, x), MIDDLE, 4, 0, 2 * Math.PI);
  pen.fillStyle = inks.paper;
  pen.fill();
  stroke(pen, colour, 2);
}

function stroke(pen, colour, width, alpha = 1) {
  pen.globalAlpha = alpha;
  pen.strokeStyle = colour;
  pen.lineWidth = width;
  pen.stroke();
  pen.globalAlpha = 1;
}

/** A text with a rim of paper, so that it can be read on anything. */
function write({ pen, inks }, text, x, y, colour, font, align = "center") {
  pen.font = font;
  pen.textAlign = align;
  pen.lineJoin = "round";
  pen.strokeStyle = inks.paper;
  pen.lineWidth = 3;
  pen.strokeText(text, x, y);
  pen.fillStyle = colour;
  pen.fillText(text, x, y);
}

/** The positions of the signs that are written: at the left of each stretch. @param {Tools} tools */
function signsOf(tools, signs) {
  const positions = [];
  for (const [from, to, sign] of signs) {
    const [left, right] = seen(tools, from, to);
    if (right - left < LEAST_STRETCH_PX) continue;
    positions.push(left + 8);
    write(
      tools,
      sign > 0 ? "+" : "−",
      left + 8,
      SIGN_Y,
      tools.inks.soft,
      `600 14px ${tools.inks.text}`,
    );
  }
  return positions;
}

/** The part of a stretch that is seen; if nothing of it is, the part that is drawn beyond. */
function seen({ shift, width, beyond }, from, to) {
  const [left, right] = [across(shift, from), across(shift, to)];
  const far = right < 0 || left > width ? beyond : 0;
  return [Math.max(left, -far), Math.min(right, width + far)];
}

/** Arrows where the function rises or falls. @param {Tools} tools @param {number[]} taken where signs stand. */
function arrowsOf(tools, trends, taken) {
  const { pen, inks } = tools;
  pen.beginPath();
  for (const [from, to, trend] of trends) {
    const [left, right] = seen(tools, from, to);
    if (right - left < LEAST_STRETCH_PX) continue;
    // From the left on, the first x that covers no sign.
    const x = [left + 12, (left + right) / 2, right - 12].find((candidate) =>
      taken.every((other) => Math.abs(other - candidate) > LEAST_STRETCH_PX),
    );
    if (x === undefined) continue;
    const rise = 4 * trend;
    pen.moveTo(x - 6, 10 + rise);
    pen.lineTo(x + 6, 10 - rise);
    pen.moveTo(x + 1, 10 - rise);
    pen.lineTo(x + 6, 10 - rise);
    pen.lineTo(x + 6, 10);
  }
  stroke(pen, inks.soft, 1.3);
}

/** How far the number of a zero reaches on each side of its mark, in px. */
export const halfOf = (mark) => 3.4 * mark.short.length;

/** Zeros with their numbers; a number that would cover another is left out, the mark stays. @param {Tools} tools */
function marksOf(tools, marks) {
  const { pen, inks, shift } = tools;
  for (const isProved of [true, false]) {
    pen.beginPath();
    pen.setLineDash(isProved ? [] : [3, 3]);
    for (const mark of marks.filter((zero) => zero.proved === isProved)) {
      pen.moveTo(across(shift, mark.x), MIDDLE - MARK_PX);
      pen.lineTo(across(shift, mark.x), MIDDLE + MARK_PX);
    }
    stroke(pen, isProved ? inks.ink : inks.doubt, 2);
  }
  pen.setLineDash([]);
  let free = -Infinity;
  for (const mark of marks) {
    const x = across(shift, mark.x);
    const half = halfOf(mark);
    if (x - half <= free + 4) continue;
    write(tools, mark.short, x, NUMBER_Y, inks.ink, `11px ${inks.text}`);
    free = x + half;
  }
}

/** The scale of a lane that does not share the plane's axis: the name of its variable and ticks. @param {Tools} tools */
function scaleOf(tools, row) {
  if (!row.lane.scale) return;
  const { pen, inks, shift } = tools;
  write(
    tools,
    row.variable === "theta" ? "θ" : row.variable,
    4,
    12,
    inks.ink,
    `italic 15px ${inks.maths}`,
    "left",
  );
  pen.beginPath();
  for (const tick of row.lane.scale.ticks) {
    pen.moveTo(across(shift, tick.x), MIDDLE - MARK_PX);
    pen.lineTo(across(shift, tick.x), MIDDLE + MARK_PX);
  }
  stroke(pen, inks.line, 1);
  for (const tick of row.lane.scale.ticks)
    write(tools, tick.text, across(shift, tick.x), NUMBER_Y, inks.ink, `11px ${inks.text}`);
}

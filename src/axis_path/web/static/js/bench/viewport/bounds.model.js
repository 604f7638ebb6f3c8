// @ts-check
/** Where the bounds of the window stand beside the axes, in px; no DOM. */

/** How far a bound keeps from its axis and from the edges. */
const GAP = 12;
const EDGE = 6;
/** The widest bound. */
const WIDTH = 76;
/** The tool bar in the lower right corner. */
const TOOLS = { width: 424, height: 44 };

/** The top of the bounds of the horizontal axis, which stand above it. @param {number | null} axis @param {number} height of the plane. @param {number} bound how high a bound is. */
export function boundLevel(axis, height, bound) {
  const level = axis === null || axis > height ? height - TOOLS.height - GAP : axis;
  return clamped(level - bound - GAP, EDGE + bound + GAP, height - bound - TOOLS.height - GAP);
}

/** The left side of the bounds of the upright axis, which stand to the right of it. @param {number | null} axis @param {number} width of the plane. */
export function boundUpright(axis, width) {
  const upright = axis === null || axis > width ? 0 : axis;
  return clamped(upright + GAP, EDGE, width - WIDTH - EDGE);
}

/** How far the lower bound is lifted, so that it does not lie under the tool bar. @param {number} left of the bound. @param {number} width of the plane. */
export function liftAbove(left, width) {
  return left + WIDTH > width - TOOLS.width - 2 * EDGE ? TOOLS.height - EDGE : 0;
}

/** @param {number} value @param {number} least @param {number} most */
const clamped = (value, least, most) => Math.round(Math.max(least, Math.min(value, most)));

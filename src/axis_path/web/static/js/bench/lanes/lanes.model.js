// @ts-check
/** Where lanes stand, in the list of rows and on their scales. */

import { UNMOVED } from "../viewport/affine.model.js";

/** How high a lane is painted. */
export const LANE_PX = 54;

/**
 * From the scale that a lane was made with to the one that the pointer holds.
 * @param {{low: number, high: number}} scale @param {{low: number, high: number} | undefined} held @param {number} width in px.
 */
export function ownShift(scale, held, width) {
  if (!held) return UNMOVED;
  const span = held.high - held.low;
  return {
    ax: (scale.high - scale.low) / span,
    bx: ((scale.low - held.low) / span) * width,
    ay: 1,
    by: 0,
  };
}

/**
 * What of a list is on the screen, in px from the top of what it holds.
 * @param {{top: number, bottom: number}} box where the list stands. @param {number} scrolled how far it is scrolled.
 * @param {number} height of the screen. @param {number} [more] so much on both sides is taken too.
 */
export function rangeOf({ top, bottom }, scrolled, height, more = 0) {
  const [first, last] = [Math.max(top, 0), Math.min(bottom, height)];
  return [first - top + scrolled - more, last - top + scrolled + more];
}

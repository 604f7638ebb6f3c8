// @ts-check
/**
 * Pictures that follow the hand without being painted anew: as long as nothing is stretched, they slide.
 */

import { isMoved, shiftBetween } from "./affine.model.js";

/** So far a picture of a window that moves is drawn beyond it, in px; before its end is seen it is painted anew. */
export const BEYOND_PX = 160;
/** When so much of that is used up, the next one is asked for. */
const USED = 0.65;
const SAME = 1e-9;

/**
 * Whether what was drawn of one window, and beyond it, will do for another one, and for some more of the way.
 * @param {any} made the window of a scene. @param {import("./affine.model.js").Bounds} now @param {{width: number, height: number}} size
 */
export function isCovered(made, now, size) {
  if (!made.beyond || made.width !== size.width || made.height !== size.height || !isMoved(made, now)) return false;
  const { bx, by } = shiftBetween(made, now, size);
  return Math.max(Math.abs(bx), Math.abs(by)) < USED * made.beyond;
}

export class Slide {
  constructor() {
    /** @type {{scene: any, shift: any, width: number, height: number} | null} */
    this.painted = null;
  }

  /**
   * How far what was painted has to slide to stand where it is wanted now, in whole px.
   * @param {any} scene @param {{ax: number, bx: number, ay: number, by: number}} shift
   * @param {{width: number, height: number}} size
   * @returns {{dx: number, dy: number} | null} nothing if it has to be painted anew: that is taken as done.
   */
  to(scene, shift, { width, height }) {
    const last = this.painted;
    const isSame = last && last.scene === scene && last.width === width && last.height === height;
    if (isSame && Math.abs(shift.ax - last.shift.ax) < SAME && Math.abs(shift.ay - last.shift.ay) < SAME) {
      const dx = Math.round(shift.bx - last.shift.bx);
      const dy = Math.round(shift.by - last.shift.by);
      if (Math.abs(dx) < BEYOND_PX && Math.abs(dy) < BEYOND_PX) return { dx, dy };
    }
    // What is frozen Alpine gives as it is, and not as a proxy, whose scene would never be the same one.
    this.painted = Object.freeze({ scene, shift, width, height });
    return null;
  }

  /** Let it be painted anew. */
  forget() {
    this.painted = null;
  }
}

/** @param {any} element @param {number} dx @param {number} dy */
export function slideBy(element, dx, dy) {
  element.style.transform = dx || dy ? `translate(${dx}px, ${dy}px)` : "";
}

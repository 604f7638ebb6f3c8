// @ts-check
/**
 * Pictures that follow the hand without being painted anew: as long as nothing is stretched, they slide.
 */

/** So far a picture is drawn beyond its window, in px; before that is seen it is painted anew. */
export const BEYOND_PX = 100;
const SAME = 1e-9;

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
    this.painted = { scene, shift, width, height };
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

// @ts-check
/**
 * Pictures that follow the pointer without being painted anew: as long as nothing is stretched, they slide.
 */

import { isMoved, shiftBetween, UNMOVED } from "./affine.model.js";

/** So far a picture of a window that moves is drawn beyond it, in px; before its end is seen it is painted anew. */
export const BEYOND_PX = 160;
/** When so much of that is used up, the next one is asked for. */
const USED = 0.65;
const SAME = 1e-9;
/** Lines are drawn somewhat nearer than half a px. */
const SPARE = 1.1;
/** A part of a px at an edge is not missed. */
const EDGE_PX = 0.5;

/**
 * Whether what was drawn of one window, and beyond it, will do for another one, and for some more of the way.
 * @param {any} made the window of a scene. @param {import("./affine.model.js").Bounds} now @param {{width: number, height: number}} size
 */
export function isCovered(made, now, size) {
  if (
    !made.beyond ||
    made.width !== size.width ||
    made.height !== size.height ||
    !isMoved(made, now)
  )
    return false;
  const { bx, by } = shiftBetween(made, now, size);
  return Math.max(Math.abs(bx), Math.abs(by)) < USED * made.beyond;
}

/**
 * Whether lines that were drawn of one window fill another one, and are true as large as they are shown there.
 * @param {any} made the window of a scene. @param {import("./affine.model.js").Bounds} now @param {{width: number, height: number}} size
 */
export function isTrueIn(made, now, size) {
  if (Boolean(made.log_x) !== Boolean(now.log_x) || Boolean(made.log_y) !== Boolean(now.log_y))
    return false;
  const { ax, bx, ay, by } = shiftBetween(made, now, size);
  const fills = (a, b, drawn, length) =>
    b - a * made.beyond <= EDGE_PX && b + a * (drawn + made.beyond) >= length - EDGE_PX;
  return (
    Math.max(ax, ay) <= made.stretch * SPARE &&
    fills(ax, bx, made.width, size.width) &&
    fills(ay, by, made.height, size.height)
  );
}

/** A picture is stretched by no more than this before it is painted anew. */
const MOST_STRETCH = 1.5;

/**
 * How a painted picture stands right in another window: its places times ax and ay, and moved by px.
 * @typedef {{ax: number, ay: number, dx: number, dy: number}} Placing
 */

export class Slide {
  /** @param {boolean} [mayStretch] whether it is stretched too, or only moved. */
  constructor(mayStretch = false) {
    this.mayStretch = mayStretch;
    /** @type {{scene: any, shift: any, width: number, height: number} | null} */
    this.painted = null;
  }

  /**
   * How what was painted has to be placed to stand where it is wanted now.
   * @param {any} scene @param {{ax: number, bx: number, ay: number, by: number}} shift
   * @param {{width: number, height: number}} size
   * @returns {Placing | null} nothing if it has to be painted anew: that is taken as done.
   */
  to(scene, shift, { width, height }) {
    const last = this.painted;
    if (last && last.scene === scene && last.width === width && last.height === height) {
      const placing = this.placing(last.shift, shift);
      if (placing) return placing;
    }
    // What is frozen Alpine gives as it is, and not as a proxy, whose scene would never be the same one.
    this.painted = Object.freeze({ scene, shift, width, height });
    return null;
  }

  /** A scene was painted for its own window. @param {any} scene @param {{width: number, height: number}} size */
  begin(scene, { width, height }) {
    this.painted = Object.freeze({ scene, shift: UNMOVED, width, height });
  }

  /** From one place to another, if it is not too far. @returns {Placing | null} */
  placing(from, to) {
    const [ax, ay] = [to.ax / from.ax, to.ay / from.ay];
    if (Math.abs(ax - 1) < SAME && Math.abs(ay - 1) < SAME) {
      const [dx, dy] = [Math.round(to.bx - from.bx), Math.round(to.by - from.by)];
      return Math.max(Math.abs(dx), Math.abs(dy)) < BEYOND_PX ? { ax: 1, ay: 1, dx, dy } : null;
    }
    const stretch = Math.max(ax, 1 / ax, ay, 1 / ay);
    return this.mayStretch && stretch < MOST_STRETCH
      ? { ax, ay, dx: to.bx - ax * from.bx, dy: to.by - ay * from.by }
      : null;
  }

  /** Let it be painted anew. */
  forget() {
    this.painted = null;
  }
}

/** Move an element from its place; one that stands there already is left alone. @param {any} element @param {number} dx @param {number} dy */
export function slideBy(element, dx, dy) {
  const transform = dx || dy ? `translate(${dx}px, ${dy}px)` : "";
  if (element.style.transform !== transform) element.style.transform = transform;
}

/** Let a canvas stand where it belongs until it is painted anew; as it was painted, without a placing. @param {any} canvas @param {Placing | null} placing */
export function placeCanvas(canvas, placing) {
  const isMoved = !placing || (placing.ax === 1 && placing.ay === 1);
  if (isMoved) slideBy(canvas, placing?.dx ?? 0, placing?.dy ?? 0);
  else
    canvas.style.transform = `matrix(${placing.ax}, 0, 0, ${placing.ay}, ${placing.dx}, ${placing.dy})`;
}

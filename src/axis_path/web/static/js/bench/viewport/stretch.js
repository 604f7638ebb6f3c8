// @ts-check
/** Stretches one axis: from its labels, or from the handle at its end. */
import { lookThrough } from "./actions.js";
import { stretched } from "./affine.model.js";

/** @typedef {import("../session/engine.js").Engine} Engine */
/** @typedef {{name: "x" | "y", fixed: number, from: number, window: any}} Held an axis, the px that stays, and where it was taken. */

/** The labels of an axis lie within so many px below it, or to its left. */
const LABELS_PX = { x: [4, 24], y: [4, 46] };
/** Nearer to the position that stays, an axis cannot be held: it would run away. */
const LEAST_ARM_PX = 24;
const KEY_STRETCH = 1.25;

/** Where the axes stand, in px; at the edges if they are out of sight. @param {Engine} engine */
function standing({ picture, size }) {
  const at = (tenths, length, edge) =>
    tenths === null || tenths === undefined || tenths < 0 || tenths > 10 * length
      ? edge
      : tenths / 10;
  return {
    level: at(picture.scene?.axes.x_axis, size.height, size.height - 25),
    upright: at(picture.scene?.axes.y_axis, size.width, 40),
  };
}

/** The axis whose labels lie under a pointer; null between them. @param {Engine} engine @param {{x: number, y: number}} at @returns {Held | null} */
export function axisAt(engine, at) {
  if (!engine.picture.scene) return null;
  const { level, upright } = standing(engine);
  const [below, left] = [at.y - level, upright - at.x];
  const isIn = (part, /** @type {number[]} */ [least, most]) => part >= least && part <= most;
  if (isIn(below, LABELS_PX.x) && Math.abs(left) > LABELS_PX.x[1]) return held(engine, "x", at.x);
  if (isIn(left, LABELS_PX.y) && Math.abs(below) > LABELS_PX.x[1]) return held(engine, "y", at.y);
  return null;
}

/** Take hold of an axis. @param {Engine} engine @param {"x" | "y"} name @param {number} from in px @returns {Held | null} */
export function held(engine, name, from) {
  const { level, upright } = standing(engine);
  const { width, height } = engine.size;
  const [zero, length] = name === "x" ? [upright, width] : [level, height];
  const fixed = zero > 0 && zero < length ? zero : length / 2;
  if (Math.abs(from - fixed) < LEAST_ARM_PX) return null;
  return { name, fixed, from, window: engine.window };
}

/** Stretch an axis so that what was taken stands under the pointer. @param {Engine} engine @param {Held} axis @param {number} position in px */
export function stretchTo(engine, { name, fixed, from, window }, position) {
  const { width, height } = engine.size;
  // Past the position that stays the axis would turn round.
  if ((position - fixed) * (from - fixed) <= 0 || Math.abs(position - fixed) < LEAST_ARM_PX / 2)
    return;
  const bounds =
    name === "x"
      ? stretched(window.x, width, fixed, from, position)
      : stretched(window.y, height, height - fixed, height - from, height - position);
  lookThrough(engine, { ...window, [name]: bounds });
}

/** Stretch an axis by a key. @param {Engine} engine @param {"x" | "y"} name @param {boolean} isLonger */
export function stretchStep(engine, name, isLonger) {
  const end = name === "x" ? engine.size.width : 0;
  const axis = held(engine, name, end);
  if (!axis) return;
  const arm = (end - axis.fixed) * (isLonger ? KEY_STRETCH : 1 / KEY_STRETCH);
  stretchTo(engine, axis, axis.fixed + arm);
  engine.changed("window");
}

// @ts-check
/**
 * Windows and where they put things on the screen; no DOM.
 *
 * Bounds are as they stand on the axes: in units on a plain axis, in decades on a logarithmic one, so
 * that moving and zooming need not know which it is.
 */

/** @typedef {{x: [number, number], y: [number, number], log_x?: boolean, log_y?: boolean}} Bounds */
/** The bounds of the horizontal axis alone. @typedef {{x: [number, number], log_x?: boolean}} AcrossBounds */
/** @typedef {{width: number, height: number}} Size */
/** @typedef {{ax: number, bx: number, ay: number, by: number}} Shift */

/**
 * How a picture made for one window is shifted and stretched to stand right in another.
 * @param {Bounds & Size} made what the picture was made for.
 * @param {Bounds} now @param {Size} size
 * @returns {Shift} px now = a * px made + b
 */
export function shiftBetween(made, now, size) {
  const nowX = now.x[1] - now.x[0];
  const nowY = now.y[1] - now.y[0];
  return {
    ax: ((made.x[1] - made.x[0]) / nowX) * (size.width / made.width),
    bx: ((made.x[0] - now.x[0]) / nowX) * size.width,
    ay: ((made.y[1] - made.y[0]) / nowY) * (size.height / made.height),
    by: ((now.y[1] - made.y[1]) / nowY) * size.height,
  };
}

/** Where everything stays where it was made for. @type {Shift} */
export const UNMOVED = { ax: 1, bx: 0, ay: 1, by: 0 };

/** Whether a window is another one that was only moved, not stretched. @param {Bounds} before @param {Bounds} now */
export function isMoved(before, now) {
  const isSame = (axis) =>
    Math.abs(now[axis][1] - now[axis][0] - (before[axis][1] - before[axis][0])) <
    1e-9 * (before[axis][1] - before[axis][0]);
  return (
    isSame("x") &&
    isSame("y") &&
    Boolean(before.log_x) === Boolean(now.log_x) &&
    Boolean(before.log_y) === Boolean(now.log_y)
  );
}

/** A window is drawn wider than it is by no more than this part of it on each side, for a pointer that goes on as it did. */
const MOST_AHEAD = 1 / 2;
/** Lines are asked for that are true when they are shown so many times larger at most, in steps of this part. */
const MOST_STRETCH = 2;
const STRETCHES = 4;

/**
 * Where a window will be if the pointer goes on as it did: each step is by the same part of what is seen.
 * @param {Bounds} before @param {Bounds} now @param {number} share how many such steps it will go.
 * @returns {Bounds}
 */
export function later(before, now, share) {
  const along = (axis) => {
    const ratio = (now[axis][1] - now[axis][0]) / (before[axis][1] - before[axis][0]);
    const steps = Math.abs(ratio - 1) < 1e-9 ? share : (ratio * (ratio ** share - 1)) / (ratio - 1);
    return /** @type {[number, number]} */ (
      [0, 1].map((end) => now[axis][end] + steps * (now[axis][end] - before[axis][end]))
    );
  };
  return { ...now, x: along("x"), y: along("y") };
}

/**
 * What a window that grows will soon show too. It is not made smaller: a pointer may rest, or turn round.
 * @param {Bounds} now @param {Bounds} then where it will be.
 * @returns {Bounds}
 */
export function grown(now, then) {
  const outward = (axis) => {
    const most = MOST_AHEAD * (now[axis][1] - now[axis][0]);
    const [low, high] = [now[axis][0] - then[axis][0], then[axis][1] - now[axis][1]].map((by) =>
      Math.min(Math.max(by, 0), most),
    );
    return /** @type {[number, number]} */ ([now[axis][0] - low, now[axis][1] + high]);
  };
  return { ...now, x: outward("x"), y: outward("y") };
}

/**
 * How many times larger a picture of a window will be shown.
 * @param {Bounds} now @param {Bounds} then where the window will be. @param {Bounds} made what the picture is made for.
 */
export function stretchAhead(now, then, made) {
  const along = (axis) => {
    const [span, soon, drawn] = [now, then, made].map(
      (bounds) => bounds[axis][1] - bounds[axis][0],
    );
    return drawn / Math.min(span, soon);
  };
  return Math.min(
    Math.ceil(STRETCHES * Math.max(along("x"), along("y"))) / STRETCHES,
    MOST_STRETCH,
  );
}

/** Move a window by px. @param {Bounds} window @param {Size} size @param {number} dxPx @param {number} dyPx @returns {Bounds} */
export function moved(window, size, dxPx, dyPx) {
  const dx = (-dxPx * (window.x[1] - window.x[0])) / size.width;
  const dy = (dyPx * (window.y[1] - window.y[0])) / size.height;
  return {
    ...window,
    x: [window.x[0] + dx, window.x[1] + dx],
    y: [window.y[0] + dy, window.y[1] + dy],
  };
}

/**
 * Zoom about a point that stays where it is.
 * @param {Bounds} window @param {Size} size @param {{x: number, y: number}} atPx
 * @param {number} factor over 1 shows more. @returns {Bounds}
 */
export function zoomed(window, size, atPx, factor) {
  const x = window.x[0] + (atPx.x / size.width) * (window.x[1] - window.x[0]);
  const y = window.y[1] - (atPx.y / size.height) * (window.y[1] - window.y[0]);
  const stretched = ([low, high], fixed) =>
    /** @type {[number, number]} */ ([
      fixed + (low - fixed) * factor,
      fixed + (high - fixed) * factor,
    ]);
  return { ...window, x: stretched(window.x, x), y: stretched(window.y, y) };
}

/** The same window with equal scales on both axes, if both are plain: what is seen across stays. @param {Bounds} window @param {Size} size @returns {Bounds} */
export function equalised(window, size, by = "x") {
  if (window.log_x || window.log_y) return window;
  if (by === "y") {
    const centre = (window.x[0] + window.x[1]) / 2;
    const reach = ((window.y[1] - window.y[0]) * size.width) / size.height / 2;
    return { ...window, x: [centre - reach, centre + reach] };
  }
  const middle = (window.y[0] + window.y[1]) / 2;
  const half = ((window.x[1] - window.x[0]) * size.height) / size.width / 2;
  return { ...window, y: [middle - half, middle + half] };
}

/**
 * Stretch one axis so that the place under the pointer follows it; the place `fixedPx` stays.
 * @param {[number, number]} bounds low at px 0, high at px `length`. @param {number} length
 * @param {number} fixedPx @param {number} fromPx @param {number} toPx @returns {[number, number]}
 */
export function stretched(bounds, length, fixedPx, fromPx, toPx) {
  const factor = (fromPx - fixedPx) / (toPx - fixedPx);
  const fixed = bounds[0] + (fixedPx / length) * (bounds[1] - bounds[0]);
  return [fixed + (bounds[0] - fixed) * factor, fixed + (bounds[1] - fixed) * factor];
}

/** The window that a box on the screen shows. @param {Bounds} window @param {Size} size @param {{x: number, y: number}} a @param {{x: number, y: number}} b @returns {Bounds} */
export function boxed(window, size, a, b) {
  const at = (px) => window.x[0] + (px / size.width) * (window.x[1] - window.x[0]);
  const up = (px) => window.y[1] - (px / size.height) * (window.y[1] - window.y[0]);
  return {
    ...window,
    x: [at(Math.min(a.x, b.x)), at(Math.max(a.x, b.x))],
    y: [up(Math.max(a.y, b.y)), up(Math.min(a.y, b.y))],
  };
}

/** Bounds of a logarithmic axis are this far apart and go no further than this, in decades. */
const LEAST_DECADES = 0.02;
const MOST_DECADES = 100;

/** Whether a window can still be drawn truly. @param {Bounds} window */
export function isDrawable(window) {
  const axes = /** @type {[[number, number], boolean | undefined][]} */ ([
    [window.x, window.log_x],
    [window.y, window.log_y],
  ]);
  return axes.every(([[low, high], isLog]) => {
    if (isLog) return high - low > LEAST_DECADES && low > -MOST_DECADES && high < MOST_DECADES;
    const size = Math.max(Math.abs(low), Math.abs(high));
    return (
      Number.isFinite(low) &&
      Number.isFinite(high) &&
      high - low > 1e-10 * size &&
      high - low > 1e-100 &&
      size < 1e100
    );
  });
}

/** Bounds in axis units. @param {[number, number]} bounds @param {boolean | undefined} isLog @returns {[number, number]} */
export const unitsOf = ([low, high], isLog) => (isLog ? [10 ** low, 10 ** high] : [low, high]);

/** The abscissa at a px, in axis units. @param {AcrossBounds} window @param {number} width @param {number} px */
export function abscissa(window, width, px) {
  const x = window.x[0] + (px / width) * (window.x[1] - window.x[0]);
  return window.log_x ? 10 ** x : x;
}

/** The ordinate at a px, in axis units. @param {Bounds} window @param {number} height @param {number} px */
export function ordinate(window, height, px) {
  const y = window.y[1] - (px / height) * (window.y[1] - window.y[0]);
  return window.log_y ? 10 ** y : y;
}

/** The px of an abscissa in axis units. @param {AcrossBounds} window @param {number} width @param {number} x */
export function pxOf(window, width, x) {
  const position = window.log_x ? Math.log10(Math.max(x, Number.MIN_VALUE)) : x;
  return ((position - window.x[0]) / (window.x[1] - window.x[0])) * width;
}

/** The window, moved across so that an abscissa is seen. @param {Bounds} window @param {number} x in axis units @returns {Bounds} */
export function showing(window, x) {
  const px = pxOf(window, 1, x);
  if ((px >= 0 && px <= 1) || (window.log_x && x <= 0)) return window;
  return moved(window, { width: 1, height: 1 }, 0.5 - px, 0);
}

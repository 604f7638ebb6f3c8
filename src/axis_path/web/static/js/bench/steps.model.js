// @ts-check
/** The values a slider may take, counted in steps from its lower end; no DOM. */

/** @typedef {{low_value: number, high_value: number, step_value: number}} Range */

/** The number of the last step; it ends at the upper end, even if no whole step does. @param {Range} range */
export function lastStep({ low_value: low, high_value: high, step_value: step }) {
  // A quotient such as 0.3 / 0.1 is a hair off a whole number.
  return Math.ceil((high - low) / step - 1e-6);
}

/** The number of the step nearest to a value. @param {Range} range @param {number} value */
export function stepNear(range, value) {
  const { low_value: low, high_value: high, step_value: step } = range;
  const inside = Math.min(Math.max(value, low), high);
  const nearest = Math.min(Math.round((inside - low) / step), lastStep(range));
  const isEndNearer = high - inside < Math.abs(inside - valueOfStep(range, nearest));
  return isEndNearer ? lastStep(range) : nearest;
}

/** The value of a step. @param {Range} range @param {number} k */
export function valueOfStep(range, k) {
  const { low_value: low, high_value: high, step_value: step } = range;
  return k >= lastStep(range) ? high : low + k * step;
}

/** How many steps lie under one pixel of a track, at least 1. @param {Range} range @param {number} widthPx */
export function stepsInPixel(range, widthPx) {
  return Math.max(1, Math.floor(lastStep(range) / widthPx));
}

/**
 * The step a pointer means: one of those that lie a grain apart, or an end.
 * @param {Range} range @param {number} value @param {number} grain
 */
export function stepMeant(range, value, grain) {
  const k = stepNear(range, value);
  return k === lastStep(range) ? k : Math.min(Math.round(k / grain) * grain, lastStep(range));
}

/**
 * The steps a hand will probably reach next, the likeliest first: it goes on as it went, a little
 * slower or faster.
 * @param {Range} range @param {number} from @param {number} to @param {number} grain @returns {number[]}
 */
export function stepsAhead(range, from, to, grain) {
  const forward = to < from ? -grain : grain;
  const stride = Math.max(Math.round(Math.abs(to - from) / grain), 1);
  const strides = stride > 1 ? [stride, stride - 1, stride + 1] : [1, 2];
  return strides.map((each) => to + forward * each).filter((k) => k >= 0 && k <= lastStep(range));
}

/**
 * The steps around one, the nearest first, and not the one itself.
 * @param {Range} range @param {number} from @param {number} grain @param {number} most @returns {number[]}
 */
export function stepsAround(range, from, grain, most) {
  const last = lastStep(range);
  // Those that a pointer means lie whole grains from the lower end.
  const middle = Math.round(from / grain) * grain;
  const found = [];
  for (let away = 0; found.length < most && away <= last + grain; away += grain) {
    for (const k of new Set([middle + away, middle - away])) if (k >= 0 && k <= last && k !== from) found.push(k);
  }
  return found.slice(0, most);
}

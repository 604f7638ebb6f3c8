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

/** Steps more grains away are not thought of: a track has fewer px. */
const FAR = 500;
/** So many grains away a step is as likely as on the other side. */
const CLOSE = 3;
/** Within so many grains of where a pointer sets out, and of where it stops, it is so quick that of so many grains one is seen. */
const GAPS = [
  [10, 1],
  [36, 2],
  [Infinity, 3],
];

/** @param {number} away in grains */
const gapAt = (away) => (GAPS.find(([until]) => away < until) ?? GAPS[GAPS.length - 1])[1];

/**
 * The steps a pointer will probably reach next, the likeliest first: it goes on as it went, a little
 * slower or faster.
 * @param {Range} range @param {number} from @param {number} to @param {number} grain @returns {number[]}
 */
export function stepsAhead(range, from, to, grain) {
  const forward = to < from ? -grain : grain;
  const stride = Math.max(Math.round(Math.abs(to - from) / grain), 1);
  const strides = stride > 1 ? [stride, stride - 1, stride + 1] : [1, 2];
  return strides
    .map((stride) => to + forward * stride)
    .filter((k) => k >= 0 && k <= lastStep(range));
}

/**
 * The steps that a pointer will probably pass on its way, the likeliest first.
 * @param {Range} range @param {number} start where it set out. @param {number} from @param {number} to @param {number} grain @returns {number[]}
 */
export function stepsOnward(range, start, from, to, grain) {
  const onward = coarsely(range, start, grain).filter((k) => (to < from ? k < to : k > to));
  return [...new Set([...stepsAhead(range, from, to, grain), ...onward])];
}

/**
 * The steps around one, the nearest first, and not the one itself: first as a pointer will pass them that
 * sets out here, then what is between.
 * @param {Range} range @param {number} from @param {number} grain @param {number} most @returns {number[]}
 */
export function stepsAround(range, from, grain, most) {
  return [...new Set([...coarsely(range, from, grain), ...around(range, from, grain)])].slice(
    0,
    most,
  );
}

/** Steps around one with gaps that grow. @param {Range} range @param {number} from @param {number} grain */
function coarsely(range, from, grain) {
  const last = lastStep(range);
  // A pointer that goes far often goes to the end.
  const gap = (k) => gapAt(Math.min(Math.abs(k - from), k, last - k) / grain);
  // Multiples, so that those that are known around one serve around others too.
  return around(range, from, grain).filter(
    (k) => k === last || Math.round(k / grain) % gap(k) === 0,
  );
}

/**
 * The steps around one that a pointer can mean, the likeliest first: the nearest, and further away those
 * where there is more room to go.
 * @param {Range} range @param {number} from @param {number} grain @returns {number[]}
 */
function around(range, from, grain) {
  const last = lastStep(range);
  const all = [];
  const first = Math.max(Math.round(from / grain) - FAR, 0) * grain;
  for (let k = first; k <= Math.min(last, from + FAR * grain); k += grain) all.push(k);
  // The upper end may lie between two grains.
  if (last % grain && last - from <= FAR * grain) all.push(last);
  const unlikely = (k) => {
    const away = Math.abs(k - from) / grain;
    const room = (k < from ? from : last - from) / last;
    return away <= CLOSE ? away : CLOSE + (away - CLOSE) / room;
  };
  return all.filter((k) => k !== from).sort((a, b) => unlikely(a) - unlikely(b) || b - a);
}

/**
 * The step to show for a fast drag. It goes by pictures that are at hand: by one that it has just passed, or
 * waits for one that it passes at once, so that no frame has to be made meanwhile.
 * @param {Range} range @param {number} shown the step that was tried last. @param {number} from what the pointer meant before.
 * @param {number} to what it means now. @param {number} grain @param {(k: number) => boolean} isKnown
 * @returns {number | null} nothing where what is shown stays.
 */
export function stepInPassing(range, shown, from, to, grain, isKnown) {
  const passed = stepsPassed(shown, to, grain).find(isKnown);
  if (passed !== undefined) return passed;
  const next = Math.min(Math.max(2 * to - from, 0), lastStep(range));
  return stepsPassed(to, next, grain).some(isKnown) ? null : to;
}

/** The steps a pointer passes from one to another, the last first, and not the one it comes from. @param {number} from @param {number} to @param {number} grain */
function stepsPassed(from, to, grain) {
  const forward = to < from ? -grain : grain;
  // The upper end may lie between two grains.
  const last = forward > 0 ? Math.floor(to / grain) * grain : Math.ceil(to / grain) * grain;
  const stops = last === to ? [] : [to];
  for (let k = last; (k - from) * forward > 0; k -= forward) stops.push(k);
  return stops;
}

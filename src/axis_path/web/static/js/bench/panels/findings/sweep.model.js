// @ts-check
/** The curve of a sweep: where its points and its scale stand; no DOM. */

const MARGIN = { left: 44, right: 10, top: 8, bottom: 22 };
/** How many numbers stand on each scale at most. */
const TICKS = 5;

/**
 * @param {any} result what the server found. @param {"x" | "y"} measure what stands upwards.
 * @param {{width: number, height: number}} size
 */
export function plotOf(result, measure, size) {
  const coordinate = measure === "x" ? 1 : 2;
  const ups = result.branches
    .flatMap((branch) => branch.points.map((point) => point[coordinate]))
    .filter(Number.isFinite);
  const across = scaled(
    result.low_value,
    result.high_value,
    MARGIN.left,
    size.width - MARGIN.right,
  );
  const [low, high] = ups.length ? [Math.min(...ups), Math.max(...ups)] : [0, 1];
  const room = (high - low) * 0.06 || Math.abs(high) * 0.1 || 1;
  const up = scaled(low - room, high + room, size.height - MARGIN.bottom, MARGIN.top);
  const points = result.branches.map((branch) =>
    branch.points
      .filter((point) => Number.isFinite(point[coordinate]))
      .map((point) => [across.at(point[0]), up.at(point[coordinate])]),
  );
  return {
    lines: points
      .filter((run) => run.length > 1)
      .map((run) => `M${run.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}`),
    // Between the dots was not looked: the lines join them.
    dots: result.rows.length <= 121 ? points.flat() : [],
    events: result.events.map((event) => ({
      x: across.at(event.value),
      y: nearestUp(points, across.at(event.value), size),
    })),
    ticks: [
      ...ticksOf(across).map(({ at, text }) => ({
        d: `M${at} ${MARGIN.top}V${size.height - MARGIN.bottom}`,
        text,
        x: at,
        y: size.height - 6,
        anchor: "middle",
      })),
      ...ticksOf(up).map(({ at, text }) => ({
        d: `M${MARGIN.left} ${at}H${size.width - MARGIN.right}`,
        text,
        x: MARGIN.left - 5,
        y: at + 4,
        anchor: "end",
      })),
    ],
  };
}

/** An event stands at the end of the branch that is nearest to it. */
function nearestUp(points, x, size) {
  const ends = points.filter((run) => run.length).flatMap((run) => [run[0], run.at(-1)]);
  const near = ends.reduce(
    (best, end) => (best && Math.abs(best[0] - x) <= Math.abs(end[0] - x) ? best : end),
    /** @type {any} */ (null),
  );
  return near ? near[1] : size.height - MARGIN.bottom;
}

function scaled(low, high, from, to) {
  const span = high - low || 1;
  return { low, high, at: (value) => from + ((value - low) / span) * (to - from) };
}

/** Round numbers on a scale. */
function ticksOf({ low, high, at }) {
  const raw = (high - low) / TICKS || 1;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = power * ([1, 2, 5, 10].find((factor) => factor * power >= raw) ?? 10);
  const ticks = [];
  for (let k = Math.ceil(low / step); k * step <= high + step * 1e-9; k += 1) {
    ticks.push({
      at: at(k * step),
      text: String(Number((k * step).toPrecision(6))).replace("-", "−"),
    });
  }
  return ticks;
}

// @ts-check
/** Paints what was located: marks with their labels on the plane, marks and stretches on the lanes. */
import { across, down } from "./marks.paint.js";
import { label, svg } from "./svg.js";

const LETTER_PX = 7.4;
const LABEL_HEIGHT = 18;
/** Shapes about the place (0, 0), by what was located. */
const SHAPES = {
  minimum: "M-5 -4.5H5L0 4.5Z",
  maximum: "M-5 4.5H5L0 -4.5Z",
  inflections: "M0 -5.5L5.5 0L0 5.5L-5.5 0Z",
  pole: "M-4.5 -4.5L4.5 4.5M-4.5 4.5L4.5 -4.5",
  jump: "M0 -6V6M-3 -6H3M-3 6H3",
  end: "M3 -6H-2V6H3",
};
const ROUND = "M-4.5 0a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0";
/** Two rings: two curves. */
const RINGS =
  "M-6.5 0a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0M-2.5 0a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0";

const shapeOf = (kind) => SHAPES[kind] ?? (kind === "intersections" ? RINGS : ROUND);
const classOf = (mark) => `located-mark${mark.proved === false ? " is-doubtful" : ""}`;

/** What stands on the plane. @param {any} findings @param {any} shift @param {number | null} axis how high the x axis is, in px. */
export function findingsParts(findings, shift, axis) {
  const parts = [];
  if (axis !== null) parts.push(...findings.spans.flatMap((span) => spanParts(span, shift, axis)));
  for (const mark of findings.marks) {
    const [x, y] = [across(shift, mark.x), down(shift, mark.y)];
    if (mark.text) parts.push(...labelParts(mark, x, y));
    parts.push(
      svg("path", {
        class: classOf(mark),
        d: shapeOf(mark.kind),
        transform: `translate(${x} ${y})`,
      }),
    );
  }
  return parts;
}

/** A label keeps its distance from its mark while the picture moves. */
function labelParts(mark, x, y) {
  const [dx, dy] = [(mark.at[0] - mark.x) / 10, (mark.at[1] - mark.y) / 10];
  const width = LETTER_PX * mark.text.length + 8;
  return [
    svg("line", { class: "located-leader", x1: x, y1: y, x2: x + dx, y2: y + dy }),
    svg("rect", {
      class: "located-box",
      x: x + dx - width / 2,
      y: y + dy - LABEL_HEIGHT / 2,
      width,
      height: LABEL_HEIGHT,
      rx: 3,
    }),
    label(mark.text, x + dx, y + dy + 4.5, { class: "located-label", "text-anchor": "middle" }),
  ];
}

function spanParts(span, shift, y) {
  const [low, high] = [across(shift, span.low), across(shift, span.high)];
  const parts = [svg("line", { class: "located-span", x1: low, x2: high, y1: y, y2: y })];
  for (const [x, end] of [
    [low, span.low_end],
    [high, span.high_end],
  ]) {
    if (end)
      parts.push(
        svg("circle", {
          class: end === "closed" ? "located-end" : "located-end is-open",
          cx: x,
          cy: y,
          r: 4.5,
        }),
      );
  }
  return parts;
}

/** What stands on the lane of a line. @param {any} findings @param {number} id of the line. */
export function laneParts(findings, id, shift, middle) {
  const marks = findings.marks.filter(
    (mark) => (mark.line === id || mark.other === id) && mark.kind !== "zeros",
  );
  return [
    ...findings.spans.flatMap((span) => spanParts(span, shift, middle)),
    ...marks.map((mark) =>
      svg("path", {
        class: classOf(mark),
        d: shapeOf(mark.kind),
        transform: `translate(${across(shift, mark.x)} ${middle}) scale(.8)`,
      }),
    ),
  ];
}

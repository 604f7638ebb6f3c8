// @ts-check
/** Paints the columns of the what-if table: a dot for each row, joined where that is proved. */
import { across, down } from "./marks.paint.js";
import { label, svg } from "./svg.js";
import { TONES } from "./tones.js";

/** Its tones begin elsewhere than those of lines. */
const FIRST_TONE = 5;
const LETTER_PX = 7.2;

/** @param {{label: string, tone: number, lines: number[][], dots: number[]}[]} curves @param {any} shift @param {{width: number}} size @param {string[]} tones */
export function whatIfParts(curves, shift, size, tones) {
  return curves.flatMap((curve) =>
    curveParts(curve, shift, size, tones[(curve.tone + FIRST_TONE) % TONES]),
  );
}

function curveParts({ label: name, lines, dots }, shift, size, colour) {
  const at = (numbers, k) => [across(shift, numbers[k]), down(shift, numbers[k + 1])];
  const places = [];
  for (let k = 0; k < dots.length; k += 2) places.push(at(dots, k));
  const strokes = lines.map((numbers) => {
    const points = [];
    for (let k = 0; k < numbers.length; k += 2) points.push(at(numbers, k).join(" "));
    return `M${points.join("L")}`;
  });
  const [x, y] = places.at(-1) ?? [0, 0];
  const width = LETTER_PX * name.length + 12;
  const left = Math.min(x + 6, size.width - width - 4);
  const top = Math.max(y - 26, 4);
  return [
    svg("path", { class: "what-if-line", d: strokes.join(""), stroke: colour }),
    svg("path", {
      class: "what-if-dots",
      d: places.map(([px, py]) => `M${px - 3} ${py}l3 -3l3 3l-3 3z`).join(""),
      stroke: colour,
    }),
    svg("rect", {
      class: "what-if-box",
      x: left,
      y: top,
      width,
      height: 18,
      rx: 2,
      stroke: colour,
    }),
    label(name, left + width / 2, top + 13, {
      class: "what-if-label",
      "text-anchor": "middle",
      fill: colour,
    }),
  ];
}

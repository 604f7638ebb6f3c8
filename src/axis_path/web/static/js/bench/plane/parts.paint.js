// @ts-check
/**
 * Parts of a picture, painted on a canvas as they would look as elements. While a pointer moves this is quicker:
 * elements have to be styled, laid out, painted and put together again in every frame.
 */
/** @typedef {import("./svg.js").Part} Part */

const SVG = "http://www.w3.org/2000/svg";
/** What of a part's look may be written on the part itself. */
const LOOKS = [
  "class",
  "fill",
  "stroke",
  "stroke-width",
  "stroke-dasharray",
  "fill-opacity",
  "text-anchor",
];
const ALIGNED = { start: "left", middle: "center", end: "right" };
const DEGREE = Math.PI / 180;

/** How the style sheet wants parts to look: asked once for each look. */
export class Looks {
  /** @param {Element} layer among whose elements looks are found out. */
  constructor(layer) {
    this.layer = layer;
    /** @type {Map<string, any>} */
    this.known = new Map();
  }

  /** @param {Part} part @param {Part[]} within the parts that hold it, from the outermost. */
  of(part, within) {
    const key = [...within, part].map(keyOf).join(">");
    let look = this.known.get(key);
    if (!look) {
      look = this.find([...within, part]);
      this.known.set(key, look);
    }
    return look;
  }

  /** Another theme has other looks. */
  forget() {
    this.known.clear();
  }

  /** @param {Part[]} chain */
  find(chain) {
    const elements = chain.map((part) => {
      const element = document.createElementNS(SVG, part.name);
      for (const name of LOOKS)
        if (name in part.attributes) element.setAttribute(name, String(part.attributes[name]));
      return element;
    });
    elements.reduce((holder, element) => holder.appendChild(element), this.layer);
    const style = getComputedStyle(/** @type {Element} */ (elements.at(-1)));
    const number = (name) => Number.parseFloat(style.getPropertyValue(name));
    const colour = (name) =>
      style.getPropertyValue(name) === "none" ? null : style.getPropertyValue(name);
    const look = {
      fill: colour("fill"),
      fillAlpha: number("fill-opacity"),
      stroke: colour("stroke"),
      width: number("stroke-width"),
      alpha: number("opacity"),
      dash:
        style.strokeDasharray === "none"
          ? []
          : style.strokeDasharray.split(/[ ,]+/).map(Number.parseFloat),
      join: style.strokeLinejoin,
      isStrokeFirst: style.paintOrder.startsWith("stroke"),
      font: `${style.fontStyle} ${style.fontWeight} ${style.fontSize} ${style.fontFamily}`,
      align: ALIGNED[style.textAnchor],
    };
    elements[0].remove();
    return look;
  }
}

const keyOf = ({ name, attributes }) => {
  let key = name;
  for (const look of LOOKS) if (look in attributes) key += `|${look}=${attributes[look]}`;
  return key;
};

/**
 * Paint parts on a canvas.
 * @param {{pen: any, place: Function}} canvas @param {Part[]} parts @param {Looks} looks
 */
export function paintParts({ pen, place }, parts, looks) {
  place(1, 1, 0, 0);
  for (const part of parts) paintPart(pen, part, looks, []);
}

function paintPart(pen, part, looks, within) {
  const { attributes: a } = part;
  const before = a.transform ? pen.getTransform() : null;
  if (before)
    for (const [, how, numbers] of String(a.transform).matchAll(/(\w+)\(([^)]*)\)/g))
      turn(pen, how, numbers.split(" ").map(Number));
  if (part.name === "g")
    for (const child of part.parts) paintPart(pen, child, looks, [...within, part]);
  else draw(pen, part, looks.of(part, within));
  if (before) pen.setTransform(before);
}

function turn(pen, how, numbers) {
  if (how === "translate") pen.translate(numbers[0], numbers[1]);
  else if (how === "rotate") pen.rotate(numbers[0] * DEGREE);
  else pen.scale(numbers[0], numbers[0]);
}

function draw(pen, part, look) {
  if (look.stroke) {
    pen.strokeStyle = look.stroke;
    pen.lineWidth = look.width;
    pen.lineJoin = look.join;
    pen.setLineDash(look.dash);
  }
  const path = part.name === "text" ? null : pathOf(part);
  if (!path) {
    pen.font = look.font;
    pen.textAlign = look.align;
  }
  const { x = 0, y = 0 } = part.attributes;
  const stroke = () => {
    if (!look.stroke) return;
    pen.globalAlpha = look.alpha;
    if (path) pen.stroke(path);
    else pen.strokeText(part.text, x, y);
  };
  const fill = () => {
    if (!look.fill) return;
    pen.fillStyle = look.fill;
    pen.globalAlpha = look.alpha * look.fillAlpha;
    if (path) pen.fill(path);
    else pen.fillText(part.text, x, y);
  };
  if (look.isStrokeFirst) stroke();
  fill();
  if (!look.isStrokeFirst) stroke();
  pen.globalAlpha = 1;
}

/** @param {Part} part */
function pathOf({ name, attributes: a }) {
  if (name === "path") return new Path2D(String(a.d));
  const path = new Path2D();
  if (name === "line") {
    path.moveTo(Number(a.x1), Number(a.y1));
    path.lineTo(Number(a.x2), Number(a.y2));
  } else if (name === "rect")
    path.roundRect(
      Number(a.x ?? 0),
      Number(a.y ?? 0),
      Number(a.width),
      Number(a.height),
      Number(a.rx ?? 0),
    );
  else if (name === "circle") path.arc(Number(a.cx), Number(a.cy), Number(a.r), 0, 2 * Math.PI);
  else if (name === "ellipse")
    path.ellipse(Number(a.cx), Number(a.cy), Number(a.rx), Number(a.ry), 0, 0, 2 * Math.PI);
  else if (name === "polyline") {
    String(a.points)
      .split(" ")
      .forEach((point, k) => {
        const [x, y] = point.split(",").map(Number);
        if (k) path.lineTo(x, y);
        else path.moveTo(x, y);
      });
  }
  return path;
}

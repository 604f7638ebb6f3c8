// @ts-check
/** Paints the small graph of a line of Working: a curve with its axes, bars, or shaded cells. */

/** @typedef {import("#types/answers").WorkSketchAnswer} Sketch */

const TENTHS = 10;
const BAR_GAP = 0.2;

/** Paint as soon as the canvas has a size: it may only be about to be shown. @param {HTMLCanvasElement} canvas @param {Sketch} sketch */
export function paintWhenVisible(canvas, sketch) {
  const observer = new ResizeObserver(() => {
    if (!canvas.clientWidth) return;
    observer.disconnect();
    paintSketch(canvas, sketch);
  });
  observer.observe(canvas);
}

/** @param {HTMLCanvasElement} canvas @param {Sketch} sketch */
function paintSketch(canvas, sketch) {
  const scale = devicePixelRatio || 1;
  const { clientWidth: width, clientHeight: height } = canvas;
  canvas.width = width * scale;
  canvas.height = height * scale;
  const pen = canvas.getContext("2d");
  if (!pen) return;
  pen.scale(scale, scale);
  const style = getComputedStyle(canvas);
  const inks = { line: style.getPropertyValue("--ink-soft"), curve: style.color };
  if (sketch.kind === "curve") paintCurve(pen, sketch, inks, width, height);
  else if (sketch.kind === "bars") paintBars(pen, sketch.bars, inks, width, height);
  else paintCells(pen, sketch.cells, inks, width, height);
}

/** @param {CanvasRenderingContext2D} pen @param {Sketch} sketch @param {{line: string, curve: string}} inks */
function paintCurve(pen, { origin, pieces, bands }, inks, width, height) {
  pen.strokeStyle = inks.line;
  pen.lineWidth = 1;
  pen.beginPath();
  const [x, y] = origin.map((tenths) => Math.round(tenths / TENTHS) + 0.5);
  pen.moveTo(0, y);
  pen.lineTo(width, y);
  pen.moveTo(x, 0);
  pen.lineTo(x, height);
  pen.stroke();
  pen.strokeStyle = pen.fillStyle = inks.curve;
  pen.lineWidth = 1.8;
  pen.lineJoin = "round";
  for (const piece of pieces) {
    follow(pen, piece);
    pen.stroke();
  }
  for (const band of bands) {
    follow(pen, band);
    pen.globalAlpha = 0.5;
    pen.fill();
    pen.globalAlpha = 1;
  }
}

/** @param {CanvasRenderingContext2D} pen @param {number[]} points */
function follow(pen, points) {
  pen.beginPath();
  for (let k = 0; k < points.length; k += 2) pen.lineTo(points[k] / TENTHS, points[k + 1] / TENTHS);
}

/** @param {CanvasRenderingContext2D} pen @param {(number | null)[]} bars */
function paintBars(pen, bars, inks, width, height) {
  const known = bars.filter((bar) => bar !== null);
  const most = Math.max(0, ...known);
  const least = Math.min(0, ...known);
  const level = (value) => 2 + ((most - value) / (most - least || 1)) * (height - 4);
  const step = width / bars.length;
  pen.fillStyle = inks.curve;
  bars.forEach((bar, k) => {
    if (bar === null) return;
    const top = level(Math.max(bar, 0));
    const bottom = level(Math.min(bar, 0));
    pen.fillRect(
      k * step + (step * BAR_GAP) / 2,
      top,
      step * (1 - BAR_GAP),
      Math.max(bottom - top, 1),
    );
  });
  pen.fillStyle = inks.line;
  pen.fillRect(0, Math.round(level(0)), width, 1);
}

/** Cells are as dark as their values are large; below 0 they are hatched. @param {CanvasRenderingContext2D} pen @param {(number | null)[][]} cells */
function paintCells(pen, cells, inks, width, height) {
  const size = Math.min(width / cells[0].length, height / cells.length);
  const most = Math.max(...cells.flat().map((value) => Math.abs(value ?? 0))) || 1;
  cells.forEach((row, r) => {
    row.forEach((value, c) => {
      const [left, top] = [c * size, r * size];
      if (value === null) return;
      pen.globalAlpha = 0.08 + 0.92 * (Math.abs(value) / most);
      pen.fillStyle = pen.strokeStyle = inks.curve;
      if (value >= 0) pen.fillRect(left, top, size - 1, size - 1);
      else hatch(pen, left, top, size - 1);
    });
  });
  pen.globalAlpha = 1;
}

/** @param {CanvasRenderingContext2D} pen */
function hatch(pen, left, top, size) {
  pen.save();
  pen.beginPath();
  pen.rect(left, top, size, size);
  pen.clip();
  pen.lineWidth = 1;
  pen.beginPath();
  for (let k = -size; k < size; k += 4) {
    pen.moveTo(left + k, top + size);
    pen.lineTo(left + k + size, top);
  }
  pen.stroke();
  pen.restore();
}

// @ts-check
/** Canvases and their pens, on the page and off it. */
import { dotsPerPx } from "../viewport/scale.js";

/**
 * A canvas as large as this and the space beyond it, and its pen, with nothing on it.
 * @param {HTMLCanvasElement | OffscreenCanvas} canvas @param {{width: number, height: number}} size in px.
 * @param {number} across so far it reaches beyond on the left and the right, in px. @param {number} [down] and above and below.
 * @param {number} [ratio] dots of the screen for each px.
 */
export function cleared(canvas, { width, height }, across, down = 0, ratio = dotsPerPx()) {
  const [outerWidth, outerHeight] = [width + 2 * across, height + 2 * down];
  const [wide, high] = [Math.round(outerWidth * ratio), Math.round(outerHeight * ratio)];
  if (canvas.width !== wide || canvas.height !== high) {
    canvas.width = wide;
    canvas.height = high;
    // One that is off the screen has no place on the page.
    if ("style" in canvas)
      Object.assign(canvas.style, {
        width: `${outerWidth}px`,
        height: `${outerHeight}px`,
        left: `${-across}px`,
        top: `${-down}px`,
        transformOrigin: `${across}px ${down}px`,
      });
  }
  const pen = /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
  pen.setTransform(1, 0, 0, 1, 0, 0);
  pen.clearRect(0, 0, wide, high);
  /** Let places count from the corner of what is seen. */
  const place = (ax, ay, bx, by) =>
    pen.setTransform(ratio * ax, 0, 0, ratio * ay, ratio * (bx + across), ratio * (by + down));
  return { pen, ratio, place };
}

/**
 * Copy one canvas to another.
 * @param {{pen: any, place: Function}} canvas to copy to. @param {HTMLCanvasElement} source painted with some space beyond it.
 * @param {{width: number, height: number}} size of what is seen, in px. @param {number} beyond
 * @param {import("../viewport/slide.model.js").Placing | null} placing where it belongs; as it was painted, without one.
 */
export function copyOf({ pen, place }, source, { width, height }, beyond, placing) {
  const { ax, ay, dx, dy } = placing ?? { ax: 1, ay: 1, dx: 0, dy: 0 };
  place(ax, ay, dx, dy);
  pen.drawImage(source, -beyond, -beyond, width + 2 * beyond, height + 2 * beyond);
}

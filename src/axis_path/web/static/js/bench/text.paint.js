// @ts-check
/**
 * Texts for canvases, with a rim of paper so that they can be read on anything. Each is painted once,
 * beside the page, and then copied: a font that is set on a canvas in the page makes the browser
 * bring the style of the whole page up to date first.
 */

/** @typedef {{image: ImageBitmap, left: number, top: number}} Sprite a painted text, and where its place lies in it, in px of the screen. */

const MOST_SPRITES = 600;
const RIM_PX = 3;
/** @type {Map<string, Sprite>} */
const sprites = new Map();
const canvas = new OffscreenCanvas(1, 1);
const scratch = /** @type {OffscreenCanvasRenderingContext2D} */ (canvas.getContext("2d"));

// What was painted before its face had come has another one.
document.fonts.addEventListener("loadingdone", () => sprites.clear());

/**
 * @param {CanvasRenderingContext2D} pen @param {string} text @param {number} x @param {number} y
 * @param {{font: string, colour: string, paper: string, align?: CanvasTextAlign}} look
 */
export function writeText(pen, text, x, y, look) {
  const { a: ratio, e, f } = pen.getTransform();
  const { image, left, top } = spriteOf(text, look, ratio);
  // Letters are sharp where they stand on whole px.
  const [wide, high] = [Math.round(x * ratio + e - left), Math.round(y * ratio + f - top)];
  pen.drawImage(image, (wide - e) / ratio, (high - f) / ratio, image.width / ratio, image.height / ratio);
}

/** @param {string} text @param {{font: string, colour: string, paper: string, align?: CanvasTextAlign}} look @param {number} ratio @returns {Sprite} */
function spriteOf(text, { font, colour, paper, align = "center" }, ratio) {
  const key = [text, font, colour, paper, align, ratio].join("\n");
  const known = sprites.get(key);
  if (known) return known;
  if (sprites.size >= MOST_SPRITES) sprites.clear();
  scratch.font = font;
  scratch.textAlign = align;
  const box = scratch.measureText(text);
  const left = Math.ceil(ratio * (box.actualBoundingBoxLeft + RIM_PX));
  const top = Math.ceil(ratio * (box.actualBoundingBoxAscent + RIM_PX));
  canvas.width = left + Math.ceil(ratio * (box.actualBoundingBoxRight + RIM_PX));
  canvas.height = top + Math.ceil(ratio * (box.actualBoundingBoxDescent + RIM_PX));
  // A canvas whose size was set has forgotten all of this.
  Object.assign(scratch, { font, textAlign: align, lineJoin: "round", strokeStyle: paper, lineWidth: RIM_PX, fillStyle: colour });
  scratch.setTransform(ratio, 0, 0, ratio, left, top);
  scratch.strokeText(text, 0, 0);
  scratch.fillText(text, 0, 0);
  const sprite = { image: canvas.transferToImageBitmap(), left, top };
  sprites.set(key, sprite);
  return sprite;
}

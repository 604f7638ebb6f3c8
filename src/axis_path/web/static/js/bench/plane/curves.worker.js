// @ts-check
/** Paints curves beside the page, which shows frames meanwhile. */
import { UNMOVED } from "../viewport/affine.model.js";
import { cleared } from "./canvas.js";
import { paintCurves } from "./curves.paint.js";

const canvas = new OffscreenCanvas(1, 1);

self.addEventListener("message", ({ data: { number, scene, ratio, tones } }) => {
  const { window } = scene;
  paintCurves(
    cleared(canvas, window, window.beyond, window.beyond, ratio),
    scene,
    UNMOVED,
    tones,
    () => [],
  );
  const picture = canvas.transferToImageBitmap();
  self.postMessage({ number, picture }, { transfer: [picture] });
});

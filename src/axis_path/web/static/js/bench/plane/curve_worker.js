// @ts-check
/**
 * Lets a worker paint the curves of a scene before it is shown: while the window slides, and while it is stretched if
 * there are too many to be painted in every frame. Every frame is wanted then, and six curves take half of one.
 */

import { dotsPerPx } from "../viewport/scale.js";

/** @typedef {{scene: any, picture: ImageBitmap}} Painted */

export class CurveWorker {
  /** @param {string} address of the worker's script. */
  constructor(address) {
    this.address = address;
    /** @type {Worker | null} */
    this.worker = null;
    this.isBroken = typeof OffscreenCanvas === "undefined";
    this.number = 0;
    /** @type {((picture: ImageBitmap | null) => void) | null} */
    this.done = null;
  }

  /**
   * Paint the curves of a scene in its own window.
   * @param {any} scene @param {string[]} tones @returns {Promise<Painted | null>} null if the page has to do it itself.
   */
  async paint(scene, tones) {
    const rows = scene.rows.filter((row) => row.curve);
    if (this.isBroken || !rows.length || rows.some((row) => row.trail)) return null;
    this.begin();
    this.done?.(null);
    this.number += 1;
    const { number } = this;
    const picture = await new Promise((done) => {
      this.done = done;
      const needed = rows.map(({ kind, tone, style, curve, family }) => ({
        kind,
        tone,
        style,
        curve,
        family,
      }));
      this.worker?.postMessage({
        number,
        scene: { window: scene.window, rows: needed },
        ratio: dotsPerPx(),
        tones: [...tones],
      });
    });
    return picture && Object.freeze({ scene, picture });
  }

  begin() {
    if (this.worker) return;
    this.worker = new Worker(this.address, { type: "module" });
    this.worker.addEventListener("message", ({ data: { number, picture } }) => {
      if (number === this.number) this.done?.(picture);
      else picture.close();
    });
    this.worker.addEventListener("error", () => {
      this.isBroken = true;
      this.done?.(null);
    });
  }

  end() {
    this.worker?.terminate();
  }
}

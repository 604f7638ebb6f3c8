// @ts-check
/** Lets somebody hear a curve: all of it, with the reading line going along, or place by place. */

import { say } from "../../shared/words.js";
import { abscissa, pxOf } from "../viewport/affine.model.js";
import { Player } from "./player.js";
import { heightsOf, soundOf, toneOf } from "./sound.model.js";

const SECONDS = 4;
/** So many places of a curve are heard. */
const COUNT = 240;
/** The reading line goes along in steps of this. */
const STEP_MS = 120;

export class Hearing {
  /**
   * @param {any} store the reactive store. @param {import("../session/picture.js").Picture} picture
   * @param {(x: number) => void} read moves the reading line.
   */
  constructor(store, picture, read) {
    this.store = store;
    this.picture = picture;
    this.read = read;
    this.player = new Player();
    this.timer = 0;
  }

  /** The rows that can be heard. */
  get rows() {
    return (this.picture.scene?.rows ?? []).filter(
      (row) => row.kind === "function" && row.curve && row.lane && !row.lane.scale,
    );
  }

  /** The row that is heard: the one that was chosen last, else the first. @returns {any} */
  get row() {
    const { rows } = this;
    return rows.find((row) => row.id === this.store.heardLine) ?? rows[0];
  }

  get isPlaying() {
    return this.timer !== 0;
  }

  /** Play the curve of a row, or stop it. @param {number | null} [id] */
  toggle(id = null) {
    if (this.isPlaying) {
      this.stop();
      return;
    }
    if (id !== null) this.store.heardLine = id;
    const { row } = this;
    if (!row || !this.player.canPlay) {
      this.store.say(
        row ? say("This browser cannot play sound.") : say("There is no curve to hear."),
        true,
      );
      return;
    }
    this.store.heardLine = row.id;
    this.store.said = say("Hearing {name}, from the left of the window to the right.", {
      name: row.name,
    });
    this.player.play(soundOf(row, this.picture.viewport.size, COUNT), SECONDS);
    const began = performance.now();
    this.timer = setInterval(() => {
      const part = (performance.now() - began) / (1000 * SECONDS);
      if (part > 1) this.stop();
      else this.read(this.abscissa(part));
    }, STEP_MS);
  }

  abscissa(part) {
    const { window, size } = this.picture.viewport;
    return abscissa(window, size.width, part * size.width);
  }

  stop() {
    clearInterval(this.timer);
    this.timer = 0;
    this.player.stop();
  }

  /** The reading line was moved by a key: the curve is heard there, once it was heard at all. @param {number | null} reading */
  step(reading) {
    const { row } = this;
    if (this.store.heardLine === null || !row || reading === null) return;
    const { window, size } = this.picture.viewport;
    const part = pxOf(window, size.width, reading) / size.width;
    const heights = heightsOf(row.curve.pieces, size, COUNT);
    const height = heights[Math.round(Math.min(Math.max(part, 0), 1) * (COUNT - 1))];
    this.player.tone(height === null ? null : toneOf(height), part);
  }
}

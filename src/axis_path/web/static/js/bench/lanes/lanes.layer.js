// @ts-check
/**
 * The layers that lanes are painted on: one for those on the plane's axis, which follow the window, and one
 * for those of a scale of their own. A canvas for each lane would cost the browser more than what is painted.
 */

import { cleared } from "../plane/canvas.js";
import { readInks, readTones, TONES } from "../plane/tones.js";
import { UNMOVED } from "../viewport/affine.model.js";
import { planeScale } from "../viewport/scale.js";
import { placeCanvas, Slide } from "../viewport/slide.model.js";
import { frozenScales } from "./frozen_scales.js";
import { paintLane } from "./lane.paint.js";
import { LANE_PX, ownShift, rangeOf } from "./lanes.model.js";

/** Lanes so near to be seen are painted too: the next ones that a list scrolls to. */
const NEAR_PX = 108;

export class LaneLayers {
  /**
   * @param {import("../session/engine.js").Engine} engine
   * @param {HTMLElement} frame what holds both canvases, at the top of the list of rows.
   */
  constructor(engine, frame) {
    this.engine = engine;
    this.frame = frame;
    this.list = /** @type {HTMLElement} */ (frame.parentElement);
    const [moving, resting] = frame.querySelectorAll("canvas");
    this.layers = [
      { canvas: moving, slide: new Slide(), isOwn: false, top: 0 },
      { canvas: resting, slide: new Slide(), isOwn: true, top: 0 },
    ];
    /** How far below the top of the list each lane stands, by the id of its row. @type {Map<number, number>} */
    this.tops = new Map();
    /** What of the list was seen or near when it was painted last, in the same px. */
    this.near = [0, 0];
    this.look = null;
    this.painter = (scene, shift) => this.paint(scene, shift);
    engine.picture.painters.add(this.painter);
    this.scrolled = ({ target }) => {
      if (/** @type {Node} */ (target).contains(this.list)) this.settle();
    };
    this.themed = () => {
      this.look = null;
      this.paintAnew();
    };
    document.addEventListener("themechange", this.themed);
    // Whatever scrolls: the list, or the page that holds it.
    document.addEventListener("scroll", this.scrolled, { capture: true, passive: true });
    this.resized = new ResizeObserver(() => this.settle());
    this.listed = new MutationObserver(() => {
      this.watch();
      this.settle();
    });
    this.listed.observe(this.list, { childList: true });
    this.watch();
    this.settle();
  }

  end() {
    this.engine.picture.painters.delete(this.painter);
    document.removeEventListener("themechange", this.themed);
    document.removeEventListener("scroll", this.scrolled, { capture: true });
    this.resized.disconnect();
    this.listed.disconnect();
  }

  get items() {
    return /** @type {HTMLElement[]} */ (
      [...this.list.children].filter((item) => item.matches(".row-item"))
    );
  }

  /** Rows become higher and lower, and lanes come and go. */
  watch() {
    this.resized.disconnect();
    this.resized.observe(this.list);
    for (const item of this.items) {
      this.resized.observe(item);
      this.resized.observe(/** @type {HTMLElement} */ (item.querySelector(".lane")));
    }
  }

  /** See where lanes stand now, and paint anew if that is not where they are painted. */
  settle() {
    const before = this.tops;
    this.tops = new Map();
    const box = this.list.getBoundingClientRect();
    const scrolled = this.list.scrollTop;
    const scale = planeScale();
    let left = Number.parseFloat(this.frame.style.left) || 0;
    for (const item of this.items) {
      const lane = /** @type {HTMLElement} */ (item.querySelector(".lane"));
      if (!lane.offsetParent) continue;
      const its = lane.getBoundingClientRect();
      const top = its.top - box.top - this.list.clientTop + scrolled;
      this.tops.set(Number(item.dataset.row), Math.round(top / scale));
      left = Math.round((its.left - box.left) / scale);
    }
    const seenWith = (more = 0) =>
      rangeOf(box, scrolled, window.innerHeight, more).map((edge) => edge / scale);
    const seen = seenWith();
    const isMoved =
      before.size !== this.tops.size || [...this.tops].some(([id, top]) => before.get(id) !== top);
    const isNew = [...this.tops.values()].some(
      (top) => isWithin(seen, top) && !isWithin(this.near, top),
    );
    this.frame.style.left = `${left}px`;
    if (!isMoved && !isNew) return;
    this.near = seenWith(NEAR_PX);
    this.paintAnew();
  }

  paintAnew() {
    for (const { slide } of this.layers) slide.forget();
    this.engine.picture.paintWith(this.painter);
  }

  /** @param {any} scene @param {any} shift */
  paint(scene, shift) {
    const { width } = this.engine.size;
    const moves = this.layers.map((layer) => {
      const { slide, canvas, isOwn } = layer;
      const placing = slide.to(
        scene,
        isOwn ? UNMOVED : { ...shift, ay: 1, by: 0 },
        this.engine.size,
      );
      if (!placing) this.paintLayer(layer, scene, shift);
      return () => placeCanvas(canvas, placing);
    });
    return () => {
      this.frame.style.width = `${width}px`;
      for (const move of moves) move();
    };
  }

  paintLayer(layer, scene, shift) {
    const { canvas, isOwn } = layer;
    const { size } = this.engine;
    const rows = scene.rows.filter(
      ({ id, lane }) =>
        lane && Boolean(lane.scale) === isOwn && isWithin(this.near, this.tops.get(id)),
    );
    canvas.hidden = !rows.length;
    if (!rows.length) return;
    this.look ??= { tones: readTones(), inks: readInks() };
    const { tones, inks } = this.look;
    const tops = rows.map(({ id }) => this.tops.get(id));
    const top = Math.min(...tops);
    const beyond = isOwn ? 0 : scene.window.beyond;
    const { pen, place } = cleared(
      canvas,
      { width: size.width, height: Math.max(...tops) + LANE_PX - top },
      beyond,
    );
    canvas.style.top = `${top}px`;
    for (const row of rows) {
      place(1, 1, 0, /** @type {number} */ (this.tops.get(row.id)) - top);
      const its = isOwn ? ownShift(row.lane.scale, frozenScales.get(row.id), size.width) : shift;
      paintLane(pen, row, its, size.width, { colour: tones[row.tone % TONES], inks, beyond });
    }
  }
}

/** @param {number[]} part from and to, in px. @param {number | undefined} top */
const isWithin = ([low, high], top) => top !== undefined && top + LANE_PX > low && top < high;

// @ts-check
/**
 * The picture that stands: the scene that is shown, who paints it, and how long that takes.
 *
 * It knows the window that it is seen through, and nothing of where scenes come from.
 */
import { shiftBetween } from "../viewport/affine.model.js";
import { ShownFindings } from "./shown_findings.model.js";

/** @typedef {import("#types/answers").BenchScene} Scene */
/** A picture and what belongs to it. @typedef {{scene: any, drafts: any[] | null, findings?: any}} Shown */
/** Paints canvases, and returns what changes elements. @typedef {(scene: any, shift: any) => (() => void) | void} Painter */

export class Picture {
  /**
   * @param {object} parts
   * @param {any} parts.store the reactive store.
   * @param {import("../viewport/viewport.js").Viewport} parts.viewport
   * @param {import("../viewport/picture_times.js").PictureTimes} parts.times
   * @param {import("./reports.js").Reports} parts.reports
   * @param {(paint: () => void) => void} parts.unobserved runs what replaces many elements of a
   *   picture, which nobody else needs to look through.
   * @param {(findings: any) => void} parts.follow called when a picture with findings is shown.
   * @param {() => void} parts.stands called when a picture is shown.
   */
  constructor({ store, viewport, times, reports, unobserved, follow, stands }) {
    this.store = store;
    this.viewport = viewport;
    this.times = times;
    this.reports = reports;
    this.unobserved = unobserved;
    this.follow = follow;
    this.stands = stands;
    /** @type {Scene | null} */
    this.scene = null;
    /** The drafts of the scene: findings of another state are not painted on it. @type {any[] | null} */
    this.drafts = [];
    this.findings = new ShownFindings();
    /** Curves of the what-if table for which equations were solved. */
    this.whatIf = new ShownFindings();
    /** Counts what is shown, */
    this.turn = 0;
    /** and how often it is painted. */
    this.paints = 0;
    /** Paints what it can of a scene before it is shown. @type {((scene: any) => Promise<void>) | null} */
    this.prepare = null;
    /** Called for each paint, and whenever the picture moves. @type {Set<Painter>} */
    this.painters = new Set();
  }

  /**
   * Show states one after the other, one in each frame; what comes later takes their place.
   * @param {Shown[]} states @param {number} sentAt when they were asked for.
   * @param {number} version of the study. @param {() => boolean} isPresent whether it still is.
   */
  showAll(states, sentAt, version, isPresent) {
    this.turn += 1;
    this.times.show(sentAt);
    const { turn } = this;
    const next = () => {
      if (turn !== this.turn || !isPresent()) return;
      const { scene, drafts, findings } = /** @type {Shown} */ (states.shift());
      this.drafts = drafts;
      // Bounds may follow sliders: the marks are of the window that the scene is of.
      if (findings) this.findings.take({ ...findings, window: scene.window, drafts }, version);
      this.show(scene);
      this.follow(findings);
      if (states.length) requestAnimationFrame(next);
    };
    // A drag that goes on goes on seeing frames meanwhile; one that pauses sees the picture sooner without.
    if (!this.viewport.goesOn || !this.prepare) return next();
    return this.prepare(states[0].scene).then(next, next);
  }

  /** Show a scene: numbers and texts first, then the picture, in one turn of the page. @param {any} scene */
  show(scene) {
    this.scene = scene;
    this.viewport.adopt(scene.window);
    this.store.isStale = false;
    const wasEqual = this.store.axes.equal;
    this.store.take(scene);
    this.reports.take(scene);
    if (this.store.axes.equal && !wasEqual) this.viewport.set(this.viewport.window);
    if (this.viewport.goesOn && this.viewport.isStretched) this.paintNext();
    else this.paint();
    this.stands();
  }

  /** Put a new reading line into the last scene. @param {{reading: any, values: Record<string, any>}} answer */
  showReading({ reading, values }) {
    const rows = (this.scene?.rows ?? []).map((row) => ({
      ...row,
      reading: values[row.id] ?? null,
    }));
    this.show({ ...this.scene, rows, reading });
  }

  get shift() {
    const { window, size } = this.viewport;
    return shiftBetween(/** @type {Scene} */ (this.scene).window, window, size);
  }

  get canPaint() {
    return this.scene !== null && this.viewport.size.width > 0;
  }

  /** Paint the last scene where it stands in the present window. */
  paint() {
    if (!this.canPaint) return;
    this.paints += 1;
    const { scene, shift } = this;
    this.unobserved(() => {
      // Canvases before elements: a text on a canvas makes the browser bring the page's style up to
      // date, and that costs little while no element has changed.
      const rest = [...this.painters].map((painter) => painter(scene, shift));
      for (const change of rest) change?.();
    });
  }

  /** Paint in the next frame, if the drag does not before. */
  paintNext() {
    const { paints } = this;
    requestAnimationFrame(() => paints === this.paints && this.paint());
  }

  /** Paint one part of the picture that was left out. @param {Painter} painter */
  paintWith(painter) {
    if (!this.canPaint) return;
    const { scene, shift } = this;
    this.unobserved(() => painter(scene, shift)?.());
  }

  /** Whether drafts are those of the picture that stands. @param {any[]} drafts */
  isOf(drafts) {
    return this.drafts !== null && JSON.stringify(drafts) === JSON.stringify(this.drafts);
  }

  /** Return the solved curves of the what-if table, if they are of the state that is shown. @param {number} version of the study. */
  whatIfAt(version) {
    const { window, size } = this.viewport;
    return this.drafts && this.whatIf.at(version, this.drafts, window, size);
  }

  /** Return what was located, if it is of the state that is shown. @param {number} version of the study. */
  findingsAt(version) {
    const { window, size } = this.viewport;
    return this.drafts && this.findings.at(version, this.drafts, window, size);
  }
}

// @ts-check
/**
 * The window one looks through, and what of the plane is asked for while a pointer moves it.
 *
 * The old picture follows the pointer at once; new ones come no faster than they can be shown. One that
 * slides has been drawn for a while in what lies beyond its edges, one that is stretched is drawn as
 * it will be when the next picture comes (`docs/decisions/010`).
 */
import { equalised, grown, isMoved, later, showing, stretchAhead } from "./affine.model.js";
import { WindowHistory } from "./history.model.js";
import { BEYOND_PX, isCovered, isTrueIn } from "./slide.model.js";

/** A window that has not moved for so long is at rest, */
const REST_MS = 80;
/** and one that has not been stretched for so long will probably stay as it is. */
const CALM_MS = 40;
/** While the old picture follows the pointer, exact ones are asked for no faster than this, */
const PACE_MS = 40;
/** and so much more slowly than they can be shown, that most frames are left to the pointer. */
const SHARE = 1.5;
/** A window that is stretched is drawn with so much around it, in px, */
const AROUND_PX = 96;
/** and anew after so long, while what is drawn of it is true: numbers on axes and flags suit what is seen then. */
const LEISURE_MS = 120;
/** After a single step the old picture waits so long for the new one, in ms. */
const STEP_MS = 40;
/** Events of a pointer come no faster than this. */
const FRAME_MS = 8;

export class Viewport {
  /**
   * @param {{window: any, follows?: Record<string, string>}} initial
   * @param {object} page what shows the window.
   * @param {any} page.store the reactive store.
   * @param {import("./picture_times.js").PictureTimes} page.times
   * @param {() => void} page.paint paints the picture that stands where it stands in the window.
   * @param {(pace?: number) => void} page.look asks for the picture of the window.
   * @param {() => void} page.changed called when the window is another one for all that hangs on it.
   * @param {() => void} page.save stores the window when it rests.
   */
  constructor({ window, follows }, { store, times, paint, look, changed, save }) {
    this.store = store;
    this.times = times;
    this.paint = paint;
    this.look = look;
    this.changed = changed;
    this.save = save;
    this.window = window;
    /** Bounds that were typed as expressions of sliders, and follow them. @type {Record<string, string>} */
    this.follows = follows ?? {};
    this.size = { width: 0, height: 0 };
    /** The units of the numbers on the axes; empty for none. */
    this.units = { x_unit: "", y_unit: "" };
    /** The windows before. */
    this.trail = new WindowHistory();
    this.timer = 0;
    /** Whether the window is being moved or stretched: what is drawn beyond it serves next. */
    this.isMoving = false;
    /** The window before the last stretch, and how long the pointer took from it; none while it slides or pauses. @type {{window: any, ms: number} | null} */
    this.stretchedFrom = null;
    /** Whether the window was stretched last, and not slid. */
    this.isStretched = false;
    this.movedAt = -Infinity;
    /** The window of the picture that stands. @type {any} */
    this.drawn = null;
  }

  /** A window with the size of the plane and what its bounds follow, as a question has it. @param {any} window */
  asked(window) {
    return { ...window, ...this.size, ...this.units, follows: this.follows };
  }

  /** Whether a pointer that moves the window will go on. */
  get goesOn() {
    return this.isMoving && (!this.isStretched || this.stretchedFrom !== null);
  }

  /** How long after each other pictures of a window that moves are asked for, in ms. */
  get pace() {
    return Math.max(PACE_MS, SHARE * this.times.showing);
  }

  /** What of the plane a window that moves will show soon, for a question. */
  get soon() {
    if (!this.isMoving) return {};
    if (!this.stretchedFrom) return this.isStretched ? {} : { beyond: BEYOND_PX };
    // It is seen until the one after it comes.
    const then = this.after(2 * this.times.coming + LEISURE_MS);
    const window = grown(this.window, then);
    return {
      window: this.asked(window),
      beyond: AROUND_PX,
      stretch: stretchAhead(this.window, then, window),
    };
  }

  /** Where a window that is stretched will be. @param {number} ms */
  after(ms) {
    const { stretchedFrom } = this;
    return stretchedFrom
      ? later(stretchedFrom.window, this.window, ms / Math.max(stretchedFrom.ms, FRAME_MS))
      : this.window;
  }

  /** Whether what is drawn will do for a pointer that goes on, until the next picture comes. @param {boolean} isSlid */
  isServed(isSlid) {
    const { drawn, size } = this;
    const { sentAt, coming } = this.times;
    if (!drawn) return false;
    if (isSlid) return isCovered(drawn, this.window, size);
    const isFresh = performance.now() - sentAt < LEISURE_MS;
    return isFresh && [0, coming].every((ms) => isTrueIn(drawn, this.after(ms), size));
  }

  /** Look through another window; the old picture follows at once. @param {any} window @param {"x" | "y"} [by] see `fitted`. */
  set(window, by = "x") {
    this.trail.leave(this.window);
    const next = this.fitted(window, by);
    // Where the pointer moves an axis, its bounds follow nothing any more.
    for (const axis of ["x", "y"])
      if (String(next[axis]) !== String(this.window[axis])) this.unfollow(axis);
    const isSlid = isMoved(this.window, next);
    const now = performance.now();
    const ms = now - this.movedAt;
    this.isStretched = !isSlid;
    // A single click of a wheel leads to where it leads.
    this.stretchedFrom = isSlid || ms > REST_MS ? null : { window: this.window, ms };
    this.movedAt = now;
    this.isMoving = true;
    this.window = next;
    this.showTrail();
    if (isSlid || this.stretchedFrom) this.paint();
    else this.paintSoon();
    this.lookAhead(isSlid);
    this.save();
  }

  /**
   * Stretch the old picture unless the new one comes at once: after a single step it mostly does, and would
   * have to wait until the old one is shown.
   */
  paintSoon() {
    const { drawn, window } = this;
    setTimeout(() => {
      if (drawn === this.drawn && window === this.window) this.paint();
    }, STEP_MS);
  }

  /** The exact picture of a window that moves: one that only slides has it for a while in what was drawn beyond. @param {boolean} isSlid */
  lookAhead(isSlid) {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.calm(), CALM_MS);
    if (this.isServed(isSlid)) return;
    this.look(this.pace);
  }

  /** The pointer pauses: the picture of this very window, and if it does not go on, of nothing beyond. */
  calm() {
    if (this.stretchedFrom) {
      this.stretchedFrom = null;
      this.look();
    }
    this.timer = setTimeout(() => {
      this.isMoving = false;
      this.look();
    }, REST_MS - CALM_MS);
  }

  unfollow(axis) {
    if (Object.keys(this.follows).some((name) => name.startsWith(axis))) {
      this.follows = Object.fromEntries(
        Object.entries(this.follows).filter(([name]) => !name.startsWith(axis)),
      );
    }
  }

  /** Move the window if an abscissa is outside of it. @param {number} x in axis units */
  reveal(x) {
    const window = showing(this.window, x);
    if (window !== this.window) this.set(window);
  }

  /**
   * Take over the units of the axes. Where one was changed, the server says what is seen in it.
   * @param {any} drawn its window.
   * @returns {boolean} whether the bounds are other numbers now.
   */
  adoptUnits({ x, y, log_x, log_y, x_unit, y_unit }) {
    const before = this.units;
    this.units = { x_unit, y_unit };
    const isChanged = (one, other) => Boolean(one && other && one !== other);
    if (!isChanged(before.x_unit, x_unit) && !isChanged(before.y_unit, y_unit)) return false;
    this.window = { x, y, log_x, log_y };
    // The windows before are in other units.
    this.trail = new WindowHistory();
    this.showTrail();
    this.save();
    return true;
  }

  /** Another picture stands. Where an axis has become logarithmic, or plain again, the server says what is seen on it. @param {any} drawn its window. */
  adopt(drawn) {
    const { x, y, log_x, log_y } = drawn;
    this.drawn = drawn;
    if (this.adoptUnits(drawn)) return;
    if (log_x === Boolean(this.window.log_x) && log_y === Boolean(this.window.log_y)) {
      // Bounds that follow sliders are where the server put them.
      const names = Object.keys(this.follows);
      const following = (axis, current) =>
        names.some((name) => name.startsWith(axis)) ? current : this.window[axis];
      if (names.length)
        this.window = this.fitted({ x: following("x", x), y: following("y", y), log_x, log_y });
      return;
    }
    this.window = { x, y, log_x, log_y };
    // The windows before are of other axes.
    this.trail = new WindowHistory();
    this.showTrail();
    this.save();
  }

  /** With equal scales a window is as high as its width asks for, or as wide as its height does. @param {any} window @param {"x" | "y"} [by] which axis stays as it is. */
  fitted(window, by = "x") {
    return this.store.axes.equal && this.size.width ? equalised(window, this.size, by) : window;
  }

  /** Go to an earlier window, or forward again. @param {-1 | 1} by */
  step(by) {
    const window = this.trail.step(by, this.window);
    if (!window) return;
    this.follows = {};
    this.window = window;
    this.showTrail();
    this.paint();
    this.look();
    this.changed();
    this.save();
  }

  /** The study has changed: undo means that, and no window before. */
  settle() {
    this.trail.settle();
    this.showTrail();
  }

  /** Say whether there are windows to go back and forward to. */
  showTrail() {
    this.store.trail = this.trail.state;
  }

  /** The plane has another size. @param {number} width in px. @param {number} height */
  resize(width, height) {
    if (width === this.size.width && height === this.size.height) return;
    this.size = { width, height };
    const before = this.window;
    this.window = this.fitted(before);
    if (String(before.y) !== String(this.window.y)) this.unfollow("y");
    this.paint();
    this.look();
  }

  /** Go to a window that the server gave. @param {{window: any, follows: Record<string, string>}} given @param {"x" | "y"} [by] see `fitted`. */
  take({ window, follows }, by = "x") {
    this.set(window, by);
    this.follows = follows;
    // With equal scales one axis is not where it was asked to be: its bounds follow nothing.
    for (const axis of ["x", "y"])
      if (String(this.window[axis]) !== String(window[axis])) this.unfollow(axis);
    this.changed();
  }
}

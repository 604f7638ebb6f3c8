// @ts-check
/** The windows one looked through before, to step back and forward; no DOM. */

/** Windows that follow one another quicker than this are one movement. */
const ONE_MOVE_MS = 700;
const MOST = 60;

export class WindowHistory {
  /** @param {() => number} now the time in ms. */
  constructor(now = () => performance.now()) {
    this.now = now;
    /** @type {any[]} */
    this.back = [];
    /** @type {any[]} */
    this.forward = [];
    this.leftAt = -Infinity;
    /** How many of the last windows were left since the study changed: undo goes back through them first. */
    this.moves = 0;
    /** How many of them were undone. */
    this.undone = 0;
  }

  /** The study has changed: what is undone next is that. */
  settle() {
    this.moves = this.undone = 0;
  }

  /** A window is left for another. @param {any} window */
  leave(window) {
    const now = this.now();
    if (now - this.leftAt > ONE_MOVE_MS) {
      this.back.push(window);
      this.moves += 1;
      if (this.back.length > MOST) this.back.shift();
    }
    this.leftAt = now;
    this.forward = [];
    this.undone = 0;
  }

  /** Give an earlier or a later window, or nothing. @param {-1 | 1} by @param {any} present */
  step(by, present) {
    const [from, to] = by < 0 ? [this.back, this.forward] : [this.forward, this.back];
    const window = from.pop();
    if (window) {
      to.push(present);
      this.moves = Math.max(this.moves + by, 0);
      this.undone = Math.max(this.undone - by, 0);
    }
    this.leftAt = -Infinity;
    return window ?? null;
  }

  /** Whether there are windows to go to. */
  get state() {
    const { back, forward, moves, undone } = this;
    return {
      back: back.length > 0,
      forward: forward.length > 0,
      isUndone: moves > 0,
      isRedone: undone > 0,
    };
  }
}

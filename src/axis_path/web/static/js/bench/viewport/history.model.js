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
  }

  /** A window is left for another. @param {any} window */
  leave(window) {
    const now = this.now();
    if (now - this.leftAt > ONE_MOVE_MS) {
      this.back.push(window);
      if (this.back.length > MOST) this.back.shift();
    }
    this.leftAt = now;
    this.forward = [];
  }

  /** Give an earlier or a later window, or nothing. @param {-1 | 1} by @param {any} present */
  step(by, present) {
    const [from, to] = by < 0 ? [this.back, this.forward] : [this.forward, this.back];
    const found = from.pop();
    if (found) to.push(present);
    this.leftAt = -Infinity;
    return found ?? null;
  }

  /** Whether there are windows to go to. */
  get state() {
    return { back: this.back.length > 0, forward: this.forward.length > 0 };
  }
}

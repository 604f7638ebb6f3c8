// @ts-check
/**
 * What hangs on the picture besides it: tables, findings, exact values. All of them are told at once that they are
 * behind, and asked for when the picture stands and the hand rests.
 */

/** A hand that has not moved for so long is at rest. */
const REST_MS = 40;
/** Beside something that plays they are brought up to date so often. */
const PACE_MS = 600;

/**
 * What can keep up with the hand comes with the picture, and follows it. Some hang on the window.
 * @typedef {{mark: () => void, ask: () => void, follow?: (found: any) => void, seesWindow?: boolean}} Watcher
 */

export class Subscriptions {
  /** @param {import("./engine.js").Engine} engine */
  constructor(engine) {
    this.engine = engine;
    /** @type {Set<Watcher>} */
    this.watchers = new Set();
    /** Those of them that are behind. @type {Set<Watcher>} */
    this.due = new Set();
    this.timer = 0;
    this.askedAt = 0;
  }

  /** @param {Watcher} watcher */
  add(watcher) {
    this.watchers.add(watcher);
  }

  /** @param {Watcher} watcher */
  delete(watcher) {
    this.watchers.delete(watcher);
  }

  /** What they show has changed. @param {"state" | "window"} what whether the window alone. */
  mark(what) {
    for (const watcher of this.watchers) {
      if (what === "window" && !watcher.seesWindow) continue;
      watcher.mark();
      this.due.add(watcher);
    }
    this.soon();
  }

  /** A picture stands, and what was found came with it. @param {any} found */
  follow(found) {
    for (const watcher of this.watchers) watcher.follow?.(found);
  }

  /** Ask for those that are behind: at once, or when a hand that moves comes to rest. */
  soon() {
    clearTimeout(this.timer);
    if (!this.due.size) return;
    const { hand, motion, scenes, viewport } = this.engine;
    const isDue = motion.isMoving && performance.now() - this.askedAt > PACE_MS;
    const isBusy = hand.length > 0 || motion.isMoving || scenes.isBehind || viewport.goesOn;
    if (isDue || !isBusy) this.ask();
    else this.timer = setTimeout(() => this.due.size && !scenes.isBehind && this.ask(), REST_MS);
  }

  /** The picture comes first: they are asked for when it stands. */
  ask() {
    const due = [...this.due];
    this.due.clear();
    this.askedAt = performance.now();
    for (const watcher of due) if (this.watchers.has(watcher)) watcher.ask();
  }
}

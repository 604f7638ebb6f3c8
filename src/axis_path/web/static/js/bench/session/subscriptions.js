// @ts-check
/**
 * What hangs on the picture besides it: tables, findings, exact values. All of them are told at once that they are
 * behind, and asked for when the picture stands and the pointer rests.
 */

/** A pointer that has not moved for so long is at rest. */
const REST_MS = 40;
/** Beside something that plays they are brought up to date so often. */
const PACE_MS = 600;

/**
 * What can keep up with the pointer comes with the picture, and follows it. Some hang on the window.
 * @typedef {{mark: () => void, ask: () => void, isBehind: () => boolean, follow?: (findings: any) => void, seesWindow?: boolean}} Watcher
 */

export class Subscriptions {
  /**
   * @param {object} state
   * @param {() => boolean} state.isPlaying whether something plays.
   * @param {() => boolean} state.isDragged whether a line or the window is being dragged.
   * @param {() => boolean} state.isBehind whether the picture is not of the present state.
   */
  constructor(state) {
    this.state = state;
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

  /** Ask for what is out of date after another panel was opened. */
  open() {
    for (const watcher of this.watchers) if (watcher.isBehind()) this.due.add(watcher);
    this.soon();
  }

  /** A picture stands, and what was located came with it. @param {any} findings */
  follow(findings) {
    for (const watcher of this.watchers) watcher.follow?.(findings);
  }

  /** Ask for those that are behind: at once, or when a pointer that moves comes to rest. */
  soon() {
    clearTimeout(this.timer);
    if (!this.due.size) return;
    const { isPlaying, isDragged, isBehind } = this.state;
    const isDue = isPlaying() && performance.now() - this.askedAt > PACE_MS;
    const isBusy = isPlaying() || isDragged() || isBehind();
    if (isDue || !isBusy) this.ask();
    else this.timer = setTimeout(() => this.due.size && !isBehind() && this.ask(), REST_MS);
  }

  /** The picture comes first: they are asked for when it stands. */
  ask() {
    const due = [...this.due];
    this.due.clear();
    this.askedAt = performance.now();
    for (const watcher of due) if (this.watchers.has(watcher)) watcher.ask();
  }
}

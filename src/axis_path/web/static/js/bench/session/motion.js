// @ts-check
/**
 * What plays: sliders, and the runners of paths.
 *
 * The state of a request holds where everything is at the moment it is sent. At most one request is
 * under way, so a slow machine skips places and keeps the time. What was reached is kept with the
 * study when the motion ends.
 */
import { beginning, inSteps, placeAt } from "./motion.model.js";

/** Who wishes reduced motion sees a place in so many seconds. */
const CALM_STEP_S = 0.8;
/** No more than a screen shows. */
const FRAME_MS = 14;
/** Places in between that a trail gets in one frame. */
export const MOST_VISITS = 16;
/** Things that play at once. */
const MOST = 10;

/** What puts something that plays to a place. @typedef {import("#types/commands").SetSlider | import("#types/commands").MoveRunner} Command */
/**
 * @typedef {object} Mover
 * @property {string} key
 * @property {() => {low: number, high: number, value: number, play: import("./motion.model.js").Play} | null} look
 *   where it is now, and how it plays; null if it is not there any more.
 * @property {(value: number) => Command} command what puts it to a value.
 */

export class Motion {
  /**
   * @param {any} store the reactive store.
   * @param {(commands: Command[], visits: any[]) => Promise<any>} commit keeps what was reached.
   * @param {(pace: number) => void} changed asks for the present state, no faster than `pace` in ms.
   */
  constructor(store, commit, changed) {
    this.store = store;
    this.commit = commit;
    this.changed = changed;
    /** @type {Map<string, {mover: Mover, from: number, begunMs: number, seconds: number}>} */
    this.moving = new Map();
    this.frame = 0;
    this.drawn = "";
    /** When the state was sent last, in ms. */
    this.sentMs = 0;
    this.reducedMotion = matchMedia("(prefers-reduced-motion: reduce)");
  }

  get isMoving() {
    return this.moving.size > 0;
  }

  /** Begin to play; things that play in step begin together. @param {Mover} mover @param {Mover[]} others all that could play with it. */
  play(mover, others = []) {
    const state = mover.look();
    if (!state || this.moving.size >= MOST) return;
    const from = beginning(state.play, part(state));
    const { seconds } = state.play;
    const together = state.play.in_step ? others.filter((other) => other.look()?.play.in_step) : [];
    const begunMs = performance.now();
    for (const other of new Map([mover, ...together].map((one) => [one.key, one])).values()) {
      if (this.moving.size < MOST)
        this.moving.set(other.key, { mover: other, from, begunMs, seconds });
    }
    this.showMoving();
    if (!this.frame) this.frame = requestAnimationFrame(() => this.tick());
  }

  /** End one motion, or all; what was reached is kept. @param {string} [key] */
  async pause(key) {
    if (key !== undefined && !this.moving.has(key)) return null;
    const commands = this.commands();
    const visits = commands.map((command) => [
      command.id,
      command.do === "set" ? command.value : command.t,
    ]);
    if (key === undefined) this.moving.clear();
    else this.moving.delete(key);
    this.showMoving();
    return commands.length ? this.commit(commands, [visits]) : null;
  }

  /** End all motion and forget where it went. */
  drop() {
    this.moving.clear();
    this.showMoving();
  }

  /** Where the motion goes on from, and the moments since, the present one at the end. @returns {{visits: Command[][], joined: boolean}} */
  visits() {
    const now = performance.now();
    const first = Math.max(
      this.sentMs,
      Math.min(...[...this.moving.values()].map((motion) => motion.begunMs)),
    );
    const count = Math.min(Math.max(Math.ceil((now - first) / FRAME_MS), 1), MOST_VISITS);
    const isGoingOn = first === this.sentMs;
    this.sentMs = now;
    const moments = Array.from({ length: count }, (_, k) =>
      this.commands(now - ((now - first) * (count - 1 - k)) / count),
    );
    return { visits: [this.commands(first), ...moments], joined: isGoingOn };
  }

  /** Where everything is at a moment. @param {number} [now] @returns {Command[]} */
  commands(now = performance.now()) {
    return [...this.moving.values()].flatMap((motion) => {
      const state = motion.mover.look();
      if (!state) return [];
      const { part: reached } = placeAt(
        { ...state.play, seconds: motion.seconds },
        motion.from,
        this.elapsed(motion, now),
      );
      return [motion.mover.command(state.low + reached * (state.high - state.low))];
    });
  }

  elapsed({ begunMs }, now) {
    const elapsed = Math.max(now - begunMs, 0) / 1000;
    return this.reducedMotion.matches ? inSteps(elapsed, CALM_STEP_S) : elapsed;
  }

  tick() {
    this.frame = 0;
    if (!this.isMoving) return;
    const now = performance.now();
    const over = [...this.moving.values()].filter((motion) => {
      const state = motion.mover.look();
      return (
        !state ||
        placeAt({ ...state.play, seconds: motion.seconds }, motion.from, this.elapsed(motion, now))
          .isOver
      );
    });
    const wanted = JSON.stringify(this.commands());
    if (wanted !== this.drawn) {
      this.drawn = wanted;
      this.changed(FRAME_MS);
    }
    // One commit for all that ended together.
    if (over.length === this.moving.size) this.pause();
    else for (const finished of over) this.pause(finished.mover.key);
    if (this.isMoving) this.frame = requestAnimationFrame(() => this.tick());
  }

  showMoving() {
    this.drawn = "";
    this.store.moving = Object.fromEntries([...this.moving.keys()].map((key) => [key, true]));
  }
}

function part({ low, high, value }) {
  return high > low ? (value - low) / (high - low) : 0;
}

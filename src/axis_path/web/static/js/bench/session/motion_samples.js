// @ts-check
/**
 * What a pointer, or what plays, passes through on its way from one picture to the next: places that
 * trails go through, and states that are shown on a long way.
 */
import { MOST_VISITS } from "./motion.js";

/** On a way longer than this, as the last few answers tell, states that were passed come along. */
const LONG_WAY_MS = 25;
const WAYS = 4;
const MOST_PASSED = 12;

const pairs = (commands) => commands.map((command) => [command.id, command.t ?? command.value]);

export class MotionSamples {
  /** @param {any} store the reactive store. @param {import("./motion.js").Motion} motion */
  constructor(store, motion) {
    this.store = store;
    this.motion = motion;
    /** What the pointer tried out since the last request. @type {any[][]} */
    this.passed = [];
    /** How long the last answers were on their way, without the time it took to make them, in ms. @type {number[]} */
    this.ways = [];
    /** Where sliders and runners were when trails went on last, by the ids of their lines. @type {Map<number, number>} */
    this.reached = new Map();
  }

  /** The pointer tries a command out. @param {object} command */
  note(command) {
    this.passed.push([command]);
    if (this.passed.length > MOST_PASSED) this.passed.shift();
  }

  /** An answer was so long on its way, in ms. @param {number} ms */
  noteWay(ms) {
    this.ways = [ms, ...this.ways.slice(0, WAYS - 1)];
  }

  /**
   * States the pointer passed while an answer was on a long way: they come with the next one and are
   * shown on the way to it. On a short way the latest state alone is quicker.
   */
  states() {
    const passed = this.passed.splice(0);
    // A long way delays every answer, a busy machine some of them.
    if (this.ways.length < WAYS || Math.min(...this.ways) < LONG_WAY_MS || passed.length < 2)
      return {};
    // The last is the present state itself.
    const indices = [1, 2].map((k) => Math.floor((k * (passed.length - 1)) / 3));
    return { passed: [...new Set(indices)].map((k) => passed[k]) };
  }

  get hasTrails() {
    return this.store.rows.some((row) => row.trail && !row.hidden);
  }

  /** What trails pass through on the way to the present state, if any point leaves one. @param {any[]} dragDrafts what is tried out. */
  visits(dragDrafts) {
    const { motion } = this;
    if (!(dragDrafts.length || motion.isMoving) || !this.hasTrails) return {};
    if (motion.isMoving) {
      const { visits, joined } = motion.visits();
      return { visits: visits.map((visit) => pairs([...dragDrafts, ...visit])), joined };
    }
    return dragDrafts.every((item) => item.do === "set" || item.do === "runner")
      ? this.between(dragDrafts[0])
      : { visits: [] };
  }

  /** What a commit passes through: the pointer may have let go before the picture was there. @param {any[]} commands @param {any[]} dragDrafts what is tried out. */
  wayTo(commands, dragDrafts) {
    const { motion } = this;
    const moves = commands.filter(
      (item) =>
        item.do === "set" || (item.do === "runner" && item.t !== undefined && item.t !== null),
    );
    // A pointer that has moved on passes it anyway.
    const isPassed = dragDrafts.some((item) => item.id === moves[0]?.id);
    return moves.length === 1 && !isPassed && !motion.isMoving
      ? this.between(moves[0])
      : { visits: [] };
  }

  /** Where a pointer sets out, and what it passes through on its way to a value. @param {any} command @returns {{visits: any[], joined?: boolean}} */
  between(command) {
    const { store } = this;
    const isRunner = command.do === "runner";
    const mover = isRunner
      ? store.rows.find((row) => row.id === command.id)?.runner
      : store.sliders.find((item) => item.id === command.id);
    const to = Number(isRunner ? command.t : command.value);
    if (!mover || typeof command.value === "string") return { visits: [pairs([command])] };
    const step = isRunner ? (mover.high - mover.low) / 300 : mover.step_value;
    const from = this.reached.get(command.id) ?? mover.value;
    const count = Math.min(Math.max(Math.round(Math.abs(to - from) / step), 1), MOST_VISITS);
    const at = (value) => pairs([isRunner ? { ...command, t: value } : { ...command, value }]);
    const steps = Array.from({ length: count }, (_, k) =>
      at(from + ((to - from) * (k + 1)) / count),
    );
    return { visits: [at(from), ...steps], joined: this.reached.has(command.id) };
  }

  /** Trails have come to the last of some states. @param {any[][] | undefined} visits */
  reach(visits) {
    for (const [id, value] of visits?.at(-1) ?? []) this.reached.set(id, Number(value));
  }

  /** What is kept now is where trails go on from. */
  forget() {
    this.reached.clear();
  }
}

// @ts-check
/**
 * How pictures are asked for: what was answered is kept, and what a hand will probably reach is asked for
 * before it does (`docs/decisions/007`).
 */
import { Answers } from "../shared/answers.js";
import { askOver } from "../shared/api.js";
import { Wire } from "../shared/wire.js";
import { Kin } from "./kin.model.js";

/** So many letters of answers are kept: all states of a slider's track, if the study is not large. */
const ROOM = 8_000_000;
/** So many states that a hand may reach are asked for in one question; the server answers those it has time for. */
const TOGETHER = 8;
/** An answer whose length is not known is taken for one of so many letters. */
const LONG = 400_000;
/** What took so long may be only a part of the picture: it is asked for again. */
const LONG_MS = 500;

const nothing = () => [];

export class Asking {
  /** @param {import("./engine.js").Engine} engine @param {number} version */
  constructor(engine, version) {
    this.engine = engine;
    this.wire = new Wire(`${engine.path}/wire`);
    this.kin = new Kin(version);
    /** How long answers are, in letters. @type {WeakMap<object, number>} */
    this.letters = new WeakMap();
    this.answers = new Answers((body) => this.fetch(body), {
      room: ROOM,
      weigh: (answer) => this.letters.get(answer) ?? LONG,
      keyOf: (body) => JSON.stringify({ ...body, version: this.kin.versionOf(body) }),
      together: TOGETHER,
      sendAll: (bodies) => this.fetchAll(bodies),
    });
    /** Gives commands that the hand will probably try next; asked when there is time. @type {() => object[]} */
    this.expected = nothing;
    /** Whether the hand leaves no time before it pauses. */
    this.isHurried = false;
  }

  /** @param {any} body @returns {Promise<any>} */
  async get(body) {
    const answer = await this.answers.get(body);
    // It may have been given for another version with the same picture.
    return answer.version === body.version ? answer : { ...answer, version: body.version };
  }

  /** Ask the server, and note how long the way is. */
  async fetch({ part, ...body }) {
    const began = performance.now();
    const answer = await askOver(this.wire, `${this.engine.path}/${part}`, part, body);
    const states = [answer, ...(answer.ahead ?? [])];
    const letters = this.wire.letters ? this.wire.letters / states.length : LONG;
    for (const each of states) this.letters.set(each, each.spent_ms > LONG_MS ? Infinity : letters);
    if (part === "scene") this.engine.passing.noteWay(performance.now() - began - states.reduce((sum, each) => sum + each.spent_ms, 0));
    return answer;
  }

  /** Ask in one question for states that differ in their drafts; those the server had no time for are missing. @param {any[]} bodies */
  async fetchAll([first, ...others]) {
    const answer = await this.fetch({ ...first, ahead: others.map((body) => body.drafts) });
    return [answer, ...answer.ahead];
  }

  /** Whether the picture of a command is at hand. @param {object} command */
  isKnown(command) {
    const { engine } = this;
    return this.canForesee && !engine.store.isWaiting && this.answers.has(engine.sceneBody({ drafts: [command] }));
  }

  /** Where trails go through, and where what plays is, is a part of the question, and not known before. */
  get canForesee() {
    return !this.engine.motion.isMoving && !this.engine.passing.hasTrails;
  }

  /**
   * Say what a hand will probably try next, the likeliest first.
   * @param {() => object[]} [expected] gives commands. @param {boolean} [isHurried] whether there is no time for them before it pauses.
   */
  expect(expected = nothing, isHurried = false) {
    this.expected = expected;
    this.isHurried = isHurried;
    if (!this.engine.scenes.isBehind) this.foresee();
  }

  /** Ask for what is expected, when there is time. */
  foresee() {
    this.answers.foresee(this.likely(this.expected), this.isHurried);
    this.expected = nothing;
  }

  /** Questions that will probably come, one for each command that is expected. @param {() => object[]} expected */
  *likely(expected) {
    if (!this.canForesee) return;
    for (const command of expected()) yield this.engine.sceneBody({ drafts: [command] });
  }
}

// @ts-check
/**
 * How scenes are asked for: answers are cached, and those that will probably be needed next are
 * prefetched (`docs/decisions/007`).
 */
import { VersionAliases } from "./aliases.model.js";
import { ResponseCache } from "./cache.js";
import { NoPrefetch, Prefetch } from "./prefetch.js";
import { askOver, SceneSocket } from "./socket.js";

/** How many characters of answers are stored: all states of a slider's track, if the study is not large. */
const ROOM = 8_000_000;
/** How many states are prefetched in one request; the server answers those it has time for. */
const TOGETHER = 8;
/** An answer whose length is unknown counts as one of so many characters. */
const LONG = 400_000;
/** What took so long may be only a part of the picture: it is asked for again. */
const LONG_MS = 500;

const nothing = () => [];

export class SceneClient {
  /**
   * @param {string} path of the study. @param {{version: number, prefetch?: boolean}} initial
   * @param {object} state
   * @param {(command: object) => object} state.bodyOf returns the request for the picture of a command.
   * @param {() => boolean} state.canExpect whether requests can be known before they come.
   * @param {() => boolean} state.isBehind whether an answer is still on its way.
   * @param {(ms: number) => void} state.noteWay told how long an answer was on its way.
   */
  constructor(path, { version, prefetch = true }, state) {
    this.path = path;
    this.state = state;
    this.socket = new SceneSocket(`${path}/socket`);
    this.aliases = new VersionAliases(version);
    /** How long answers are, in characters. @type {WeakMap<object, number>} */
    this.lengths = new WeakMap();
    const cache = new ResponseCache((body) => this.fetch(body), {
      room: ROOM,
      weigh: (answer) => this.lengths.get(answer) ?? LONG,
      keyOf: (body) => JSON.stringify({ ...body, version: this.aliases.versionOf(body) }),
    });
    const options = { together: TOGETHER, sendAll: (bodies) => this.fetchAll(bodies) };
    this.responses = prefetch ? new Prefetch(cache, options) : new NoPrefetch(cache);
    /** Returns commands that will probably be tried next. @type {() => object[]} */
    this.expected = nothing;
    /** Whether the drag leaves no time before it pauses. */
    this.isHurried = false;
  }

  /** @param {any} body @returns {Promise<any>} */
  async get(body) {
    const answer = await this.responses.get(body);
    // It may have been returned for another version with the same picture.
    return answer.version === body.version ? answer : { ...answer, version: body.version };
  }

  /** Whether the answer to a request is at hand. @param {any} body */
  has(body) {
    return this.responses.has(body);
  }

  /** Ask the server, and note how long the way is. */
  async fetch({ part, ...body }) {
    const began = performance.now();
    const answer = await askOver(this.socket, `${this.path}/${part}`, part, body);
    const states = [answer, ...(answer.prefetched ?? [])];
    const length = this.socket.letters ? this.socket.letters / states.length : LONG;
    for (const state of states)
      this.lengths.set(state, state.spent_ms > LONG_MS ? Infinity : length);
    if (part === "scene") {
      this.responses.allow(answer.may_prefetch);
      this.state.noteWay(
        performance.now() - began - states.reduce((sum, state) => sum + state.spent_ms, 0),
      );
    }
    return answer;
  }

  /** Ask in one request for states that differ in their drafts; those the server had no time for are missing. @param {any[]} bodies */
  async fetchAll([first, ...others]) {
    const answer = await this.fetch({ ...first, prefetch: others.map((body) => body.drafts) });
    return [answer, ...answer.prefetched];
  }

  /** Whether the picture of a command is at hand. @param {object} command */
  isKnown(command) {
    return this.state.canExpect() && this.has(this.state.bodyOf(command));
  }

  /** A drag begins. */
  begin() {
    this.responses.begin();
  }

  /** Another version was committed. @param {number} version @param {any[]} commands what led to it. */
  goOn(version, commands) {
    this.aliases.goOn(version, commands);
  }

  /**
   * Say what will probably be tried next, the likeliest first.
   * @param {() => object[]} [expected] returns commands. @param {boolean} [isHurried] whether there is no time for them before the drag pauses.
   */
  expect(expected = nothing, isHurried = false) {
    this.expected = expected;
    this.isHurried = isHurried;
    if (!this.state.isBehind()) this.rest();
  }

  /** There is time for what is expected. */
  rest() {
    this.responses.expect(this.likely(this.expected), this.isHurried);
    this.expected = nothing;
  }

  /** Requests that will probably come, one for each command that is expected. @param {() => object[]} expected */
  *likely(expected) {
    if (!this.state.canExpect()) return;
    for (const command of expected()) yield this.state.bodyOf(command);
  }
}

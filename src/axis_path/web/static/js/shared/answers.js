// @ts-check
/**
 * Answers that were given, and answers asked for before they are wished.
 *
 * An answer belongs to the whole request, state and all: the same request has the same answer, so one
 * that is kept is never stale. A hand that goes to and fro, and what plays again and again, comes
 * back to the same states: there the answers are at hand. What the hand will probably do next is
 * asked for while nothing else is, one question at a time. Guesses cost the server time: a hurried hand
 * that was not foreseen gets none until it is foreseen again or slows down. One that rests has all the time.
 */
const MOST_GUESSES = 3;
/** Where wishes were foreseen and leave the time, those after them are guessed too. */
const MANY_GUESSES = 24;
/** Wishes further apart than this leave the time for guesses. */
const CALM_MS = 30;
/** Who has wished nothing for so long rests: more is guessed, as long as each guess takes no longer than that. */
const REST_MS = 60;
const SHORT_MS = 100;

const nothing = () => [].values();

/** @param {Iterable<any>} first @param {Iterator<any>} others @returns {Iterator<any>} */
function* chained(first, others) {
  yield* first;
  yield* { [Symbol.iterator]: () => others };
}

export class Answers {
  /**
   * @param {(body: any) => Promise<any>} send
   * @param {object} [options]
   * @param {number} [options.room] so much is kept, the latest.
   * @param {(answer: any) => number} [options.weigh] how much an answer is; more than the room is not kept.
   * @param {(body: any) => string} [options.keyOf] equal for requests with the same answer.
   * @param {number} [options.together] so many guesses may be asked for in one question,
   * @param {(bodies: any[]) => Promise<any[]>} [options.sendAll] which gives the answers to the first of them.
   */
  constructor(send, { room = 24, weigh = () => 1, keyOf = JSON.stringify, together = 1, sendAll } = {}) {
    this.send = send;
    this.together = together;
    this.sendAll = sendAll ?? ((bodies) => Promise.all(bodies.map((body) => send(body))));
    this.room = room;
    this.weigh = weigh;
    this.keyOf = keyOf;
    /** @type {Map<string, {answer: Promise<any>, weight: number, isGuess: boolean}>} */
    this.kept = new Map();
    this.weight = 0;
    /** What will probably be wished. @type {Iterator<any>} */
    this.ahead = nothing();
    /** Whether there is nothing more of it. */
    this.isOver = false;
    /** So many guesses are made while nobody rests, and so many of them are left. */
    this.guesses = MOST_GUESSES;
    this.left = 0;
    this.restTimer = 0;
    this.tookMs = 0;
    this.wishedAt = -Infinity;
    this.isAsking = false;
    /** The guess that is under way. @type {Promise<any> | null} */
    this.guess = null;
  }

  /** The answer to a request, asked for unless it is known. @param {any} body @returns {Promise<any>} */
  get(body) {
    const now = performance.now();
    const isCalm = now - this.wishedAt > CALM_MS;
    this.wishedAt = now;
    const known = this.kept.get(this.keyOf(body));
    if (known && isCalm) this.guesses = MANY_GUESSES;
    else if (known?.isGuess) this.guesses = Math.min(this.guesses + 1, MOST_GUESSES);
    else this.guesses = isCalm ? MOST_GUESSES : 0;
    if (known) known.isGuess = false;
    // A wish comes first, and guesses made before it are old. One that is under way is let come: to
    // give it up would give up the connection, and another process would begin anew.
    this.ahead = nothing();
    if (this.guess && !known) return this.guess.then(() => this.ask(body));
    return this.ask(body);
  }

  /** @param {any} body @returns {Promise<any>} */
  ask(body) {
    const key = this.keyOf(body);
    const known = this.kept.get(key);
    if (known) {
      // The latest are behind.
      this.kept.delete(key);
      this.kept.set(key, known);
      return known.answer;
    }
    return this.keep(key, this.send(body), false);
  }

  /** @param {string} key @param {Promise<any>} answer @param {boolean} isGuess whether nobody wished it yet. */
  keep(key, answer, isGuess) {
    const entry = { answer, weight: 0, isGuess };
    this.kept.set(key, entry);
    answer.then(
      (found) => this.makeRoom(key, entry, this.weigh(found)),
      // A refusal is not kept: asking again may go well.
      () => this.drop(key, entry),
    );
    return answer;
  }

  /** Whether the answer to a request is there. @param {any} body */
  has(body) {
    return Boolean(this.kept.get(this.keyOf(body))?.weight);
  }

  /** Ask for guesses in one question. @param {any[]} bodies */
  async askAll(bodies) {
    const { ahead } = this;
    const answers = await this.sendAll(bodies);
    // There was no time for the others: they are the next.
    const others = bodies.slice(answers.length);
    if (others.length && ahead === this.ahead) this.ahead = chained(others, ahead);
    for (const [k, answer] of answers.entries()) {
      const key = this.keyOf(bodies[k]);
      if (!this.kept.has(key)) this.keep(key, Promise.resolve(answer), true);
    }
  }

  /** An answer has come: what was not asked for longest goes. */
  makeRoom(key, entry, weight) {
    if (this.kept.get(key) !== entry) return;
    if (weight > this.room) {
      this.drop(key, entry);
      return;
    }
    entry.weight = weight;
    this.weight += weight;
    for (const [oldest, each] of this.kept) {
      if (this.weight <= this.room) break;
      if (each.weight) this.drop(oldest, each);
    }
  }

  drop(key, entry) {
    if (this.kept.get(key) !== entry) return;
    this.kept.delete(key);
    this.weight -= entry.weight;
  }

  /** The hand begins anew: guess again. */
  begin() {
    this.guesses = MOST_GUESSES;
  }

  /**
   * Say what will probably be wished next, the likeliest first.
   * @param {Iterable<any>} bodies @param {boolean} [isHurried] whether there is no time for it before who wishes rests.
   */
  foresee(bodies, isHurried = false) {
    this.ahead = bodies[Symbol.iterator]();
    this.left = isHurried ? 0 : this.guesses;
    if (!this.isAsking) this.askAhead();
  }

  async askAhead() {
    this.isAsking = true;
    while (this.mayGuess()) {
      const bodies = this.nextGuesses();
      if (!bodies.length) {
        if (this.isOver) break;
        continue;
      }
      const began = performance.now();
      // Nobody waits for it: a refusal comes again when it is really wished.
      this.guess = this.askAll(bodies).catch(() => {});
      await this.guess;
      this.tookMs = performance.now() - began;
    }
    this.guess = null;
    this.isAsking = false;
  }

  /** The likeliest that are not known, as many as may be asked for now. */
  nextGuesses() {
    const bodies = [];
    const isRest = this.left <= 0;
    while (bodies.length < this.together && (isRest || this.left > 0)) {
      const { value: body, done } = this.ahead.next();
      this.isOver = Boolean(done);
      if (done) break;
      if (this.kept.has(this.keyOf(body))) continue;
      this.left -= 1;
      bodies.push(body);
    }
    return bodies;
  }

  /** Whether there is time for a guess now; if there will be when who wishes rests, it is made then. */
  mayGuess() {
    if (this.left > 0) return true;
    clearTimeout(this.restTimer);
    // A wish would wait for a guess that is under way.
    if (this.tookMs > SHORT_MS) return false;
    const untilRestMs = REST_MS - (performance.now() - this.wishedAt);
    if (untilRestMs <= 0) return true;
    this.restTimer = setTimeout(() => this.isAsking || this.askAhead(), untilRestMs);
    return false;
  }
}

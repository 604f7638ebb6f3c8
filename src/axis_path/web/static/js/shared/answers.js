// @ts-check
/**
 * Answers that were given, and answers asked for before they are wished.
 *
 * An answer belongs to the whole request, state and all: the same request has the same answer, so one
 * that is kept is never stale. What the hand will probably do next is asked for while nothing else is,
 * one thing at a time. Guesses cost the server time: a hurried hand that was not foreseen gets none
 * until it is foreseen again or slows down.
 */
const MOST_GUESSES = 3;
/** Wishes further apart than this leave the time for guesses. */
const CALM_MS = 30;

export class Answers {
  /** @param {(body: any) => Promise<any>} send @param {number} most answers to keep. */
  constructor(send, most = 24) {
    this.send = send;
    this.most = most;
    /** @type {Map<string, Promise<any>>} */
    this.kept = new Map();
    /** @type {any[]} */
    this.ahead = [];
    this.guesses = MOST_GUESSES;
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
    if (this.kept.has(JSON.stringify(body))) this.guesses = Math.min(this.guesses + 1, MOST_GUESSES);
    else this.guesses = isCalm ? MOST_GUESSES : 0;
    // A wish comes first, and guesses made before it are old. One that is under way is let come: to
    // give it up would give up the connection, and another process would begin anew.
    this.ahead = [];
    if (this.guess && !this.kept.has(JSON.stringify(body))) return this.guess.then(() => this.ask(body));
    return this.ask(body);
  }

  /** @param {any} body @returns {Promise<any>} */
  ask(body) {
    const key = JSON.stringify(body);
    const known = this.kept.get(key);
    const answer = known ?? this.send(body);
    this.kept.delete(key);
    this.kept.set(key, answer);
    // A refusal is not kept: asking again may go well.
    if (!known) answer.catch(() => this.kept.delete(key));
    for (const oldest of this.kept.keys()) {
      if (this.kept.size <= this.most) break;
      this.kept.delete(oldest);
    }
    return answer;
  }

  /** The hand begins anew: guess again. */
  begin() {
    this.guesses = MOST_GUESSES;
  }

  /** Say what will probably be wished next, the likeliest first. @param {any[]} bodies */
  foresee(bodies) {
    this.ahead = bodies.slice(0, this.guesses);
    if (!this.isAsking) this.askAhead();
  }

  async askAhead() {
    this.isAsking = true;
    for (let body = this.ahead.shift(); body; body = this.ahead.shift()) {
      // Nobody waits for it: a refusal comes again when it is really wished.
      this.guess = this.ask(body).catch(() => {});
      await this.guess;
    }
    this.guess = null;
    this.isAsking = false;
  }
}

// @ts-check
/**
 * Prefetch: requests that will probably come next are sent before they do, while nothing else is.
 *
 * It stands in front of a `ResponseCache` and has its interface, so that nothing else need know
 * whether there is any. Prefetching costs the server time: a fast drag whose states were not
 * prefetched gets none until one was, or it slows down. At rest there is all the time. The server
 * says with each answer whether it has time for it (`allow`).
 */
const MOST_AT_ONCE = 3;
/** Where requests were prefetched and leave the time, those after them are prefetched too. */
const MANY_AT_ONCE = 24;
/** Requests further apart than this leave time. */
const CALM_MS = 30;
/** Who has asked nothing for so long rests: more is prefetched, as long as each takes no longer than that. */
const REST_MS = 60;
const SHORT_MS = 100;

const nothing = () => [].values();

/** @param {Iterable<any>} first @param {Iterator<any>} others @returns {Iterator<any>} */
function* chained(first, others) {
  yield* first;
  yield* { [Symbol.iterator]: () => others };
}

export class Prefetch {
  /**
   * @param {import("./cache.js").ResponseCache} cache
   * @param {object} [options]
   * @param {number} [options.together] how many may be asked for in one request,
   * @param {(bodies: any[]) => Promise<any[]>} [options.sendAll] which returns the answers to the first of them.
   */
  constructor(cache, { together = 1, sendAll } = {}) {
    this.cache = cache;
    this.together = together;
    this.sendAll = sendAll ?? ((bodies) => Promise.all(bodies.map((body) => cache.send(body))));
    /** What will probably be asked. @type {Iterator<any>} */
    this.expected = nothing();
    /** Whether there is nothing more of it. */
    this.isOver = false;
    /** How many are sent while nobody rests, and how many of them are left. */
    this.share = MOST_AT_ONCE;
    this.left = 0;
    this.restTimer = 0;
    this.tookMs = 0;
    this.askedAt = -Infinity;
    this.isSending = false;
    this.isAllowed = true;
    /** The request that is under way. @type {Promise<any> | null} */
    this.pending = null;
  }

  /** The answer to a request. @param {any} body @returns {Promise<any>} */
  get(body) {
    const now = performance.now();
    const isCalm = now - this.askedAt > CALM_MS;
    this.askedAt = now;
    const known = this.cache.entryOf(body);
    if (known && isCalm) this.share = MANY_AT_ONCE;
    else if (known?.isPrefetched) this.share = Math.min(this.share + 1, MOST_AT_ONCE);
    else this.share = isCalm ? MOST_AT_ONCE : 0;
    if (known) known.isPrefetched = false;
    // What is asked comes first, and what was expected before is old. A prefetch that is under way is
    // let come: to abort it would close the connection, and another process would begin anew.
    this.expected = nothing();
    if (this.pending && !known) return this.pending.then(() => this.cache.get(body));
    return this.cache.get(body);
  }

  /** Whether the answer to a request is there. @param {any} body */
  has(body) {
    return this.cache.has(body);
  }

  /** A drag begins: prefetch again. */
  begin() {
    this.share = MOST_AT_ONCE;
  }

  /** The server says whether it has time. @param {boolean} isAllowed */
  allow(isAllowed) {
    this.isAllowed = isAllowed;
  }

  /**
   * Say what will probably be asked next, the likeliest first.
   * @param {Iterable<any>} bodies @param {boolean} [isHurried] whether there is no time for it before the drag rests.
   */
  expect(bodies, isHurried = false) {
    this.expected = bodies[Symbol.iterator]();
    this.left = isHurried ? 0 : this.share;
    if (!this.isSending) this.sendExpected();
  }

  async sendExpected() {
    this.isSending = true;
    while (this.hasTime()) {
      const bodies = this.nextBodies();
      if (!bodies.length) {
        if (this.isOver) break;
        continue;
      }
      const began = performance.now();
      // Nobody waits for it: a refusal comes again when it is really asked.
      this.pending = this.store(bodies).catch(() => {});
      await this.pending;
      this.tookMs = performance.now() - began;
    }
    this.pending = null;
    this.isSending = false;
  }

  /** Send requests together, and store their answers. @param {any[]} bodies */
  async store(bodies) {
    const { expected } = this;
    const answers = await this.sendAll(bodies);
    // There was no time for the others: they are the next.
    const others = bodies.slice(answers.length);
    if (others.length && expected === this.expected) this.expected = chained(others, expected);
    for (const [k, answer] of answers.entries()) {
      const key = this.cache.keyOf(bodies[k]);
      if (!this.cache.entries.has(key)) this.cache.put(key, Promise.resolve(answer), true);
    }
  }

  /** The likeliest that are not stored, as many as may be sent now. */
  nextBodies() {
    const bodies = [];
    const isRest = this.left <= 0;
    while (bodies.length < this.together && (isRest || this.left > 0)) {
      const { value: body, done } = this.expected.next();
      this.isOver = Boolean(done);
      if (done) break;
      if (this.cache.entryOf(body)) continue;
      this.left -= 1;
      bodies.push(body);
    }
    return bodies;
  }

  /** Whether there is time now; if there will be at rest, it is sent then. */
  hasTime() {
    if (!this.isAllowed) return false;
    if (this.left > 0) return true;
    clearTimeout(this.restTimer);
    // A request would wait for one that is under way.
    if (this.tookMs > SHORT_MS) return false;
    const untilRestMs = REST_MS - (performance.now() - this.askedAt);
    if (untilRestMs <= 0) return true;
    this.restTimer = setTimeout(() => this.isSending || this.sendExpected(), untilRestMs);
    return false;
  }
}

/** The same interface where nothing is prefetched. */
export class NoPrefetch {
  /** @param {import("./cache.js").ResponseCache} cache */
  constructor(cache) {
    this.cache = cache;
  }

  /** @param {any} body @returns {Promise<any>} */
  get(body) {
    return this.cache.get(body);
  }

  /** @param {any} body */
  has(body) {
    return this.cache.has(body);
  }

  begin() {}

  allow() {}

  expect() {}
}

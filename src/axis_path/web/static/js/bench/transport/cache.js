// @ts-check
/**
 * A cache of answers.
 *
 * An answer belongs to the whole request, state and all: the same request has the same answer, so an
 * entry is never stale. A drag that goes back and forth, and what plays again and again, comes back
 * to the same states: there the answers are at hand.
 */
export class ResponseCache {
  /**
   * @param {(body: any) => Promise<any>} send
   * @param {object} [options]
   * @param {number} [options.room] how much is stored, the latest.
   * @param {(answer: any) => number} [options.weigh] how much an answer is; more than the room is not stored.
   * @param {(body: any) => string} [options.keyOf] equal for requests with the same answer.
   */
  constructor(send, { room = 24, weigh = () => 1, keyOf = JSON.stringify } = {}) {
    this.send = send;
    this.room = room;
    this.weigh = weigh;
    this.keyOf = keyOf;
    /** @type {Map<string, Entry>} */
    this.entries = new Map();
    this.weight = 0;
  }

  /** The answer to a request, sent unless it is stored. @param {any} body @returns {Promise<any>} */
  get(body) {
    const key = this.keyOf(body);
    const known = this.entries.get(key);
    if (!known) return this.put(key, this.send(body));
    // The latest are last.
    this.entries.delete(key);
    this.entries.set(key, known);
    return known.answer;
  }

  /** The entry of a request, there or on its way. @param {any} body @returns {Entry | undefined} */
  entryOf(body) {
    return this.entries.get(this.keyOf(body));
  }

  /** Whether the answer to a request is there. @param {any} body */
  has(body) {
    return Boolean(this.entryOf(body)?.weight);
  }

  /**
   * Store an answer.
   * @param {string} key @param {Promise<any>} answer @param {boolean} [isPrefetched] whether nobody asked for it yet.
   */
  put(key, answer, isPrefetched = false) {
    const entry = { answer, weight: 0, isPrefetched };
    this.entries.set(key, entry);
    answer.then(
      (value) => this.makeRoom(key, entry, this.weigh(value)),
      // A refusal is not stored: asking again may go well.
      () => this.drop(key, entry),
    );
    return answer;
  }

  /** An answer has come: the least recently used go. */
  makeRoom(key, entry, weight) {
    if (this.entries.get(key) !== entry) return;
    if (weight > this.room) {
      this.drop(key, entry);
      return;
    }
    entry.weight = weight;
    this.weight += weight;
    for (const [oldest, stored] of this.entries) {
      if (this.weight <= this.room) break;
      if (stored.weight) this.drop(oldest, stored);
    }
  }

  drop(key, entry) {
    if (this.entries.get(key) !== entry) return;
    this.entries.delete(key);
    this.weight -= entry.weight;
  }
}

/** @typedef {{answer: Promise<any>, weight: number, isPrefetched: boolean}} Entry */

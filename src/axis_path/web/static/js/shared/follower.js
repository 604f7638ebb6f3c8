// @ts-check
/**
 * Follows something that changes faster than answers come: one request is under way at most, and
 * when its answer is there, only the latest wish is sent. Nothing queues up.
 */
export class Follower {
  /**
   * @param {(body: any, signal: AbortSignal) => Promise<any>} send
   * @param {(answer: any, body: any) => void} take
   * @param {(error: Error) => void} fail
   * @param {() => void} [rest] called when nothing is under way any more.
   */
  constructor(send, take, fail, rest = () => {}) {
    this.send = send;
    this.take = take;
    this.fail = fail;
    this.rest = rest;
    /** @type {(() => any) | null} */
    this.wish = null;
    this.isBusy = false;
    /** How long after the last request the present wish is sent, in ms. */
    this.pace = 0;
    this.sentAt = -Infinity;
    /** @type {AbortController | null} */
    this.underWay = null;
  }

  /** Give up what is under way, without a word: nobody needs its answer any more. */
  drop() {
    this.wish = null;
    this.underWay?.abort();
  }

  /**
   * @param {() => any} makeBody called when the request is really sent.
   * @param {number} [pace] how long to wait after the last request, in ms: for what has time.
   */
  ask(makeBody, pace = 0) {
    this.wish = makeBody;
    this.pace = pace;
    if (!this.isBusy) this.run();
  }

  /** Whether an answer is still on its way. */
  get isBehind() {
    return this.isBusy || this.wish !== null;
  }

  async run() {
    this.isBusy = true;
    while (this.wish) {
      const early = this.sentAt + this.pace - performance.now();
      if (early > 0) await new Promise((resolve) => setTimeout(resolve, early));
      // It may have been dropped meanwhile.
      if (!this.wish) break;
      const body = this.wish();
      this.wish = null;
      this.sentAt = performance.now();
      const underWay = new AbortController();
      this.underWay = underWay;
      try {
        const answer = await this.send(body, underWay.signal);
        if (!underWay.signal.aborted) this.take(answer, body);
      } catch (error) {
        if (!underWay.signal.aborted) this.fail(/** @type {Error} */ (error));
      }
    }
    this.underWay = null;
    this.isBusy = false;
    this.rest();
  }
}

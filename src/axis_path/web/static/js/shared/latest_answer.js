// @ts-check
/**
 * Asks about something that changes faster than answers come: one request is under way at most, and
 * when its answer is there, only the latest pending one is sent. Nothing queues up.
 */
export class LatestAnswer {
  /**
   * @param {(body: any, signal: AbortSignal) => Promise<any>} send
   * @param {(answer: any, body: any, sentAt: number) => void} take
   * @param {(error: Error) => void} fail
   * @param {() => void} [rest] called when nothing is under way any more.
   * @param {(answer: any, body: any) => void} [note] told of an answer before the next request is sent.
   */
  constructor(send, take, fail, rest = () => {}, note = () => {}) {
    this.send = send;
    this.take = take;
    this.fail = fail;
    this.rest = rest;
    this.note = note;
    /** @type {(() => any) | null} */
    this.pending = null;
    this.isBusy = false;
    /** How long after the last request the pending one is sent, in ms. */
    this.pace = 0;
    this.sentAt = -Infinity;
    /** @type {AbortController | null} */
    this.underWay = null;
  }

  /** Give up what is under way, without a word: nobody needs its answer any more. */
  drop() {
    this.pending = null;
    this.underWay?.abort();
  }

  /**
   * @param {() => any} makeBody called when the request is really sent.
   * @param {number} [pace] how long to wait after the last request, in ms: for what has time.
   */
  ask(makeBody, pace = 0) {
    this.pending = makeBody;
    this.pace = pace;
    if (!this.isBusy) this.run();
  }

  /** Whether an answer is still on its way. */
  get isBehind() {
    return this.isBusy || this.pending !== null;
  }

  async run() {
    this.isBusy = true;
    let underWay = await this.next();
    while (underWay) {
      const { body, asked, drop, sentAt } = underWay;
      const outcome = await asked.then(
        (answer) => ({ answer, error: null }),
        (error) => ({ answer: undefined, error }),
      );
      const isWanted = !drop.signal.aborted;
      if (isWanted && outcome.answer !== undefined) this.note(outcome.answer, body);
      // The next question goes out first: the server works on it while this answer is painted.
      const isNow = this.pending !== null && this.sentAt + this.pace <= performance.now();
      underWay = isNow ? this.begin() : null;
      if (isWanted) {
        if (outcome.error) this.fail(outcome.error);
        else await this.take(outcome.answer, body, sentAt);
      }
      underWay ??= await this.next();
    }
    this.underWay = null;
    this.isBusy = false;
    this.rest();
  }

  /** Send the pending request when its time has come; null if there is none any more. */
  async next() {
    const early = this.pending ? this.sentAt + this.pace - performance.now() : 0;
    if (early > 0) await new Promise((resolve) => setTimeout(resolve, early));
    // It may have been dropped meanwhile.
    return this.pending ? this.begin() : null;
  }

  begin() {
    const body = /** @type {() => any} */ (this.pending)();
    this.pending = null;
    this.sentAt = performance.now();
    const drop = new AbortController();
    this.underWay = drop;
    return { body, drop, sentAt: this.sentAt, asked: this.send(body, drop.signal) };
  }
}

// @ts-check
/**
 * Follows something that changes faster than answers come: one request is under way at most, and
 * when its answer is there, only the latest wish is sent. Nothing queues up.
 */
export class Follower {
  /**
   * @param {(body: any) => Promise<any>} send
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
  }

  /** @param {() => any} makeBody called when the request is really sent. */
  ask(makeBody) {
    this.wish = makeBody;
    if (!this.isBusy) this.run();
  }

  /** Whether an answer is still on its way. */
  get isBehind() {
    return this.isBusy || this.wish !== null;
  }

  async run() {
    this.isBusy = true;
    while (this.wish) {
      const body = this.wish();
      this.wish = null;
      try {
        this.take(await this.send(body), body);
      } catch (error) {
        this.fail(/** @type {Error} */ (error));
      }
    }
    this.isBusy = false;
    this.rest();
  }
}

// @ts-check
/** How long to wait before something that failed is tried again: each time twice as long. */

export class Backoff {
  /** @param {number} firstMs @param {number} longestMs */
  constructor(firstMs, longestMs) {
    this.firstMs = firstMs;
    this.longestMs = longestMs;
    this.nextMs = firstMs;
  }

  /**
   * The pause before the next try, and a longer one after it.
   * @param {number} [leastMs] what the server asks for. @returns {number} in ms.
   */
  pause(leastMs = 0) {
    const pause = Math.max(this.nextMs, leastMs);
    this.nextMs = Math.min(2 * this.nextMs, this.longestMs);
    return pause;
  }

  /** It went well: the next pause is short again. */
  reset() {
    this.nextMs = this.firstMs;
  }
}

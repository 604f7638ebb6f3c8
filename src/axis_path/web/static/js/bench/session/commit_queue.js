// @ts-check
/** Sends changes one after the other, and some of them only when the keys have rested. */

export class CommitQueue {
  /** @param {any} store the reactive store; `saving` says whether anything is under way. */
  constructor(store) {
    this.store = store;
    this.last = Promise.resolve();
    this.count = 0;
    /** What is sent when the keys have rested. @type {{owner: string, send: () => any, timer: any} | null} */
    this.soon = null;
  }

  begin() {
    this.count += 1;
    this.store.saving = true;
  }

  end() {
    this.count -= 1;
    if (!this.count) this.store.saving = false;
  }

  /** Send when everything before has been answered. @template T @param {() => Promise<T>} send @returns {Promise<T>} */
  add(send) {
    this.flush();
    this.begin();
    this.store.notice = "";
    const turn = this.last.then(send);
    this.last = turn.then(() => undefined);
    return turn.finally(() => this.end());
  }

  /**
   * Send after a rest; whatever else is sent before, sends it first.
   * @param {string} owner whose it is: the same owner only puts it off. @param {() => any} send @param {number} restMs
   */
  addSoon(owner, send, restMs) {
    if (this.soon && this.soon.owner !== owner) this.flush();
    if (this.soon) clearTimeout(this.soon.timer);
    else this.begin();
    this.soon = { owner, send, timer: setTimeout(() => this.flush(), restMs) };
  }

  /** Send at once what was to be sent soon. */
  flush() {
    if (!this.soon) return;
    const { send, timer } = this.soon;
    this.soon = null;
    clearTimeout(timer);
    send();
    this.end();
  }
}

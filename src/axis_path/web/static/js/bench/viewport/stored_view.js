// @ts-check
/** Stores where one looks: the window, the reading line and the open tab, which have no history. */
import { post } from "../../shared/api.js";

const DELAY_MS = 500;

export class StoredView {
  /** @param {string} address @param {() => object | null} makeBody returns the view, or null before there is one. @param {(error: any) => void} fail */
  constructor(address, makeBody, fail) {
    this.address = address;
    this.makeBody = makeBody;
    this.fail = fail;
    this.timer = 0;
  }

  /** Store it when it has not changed for a while. */
  saveSoon() {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.save(), DELAY_MS);
  }

  /** The page is left: store what was to be stored soon. */
  leave() {
    if (this.timer) this.save({ keepalive: true });
  }

  async save(options = {}) {
    clearTimeout(this.timer);
    this.timer = 0;
    const body = this.makeBody();
    // What is lost without a connection is where one looked, and no work.
    if (body)
      await post(this.address, body, options).catch(
        (error) => error.isTemporary || this.fail(error),
      );
  }
}

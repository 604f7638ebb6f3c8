// @ts-check
/** Handles a server that does not answer: reports it, and tries again after a growing pause. */
import { Backoff } from "../../shared/backoff.js";
import { say } from "../../shared/words.js";

/** Without an answer it is tried again after so long, and each time after twice as long. */
const BACK_MS = 700;
const LONGEST_BACK_MS = 15_000;

export class Connection {
  /** @param {any} store the reactive store. @param {() => void} retry asks for the picture again. */
  constructor(store, retry) {
    this.store = store;
    this.retry = retry;
    /** What waits for the connection to come back. @type {(() => void)[]} */
    this.waiting = [];
    this.timer = 0;
    this.backoff = new Backoff(BACK_MS, LONGEST_BACK_MS);
    // Nobody waits for a pause to end when the network is there again, or the page is looked at.
    addEventListener("online", () => this.tryNow());
    document.addEventListener("visibilitychange", () => this.tryNow());
  }

  get isLost() {
    return this.store.isWaiting;
  }

  /** Call something when the server answers again. @param {() => void} action */
  whenBack(action) {
    this.waiting.push(action);
  }

  /** The server cannot answer just now. @param {any} error */
  lose(error) {
    this.store.waitingText =
      error.code === "network"
        ? say(
            "There is no connection to the server. Your work is safe. Axis Path goes on as soon as the server answers.",
          )
        : error.message;
    this.store.isWaiting = true;
    clearTimeout(this.timer);
    this.timer = setTimeout(this.retry, this.backoff.pause(error.retryAfterMs));
  }

  /** The server has answered. */
  succeed() {
    this.backoff.reset();
    if (!this.isLost) return;
    this.store.isWaiting = false;
    for (const action of this.waiting.splice(0)) action();
  }

  /** The server may answer again: do not wait for the pause to end. */
  tryNow() {
    if (!this.isLost || document.visibilityState === "hidden") return;
    clearTimeout(this.timer);
    this.retry();
  }
}

// @ts-check
/**
 * One connection for one question after the other: a request of its own for each frame costs the
 * browser more than the picture. It is made when something is asked, and given up when nothing is;
 * while there is none, requests do the same.
 */

const IDLE_MS = 60_000;
/** A wire that was refused or broke off is not tried again for so long. */
const AGAIN_MS = 20_000;

/** The wire broke off before the answer came. */
export class WireLost extends Error {}

export class Wire {
  /** @param {string} path */
  constructor(path) {
    this.path = path;
    /** @type {WebSocket | null} */
    this.socket = null;
    /** What waits for its answer. @type {{resolve: (answer: any) => void, reject: (error: Error) => void} | null} */
    this.waiting = null;
    this.brokeAt = -Infinity;
    this.idleTimer = 0;
  }

  /**
   * Ask, if the wire is there and free; otherwise give null, and make one for the next time.
   * @param {object} body @param {AbortSignal} stopped gives the question up: the server ends its calculation.
   * @returns {Promise<any>}
   */
  async ask(body, stopped) {
    clearTimeout(this.idleTimer);
    this.idleTimer = setTimeout(() => this.close(), IDLE_MS);
    const { socket } = this;
    if (socket?.readyState !== WebSocket.OPEN || this.waiting) {
      this.open();
      return null;
    }
    const stop = () => this.close();
    stopped.addEventListener("abort", stop);
    try {
      return await new Promise((resolve, reject) => {
        this.waiting = { resolve, reject };
        socket.send(JSON.stringify(body));
      });
    } finally {
      stopped.removeEventListener("abort", stop);
    }
  }

  open() {
    if (this.socket || performance.now() - this.brokeAt < AGAIN_MS) return;
    const socket = new WebSocket(location.origin.replace(/^http/, "ws") + this.path);
    this.socket = socket;
    socket.addEventListener("message", ({ data }) => {
      const { waiting } = this;
      this.waiting = null;
      waiting?.resolve(JSON.parse(data));
    });
    socket.addEventListener("close", () => {
      if (socket !== this.socket) return;
      this.brokeAt = performance.now();
      this.forget();
    });
  }

  /** Give the wire up; what waits for an answer gets none. */
  close() {
    const { socket } = this;
    this.forget();
    socket?.close();
  }

  forget() {
    this.socket = null;
    this.waiting?.reject(new WireLost());
    this.waiting = null;
  }
}

// @ts-check
/**
 * One connection for one question after the other: a request of its own for each frame costs the
 * browser more than the picture. It is made when something is asked, and given up when nothing is;
 * while there is none, requests do the same.
 */
import { ApiError, missing, post } from "../../shared/api.js";
import { stoppable } from "../../shared/stoppable.js";

const IDLE_MS = 60_000;
/** A socket that was refused or broke off is not tried again for so long. */
const AGAIN_MS = 20_000;

/** What is not answered by now is asked for with a request: a connection can be lost without a word. */
const LATE_MS = 12_000;

/** The socket broke off before the answer came. */
export class SocketLost extends Error {}

/** @param {string} address @returns {WebSocket | null} nothing where the browser does not take it for one of our own addresses. */
function made(address) {
  try {
    return new WebSocket(address);
  } catch {
    return null;
  }
}

export class SceneSocket {
  /** @param {string} path */
  constructor(path) {
    this.path = path;
    /** @type {WebSocket | null} */
    this.socket = null;
    /** What waits for its answer. @type {{resolve: (answer: any) => void, reject: (error: Error) => void} | null} */
    this.waiting = null;
    this.brokeAt = -Infinity;
    this.idleTimer = 0;
    /** How long the last answer was, in letters; 0 if none came this way since the last question. */
    this.letters = 0;
    // Without a network a socket stays open, and silent.
    addEventListener("offline", () => this.close());
  }

  /**
   * Ask, if the socket is there and free; otherwise give null, and make one for the next time.
   * @param {object} body @param {AbortSignal} stopped gives the question up: the server ends its calculation.
   * @returns {Promise<any>}
   */
  async ask(body, stopped) {
    clearTimeout(this.idleTimer);
    this.idleTimer = setTimeout(() => this.close(), IDLE_MS);
    this.letters = 0;
    const { socket } = this;
    if (socket?.readyState !== WebSocket.OPEN || this.waiting) {
      this.open();
      return null;
    }
    const stop = () => this.close();
    const timer = setTimeout(stop, LATE_MS);
    stopped.addEventListener("abort", stop);
    try {
      return await new Promise((resolve, reject) => {
        this.waiting = { resolve, reject };
        socket.send(JSON.stringify(body));
      });
    } finally {
      clearTimeout(timer);
      stopped.removeEventListener("abort", stop);
    }
  }

  open() {
    if (this.socket || !navigator.onLine || performance.now() - this.brokeAt < AGAIN_MS) return;
    const socket = made(location.origin.replace(/^http/, "ws") + this.path);
    this.socket = socket;
    if (!socket) {
      this.brokeAt = performance.now();
      return;
    }
    socket.addEventListener("message", ({ data }) => {
      if (socket !== this.socket) return;
      const { waiting } = this;
      this.waiting = null;
      this.letters = data.length;
      waiting?.resolve(JSON.parse(data));
    });
    socket.addEventListener("close", () => {
      if (socket !== this.socket) return;
      this.forget();
      this.brokeAt = performance.now();
    });
  }

  /** Give the socket up; what waits for an answer gets none. */
  close() {
    const { socket } = this;
    this.forget();
    socket?.close();
  }

  forget() {
    this.socket = null;
    this.waiting?.reject(new SocketLost());
    this.waiting = null;
  }
}

/**
 * Ask for what keeps nothing over a socket if there is one, or else with a request.
 * @param {SceneSocket} socket @param {string} path @param {string} part what is asked for.
 * @param {object} body @returns {Promise<any>}
 */
export function askOver(socket, path, part, body) {
  return stoppable(async (stopped) => {
    try {
      const answer = await socket.ask({ part, ...body }, stopped);
      if (answer?.error) throw new ApiError(answer.status, answer.error);
      if (answer) return answer;
    } catch (error) {
      if (stopped.aborted) throw missing(stopped);
      // It keeps nothing, so that it may be asked again.
      if (!(error instanceof SocketLost)) throw error;
    }
    return post(path, body, { signal: stopped });
  });
}

// @ts-check
/** The only place that talks to the server. */
import { stoppable } from "./stoppable.js";
import { say } from "./words.js";

/** A refusal of the server, or no answer at all. */
export class ApiError extends Error {
  /** @param {number} status 0 if there was no answer. @param {any} error */
  constructor(status, error) {
    super(error.message ?? say("The server did not answer."));
    this.status = status;
    this.code = error.code ?? (status ? `web.${status}` : "network");
    this.position = error.position ?? null;
    /** How long the server wants to be left alone, in ms. */
    this.retryAfterMs = 1000 * (error.retry_after_s ?? 0);
  }

  /** Whether the same may go well in a moment, because nothing is wrong with it. */
  get isTemporary() {
    return (
      this.code === "network" ||
      TEMPORARY.has(this.code) ||
      this.status === 502 ||
      this.status === 504
    );
  }
}

/** What the server says when it cannot answer just now. */
const TEMPORARY = new Set(["store.unavailable", "compute.busy", "compute.gone"]);

/** Browsers refuse to go on sending more than 64 KiB when a page is left. */
const KEEPALIVE_LETTERS = 16_000;

const token = () =>
  document.querySelector('meta[name="csrf-token"]')?.getAttribute("content") ?? "";

/**
 * Ask with JSON for what keeps nothing; the question can be given up while it is under way.
 * @param {string} path
 * @param {object} body
 * @param {AbortSignal} [dropped] gives this question up.
 * @returns {Promise<any>}
 */
export function ask(path, body, dropped) {
  return stoppable((stopped) =>
    post(path, body, { signal: dropped ? AbortSignal.any([stopped, dropped]) : stopped }),
  );
}

/** Why there is no answer. @param {AbortSignal} [signal] */
export function missing(signal) {
  const isStopped = signal?.aborted;
  return new ApiError(
    0,
    isStopped
      ? { code: "stopped", message: say("Stopped. Dimmed values are out of date.") }
      : { message: say("The server did not answer. Nothing is lost. Try again.") },
  );
}

/**
 * Send JSON and give the JSON that comes back.
 * @param {string} path
 * @param {object} body
 * @param {{keepalive?: boolean, signal?: AbortSignal}} [options] `keepalive`: it is sent though the page is left.
 * @returns {Promise<any>}
 */
export async function post(path, body, options = {}) {
  const text = JSON.stringify(body);
  let response;
  try {
    response = await fetch(path, {
      method: "POST",
      headers: {
        "Content-Type": "application/json",
        Accept: "application/json",
        "X-CSRFToken": token(),
      },
      body: text,
      keepalive: Boolean(options.keepalive) && text.length < KEEPALIVE_LETTERS,
      signal: options.signal,
    });
  } catch {
    throw missing(options.signal);
  }
  const answer = await response.json().catch(() => {
    // It can break off in the middle, too: half an answer is none.
    if (response.ok) throw missing(options.signal);
    return {};
  });
  if (!response.ok) throw new ApiError(response.status, answer.error ?? {});
  return answer;
}

/**
 * Ask with JSON for a file.
 * @param {string} path @param {object} body @returns {Promise<Blob>}
 */
export async function askFile(path, body) {
  let response;
  try {
    response = await fetch(path, {
      method: "POST",
      headers: { "Content-Type": "application/json", "X-CSRFToken": token() },
      body: JSON.stringify(body),
    });
  } catch {
    throw new ApiError(0, {
      message: say("The server did not answer. Nothing is lost. Try again."),
    });
  }
  if (response.ok) return response.blob();
  const answer = await response.json().catch(() => ({}));
  throw new ApiError(response.status, answer.error ?? {});
}

/** What was asked for with `getOnce`, by its path. @type {Map<string, Promise<any>>} */
const known = new Map();

/**
 * Get JSON that does not change while the page is open; it is asked for once.
 * @param {string} path
 * @returns {Promise<any>}
 */
export function getOnce(path) {
  const asked = known.get(path) ?? get(path);
  known.set(path, asked);
  // A refusal is not kept: asking again may go well.
  asked.catch(() => known.delete(path));
  return asked;
}

/** Get JSON that changes. @param {string} path @returns {Promise<any>} */
export const getAlways = (path) => get(path);

async function get(path) {
  let response;
  try {
    response = await fetch(path, { headers: { Accept: "application/json" } });
  } catch {
    throw new ApiError(0, {
      message: say("The server did not answer. Nothing is lost. Try again."),
    });
  }
  const answer = await response.json().catch(() => ({}));
  if (!response.ok) throw new ApiError(response.status, answer.error ?? {});
  return answer;
}

/**
 * Send a form field and give the JSON that comes back.
 * @param {string} path
 * @param {Record<string, string>} fields
 */
export async function postForm(path, fields) {
  const body = new URLSearchParams({ ...fields, csrf_token: token() });
  const response = await fetch(path, {
    method: "POST",
    headers: { Accept: "application/json" },
    body,
  });
  const answer = await response.json().catch(() => ({}));
  if (!response.ok) throw new ApiError(response.status, answer.error ?? {});
  return answer;
}

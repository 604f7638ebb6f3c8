// @ts-check
/** Questions under way that keep nothing, so that they can be given up. */
const SLOW_MS = 500;

/** @type {Set<AbortController>} */
const running = new Set();
/** Told whether something takes long. @type {Set<(isSlow: boolean) => void>} */
const listeners = new Set();
let slow = 0;

function tell(by) {
  slow += by;
  for (const listener of listeners) listener(slow > 0);
}

/** @param {(isSlow: boolean) => void} listener */
export function onSlow(listener) {
  listeners.add(listener);
}

/** Give up all questions under way; the server ends their calculations. */
export function stopAll() {
  for (const controller of running) controller.abort();
}

/**
 * Ask something that can be given up.
 * @template T
 * @param {(signal: AbortSignal) => Promise<T>} question
 * @returns {Promise<T>}
 */
export async function stoppable(question) {
  const controller = new AbortController();
  let isSlow = false;
  running.add(controller);
  const timer = setTimeout(() => {
    isSlow = true;
    tell(1);
  }, SLOW_MS);
  try {
    return await question(controller.signal);
  } finally {
    clearTimeout(timer);
    running.delete(controller);
    if (isSlow) tell(-1);
  }
}

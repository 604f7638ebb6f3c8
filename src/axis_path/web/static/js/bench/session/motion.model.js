// @ts-check
/** Where something that plays is at a moment; no DOM and no clock. */

/** @typedef {{seconds: number, forward: boolean, at_end: "stop" | "restart" | "reverse", in_step: boolean}} Play */

const modulo = (value, by) => ((value % by) + by) % by;

/**
 * The part of its range, 0 to 1, where a thing is that began to play some time ago.
 * It depends on the time alone: who looks seldom sees fewer places, not a slower motion.
 * @param {Play} play @param {number} from the part where it began. @param {number} elapsedS
 * @returns {{part: number, isOver: boolean}}
 */
export function placeAt(play, from, elapsedS) {
  const way = (elapsedS / play.seconds) * (play.forward ? 1 : -1);
  if (play.at_end === "stop") {
    const part = Math.min(Math.max(from + way, 0), 1);
    return { part, isOver: elapsedS > 0 && part === (play.forward ? 1 : 0) };
  }
  if (play.at_end === "restart") return { part: modulo(from + way, 1), isOver: false };
  // To and fro is a way there, and the same way back.
  const along = modulo((play.forward ? from : 2 - from) + Math.abs(way), 2);
  return { part: along <= 1 ? along : 2 - along, isOver: false };
}

/** Where to begin: what would stop at once begins at its other end. @param {Play} play @param {number} part */
export function beginning(play, part) {
  const inside = Math.min(Math.max(part, 0), 1);
  if (play.at_end !== "stop") return inside;
  const end = play.forward ? 1 : 0;
  return Math.abs(inside - end) < 1e-9 ? 1 - end : inside;
}

/** For those who wish no motion: the time in steps. @param {number} elapsedS @param {number} stepS */
export function inSteps(elapsedS, stepS) {
  return Math.floor(elapsedS / stepS + 1e-9) * stepS;
}

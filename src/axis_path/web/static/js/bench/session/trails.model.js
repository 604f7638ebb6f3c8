// @ts-check
/** Where points have been, in the coordinates of the plane: what is stored, and what is new; no DOM. */

/** As many as the study keeps. */
const MOST = 2000;
/** A place, or null where the trail is not joined. @typedef {[number, number] | null} Position */

export class Trails {
  /** @param {Record<string, Position[]>} [stored] by the ids of the lines. */
  constructor(stored = {}) {
    this.stored = stored;
    /** What is not stored with the study yet. @type {Record<string, Position[]>} */
    this.fresh = {};
  }

  /** Take over what the study keeps. @param {Record<string, Position[]>} stored @param {Record<string, number>} [sent] how many of the new ones are among them. */
  keep(stored, sent = {}) {
    this.stored = stored;
    for (const [id, count] of Object.entries(sent)) this.fresh[id]?.splice(0, count);
    for (const id of Object.keys(this.fresh))
      if (!(id in stored) || !this.fresh[id].length) delete this.fresh[id];
  }

  /** Go on to some positions. @param {Record<string, Position[]>} visited @param {boolean} isJoined whether they go on from the last. */
  visit(visited, isJoined) {
    for (const [id, positions] of Object.entries(visited)) {
      const [last] = this.last(Number(id), 1);
      this.fresh[id] ??= [];
      const fresh = this.fresh[id];
      // Who sets out where the trail ends goes on with it.
      const isGoingOn = isJoined || !last || String(last) === String(positions[0]);
      fresh.push(...(isGoingOn ? [] : [null]), ...positions);
      if (fresh.length > MOST) fresh.splice(0, fresh.length - MOST);
    }
  }

  /** Forget what is not stored. */
  drop() {
    this.fresh = {};
  }

  /** The last positions, the oldest first. @param {number} id @param {number} most @returns {Position[]} */
  last(id, most) {
    return [...(this.stored[id] ?? []), ...(this.fresh[id] ?? [])].slice(-most);
  }

  /** What keeps the new positions, and how many they are. */
  commands() {
    const entries = Object.entries(this.fresh).filter(([, points]) => points.length);
    return {
      commands: entries.map(([id, points]) => ({
        do: "trail",
        id: Number(id),
        how: "add",
        points: [...points],
      })),
      sent: Object.fromEntries(entries.map(([id, points]) => [id, points.length])),
    };
  }
}

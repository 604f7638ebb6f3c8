// @ts-check
/** What was located last, and for which state: marks of another state are never shown. */
import { shiftBetween } from "../viewport/affine.model.js";

export class ShownFindings {
  constructor() {
    /** @type {any} */
    this.last = null;
    /** The entries of the ledger as they are shown; changes in them are watched by nobody. @type {any[]} */
    this.entries = [];
  }

  /** @param {{window: any, drafts: any[]} & Record<string, any>} findings @param {number} version */
  take(findings, version) {
    this.last = { ...findings, key: keyOf(version, findings.drafts) };
  }

  /** What may be shown now, with where it stands in a window. @param {number} version @param {any[]} drafts @param {any} window @param {any} size */
  at(version, drafts, window, size) {
    const { last } = this;
    if (
      !last ||
      last.key !== keyOf(version, drafts) ||
      last.window.width !== size.width ||
      last.window.height !== size.height
    )
      return null;
    return { ...last, shift: shiftBetween(last.window, window, size) };
  }
}

const keyOf = (version, drafts) => `${version} ${JSON.stringify(drafts)}`;

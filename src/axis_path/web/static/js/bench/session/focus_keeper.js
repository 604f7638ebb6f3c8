// @ts-check
/**
 * Brings the focus back to where the work was, when what had it is gone: a row that was deleted, a
 * form that was closed, a card that was removed.
 */

/** A change of the page follows a key or a press after so long at most. */
const CHECKS_MS = [60, 400, 1200];
const FOCUSABLE =
  "button:not(:disabled), a[href], input:not(:disabled), select, textarea, [tabindex='0'], [tabindex='-1']";

/** @param {Element} element */
const isShown = (element) => element.isConnected && element.getClientRects().length > 0;

export class FocusKeeper {
  constructor() {
    /** What had the focus last, and all around it from the inside out. @type {Element[]} */
    this.path = [];
    /** Where it stood among what can have the focus in ancestor of them. @type {number[]} */
    this.indices = [];
    document.addEventListener("focusin", (event) => this.note(event.target));
    for (const name of ["keydown", "click"])
      document.addEventListener(name, () => this.checkSoon(), true);
  }

  /** @param {EventTarget | null} target */
  note(target) {
    if (!(target instanceof Element) || target === document.body) return;
    this.path = [];
    for (let ancestor = target.parentElement; ancestor; ancestor = ancestor.parentElement)
      this.path.push(ancestor);
    this.indices = this.path.map((around) => focusable(around).indexOf(target));
    this.path.unshift(target);
  }

  checkSoon() {
    for (const ms of CHECKS_MS) setTimeout(() => this.check(), ms);
  }

  check() {
    const { activeElement } = document;
    const isLost = !activeElement || activeElement === document.body || !isShown(activeElement);
    if (!isLost || !this.path.length) return;
    const [target, ...around] = this.path;
    if (isShown(target)) return;
    for (const [k, ancestor] of around.entries()) {
      if (!isShown(ancestor) || ancestor === document.body) continue;
      const left = focusable(ancestor).filter(isShown);
      const next = left[Math.min(Math.max(this.indices[k], 0), left.length - 1)];
      if (!next) continue;
      /** @type {HTMLElement} */ (next).focus({ preventScroll: true });
      return;
    }
  }
}

/** @param {Element} around @returns {Element[]} */
const focusable = (around) => [...around.querySelectorAll(FOCUSABLE)];

// @ts-check
/** Tells those who listen what a change did, in the page's live region. */
import { readingReport, reportOf } from "./reports.model.js";

/** Keys that are held move the reading line faster than anybody can speak. */
const REST_MS = 350;

export class Reports {
  /** @param {any} store */
  constructor(store) {
    this.store = store;
    /** The lines as they were told last. @type {any[] | null} */
    this.rows = null;
    /** What led to the change, such as an undo. */
    this.lead = "";
    this.isDue = false;
    this.timer = 0;
  }

  /** A change is kept: its scene is told. @param {string} [lead] said before it */
  expect(lead = "") {
    this.isDue = true;
    this.lead ||= lead;
  }

  /** @param {{rows: any[]}} scene */
  take(scene) {
    const before = this.rows;
    if (before && !this.isDue) return;
    this.rows = scene.rows.map(({ id, text, name, kind, problem, value, why, disabled }) => ({
      id,
      text,
      name,
      kind,
      problem,
      value,
      why,
      disabled,
    }));
    if (!before) return;
    this.isDue = false;
    const words = [this.lead, reportOf(before, this.rows)].filter(Boolean).join(" ");
    this.lead = "";
    if (words) this.store.said = words;
  }

  /** The reading line was moved by a key: say what it reads when it rests. */
  readSoon() {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.store.said = readingReport(this.store.reading, this.store.rows);
    }, REST_MS);
  }
}

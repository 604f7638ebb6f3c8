// @ts-check
/** Aids for a line that is being written: known names, keys for signs, the Reference, earlier lines. */
import { afterPress } from "../../shared/press.js";
import { loadReference } from "../panels/reference/reference.component.js";
import { lastWritten } from "./last_written.js";
import { callAround, completed, inserted, matching, wordBefore } from "./names.model.js";

const SHORTEST_WORD = 2;
const MOST_RECALLED = 50;
const LEAVE_MS = 300;

/** Lines written in this window of the browser, the latest last. @param {string} study */
const recallKey = (study) => `axis-path-lines-${study}`;

/** @param {string} study @returns {string[]} */
export function recalledLines(study) {
  try {
    return JSON.parse(sessionStorage.getItem(recallKey(study)) ?? "[]");
  } catch {
    return [];
  }
}

/** @param {string} study @param {string} text */
export function rememberLine(study, text) {
  const lines = recalledLines(study).filter((line) => line !== text);
  sessionStorage.setItem(recallKey(study), JSON.stringify([...lines, text].slice(-MOST_RECALLED)));
}

/**
 * @param {import("../session/engine.js").Engine} engine
 * @param {{recall?: string}} [options] under which name lines are recalled, if not those of the study.
 */
export function makeCompletion(engine, { recall = "" } = {}) {
  return {
    /** The call in whose brackets the caret stands. @type {{name: string, index: number} | null} */
    call: null,
    /** @type {any[]} */
    offered: [],
    chosen: -1,
    hasFocus: false,
    /** @type {number | null} */
    recallAt: null,
    leaveTimer: 0,

    get isOffering() {
      return this.hasFocus && this.offered.length > 0;
    },
    get listId() {
      return `names-${this.row.id ?? "new"}`;
    },
    get activeId() {
      return this.isOffering && this.chosen >= 0 ? `${this.listId}-${this.chosen}` : null;
    },

    focus() {
      clearTimeout(this.leaveTimer);
      this.hasFocus = true;
      this.$store.bench.isWriting = true;
      lastWritten.line = this;
      loadReference(engine);
    },
    blur() {
      this.stopOffering();
      // What is clicked next must not move away under the pointer before the click is done, however long that takes.
      afterPress(() => {
        clearTimeout(this.leaveTimer);
        this.leaveTimer = setTimeout(() => {
          const { activeElement } = document;
          this.hasFocus = activeElement === this.$refs.input;
          this.$store.bench.isWriting = Boolean(activeElement?.closest(".line-input, .sign-keys"));
        }, LEAVE_MS);
      });
    },
    /** Everything that happens when the text changes under the pointer. */
    typed() {
      this.recallAt = null;
      this.offer(SHORTEST_WORD);
      this.preview();
      this.watchCall();
    },
    /** Look in which call the caret stands. */
    watchCall() {
      const field = this.$refs.input;
      this.call = callAround(field.value, field.selectionStart ?? 0);
    },
    /** The arguments of that call, with the present one marked; none for a function of the study. */
    get callParts() {
      const { call } = this;
      const entries = this.$store.bench.reference.filter((entry) => entry.name === call?.name);
      const entry = entries.find((one) => one.arguments.length > (call?.index ?? 0)) ?? entries[0];
      if (!call || !entry?.arguments.length) return [];
      const last = entry.arguments.length - 1;
      return entry.arguments.map((argument, key) => ({
        key,
        text: argument.name + (key < last ? "," : ""),
        meaning: argument.meaning,
        isNow: key === Math.min(call.index, last),
      }));
    },
    get showsCall() {
      return this.hasFocus && this.callParts.length > 0;
    },
    get callHead() {
      return this.call ? `${this.call.name}(` : "";
    },
    /** What the present argument means. */
    get callMeaning() {
      const now = this.callParts.find((part) => part.isNow);
      return now ? `${now.text.replace(",", "")}: ${now.meaning}` : "";
    },
    offer(shortest) {
      const field = this.$refs.input;
      const word = wordBefore(field.value, field.selectionStart);
      const names = [...this.$store.bench.ownNames, ...this.$store.bench.reference];
      this.offered =
        word.length < shortest
          ? []
          : matching(word, names).map((entry, k) => ({
              ...entry,
              key: k,
              id: `${this.listId}-${k}`,
            }));
      this.chosen = -1;
    },
    stopOffering() {
      this.offered = [];
      this.chosen = -1;
    },
    isChosen(name) {
      return name.key === this.chosen;
    },
    accept(name) {
      const field = this.$refs.input;
      this.put(completed(field.value, field.selectionStart, name.insert));
      this.stopOffering();
    },
    /** Put a sign or an example in where the caret stands. @param {string} text */
    insert(text) {
      const field = this.$refs.input;
      this.put(inserted(field.value, field.selectionStart, field.selectionEnd, text));
    },
    insertKey(event) {
      this.insert(event.currentTarget.dataset.put);
    },
    put({ text, caret }) {
      const { input } = this.$refs;
      this.text = text;
      // At once, so that the next key stands behind it, however fast it comes.
      input.value = text;
      input.focus();
      input.setSelectionRange(caret, caret);
      this.$nextTick(() => {
        this.preview();
        this.watchCall();
      });
    },

    /** Keys of the list of names and of earlier lines; the others are left to the field. */
    aidKey(event) {
      if (event.key === " " && event.ctrlKey) this.offer(1);
      else if (this.isOffering && event.key === "ArrowDown")
        this.chosen = (this.chosen + 1) % this.offered.length;
      else if (this.isOffering && event.key === "ArrowUp" && this.chosen >= 0) this.chosen -= 1;
      else if (this.isOffering && event.key === "Tab" && !event.shiftKey)
        this.accept(this.offered[Math.max(this.chosen, 0)]);
      else if (this.isOffering && event.key === "Enter" && this.chosen >= 0)
        this.accept(this.offered[this.chosen]);
      else if (this.isOffering && event.key === "Escape") this.stopOffering();
      else if (event.key === "ArrowUp" && this.recall(-1)) this.stopOffering();
      else if (event.key === "ArrowDown" && this.recallAt !== null) this.recall(1);
      else return;
      event.preventDefault();
      event.stopImmediatePropagation();
    },
    /** Bring an earlier line back; only into an empty field, or while already going through them. */
    recall(by) {
      const lines = recalledLines(recall + engine.store.id);
      if (this.row.id !== null || !lines.length || (this.recallAt === null && this.text))
        return false;
      const at = Math.min(Math.max((this.recallAt ?? lines.length) + by, 0), lines.length);
      const text = lines[at] ?? "";
      this.put({ text, caret: text.length });
      this.recallAt = at < lines.length ? at : null;
      return true;
    },
    openReference() {
      this.$store.bench.openTab("reference");
      engine.view.saveSoon();
      this.$nextTick(() => document.getElementById("reference-search")?.focus());
    },
  };
}

// @ts-check
/** The whole Bench: undo and redo, the unit of angles, keys that work everywhere, the end. */
import { postForm } from "../../shared/api.js";
import { onSlow, stopAll } from "../../shared/stoppable.js";
import { say } from "../../shared/words.js";

/** @param {import("./engine.js").Engine} engine */
export const bench = (engine) => () => ({
  // Alpine puts what is not declared here into the outermost component.
  /** @type {any} */
  keyed: null,
  /** @type {any} */
  left: null,

  init() {
    onSlow((isSlow) => {
      this.$store.bench.isSlow = isSlow;
    });
    this.keyed = (event) => this.key(event);
    this.left = () => {
      engine.queue.flush();
      engine.view.leave();
    };
    document.addEventListener("keydown", this.keyed);
    addEventListener("pagehide", this.left);
  },
  destroy() {
    document.removeEventListener("keydown", this.keyed);
    removeEventListener("pagehide", this.left);
  },
  get isRadians() {
    return this.$store.bench.unit === "radians";
  },
  get isDegrees() {
    return this.$store.bench.unit === "degrees";
  },
  setUnit(unit) {
    if (this.$store.bench.unit !== unit) engine.carryOut([{ do: "unit", unit }]);
  },
  setRadians() {
    this.setUnit("radians");
  },
  setDegrees() {
    this.setUnit("degrees");
  },
  dismissNotice() {
    this.$store.bench.notice = "";
  },
  /** Files are dropped anywhere: they are data. */
  dragOver(event) {
    if (!event.dataTransfer?.types.includes(say("Files"))) return;
    event.preventDefault();
    this.$store.bench.isDropping = true;
  },
  dragLeave(event) {
    if (!event.relatedTarget) this.$store.bench.isDropping = false;
  },
  drop(event) {
    this.$store.bench.isDropping = false;
    const file = event.dataTransfer?.files[0];
    if (!file) return;
    event.preventDefault();
    this.$store.bench.droppedFile = file;
    this.$store.bench.openTab("data");
  },
  /** What is undone is told with what it does to the lines. */
  report(isWindow, words) {
    if (isWindow) this.$store.bench.said = words;
    else engine.reports.expect(words);
  },
  /** Undo the last move of the window, or the last change before it. */
  undo() {
    const { undoable, trail } = this.$store.bench;
    this.report(trail.isUndone, say("Undone: {what}.", { what: undoable }));
    if (trail.isUndone) engine.viewport.step(-1);
    else engine.step("undo");
  },
  redo() {
    const { redoable, trail } = this.$store.bench;
    this.report(trail.isRedone, say("Redone: {what}.", { what: redoable }));
    if (trail.isRedone) engine.viewport.step(1);
    else engine.step("redo");
  },
  key(event) {
    if (event.key === "Escape" && this.$store.bench.isPlaneOnly) {
      this.$store.bench.isPlaneOnly = false;
      return;
    }
    if (!this.$store.bench.hasShortcuts) return;
    if (event.key === "?" && !event.target.closest("input, textarea, select, dialog")) {
      event.preventDefault();
      this.$store.bench.isKeySheetOpen = true;
      return;
    }
    // A field that is being written has its own undo.
    const isWriting = event.target.closest("input, textarea") !== null;
    if (!(event.ctrlKey || event.metaKey) || isWriting) return;
    const name = event.key.toLowerCase();
    if (name === "z" && !event.shiftKey && this.$store.bench.undoable) this.undo();
    else if ((name === "y" || (name === "z" && event.shiftKey)) && this.$store.bench.redoable)
      this.redo();
    else return;
    event.preventDefault();
  },
  stop() {
    stopAll();
  },
  retry() {
    this.$store.bench.problem = "";
    engine.look();
    engine.changed();
  },
  dismissWarming() {
    this.$store.bench.isWarming = false;
  },
  reload() {
    location.reload();
  },
});

/** @param {import("./engine.js").Engine} engine */
export const title = (engine) => () => ({
  text: "",
  init() {
    this.text = this.$store.bench.title;
  },
  restore(event) {
    this.text = this.$store.bench.title;
    event.target.blur();
  },
  leave(event) {
    event.target.blur();
  },
  async rename() {
    try {
      const answer = await postForm(`${engine.path}/rename`, { title: this.text });
      this.$store.bench.title = answer.title;
      document.title = `${answer.title} · Axis Path`;
    } catch (error) {
      engine.complain(error);
    }
    this.text = this.$store.bench.title;
  },
});

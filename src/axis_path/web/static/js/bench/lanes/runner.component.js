// @ts-check
/** The runner of a path on its lane: dragged, moved with the keys, or played. */

import { decimal, setAttributes, setHidden } from "../../shared/element.js";
import { takeHold } from "../../shared/hold.js";
import { say } from "../../shared/words.js";
import { across } from "../plane/marks.paint.js";
import { pointOn } from "../viewport/scale.js";

/** @param {any} store @param {number} id @returns {import("../session/motion.js").Mover} */
export const runnerOf = (store, id) => {
  // Nothing that is hidden goes on moving.
  const present = () => store.rows.find((row) => row.id === id && !row.hidden)?.runner;
  return {
    key: `runner-${id}`,
    look: () => present() ?? null,
    command: (value) => ({ do: "runner", id, t: value }),
  };
};

/** @param {import("../session/engine.js").Engine} engine */
export const runner = (engine) => () => ({
  /** @type {any} */
  runnerCommand: null,
  isRunnerHeld: false,
  /** @type {any} */
  runnerPainter: null,

  init() {
    this.runnerPainter = (scene) => () => this.placeRunner(scene);
    engine.picture.painters.add(this.runnerPainter);
    if (engine.picture.scene) this.placeRunner(engine.picture.scene);
  },
  destroy() {
    engine.picture.painters.delete(this.runnerPainter);
  },
  placeRunner(scene) {
    const shown = scene.rows.find((row) => row.id === this.row.id);
    const handle = this.$root;
    setHidden(handle, !shown?.runner || !shown.lane);
    if (handle.hidden) return;
    const { runner: now } = shown;
    handle.style.left = `${across(this.shiftNow ?? { ax: 1, bx: 0 }, now.lane)}px`;
    setAttributes(handle, {
      class: `lane-runner tone-${(shown.tone ?? 0) % 8}${now.is_set ? " is-set" : ""}`,
      "aria-label": say("Runner of {name}", { name: shown.name }),
      "aria-valuemin": String(now.low),
      "aria-valuemax": String(now.high),
      "aria-valuenow": decimal(now.value),
      "aria-valuetext": now.text || `${shown.variable} = ${now.value}`,
    });
  },
  runTo(t) {
    const { low, high } = this.row.runner;
    this.runnerCommand = { do: "runner", id: this.row.id, t: Math.min(Math.max(t, low), high) };
    engine.draft(this.runnerCommand);
  },
  grabRunner(event) {
    if (!takeHold(event, { isFocused: true })) return;
    event.stopPropagation();
    engine.motion.pause(`runner-${this.row.id}`);
    this.isRunnerHeld = true;
    this.hold();
  },
  dragRunner(event) {
    if (!this.isRunnerHeld) return;
    this.runTo(this.valueAt(pointOn(this.$root.parentElement, event).x));
  },
  dropRunner() {
    this.isRunnerHeld = false;
    this.release();
    this.keepRunner();
  },
  giveUpRunner() {
    this.isRunnerHeld = false;
    this.runnerCommand = null;
    this.release();
    engine.dropDrafts();
  },
  keyRunner(event) {
    const { low, high, value } = this.row.runner;
    const direction = {
      ArrowLeft: -1,
      ArrowDown: -1,
      ArrowRight: 1,
      ArrowUp: 1,
      PageUp: 10,
      PageDown: -10,
    }[event.key];
    const from = this.runnerCommand ? this.runnerCommand.t : value;
    const step = ((high - low) / 200) * (event.shiftKey ? 10 : 1);
    if (direction) this.runTo(from + direction * step);
    else if (event.key === "Home") this.runTo(low);
    else if (event.key === "End") this.runTo(high);
    else if (event.key === "Escape") this.giveUpRunner();
    else if (event.key === "Delete" && this.row.runner.is_set)
      engine.carryOut([{ do: "runner", id: this.row.id, t: null }]);
    else return;
    event.preventDefault();
  },
  keepRunner() {
    const command = this.runnerCommand;
    this.runnerCommand = null;
    if (command) engine.carryOut([command]);
  },
  endRunnerKey() {
    if (!this.isRunnerHeld) this.keepRunner();
  },
});

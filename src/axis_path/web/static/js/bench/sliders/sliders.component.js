// @ts-check
/** Sliders: what plays, a typed value, and what is done with a whole slider. */
import { together } from "../../shared/together.js";
import { say } from "../../shared/words.js";
import { makeSliderDrag } from "./slider_drag.js";
import { makeSliderForm } from "./slider_form.js";
import { stepNear, valueOfStep } from "./steps.model.js";

/** What plays a slider. @param {any} store @param {number} id @returns {import("../session/motion.js").Mover} */
const moverOf = (store, id) => {
  const present = () => store.sliders.find((slider) => slider.id === id);
  return {
    key: `slider-${id}`,
    look() {
      const one = present();
      // Without a range nothing moves, and nothing that is hidden goes on moving.
      if (!one?.moves || !(one.high_value > one.low_value)) return null;
      return { low: one.low_value, high: one.high_value, value: one.value, play: one.play };
    },
    command: (value) => ({
      do: "set",
      id,
      value: valueOfStep(present(), stepNear(present(), value)),
    }),
  };
};

/** @param {import("../session/engine.js").Engine} engine */
export const sliders = (engine) => () => ({
  /** @type {any} */
  spaced: null,
  init() {
    this.spaced = (event) => this.stopBySpace(event);
    document.addEventListener("keydown", this.spaced, true);
  },
  destroy() {
    document.removeEventListener("keydown", this.spaced, true);
  },
  get isEmpty() {
    return this.$store.bench.isReady && !this.$store.bench.sliders.length;
  },
  get isMoving() {
    return Object.keys(this.$store.bench.moving).length > 0;
  },
  stopMotion() {
    engine.motion.pause();
    engine.store.say(say("All motion stopped"));
  },
  /** One key stops all motion, wherever the focus is. */
  stopBySpace(event) {
    if (
      event.key !== " " ||
      !this.$store.bench.hasShortcuts ||
      !engine.motion.isMoving ||
      event.target.closest("input, textarea, select")
    )
      return;
    event.preventDefault();
    event.stopPropagation();
    this.stopMotion();
  },
});

/** @param {import("../session/engine.js").Engine} engine */
export const slider = (engine) => () =>
  together(makeSliderDrag(engine), makeSliderForm(engine), {
    problem: "",

    init() {
      this.$watch("slider.value", () => this.placeKnob());
      this.$watch("slider.low_value", () => this.placeKnob());
      this.$watch("slider.high_value", () => this.placeKnob());
      this.placeKnob();
    },
    placeKnob() {
      const { low_value: low, high_value: high } = this.slider;
      // Without a connection the knob goes with the pointer, and what hangs on it is dimmed.
      const value = engine.store.isWaiting && this.command ? this.command.value : this.slider.value;
      const part = high > low ? Math.min(Math.max((value - low) / (high - low), 0), 1) : 0;
      this.$refs.knob.style.left = `${100 * part}%`;
    },

    get fieldId() {
      return `slider-${this.slider.id}`;
    },
    get shownValue() {
      return this.slider.short;
    },
    get trackLabel() {
      return say("Slider {name}", { name: this.slider.name });
    },
    get isMoving() {
      return Boolean(this.$store.bench.moving[this.mover.key]);
    },
    get mover() {
      return moverOf(engine.store, this.slider.id);
    },
    get playLabel() {
      return this.isMoving ? say("Pause {name}", this.slider) : say("Play {name}", this.slider);
    },
    get playTitle() {
      if (!this.slider.moves) return say("No visible curve uses it");
      return this.isMoving ? say("Pause (Space stops all motion)") : say("Play");
    },
    get stateText() {
      if (!this.slider.used_by.length) return say("not used yet");
      return this.slider.moves ? "" : say("no visible curve uses it");
    },
    get rangeProblem() {
      return this.slider.problem ? this.slider.problem.message : "";
    },
    get canPlay() {
      return !this.rangeProblem && this.slider.moves;
    },
    togglePlay() {
      if (this.isMoving) engine.motion.pause(this.mover.key);
      else
        engine.motion.play(
          this.mover,
          engine.store.sliders.map((slider) => moverOf(engine.store, slider.id)),
        );
    },
    get outerProblem() {
      return this.isOpen ? "" : this.problem;
    },
    get upLabel() {
      return say("Move slider {name} up", { name: this.slider.name });
    },
    get downLabel() {
      return say("Move slider {name} down", { name: this.slider.name });
    },
    get spokenValue() {
      return [this.slider.text, this.slider.unit, this.slider.about].filter(Boolean).join(" ");
    },
    get deleteLabel() {
      return say("Delete slider {name}", { name: this.slider.name });
    },

    /** Who types sees all figures. */
    select(event) {
      event.target.value = this.slider.text;
      event.target.select();
    },
    leave(event) {
      event.target.value = this.slider.short;
    },
    blur(event) {
      event.target.blur();
    },
    async type(event) {
      const field = event.target;
      const error = await engine.commit([{ do: "set", id: this.slider.id, value: field.value }]);
      this.problem = error ? error.message : "";
      if (!error) field.value = this.slider.short;
    },
    widen() {
      engine.carryOut([{ do: "widen", id: this.slider.id }]);
    },
    /** Move it before or behind its neighbour among the sliders. @param {-1 | 1} by */
    shift(by) {
      const { sliders: all, rows } = engine.store;
      const index = all.findIndex((slider) => slider.id === this.slider.id);
      const target = all[index + by];
      if (!target) return;
      const lines = rows.map((row) => row.id).filter((id) => id !== this.slider.id);
      const at = lines.indexOf(target.id);
      const after = by > 0 ? target.id : (lines[at - 1] ?? null);
      engine.carryOut([{ do: "move", id: this.slider.id, after }]);
    },
    moveUp() {
      this.shift(-1);
    },
    moveDown() {
      this.shift(1);
    },
    duplicate() {
      engine.carryOut([{ do: "duplicate", id: this.slider.id }]);
    },
    makeConstant() {
      engine.carryOut([{ do: "fix", id: this.slider.id, fixed: true }]);
    },
    async remove() {
      const { name, used_by: users } = this.slider;
      const error = await engine.carryOut([{ do: "remove", id: this.slider.id }]);
      if (!error && users.length)
        engine.store.say(
          say("{name} was deleted, but {users} needed it. Undo brings it back.", {
            name,
            users: users.join(", "),
          }),
          true,
        );
    },
  });

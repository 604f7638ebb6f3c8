// @ts-check
/** The form of a slider: its ends, step, kind, unit, name, and how it plays. */
import { say } from "../../shared/words.js";

export const AT_END = [
  { value: "reverse", words: say("back and forth") },
  { value: "restart", words: say("start over") },
  { value: "stop", words: say("stop") },
];
const KINDS = [
  { value: "real", words: say("all numbers") },
  { value: "whole", words: say("whole numbers") },
  { value: "angle", words: say("angles") },
];

/** @param {import("../session/engine.js").Engine} engine */
export function makeSliderForm(engine) {
  return {
    isOpen: false,
    low: "",
    high: "",
    step: "",
    kind: "real",
    unit: "",
    note: "",
    called: "",
    seconds: "",
    atEnd: "reverse",
    isBackward: false,
    isInStep: false,
    kinds: KINDS,
    endings: AT_END,
    get rangeLabel() {
      return say("Range, step and motion of {name}", { name: this.slider.name });
    },
    get rangeTitle() {
      return say("Slider {name}", { name: this.slider.sign });
    },
    toggle() {
      this.isOpen = !this.isOpen;
      if (this.isOpen) this.$nextTick(() => this.$root.querySelector("[name=low]").focus());
      else this.$refs.opener.focus();
      const { low, high, step, kind, unit, note, play } = this.slider;
      Object.assign(this, {
        low,
        high,
        step,
        kind,
        unit,
        note,
        called: this.slider.name,
        problem: "",
      });
      Object.assign(this, {
        seconds: String(play.seconds),
        atEnd: play.at_end,
        isBackward: !play.forward,
        isInStep: play.in_step,
      });
    },
    async keepRange() {
      const { low, high, step, kind, unit, note } = this;
      const play = {
        seconds: Number(this.seconds),
        at_end: this.atEnd,
        forward: !this.isBackward,
        in_step: this.isInStep,
      };
      const commands = /** @type {any[]} */ ([
        { do: "range", id: this.slider.id, low, high, step, kind, unit, note, play },
      ]);
      // Another name is taken over by all lines that use it.
      const name = this.called.trim();
      if (name !== this.slider.name) commands.push({ do: "rename", id: this.slider.id, name });
      const error = await engine.commit(commands);
      this.problem = error ? error.message : "";
      if (error) return;
      this.isOpen = false;
      this.$refs.opener.focus();
    },
  };
}

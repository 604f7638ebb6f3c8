// @ts-check
/** Sliders: drag, arrow keys, a typed value, and the ends and the step. */
import { stepMeant, stepNear, stepsAhead, stepsInPixel, valueOfStep } from "./steps.model.js";

const KEYS = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageDown: -10, PageUp: 10 };

export const sliders = () => ({
  get isEmpty() {
    return this.$store.bench.isReady && !this.$store.bench.sliders.length;
  },
});

/** @param {import("./engine.js").Engine} engine */
export const slider = (engine) => () => ({
  isOpen: false,
  isHeld: false,
  problem: "",
  low: "",
  high: "",
  step: "",
  command: null,

  init() {
    this.$watch("slider.value", () => this.placeKnob());
    this.$watch("slider.low", () => this.placeKnob());
    this.$watch("slider.high", () => this.placeKnob());
    this.placeKnob();
  },
  placeKnob() {
    const { value, low_value: low, high_value: high } = this.slider;
    const part = Math.min(Math.max((value - low) / (high - low), 0), 1);
    this.$refs.knob.style.left = `${100 * part}%`;
  },

  get fieldId() {
    return `slider-${this.slider.id}`;
  },
  get shownValue() {
    return this.slider.text;
  },
  get trackLabel() {
    return `Slider ${this.slider.name}`;
  },
  get rangeLabel() {
    return `Ends and step of ${this.slider.name}`;
  },
  get deleteLabel() {
    return `Delete slider ${this.slider.name}`;
  },
  get isUnused() {
    return !this.slider.used_by.length;
  },

  follow(event) {
    const box = event.currentTarget.getBoundingClientRect();
    const part = Math.min(Math.max((event.clientX - box.left) / box.width, 0), 1);
    const value = this.slider.low_value + part * (this.slider.high_value - this.slider.low_value);
    this.try(value, stepsInPixel(this.slider, box.width));
  },
  /** Try a value out; the hand moves in grains of so many steps. */
  try(value, grain = 1) {
    const from = stepNear(this.slider, this.command ? this.command.value : this.slider.value);
    const to = stepMeant(this.slider, value, grain);
    if (this.command && to === from) return;
    this.command = this.commandAt(to);
    engine.draft(this.command, stepsAhead(this.slider, from, to, grain).map((k) => this.commandAt(k)));
  },
  commandAt(k) {
    return { do: "set", id: this.slider.id, value: valueOfStep(this.slider, k) };
  },
  async keepTried() {
    const { command } = this;
    this.command = null;
    if (!command) return;
    const error = await engine.commit([command]);
    this.problem = error ? error.message : "";
  },

  grab(event) {
    if (event.button > 0) return;
    event.preventDefault();
    event.currentTarget.focus();
    event.currentTarget.setPointerCapture(event.pointerId);
    this.isHeld = true;
    this.follow(event);
  },
  drag(event) {
    if (this.isHeld) this.follow(event);
  },
  drop() {
    this.isHeld = false;
    this.keepTried();
  },
  giveUp() {
    this.isHeld = false;
    this.command = null;
    engine.dropDrafts();
  },
  key(event) {
    const { low_value: low, high_value: high, step_value: step, value } = this.slider;
    const from = this.command ? this.command.value : value;
    let next = null;
    if (KEYS[event.key]) next = from + KEYS[event.key] * step * (event.shiftKey ? 10 : 1);
    else if (event.key === "Home") next = low;
    else if (event.key === "End") next = high;
    else if (event.key === "Escape") this.giveUp();
    if (next === null) return;
    event.preventDefault();
    this.try(Math.min(Math.max(next, low), high));
  },
  keyEnd() {
    if (!this.isHeld) this.keepTried();
  },

  select(event) {
    event.target.select();
  },
  blur(event) {
    event.target.blur();
  },
  async type(event) {
    const field = event.target;
    const error = await engine.commit([{ do: "set", id: this.slider.id, value: field.value }]);
    this.problem = error ? error.message : "";
    if (!error) field.value = this.slider.text;
  },
  toggle() {
    this.isOpen = !this.isOpen;
    Object.assign(this, { low: this.slider.low, high: this.slider.high, step: this.slider.step, problem: "" });
  },
  async keepRange() {
    const { low, high, step } = this;
    const error = await engine.commit([{ do: "range", id: this.slider.id, low, high, step }]);
    this.problem = error ? error.message : "";
    if (!error) this.isOpen = false;
  },
  remove() {
    engine.commit([{ do: "remove", id: this.slider.id }]);
  },
});

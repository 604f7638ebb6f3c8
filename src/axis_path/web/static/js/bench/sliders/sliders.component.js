// @ts-check
/** Sliders: drag, arrow keys, a typed value, and the ends and the step. */
import { takeHold } from "../../shared/hold.js";
import {
  stepInPassing,
  stepMeant,
  stepNear,
  stepsAhead,
  stepsAround,
  stepsInPixel,
  stepsOnward,
  valueOfStep,
} from "./steps.model.js";

const KEYS = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageDown: -10, PageUp: 10 };

/** So many steps around a hand that rests are asked for, the nearest first. */
const MOST_AROUND = 120;
/** How long keys or the wheel must rest until their move is kept. */
const REST_MS = 300;
/** A finger that moved so far across means the slider. */
const TOUCH_PX = 6;
/** A hand that has not moved for so long pauses, in ms. */
const PAUSE_MS = 50;
/** One that goes more grains at a time, in the mean of the last few, is in a hurry. */
const HURRY = 1.25;
export const AT_END = [
  { value: "reverse", words: "go to and fro" },
  { value: "restart", words: "start over" },
  { value: "stop", words: "stop" },
];
const KINDS = [
  { value: "real", words: "all numbers" },
  { value: "whole", words: "whole numbers" },
  { value: "angle", words: "angles" },
];

/** What plays a slider. @param {any} store @param {number} id @returns {import("../session/motion.js").Mover} */
const moverOf = (store, id) => {
  const found = () => store.sliders.find((each) => each.id === id);
  return {
    key: `slider-${id}`,
    look() {
      const one = found();
      // Without a range nothing moves, and nothing that is hidden goes on moving.
      if (!one?.moves || !(one.high_value > one.low_value)) return null;
      return { low: one.low_value, high: one.high_value, value: one.value, play: one.play };
    },
    command: (value) => ({ do: "set", id, value: valueOfStep(found(), stepNear(found(), value)) }),
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
    engine.store.say("All motion stopped");
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
export const slider = (engine) => () => ({
  isOpen: false,
  isHeld: false,
  /** Where a finger that has not moved yet came down. @type {number | null} */
  touchedAt: null,
  problem: "",
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
  /** @type {any} */
  command: null,
  /** Where the track lies, measured when the hand takes hold: to ask with every move would lay out the page each time. @type {DOMRect} */
  box: /** @type {any} */ (null),
  /** What is being kept: the next key goes on from there. @type {any} */
  keeping: null,
  /**
   * The step that the hand on the knob means, in grains of so many, since when, how many grains it goes at a time, and
   * where it set out. @type {{to: number, grain: number, at: number, pace: number, start: number} | null}
   */
  /** @type {any} */
  meant: null,
  settling: 0,
  kinds: KINDS,
  endings: AT_END,

  init() {
    this.$watch("slider.value", () => this.placeKnob());
    this.$watch("slider.low_value", () => this.placeKnob());
    this.$watch("slider.high_value", () => this.placeKnob());
    this.placeKnob();
  },
  placeKnob() {
    const { low_value: low, high_value: high } = this.slider;
    // Without a connection the knob goes with the hand, and what hangs on it is dimmed.
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
    return `Slider ${this.slider.name}`;
  },
  get rangeLabel() {
    return `Ends, step and play of ${this.slider.name}`;
  },
  get isMoving() {
    return Boolean(this.$store.bench.moving[this.mover.key]);
  },
  get mover() {
    return moverOf(engine.store, this.slider.id);
  },
  get playLabel() {
    return `${this.isMoving ? "Pause" : "Play"} ${this.slider.name}`;
  },
  get playTitle() {
    if (!this.slider.moves) return "Nothing that is shown moves with it";
    return this.isMoving ? "Pause (Space stops all motion)" : "Play";
  },
  get stateText() {
    if (!this.slider.used_by.length) return "not used yet";
    return this.slider.moves ? "" : "moves nothing shown";
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
        engine.store.sliders.map((each) => moverOf(engine.store, each.id)),
      );
  },
  get rangeTitle() {
    return `Slider ${this.slider.sign}`;
  },
  get outerProblem() {
    return this.isOpen ? "" : this.problem;
  },
  get upLabel() {
    return `Move slider ${this.slider.name} up`;
  },
  get downLabel() {
    return `Move slider ${this.slider.name} down`;
  },
  get spokenValue() {
    return [this.slider.text, this.slider.unit, this.slider.about].filter(Boolean).join(" ");
  },
  get deleteLabel() {
    return `Delete slider ${this.slider.name}`;
  },

  /** The step a pointer means. @param {number} clientX @param {DOMRect} box of the track. */
  stepAt(clientX, box) {
    const { low_value: low, high_value: high } = this.slider;
    const part = Math.min(Math.max((clientX - box.left) / box.width, 0), 1);
    return stepMeant(this.slider, low + part * (high - low), stepsInPixel(this.slider, box.width));
  },
  follow(event) {
    this.go(this.stepAt(event.clientX, this.box), stepsInPixel(this.slider, this.box.width));
  },
  /** The hand means a step: while it is on its way, another one nearby may be shown. Where it pauses, it has the very one. */
  go(to, grain) {
    const { slider, meant } = this;
    const at = performance.now();
    const isMoving = meant !== null && at - meant.at < PAUSE_MS;
    const pace = isMoving ? (meant.pace + Math.abs(to - meant.to) / grain) / 2 : 0;
    this.meant = { to, grain, at, pace, start: isMoving ? meant.start : to };
    clearTimeout(this.settling);
    if (!isMoving) return this.settle();
    this.settling = setTimeout(() => this.settle(), PAUSE_MS);
    const isHurried = pace > HURRY;
    const isKnown = (k) => engine.client.isKnown(this.commandAt(k));
    const shown = isHurried
      ? stepInPassing(slider, stepNear(slider, this.present), meant.to, to, grain, isKnown)
      : to;
    if (shown !== null) this.tryStep(shown);
    const { start } = this.meant;
    engine.client.expect(
      () => this.likely(stepsOnward(slider, start, meant.to, to, grain)),
      isHurried,
    );
  },
  /** The hand pauses: the very place that it means. */
  settle() {
    const { to, grain } = this.meant;
    this.meant.start = to;
    this.tryStep(to);
    this.expectAround(to, grain);
  },
  /** The value that the hand has reached. */
  get present() {
    const last = this.command ?? this.keeping;
    return last ? Number(last.value) : this.slider.value;
  },
  /** Try a value out. */
  try(value) {
    const from = stepNear(this.slider, this.present);
    const to = stepNear(this.slider, value);
    this.tryStep(to);
    engine.client.expect(() =>
      this.likely([
        ...stepsAhead(this.slider, from, to, 1),
        ...stepsAround(this.slider, to, 1, MOST_AROUND),
      ]),
    );
  },
  /** @param {number} to */
  tryStep(to) {
    if (this.command && to === stepNear(this.slider, this.present)) return;
    this.command = this.commandAt(to);
    if (engine.store.isWaiting) this.placeKnob();
    engine.draft(this.command);
  },
  /** A hand will probably set out at a step. @param {number} from @param {number} grain */
  expectAround(from, grain) {
    engine.client.expect(() =>
      this.likely([from, ...stepsAround(this.slider, from, grain, MOST_AROUND)]),
    );
  },
  /** The commands of steps that a hand will probably try. @param {number[]} steps */
  likely(steps) {
    return this.slider.moves ? steps.map((k) => this.commandAt(k)) : [];
  },
  /** The hand comes near: pictures are asked for while it takes hold. */
  meet(event) {
    if (this.isHeld || this.command) return;
    const grain =
      event.type === "focus" ? 1 : stepsInPixel(this.slider, this.$refs.track.offsetWidth);
    this.expectAround(stepNear(this.slider, this.present), grain);
  },
  part() {
    if (this.isHeld) return;
    clearTimeout(this.settling);
    engine.client.expect();
  },
  commandAt(k) {
    return { do: "set", id: this.slider.id, value: valueOfStep(this.slider, k) };
  },
  async keepTried() {
    const { command } = this;
    this.command = null;
    if (!command) return;
    this.keeping = command;
    const error = await engine.commit([command]);
    if (this.keeping === command) this.keeping = null;
    if (error && error.status === 0) {
      // The value is not lost: it is kept when the connection is back.
      this.command = command;
      engine.draft(command);
      engine.whenBack.push(() => this.keepTried());
      return;
    }
    this.problem = error ? error.message : "";
  },

  grab(event) {
    if (!takeHold(event, { isFocused: true })) return;
    engine.motion.pause(this.mover.key);
    this.isHeld = true;
    this.box = event.currentTarget.getBoundingClientRect();
    // A finger may be about to scroll the page: it moves the slider when it goes across, or taps.
    this.touchedAt = event.pointerType === "touch" ? event.clientX : null;
    if (this.touchedAt === null) this.follow(event);
  },
  drag(event) {
    if (!this.isHeld) {
      this.hover(event);
      return;
    }
    if (this.touchedAt !== null && Math.abs(event.clientX - this.touchedAt) < TOUCH_PX) return;
    this.touchedAt = null;
    this.follow(event);
  },
  /** A hand that pauses over the track will probably press there. */
  hover({ clientX, currentTarget }) {
    clearTimeout(this.settling);
    this.settling = setTimeout(() => {
      if (this.isHeld || this.command) return;
      const box = currentTarget.getBoundingClientRect();
      this.expectAround(this.stepAt(clientX, box), stepsInPixel(this.slider, box.width));
    }, PAUSE_MS);
  },
  drop(event) {
    if (this.isHeld && this.touchedAt !== null) this.follow(event);
    this.touchedAt = null;
    this.isHeld = false;
    if (this.meant) this.tryStep(this.meant.to);
    this.forgetMeant();
    this.keepTried();
  },
  forgetMeant() {
    clearTimeout(this.settling);
    this.meant = null;
  },
  giveUp() {
    this.isHeld = false;
    this.forgetMeant();
    this.command = null;
    engine.dropDrafts();
  },
  key(event) {
    const { low_value: low, high_value: high, step_value: step } = this.slider;
    const from = this.present;
    let next = null;
    if (KEYS[event.key] && event.altKey)
      this.tryFinely(from + (Math.sign(KEYS[event.key]) * step) / 10);
    else if (KEYS[event.key]) next = from + KEYS[event.key] * step * (event.shiftKey ? 10 : 1);
    else if (event.key === "Home") next = low;
    else if (event.key === "End") next = high;
    else if (event.key === "Escape") this.giveUp();
    if (KEYS[event.key]) event.preventDefault();
    if (next === null) return;
    event.preventDefault();
    engine.motion.pause(this.mover.key);
    this.try(Math.min(Math.max(next, low), high));
  },
  /** Try out a value between the steps, a tenth of one away. */
  tryFinely(value) {
    const text = String(Number(value.toPrecision(12)));
    this.command = {
      do: "set",
      id: this.slider.id,
      value: this.slider.kind === "whole" ? Math.round(value) : text,
    };
    engine.draft(this.command);
  },
  /** The wheel over the track of a slider that has the focus moves it. */
  wheel(event) {
    if (event.ctrlKey || document.activeElement !== event.currentTarget || !event.deltaY) return;
    event.preventDefault();
    this.try(
      this.present - Math.sign(event.deltaY) * this.slider.step_value * (event.shiftKey ? 10 : 1),
    );
    this.keepSoon();
  },
  keyEnd() {
    if (!this.isHeld && this.command) this.keepSoon();
  },
  keepSoon() {
    engine.keepSoon(this.mover.key, () => this.keepTried(), REST_MS);
  },
  leaveTrack() {
    this.part();
    this.keyEnd();
    engine.keepNow();
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
  /** Move it before or behind its neighbour among the sliders. @param {-1 | 1} by */
  shift(by) {
    const { sliders: all, rows } = engine.store;
    const place = all.findIndex((each) => each.id === this.slider.id);
    const target = all[place + by];
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
        `${name} is deleted; ${users.join(", ")} needed it. Undo brings it back.`,
        true,
      );
  },
});

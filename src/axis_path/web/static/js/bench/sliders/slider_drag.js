// @ts-check
/** The knob of a slider under the pointer: dragging, keys and the wheel, and what is prefetched meanwhile. */
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
/** So many steps around a pointer that rests are asked for, the nearest first. */
const MOST_AROUND = 120;
/** How long keys or the wheel must rest until their move is kept. */
const REST_MS = 300;
/** A finger that moved so far across means the slider. */
const TOUCH_PX = 6;
/** A pointer that has not moved for so long pauses, in ms. */
const PAUSE_MS = 50;
/** One that goes more grains at a time, in the mean of the last few, is in a hurry. */
const HURRY = 1.25;

/** @param {import("../session/engine.js").Engine} engine */
export function makeSliderDrag(engine) {
  return {
    isHeld: false,
    /** Where a finger that has not moved yet came down. @type {number | null} */
    touchedAt: null,
    /** @type {any} */
    command: null,
    /** Where the track lies, measured when the pointer takes hold: to ask with every move would lay out the page each time. @type {DOMRect} */
    box: /** @type {any} */ (null),
    /** What is being kept: the next key goes on from there. @type {any} */
    keeping: null,
    /**
     * The step that the pointer on the knob means, in grains of so many, since when, how many grains it goes at a time, and
     * where it set out. @type {{to: number, grain: number, at: number, pace: number, start: number} | null}
     */
    /** @type {any} */
    meant: null,
    settling: 0,

    /** The step a pointer means. @param {number} clientX @param {DOMRect} box of the track. */
    stepAt(clientX, box) {
      const { low_value: low, high_value: high } = this.slider;
      const part = Math.min(Math.max((clientX - box.left) / box.width, 0), 1);
      return stepMeant(
        this.slider,
        low + part * (high - low),
        stepsInPixel(this.slider, box.width),
      );
    },
    follow(event) {
      this.go(this.stepAt(event.clientX, this.box), stepsInPixel(this.slider, this.box.width));
    },
    /** The pointer means a step: while it is on its way, another one nearby may be shown. Where it pauses, it has the very one. */
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
      const isKnown = (k) => engine.isKnown(this.commandAt(k));
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
    /** The pointer pauses: the very place that it means. */
    settle() {
      const { to, grain } = this.meant;
      this.meant.start = to;
      this.tryStep(to);
      this.expectAround(to, grain);
    },
    /** The value that the pointer has reached. */
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
    /** A pointer will probably set out at a step. @param {number} from @param {number} grain */
    expectAround(from, grain) {
      engine.client.expect(() =>
        this.likely([from, ...stepsAround(this.slider, from, grain, MOST_AROUND)]),
      );
    },
    /** The commands of steps that a pointer will probably try. @param {number[]} steps */
    likely(steps) {
      return this.slider.moves ? steps.map((k) => this.commandAt(k)) : [];
    },
    /** The pointer comes near: pictures are asked for while it takes hold. */
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
    /** @param {number} k a step of the track @returns {import("#types/commands").SetSlider} */
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
        engine.connection.whenBack(() => this.keepTried());
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
    /** A pointer that pauses over the track will probably press there. */
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
      engine.queue.addSoon(this.mover.key, () => this.keepTried(), REST_MS);
    },
    leaveTrack() {
      this.part();
      this.keyEnd();
      engine.queue.flush();
    },
  };
}

// @ts-check
/** A lane: where a function is defined, its zeros, and the two ends of its domain as handles. */

import { decimal, setAttributes, setHidden } from "../../shared/element.js";
import { takeHold } from "../../shared/hold.js";
import { say } from "../../shared/words.js";
import { shortest } from "../panels/findings/findings.model.js";
import { laneParts } from "../plane/findings.paint.js";
import { across } from "../plane/marks.paint.js";
import { put } from "../plane/svg.js";
import { abscissa } from "../viewport/affine.model.js";
import { pointOn } from "../viewport/scale.js";
import { Slide, slideBy } from "../viewport/slide.model.js";
import { frozenScales } from "./frozen_scales.js";
import { halfOf } from "./lane.paint.js";
import { LANE_PX, ownShift } from "./lanes.model.js";

const KEY_PX = 1;
const KEY_PX_FAST = 10;
/** A free side's grip stands this far from the edge. */
const GRIP_PX = 8;
/** The field for an end: how wide it is, and how far beside the handle. */
const FIELD_PX = 112;
const FIELD_GAP_PX = 14;
/** A bracket is wider than this. */
const LEAST_BRACKET_PX = 4;
/** A lane that is so near to be seen follows a pointer that moves the window. */
const NEAR_PX = 60;

/** @param {import("../session/engine.js").Engine} engine */
export const lane = (engine) => () => ({
  /** @type {any} */
  held: null,
  // Alpine puts what is not declared here into the outermost component.
  /** @type {any} */
  painter: null,
  /** @type {any} */
  lane: null,
  /** @type {any} */
  slide: null,
  /** What stands on lanes that are scrolled out of sight waits until a pointer comes to rest. */
  isSeen: true,
  /** @type {any} */
  watcher: null,
  /** Whether there are more zeros here than are marked. */
  isIncomplete: false,
  /** The end that is being typed, `low` or `high`, its text, and what is wrong with it. */
  endSide: "",
  endText: "",
  endProblem: "",
  /** @type {any} */
  shiftNow: null,
  /** Where a bracket is being drawn, in px. @type {any} */
  bracketed: null,
  /** @type {any} */
  keyed: null,

  init() {
    this.slide = new Slide(true);
    this.painter = (scene, shift) => this.paint(scene, shift);
    engine.picture.painters.add(this.painter);
    this.watcher = new IntersectionObserver(
      (entries) =>
        this.see(entries.some((entry) => entry.isIntersecting && entry === entries.at(-1))),
      { root: document.querySelector(".rows"), rootMargin: `${NEAR_PX}px` },
    );
    this.watcher.observe(this.$el);
    if (engine.picture.scene) engine.picture.paint();
  },
  destroy() {
    this.watcher.disconnect();
    engine.picture.painters.delete(this.painter);
  },

  /** The lane comes into sight, or leaves it. @param {boolean} isSeen */
  see(isSeen) {
    if (isSeen === this.isSeen) return;
    this.isSeen = isSeen;
    this.slide.forget();
    if (isSeen) engine.picture.paintWith(this.painter);
  },

  paint(scene, shift) {
    // What moves comes to rest, and is placed then.
    if (!this.isSeen && engine.viewport.isMoving) return;
    const row = scene.rows.find((candidate) => candidate.id === this.row.id);
    if (!row?.lane) return;
    this.lane = row.lane;
    this.shiftNow = row.lane.scale
      ? ownShift(row.lane.scale, this.frozen, engine.size.width)
      : shift;
    // On a lane of its own scale nothing moves.
    const placing = this.slide.to(scene, { ...this.shiftNow, ay: 1, by: 0 }, engine.size);
    return () => this.place(scene, row, placing);
  },
  /** Bring what stands on the lane to its place. */
  place(scene, row, placing) {
    const { gaps, low, high, reading } = this.$refs;
    this.placeFound(row);
    this.placeReading(reading, row.lane.scale ? null : scene.reading, row.lane.marks);
    const isMoved = placing?.ax === 1;
    slideBy(gaps, isMoved ? placing.dx : 0, 0);
    if (isMoved) {
      for (const [handle, end] of [
        [low, row.lane.low],
        [high, row.lane.high],
      ])
        if (end) this.standAt(handle, across(this.shiftNow, end.x));
      return;
    }
    this.isIncomplete = row.lane.complete === false;
    this.placeGaps(row, this.shiftNow);
    this.placeHandle(low, row.lane.low, this.shiftNow, "low");
    this.placeHandle(high, row.lane.high, this.shiftNow, "high");
  },
  /** The scale of a path's lane while the pointer is on it, so that it does not run away under the pointer. */
  get frozen() {
    return frozenScales.get(this.row.id);
  },
  /** The value of the lane's variable at a place. */
  valueAt(px) {
    const scale = this.frozen ?? this.lane.scale;
    return scale
      ? abscissa({ x: [scale.low, scale.high] }, engine.size.width, px)
      : abscissa(engine.window, engine.size.width, px);
  },
  hold() {
    if (this.lane.scale) frozenScales.set(this.row.id, this.lane.scale);
  },
  release() {
    frozenScales.delete(this.row.id);
  },

  /** What was located of this line; a lane with a scale of its own is not of x. */
  placeFound(row) {
    const findings = row.lane.scale ? null : engine.findingsNow();
    put(
      this.$refs.findings,
      findings ? laneParts(findings, row.id, findings.shift, LANE_PX / 2) : [],
    );
  },
  beginBracket(event) {
    if (this.lane?.scale || this.row.kind !== "function" || !takeHold(event)) return;
    const x = this.pxOf(event);
    this.bracketed = { from: x, to: x };
  },
  pxOf(event) {
    return pointOn(this.$root, event).x;
  },
  moveBracket(event) {
    if (!this.bracketed) return;
    this.bracketed.to = this.pxOf(event);
    const { from, to } = this.bracketed;
    Object.assign(this.$refs.bracket.style, {
      left: `${Math.min(from, to)}px`,
      width: `${Math.abs(from - to)}px`,
    });
    this.$refs.bracket.hidden = false;
  },
  /** Search between two places of this line next. */
  endBracket() {
    const { from, to } = this.bracketed ?? { from: 0, to: 0 };
    this.dropBracket();
    if (Math.abs(from - to) < LEAST_BRACKET_PX) return;
    const pixel = (engine.window.x[1] - engine.window.x[0]) / engine.size.width;
    const [low, high] = [Math.min(from, to), Math.max(from, to)].map((px) =>
      shortest(this.valueAt(px), pixel),
    );
    this.$store.bench.bracket = { line: this.row.id, low, high };
  },
  dropBracket() {
    this.bracketed = null;
    this.$refs.bracket.hidden = true;
  },
  placeReading(line, reading, marks) {
    const x = reading ? across(this.shiftNow, reading.x) : -1;
    const isHidden = x < 0 || x > engine.size.width;
    setHidden(line, isHidden);
    // It covers no number of a zero.
    line.classList.toggle(
      "is-short",
      marks.some((mark) => Math.abs(across(this.shiftNow, mark.x) - x) < halfOf(mark) + 2),
    );
    // While the window is zoomed at the pointer it stays, but for what floats lose.
    if (!isHidden) slideBy(line, Math.round(10 * x) / 10 - 1, 0);
  },

  /** Hatched stretches tell their reason to who points at them or reaches them with the keyboard. */
  placeGaps(row, shift) {
    const reasons = row.lane.reasons ?? [];
    const { gaps } = this.$refs;
    while (gaps.children.length > reasons.length) gaps.lastChild.remove();
    reasons.forEach((reason, k) => {
      const gap = gaps.children[k] ?? gaps.appendChild(document.createElement("div"));
      const [left, right] = row.lane.undefined[k].map((end) => across(shift, end));
      const words = say("{name} has no value here: {reason}", { name: row.name, reason });
      setAttributes(gap, {
        class: "lane-gap",
        tabindex: "0",
        title: words,
        role: "img",
        "aria-label": words,
      });
      Object.assign(gap.style, { left: `${left}px`, width: `${Math.max(right - left, 2)}px` });
    });
  },

  placeHandle(handle, end, shift, side) {
    const { width } = engine.size;
    const isFree = end === null;
    if (this.lane.fixed) {
      setHidden(handle, true);
      return;
    }
    const free = side === "low" ? GRIP_PX : width - GRIP_PX;
    const x = isFree ? free : across(shift, end.x);
    this.standAt(handle, x);
    const name = endName(side, this.row.name);
    setAttributes(handle, {
      class: `lane-handle tone-${(this.row.tone ?? 0) % 8}${isFree ? " is-free" : end.closed ? " is-closed" : ""}`,
      "aria-label": name,
      "aria-valuetext": isFree
        ? say("no limit")
        : end.closed
          ? say("{end}, included", { end: end.text })
          : say("{end}, excluded", { end: end.text }),
      "aria-valuenow": decimal(isFree ? 0 : this.valueAt(x)),
      title: isFree
        ? say("{name}: drag to set one, click to type it", { name })
        : end.closed
          ? say(
              "{name}: drag to move, click to type, double-click to exclude it, Delete to remove it",
              {
                name,
              },
            )
          : say(
              "{name}: drag to move, click to type, double-click to include it, Delete to remove it",
              {
                name,
              },
            ),
    });
  },

  standAt(handle, x) {
    setHidden(handle, x < -6 || x > engine.size.width + 6);
    handle.style.left = `${x}px`;
  },

  grab(event) {
    if (!takeHold(event, { isFocused: true })) return;
    this.hold();
    this.held = { end: event.currentTarget.dataset.end, from: event.clientX, moved: false };
  },
  command(end, more) {
    const scale = this.frozen ?? this.lane.scale;
    const pixel = scale ? { pixel: (scale.high - scale.low) / engine.size.width } : {};
    return { do: "domain", id: this.row.id, end, ...pixel, ...more };
  },
  drag(event) {
    if (!this.held) return;
    if (!this.held.moved && Math.abs(event.clientX - this.held.from) < 3) return;
    this.held.moved = true;
    const x = this.valueAt(this.pxOf(event));
    this.held.command = this.command(this.held.end, { x });
    engine.draft(this.held.command);
  },
  drop() {
    const { command, end, moved } = this.held ?? {};
    this.held = null;
    this.release();
    if (command) engine.carryOut([command]);
    else if (end && !moved) this.typeEnd(end, this.row.ends[end]);
  },
  giveUp() {
    this.held = null;
    this.keyed = null;
    this.release();
    engine.dropDrafts();
  },
  toggleEnd(event) {
    this.closeEnd();
    this.flip(event.currentTarget.dataset.end);
  },
  flip(end) {
    const present = this.lane[end];
    if (present) engine.carryOut([this.command(end, { keep: true, closed: !present.closed })]);
  },
  key(event) {
    const end = event.currentTarget.dataset.end;
    const present = this.lane[end];
    const direction = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
    if (direction) this.nudge(end, direction * (event.shiftKey ? KEY_PX_FAST : KEY_PX));
    else if (event.key === " " || event.key === "Enter") this.flip(end);
    else if ((event.key === "Delete" || event.key === "Backspace") && present)
      engine.carryOut([this.command(end, { text: null })]);
    else if (event.key === "Escape") this.giveUp();
    else if (event.key === "F2") this.typeEnd(end, this.row.ends[end]);
    // A sign begins a new text for the end.
    else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey)
      this.typeEnd(end, event.key, false);
    else return;
    event.preventDefault();
  },
  /** Open the field for an end, beside its handle. @param {string} text @param {boolean} [isPresent] whether it is the end's own. */
  typeEnd(end, text, isPresent = true) {
    this.endSide = end;
    this.endText = text;
    this.endProblem = "";
    const { endForm, endField } = this.$refs;
    const x = Number.parseFloat(this.$refs[end].style.left);
    // Outside of the domain, where it covers no other handle, if there is room.
    const [below, above] = [x - FIELD_GAP_PX - FIELD_PX, x + FIELD_GAP_PX];
    const [outside, inside] = end === "low" ? [below, above] : [above, below];
    const most = engine.size.width - FIELD_PX - 2;
    const left = outside >= 2 && outside <= most ? outside : inside;
    endForm.style.left = `${Math.min(Math.max(left, 2), most)}px`;
    // At once, so that the next key is the field's and stands behind the first.
    endForm.style.removeProperty("display");
    endField.value = text;
    endField.focus();
    if (isPresent) endField.select();
    else endField.setSelectionRange(text.length, text.length);
  },
  get endLabel() {
    return this.endSide
      ? say("{name}, as text", { name: endName(this.endSide, this.row.name) })
      : say("End of a domain");
  },
  /** Keep the typed end; without a text there is none. */
  async keepEnd() {
    const end = this.endSide;
    const text = this.endText.trim();
    if (!end || text === this.row.ends[end]) {
      this.closeEnd();
      return;
    }
    const error = await engine.commit([this.command(end, { text: text || null })]);
    if (error) this.endProblem = error.message;
    else this.closeEnd();
  },
  leaveEnd() {
    if (this.endSide && !this.endProblem) this.keepEnd();
  },
  closeEnd() {
    const end = this.endSide;
    this.endSide = "";
    this.endProblem = "";
    if (end && document.activeElement === this.$refs.endField) this.$refs[end].focus();
  },
  /** Keys try positions out while they are held, and keep the last one when they are let go. */
  nudge(end, px) {
    if (!this.keyed) this.hold();
    const present = this.lane[end];
    const from = present
      ? across(this.shiftNow, present.x)
      : end === "low"
        ? GRIP_PX
        : engine.size.width - GRIP_PX;
    this.keyed = { end, px: (this.keyed?.end === end ? this.keyed.px : from) + px };
    engine.draft(this.keyCommand());
  },
  keyCommand() {
    return this.command(this.keyed.end, { x: this.valueAt(this.keyed.px) });
  },
  keyEnd() {
    if (!this.keyed) return;
    const command = this.keyCommand();
    this.keyed = null;
    this.release();
    engine.carryOut([command]);
  },
});

/** @param {string} side @param {string} name */
function endName(side, name) {
  return side === "low"
    ? say("Lower end of the domain of {name}", { name })
    : say("Upper end of the domain of {name}", { name });
}

// @ts-check
/** A lane: where a function is defined, its zeros, and the two ends of its domain as handles. */
import { abscissa } from "./affine.model.js";
import { across, svg } from "./paint.js";

const MIDDLE = 27;
const KEY_PX = 1;
const KEY_PX_FAST = 10;
/** A free side's grip stands this far from the edge. */
const GRIP_PX = 8;
const UNMOVED = { ax: 1, bx: 0, ay: 1, by: 0 };

/** @param {import("./engine.js").Engine} engine */
export const lane = (engine) => () => ({
  held: null,
  // Alpine puts what is not declared here into the outermost component.
  painter: null,
  lane: null,
  shiftNow: null,
  keyed: null,
  /** The scale of a path's lane while the hand is on it, so that it does not run away under the hand. */
  frozen: null,

  init() {
    this.painter = (scene, shift) => this.paint(scene, shift);
    engine.painters.add(this.painter);
    if (engine.scene) engine.paint();
  },
  destroy() {
    engine.painters.delete(this.painter);
  },

  paint(scene, shift) {
    const row = scene.rows.find((each) => each.id === this.row.id);
    if (!row?.lane) return;
    this.lane = row.lane;
    this.shiftNow = row.lane.scale ? this.ownShift(row.lane.scale) : shift;
    const { drawing, low, high } = this.$refs;
    drawing.replaceChildren(...this.parts(row, scene, this.shiftNow));
    this.placeGaps(row, this.shiftNow);
    this.placeHandle(low, row.lane.low, this.shiftNow, "low");
    this.placeHandle(high, row.lane.high, this.shiftNow, "high");
  },
  /** From the scale that a lane was made with to the one that the hand holds. */
  ownShift(scale) {
    if (!this.frozen) return UNMOVED;
    const span = this.frozen.high - this.frozen.low;
    return { ax: (scale.high - scale.low) / span, bx: ((scale.low - this.frozen.low) / span) * engine.size.width, ay: 1, by: 0 };
  },
  /** The value of the lane's variable at a place. */
  valueAt(px) {
    const scale = this.frozen ?? this.lane.scale;
    return scale ? abscissa({ x: [scale.low, scale.high] }, engine.size.width, px) : abscissa(engine.window, engine.size.width, px);
  },
  hold() {
    this.frozen = this.lane.scale ?? null;
  },
  release() {
    this.frozen = null;
  },

  parts(row, scene, shift) {
    const { width } = engine.size;
    const tone = `var(--tone-${row.tone % 8})`;
    const parts = [svg("line", { class: "lane-base", x1: 0, x2: width, y1: MIDDLE, y2: MIDDLE })];
    parts.push(...ownTicks(row, shift));
    const span = (from, to) => ({ x: across(shift, from), width: Math.max(across(shift, to) - across(shift, from), 0) });
    if (row.lane.band) {
      const { x, width: long } = span(...row.lane.band);
      parts.push(svg("rect", { class: "lane-band", x, width: long, y: MIDDLE - 5, height: 10, fill: tone }));
      parts.push(svg("line", { class: "lane-core", x1: x, x2: x + long, y1: MIDDLE, y2: MIDDLE, stroke: tone }));
    }
    for (const band of row.lane.bands ?? []) {
      const { x, width: long } = span(...band);
      parts.push(svg("rect", { class: "lane-band", x, width: long, y: MIDDLE - 5, height: 10, fill: tone }));
    }
    for (const [from, to] of row.lane.undefined) parts.push(...hatched(span(from, to)));
    for (const hole of row.lane.holes) {
      parts.push(svg("circle", { class: "end-open", cx: across(shift, hole), cy: MIDDLE, r: 4, stroke: tone, "stroke-width": 2 }));
    }
    parts.push(...chart(row.lane, shift, width));
    // Below the numbers, so that it covers none.
    if (scene.reading && !row.lane.scale) {
      const x = across(shift, scene.reading.x);
      parts.push(svg("line", { class: "reading-line", x1: x, x2: x, y1: 0, y2: 400 }));
    }
    parts.push(...this.marks(row.lane.marks, shift));
    if (row.lane.complete === false) {
      parts.push(svg("text", { class: "lane-text lane-note", x: width - 22, y: 12, "text-anchor": "end" }, "not all zeros here are marked"));
    }
    return parts;
  },

  /** Zeros with their numbers; a number that would cover another is left out, the mark stays. */
  marks(marks, shift) {
    const parts = [];
    let free = -Infinity;
    for (const mark of marks) {
      const x = across(shift, mark.x);
      parts.push(svg("line", { class: mark.proved ? "mark-line" : "mark-line mark-doubt", x1: x, x2: x, y1: MIDDLE - 9, y2: MIDDLE + 9 }));
      const half = 3.4 * mark.short.length;
      if (x - half > free + 4) {
        parts.push(svg("text", { class: "lane-text", x, y: MIDDLE + 22, "text-anchor": "middle" }, mark.short));
        free = x + half;
      }
    }
    return parts;
  },

  /** Hatched stretches tell their reason to who points at them or reaches them with the keyboard. */
  placeGaps(row, shift) {
    const reasons = row.lane.reasons ?? [];
    const { gaps } = this.$refs;
    while (gaps.children.length > reasons.length) gaps.lastChild.remove();
    reasons.forEach((reason, k) => {
      const gap = gaps.children[k] ?? gaps.appendChild(document.createElement("div"));
      const [left, right] = row.lane.undefined[k].map((place) => across(shift, place));
      const words = `${row.name} has no value here: ${reason}`;
      gap.className = "lane-gap";
      gap.tabIndex = 0;
      gap.title = words;
      gap.setAttribute("role", "img");
      gap.setAttribute("aria-label", words);
      Object.assign(gap.style, { left: `${left}px`, width: `${Math.max(right - left, 2)}px` });
    });
  },

  placeHandle(handle, end, shift, side) {
    const { width } = engine.size;
    const isFree = end === null;
    if (this.lane.fixed) {
      handle.hidden = true;
      return;
    }
    const free = side === "low" ? GRIP_PX : width - GRIP_PX;
    const x = isFree ? free : across(shift, end.x);
    handle.hidden = !isFree && (x < -6 || x > width + 6);
    handle.style.left = `${x}px`;
    handle.className = `lane-handle tone-${(this.row.tone ?? 0) % 8}${isFree ? " is-free" : end.closed ? " is-closed" : ""}`;
    const name = `${side === "low" ? "Lower" : "Upper"} end of the domain of ${this.row.name}`;
    handle.setAttribute("aria-label", name);
    handle.setAttribute("aria-valuetext", isFree ? "no end: unbounded" : `${end.text}, ${end.closed ? "included" : "left out"}`);
    handle.setAttribute("aria-valuenow", String(isFree ? 0 : this.valueAt(x)));
    handle.title = isFree ? `${name}: drag to set one` : `${name}: drag to move, double-click to ${end.closed ? "leave it out" : "include it"}, Delete to take it away`;
  },

  grab(event) {
    if (event.button > 0) return;
    event.preventDefault();
    event.currentTarget.focus();
    event.currentTarget.setPointerCapture(event.pointerId);
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
    const left = this.$refs.drawing.getBoundingClientRect().left;
    const x = this.valueAt(event.clientX - left);
    this.held.command = this.command(this.held.end, { x });
    engine.draft(this.held.command);
  },
  drop() {
    const command = this.held?.command;
    this.held = null;
    this.release();
    if (command) engine.commit([command]);
  },
  giveUp() {
    this.held = null;
    this.keyed = null;
    this.release();
    engine.dropDrafts();
  },
  toggleEnd(event) {
    this.flip(event.currentTarget.dataset.end);
  },
  flip(end) {
    const present = this.lane[end];
    if (present) engine.commit([this.command(end, { keep: true, closed: !present.closed })]);
  },
  key(event) {
    const end = event.currentTarget.dataset.end;
    const present = this.lane[end];
    const direction = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
    if (direction) this.nudge(end, direction * (event.shiftKey ? KEY_PX_FAST : KEY_PX));
    else if (event.key === " " || event.key === "Enter") this.flip(end);
    else if ((event.key === "Delete" || event.key === "Backspace") && present) engine.commit([this.command(end, { text: null })]);
    else if (event.key === "Escape") this.giveUp();
    else return;
    event.preventDefault();
  },
  /** Keys try positions out while they are held, and keep the last one when they are let go. */
  nudge(end, px) {
    if (!this.keyed) this.hold();
    const present = this.lane[end];
    const from = present ? across(this.shiftNow, present.x) : end === "low" ? GRIP_PX : engine.size.width - GRIP_PX;
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
    engine.commit([command]);
  },
});

/** Narrower stretches than this have no sign or arrow. */
const LEAST_STRETCH_PX = 16;

/** The signs of the values at the left of each stretch, and arrows where the function rises or falls. */
function chart(lane, shift, width) {
  const parts = [];
  const seen = (from, to) => [Math.max(across(shift, from), 0), Math.min(across(shift, to), width)];
  const taken = [];
  for (const [from, to, sign] of lane.signs ?? []) {
    const [left, right] = seen(from, to);
    if (right - left < LEAST_STRETCH_PX) continue;
    taken.push(left + 8);
    parts.push(svg("text", { class: "lane-sign", x: left + 8, y: 14, "text-anchor": "middle" }, sign > 0 ? "+" : "−"));
  }
  for (const [from, to, trend] of lane.trends ?? []) {
    const [left, right] = seen(from, to);
    if (right - left < LEAST_STRETCH_PX) continue;
    // From the left on, the first place that covers no sign.
    const x = [left + 12, (left + right) / 2, right - 12].find((each) => taken.every((other) => Math.abs(other - each) > LEAST_STRETCH_PX));
    if (x === undefined) continue;
    const rise = 4 * trend;
    const arrow = svg("path", { class: "lane-trend", d: `M${x - 6} ${10 + rise}L${x + 6} ${10 - rise}m-5 0h5v${4 * trend}` });
    arrow.append(svg("title", {}, trend > 0 ? "rises here" : "falls here"));
    parts.push(arrow);
  }
  return parts;
}

/** The scale of a lane that does not share the plane's axis: the name of its variable and ticks. */
function ownTicks(row, shift) {
  if (!row.lane.scale) return [];
  const parts = [svg("text", { class: "lane-text lane-variable", x: 4, y: 12 }, row.variable === "theta" ? "θ" : row.variable)];
  for (const tick of row.lane.scale.ticks) {
    const x = across(shift, tick.x);
    parts.push(svg("line", { class: "lane-tick", x1: x, x2: x, y1: MIDDLE - 9, y2: MIDDLE + 9 }));
    parts.push(svg("text", { class: "lane-text", x, y: MIDDLE + 22, "text-anchor": "middle" }, tick.text));
  }
  return parts;
}

/** A stretch without values: slanted lines over the band. */
function hatched({ x, width }) {
  const parts = [svg("rect", { x, width, y: MIDDLE - 6, height: 12, fill: "var(--paper)" })];
  for (let k = Math.ceil(x / 7) * 7; k < x + width - 6; k += 7) {
    parts.push(svg("line", { class: "hatch-line", x1: k, x2: k + 6, y1: MIDDLE + 5, y2: MIDDLE - 5 }));
  }
  return parts;
}

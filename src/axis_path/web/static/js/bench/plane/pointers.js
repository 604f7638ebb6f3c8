// @ts-check
/** Pointers on the plane: pan, pinch, wheel, boxes, and the axes that are stretched. */
import { takeHold } from "../../shared/hold.js";
import { lookThrough } from "../viewport/actions.js";
import { moved, zoomed } from "../viewport/affine.model.js";
import { pointOn } from "../viewport/scale.js";
import { axisAt, stretchTo } from "../viewport/stretch.js";

const WHEEL_STEP = 1.0015;
/** A pointer that moved less than this clicked. */
const STILL_PX = 3;
/** Fingers nearer to each other say nothing of a scale. */
const LEAST_PINCH_PX = 10;

/** @param {import("../session/engine.js").Engine} engine */
export function makePointers(engine) {
  return {
    pointers: new Map(),
    travelled: 0,
    /** Whether two fingers are, or were, on the plane. */
    isPinching: false,
    isHeld: false,
    /** The axis that is being stretched. @type {any} */
    axis: null,

    place(event) {
      return pointOn(this.$refs.surface, event);
    },

    down(event) {
      if (!takeHold(event)) return;
      const at = this.place(event);
      this.pointers.set(event.pointerId, at);
      this.travelled = 0;
      if (this.$store.bench.isChoosing) this.box = { from: at, to: at, isChoice: true };
      else if (this.$store.bench.isBracketing || event.altKey)
        this.box = { from: at, to: at, isBracket: true };
      else if (this.$store.bench.isBoxing || event.shiftKey) this.box = { from: at, to: at };
      else this.axis = this.pointers.size > 1 ? null : axisAt(engine, at);
    },
    move(event) {
      const before = this.pointers.get(event.pointerId);
      const now = this.place(event);
      if (!before) {
        this.$refs.surface.dataset.axis = axisAt(engine, now)?.name ?? "";
        if (event.pointerType !== "touch") this.readAt(now);
        return;
      }
      const others = [...this.pointers].filter(([id]) => id !== event.pointerId);
      this.pointers.set(event.pointerId, now);
      if (others.length) {
        this.isPinching = true;
        this.pinch(before, now, others[0][1], event.shiftKey);
        return;
      }
      if (this.box) {
        this.box.to = now;
        this.showBox();
        return;
      }
      this.travelled += Math.abs(now.x - before.x) + Math.abs(now.y - before.y);
      if (this.travelled < STILL_PX) return;
      if (this.axis) {
        stretchTo(engine, this.axis, this.axis.name === "x" ? now.x : now.y);
        return;
      }
      if (!this.isHeld) this.hold(true);
      lookThrough(engine, moved(engine.window, engine.size, now.x - before.x, now.y - before.y));
    },
    up(event) {
      if (this.box) this.dropBox(event.type === "pointerup");
      else if (this.isPinching) {
        // The fingers are lifted one after the other: none of them points at anything.
        if (this.pointers.size === 1) this.isPinching = false;
      } else if (this.pointers.has(event.pointerId) && this.travelled < STILL_PX) {
        const at = this.place(event);
        const mark = this.findingNear(at);
        if (mark) this.toggleLabel(mark);
        this.readAt(at);
      }
      this.axis = null;
      this.pointers.delete(event.pointerId);
      this.hold(false);
      engine.changed("window");
    },
    hold(isHeld) {
      this.isHeld = isHeld;
      this.$refs.surface.classList.toggle("is-held", isHeld);
    },
    /** Two fingers zoom about the point between them; with Shift each axis goes by its own direction. */
    pinch(before, now, other, isApart) {
      const middle = { x: (now.x + other.x) / 2, y: (now.y + other.y) / 2 };
      const { window, size } = engine;
      if (isApart) {
        const part = (axis) => {
          const [was, is] = [
            Math.abs(before[axis] - other[axis]),
            Math.abs(now[axis] - other[axis]),
          ];
          return Math.min(was, is) < LEAST_PINCH_PX ? 1 : was / is;
        };
        const across = zoomed(window, size, middle, part("x"));
        const up = zoomed(window, size, middle, part("y"));
        lookThrough(engine, { ...window, x: across.x, y: up.y });
        return;
      }
      const distance = (point) => Math.hypot(point.x - other.x, point.y - other.y);
      if (distance(now) < LEAST_PINCH_PX) return;
      lookThrough(engine, zoomed(window, size, middle, distance(before) / distance(now)));
    },
    wheel(event) {
      event.preventDefault();
      const lines = event.deltaMode === 1 ? 30 : 1;
      const amount = Math.max(-400, Math.min(400, event.deltaY * lines));
      lookThrough(
        engine,
        zoomed(engine.window, engine.size, this.place(event), WHEEL_STEP ** amount),
      );
      engine.changed("window");
    },
  };
}

// @ts-check
/** The plane: pan, zoom, the reading line, and the picture. */

import { takeHold } from "../../shared/hold.js";
import { shortest } from "../panels/findings/findings.model.js";
import { askWindow, lookThrough, zoomStep } from "../viewport/actions.js";
import { abscissa, boxed, moved, ordinate, pxOf, zoomed } from "../viewport/affine.model.js";
import { measureScale, pointOn } from "../viewport/scale.js";
import { placeCanvas, Slide, slideBy } from "../viewport/slide.model.js";
import { axisAt, stretchTo } from "../viewport/stretch.js";
import { cleared, copyOf } from "./canvas.js";
import { CurveWorker } from "./curve_worker.js";
import { isQuick, paintCurves } from "./curves.paint.js";
import { foundParts } from "./found.paint.js";
import { gridParts, slideGrid } from "./grid.paint.js";
import { across, down, markParts, pinnedParts } from "./marks.paint.js";
import { LAYERS, sketchOn } from "./sketch.js";
import { put } from "./svg.js";
import { readTones } from "./tones.js";

const WHEEL_STEP = 1.0015;
const MOVE_PX = 40;
/** A pointer that moved less than this clicked. */
const STILL_PX = 3;
/** A mark this near to the pointer is caught. */
const CATCH_PX = 7;
/** Fingers nearer to each other say nothing of a scale. */
const LEAST_PINCH_PX = 10;
/** A coarse step of the reading line is so many fine ones. */
const COARSE = 10;

/** @param {import("../session/engine.js").Engine} engine */
export const plane = (engine) => () => ({
  pointers: new Map(),
  // Alpine puts what is not declared here into the outermost component.
  /** @type {any} */
  painter: null,
  /** @type {any} */
  watcher: null,
  /** @type {any} */
  themed: null,
  /** @type {any} */
  wheeled: null,
  /** @type {any[]} */
  tones: [],
  /** Where the canvas of the curves stands, and where the layers of elements do. @type {any} */
  slide: null,
  /** @type {any} */
  layers: null,
  /** What stands for the elements while the window is stretched. @type {any} */
  sketch: null,
  /** The curves of a scene that is not shown yet. @type {any} */
  early: null,
  /** @type {any} */
  endWorker: null,
  travelled: 0,
  /** Whether two fingers are, or were, on the plane. */
  isPinching: false,
  isHeld: false,
  /** The axis that is being stretched. @type {any} */
  axis: null,
  /** The box that is being drawn. @type {any} */
  box: null,

  init() {
    this.tones = readTones();
    this.slide = new Slide(true);
    this.sketch = sketchOn(this.$refs);
    this.layers = new Slide();
    const worker = new CurveWorker(this.$refs.curves.dataset.worker);
    this.endWorker = () => worker.end();
    engine.prepare = async (scene) => {
      if (engine.viewport.isStretched && isQuick(scene)) return;
      this.early = await worker.paint(scene, this.tones);
    };
    this.painter = (scene, shift) => this.paint(scene, shift);
    engine.painters.add(this.painter);
    this.themed = () => {
      this.tones = readTones();
      this.slide.forget();
      this.layers.forget();
      this.sketch.forget();
      engine.paint();
    };
    document.addEventListener("themechange", this.themed);
    this.wheeled = (event) => this.wheel(event);
    this.$refs.surface.addEventListener("wheel", this.wheeled, { passive: false });
    this.watcher = new ResizeObserver(() => this.measure());
    this.watcher.observe(this.$refs.plane);
    this.watcher.observe(document.querySelector(".rows"));
    this.watcher.observe(document.querySelector(".text-probe"));
    this.$watch("$store.bench.isPlaneOnly", () => this.$nextTick(() => this.measure()));
    this.measure();
  },
  destroy() {
    engine.painters.delete(this.painter);
    engine.prepare = null;
    this.endWorker();
    document.removeEventListener("themechange", this.themed);
    this.$refs.surface.removeEventListener("wheel", this.wheeled);
    this.watcher.disconnect();
  },

  /** The lanes are as wide as the list of rows leaves room for; the plane takes the same width. */
  measure() {
    const rows = /** @type {HTMLElement} */ (document.querySelector(".rows"));
    const left = (/** @type {Element} */ each) => each.getBoundingClientRect().left;
    const side = left(this.$refs.plane) - left(rows);
    const isAlone = this.$store.bench.isPlaneOnly;
    const scale = measureScale(isAlone);
    // The box around it is not scaled.
    const around = this.$refs.plane.parentElement;
    const whole = isAlone ? around.clientWidth : rows.clientWidth - side;
    const width = Math.max(Math.floor(whole / scale), 120);
    const height = Math.max(
      Math.floor(this.$refs.plane.getBoundingClientRect().height / scale),
      80,
    );
    document.documentElement.style.setProperty("--plane-scale", String(scale));
    document.documentElement.style.setProperty("--plane-width", `${width}px`);
    document.documentElement.style.setProperty("--plane-height", `${height}px`);
    this.$refs.surface.style.width = `${width}px`;
    for (const name of LAYERS) {
      this.$refs[name].setAttribute("width", String(width));
      this.$refs[name].setAttribute("height", String(height));
    }
    engine.viewport.resize(width, height);
  },

  paint(scene, shift) {
    const isSketched = this.sketch.isNext(engine.window);
    const moved = this.layers.to(scene, shift, engine.size);
    if (isSketched && !moved)
      return () => this.sketch.show(this.sketchOf(scene, shift), engine.size);
    this.sketch.rest();
    const placing = this.paintCanvas(scene, shift);
    return () => this.placeAll(scene, shift, placing, moved);
  },
  /** Paint the curves on their own canvas, if they do not stand there. */
  paintCanvas(scene, shift) {
    const { size } = engine;
    const { beyond } = scene.window;
    if (this.early?.scene === scene) this.takeEarly(size);
    const placing = this.slide.to(scene, shift, size);
    if (!placing) this.paintOn(cleared(this.$refs.curves, size, beyond, beyond), scene, shift);
    return placing;
  },
  paintOn(canvas, scene, shift) {
    paintCurves(canvas, scene, shift, this.tones, (id, most) => engine.trails.last(id, most));
  },
  /** The picture for a sketch. Curves are painted as they are there; where that takes too long, those on their canvas are copied. */
  sketchOf(scene, shift) {
    // Where the canvas is to be copied, what it shows stands on it before.
    const placing = isQuick(scene) ? undefined : this.paintCanvas(scene, shift);
    const copy = (canvas) =>
      copyOf(canvas, this.$refs.curves, engine.size, scene.window.beyond, placing);
    return Object.freeze({
      parts: this.partsOf(scene, shift),
      paintCurves: placing === undefined ? (canvas) => this.paintOn(canvas, scene, shift) : copy,
      standCurves: () => placeCanvas(this.$refs.curves, this.paintCanvas(scene, shift)),
    });
  },
  partsOf(scene, shift) {
    const { size } = engine;
    return {
      ...gridParts(scene, shift, size),
      marks: markParts(scene, shift, size, this.tones),
      found: this.foundParts(),
      pinned: pinnedParts(scene, shift, size, this.tones),
    };
  },
  /** Curves that were painted beside the page. */
  takeEarly(size) {
    const { scene, picture } = this.early;
    this.early = null;
    const { pen } = cleared(this.$refs.curves, size, scene.window.beyond, scene.window.beyond);
    pen.drawImage(picture, 0, 0);
    picture.close();
    this.slide.begin(scene, size);
  },
  /** Place the curves, and all that stands on the plane besides. */
  placeAll(scene, shift, placing, moved) {
    const { curves, marks, pinned } = this.$refs;
    placeCanvas(curves, placing);
    if (!moved) {
      this.sketch.stand(this.partsOf(scene, shift));
      return;
    }
    put(this.$refs.found, this.foundParts());
    const { dx, dy } = moved;
    slideGrid(this.$refs, scene.axes, this.layers.painted.shift, engine.size, dx, dy);
    slideBy(marks, dx, dy);
    slideBy(pinned, dx, 0);
  },

  /** What was located keeps its place in the plane, whatever the last scene was made for. */
  foundParts() {
    const found = engine.foundNow();
    const level = engine.scene?.axes.x_axis;
    const axis =
      found && level !== null && level !== undefined
        ? pxOf({ x: engine.window.y }, engine.size.height, 0)
        : null;
    return found
      ? foundParts(found, found.shift, axis === null ? null : engine.size.height - axis)
      : [];
  },

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
  showBox() {
    const { from, to, isBracket } = this.box;
    Object.assign(this.$refs.box.style, {
      left: `${Math.min(from.x, to.x)}px`,
      top: isBracket ? "0px" : `${Math.min(from.y, to.y)}px`,
      width: `${Math.abs(from.x - to.x)}px`,
      height: isBracket ? "100%" : `${Math.abs(from.y - to.y)}px`,
    });
    this.$refs.box.hidden = false;
  },
  dropBox(isWanted) {
    const { from, to, isBracket, isChoice } = this.box;
    this.box = null;
    this.$refs.box.hidden = true;
    this.$store.bench.isBoxing = false;
    this.$store.bench.isBracketing = false;
    this.$store.bench.isChoosing = false;
    if (isChoice) {
      if (isWanted) this.choosePoints(from, to);
      return;
    }
    if (isBracket) {
      if (isWanted && Math.abs(from.x - to.x) > STILL_PX) this.bracket(from.x, to.x);
      return;
    }
    if (isWanted && Math.abs(from.x - to.x) > STILL_PX && Math.abs(from.y - to.y) > STILL_PX) {
      lookThrough(engine, boxed(engine.window, engine.size, from, to));
    }
  },
  /** Choose the points of data in a box. */
  choosePoints(from, to) {
    const { window, size } = engine;
    const across = [from.x, to.x].map((px) => abscissa(window, size.width, px));
    const up = [from.y, to.y].map((px) =>
      abscissa({ x: window.y, log_x: window.log_y }, size.height, size.height - px),
    );
    const rising = (pair) => pair.sort((a, b) => a - b);
    this.$store.bench.dataBox = [rising(across), rising(up)];
    engine.look();
    engine.changed();
  },
  /** Search between two places next. */
  bracket(from, to) {
    const { window, size } = engine;
    const pixel = (window.x[1] - window.x[0]) / size.width;
    const [low, high] = [Math.min(from, to), Math.max(from, to)].map((px) =>
      shortest(abscissa(window, size.width, px), pixel),
    );
    this.$store.bench.bracket = { line: null, low, high };
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
      const mark = this.foundNear(at);
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
  /** What was located, nearest to a place. */
  foundNear(at) {
    const found = engine.foundNow();
    /** @type {{away: number, mark: any} | null} */
    let best = null;
    if (!found) return null;
    for (const mark of found.marks) {
      const away = Math.hypot(across(found.shift, mark.x) - at.x, down(found.shift, mark.y) - at.y);
      if (away <= CATCH_PX && (!best || away < best.away)) best = { away, mark };
    }
    return best?.mark ?? null;
  },
  /** One press on a mark labels it, and one more takes the label away. */
  toggleLabel(mark) {
    const before = (engine.foundNow()?.marks ?? [])
      .filter((each) => each.query === mark.query && each.text)
      .map((each) => each.place);
    const labels = mark.text
      ? before.filter((each) => each !== mark.place)
      : [...before, mark.place];
    engine.carryOut([{ do: "label_finding", query: mark.query, labels }]);
  },
  /** Read where the pointer is; a mark that is near is caught, and named. */
  readAt(at) {
    const found = this.foundNear(at);
    if (found) {
      this.$store.bench.caught = `${found.kind.replace(/s$/, "")} at ${found.name}; press to ${found.text ? "take its label away" : "label it"}`;
      engine.read(found.value, ordinate(engine.window, engine.size.height, at.y));
      return;
    }
    const caught = this.markNear(at);
    this.$store.bench.caught = caught
      ? `${caught.row.name} = 0 at ${caught.row.variable} = ${caught.mark.text}`
      : "";
    const { window, size } = engine;
    const x = caught ? caught.mark.value : abscissa(window, size.width, at.x);
    engine.read(x, ordinate(window, size.height, at.y));
  },
  markNear(at) {
    const { rows, axes } = engine.scene ?? { rows: [] };
    if (!axes || axes.x_axis === null || Math.abs(at.y - axes.x_axis / 10) > CATCH_PX) return null;
    /** @type {{away: number, row: any, mark: any} | null} */
    let best = null;
    for (const row of rows) {
      for (const mark of (row.curve && row.lane?.marks) ?? []) {
        const away = Math.abs(mark.x / 10 - at.x);
        if (away <= CATCH_PX && (!best || away < best.away)) best = { away, row, mark };
      }
    }
    return best;
  },
  /** Two fingers zoom about the point between them; with Shift each axis goes by its own direction. */
  pinch(before, now, other, isApart) {
    const middle = { x: (now.x + other.x) / 2, y: (now.y + other.y) / 2 };
    const { window, size } = engine;
    if (isApart) {
      const part = (axis) => {
        const [was, is] = [Math.abs(before[axis] - other[axis]), Math.abs(now[axis] - other[axis])];
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

  key(event) {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[
      event.key
    ];
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key.length === 1 && !this.$store.bench.hasShortcuts) return;
    if (step && event.shiftKey)
      lookThrough(engine, moved(engine.window, engine.size, -step[0] * MOVE_PX, step[1] * MOVE_PX));
    else if (step?.[0]) this.nudge(step[0]);
    else if (event.key === "PageUp" || event.key === "PageDown")
      this.nudge(event.key === "PageUp" ? COARSE : -COARSE);
    else if (event.key === "+" || event.key === "=") zoomStep(engine, true);
    else if (event.key === "-") zoomStep(engine, false);
    else if (event.key === "Home") askWindow(engine, { how: "home" });
    else if (event.key === ",") engine.viewport.step(-1);
    else if (event.key === ".") engine.viewport.step(1);
    else if (event.key.toLowerCase() === "s") engine.hearing.toggle();
    else if (event.key === "Escape" && engine.hearing.isPlaying) engine.hearing.stop();
    else if (event.key.toLowerCase() === "f")
      this.$store.bench.isPlaneOnly = !this.$store.bench.isPlaneOnly;
    else if (event.key === "Escape" && this.box) this.dropBox(false);
    else return;
    event.preventDefault();
  },
  /** Move the reading line by a pixel's worth of x. */
  nudge(direction) {
    const { width } = engine.size;
    const present =
      engine.reading === null ? width / 2 : pxOf(engine.window, width, engine.reading);
    const px = Math.min(Math.max(present + 2 * direction, 0), width);
    engine.read(abscissa(engine.window, width, px));
    engine.reports.readSoon();
    engine.hearing.step();
  },

  get isBoxing() {
    return this.$store.bench.isBoxing;
  },
  /** One click, and labels and functions measure angles alike. */
  agree() {
    engine.carryOut([{ do: "unit", unit: this.$store.bench.axesNote.unit }]);
  },
  get agreeText() {
    return this.$store.bench.axesNote ? `Measure in ${this.$store.bench.axesNote.unit}` : "";
  },
  get hasWhy() {
    return this.$store.bench.isReady && Boolean(this.$store.bench.empty);
  },
});

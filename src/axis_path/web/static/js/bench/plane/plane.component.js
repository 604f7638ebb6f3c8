// @ts-check
/** The plane: pan, zoom, the reading line, and the picture. */

import { together } from "../../shared/together.js";
import { say } from "../../shared/words.js";
import { pxOf } from "../viewport/affine.model.js";
import { measureScale } from "../viewport/scale.js";
import { placeCanvas, Slide, slideBy } from "../viewport/slide.model.js";
import { makeBoxes } from "./boxes.js";
import { cleared, copyOf } from "./canvas.js";
import { CurveWorker } from "./curve_worker.js";
import { isQuick, paintCurves } from "./curves.paint.js";
import { findingsParts } from "./findings.paint.js";
import { gridParts, slideGrid } from "./grid.paint.js";
import { markParts, pinnedParts } from "./marks.paint.js";
import { makePlaneKeys } from "./plane_keys.js";
import { makePointers } from "./pointers.js";
import { makeReading } from "./reading.js";
import { LAYERS, sketchOn } from "./sketch.js";
import { put } from "./svg.js";
import { readTones } from "./tones.js";
import { whatIfParts } from "./what_if.paint.js";

/** @param {import("../session/engine.js").Engine} engine */
export const plane = (engine) => () =>
  together(makePointers(engine), makeBoxes(engine), makeReading(engine), makePlaneKeys(engine), {
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

    init() {
      this.tones = readTones();
      this.slide = new Slide(true);
      this.sketch = sketchOn(this.$refs);
      this.layers = new Slide();
      const worker = new CurveWorker(this.$refs.curves.dataset.worker);
      this.endWorker = () => worker.end();
      engine.picture.prepare = async (scene) => {
        if (engine.viewport.isStretched && isQuick(scene)) return;
        this.early = await worker.paint(scene, this.tones);
      };
      this.painter = (scene, shift) => this.paint(scene, shift);
      engine.picture.painters.add(this.painter);
      this.themed = () => {
        this.tones = readTones();
        this.slide.forget();
        this.layers.forget();
        this.sketch.forget();
        engine.picture.paint();
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
      engine.picture.painters.delete(this.painter);
      engine.picture.prepare = null;
      this.endWorker();
      document.removeEventListener("themechange", this.themed);
      this.$refs.surface.removeEventListener("wheel", this.wheeled);
      this.watcher.disconnect();
    },

    /** The lanes are as wide as the list of rows leaves room for; the plane takes the same width. */
    measure() {
      const rows = /** @type {HTMLElement} */ (document.querySelector(".rows"));
      const left = (/** @type {Element} */ element) => element.getBoundingClientRect().left;
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
        marks: [
          ...markParts(scene, shift, size, this.tones),
          ...whatIfParts(scene.what_if ?? [], shift, size, this.tones),
        ],
        findings: this.findingsParts(),
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
      put(this.$refs.findings, this.findingsParts());
      const { dx, dy } = moved;
      slideGrid(this.$refs, scene.axes, this.layers.painted.shift, engine.size, dx, dy);
      slideBy(marks, dx, dy);
      slideBy(pinned, dx, 0);
    },

    /** What was located keeps its place in the plane, whatever the last scene was made for. */
    findingsParts() {
      const findings = engine.findingsNow();
      const level = engine.picture.scene?.axes.x_axis;
      const axis =
        findings && level !== null && level !== undefined
          ? pxOf({ x: engine.window.y }, engine.size.height, 0)
          : null;
      const solved = engine.picture.whatIfAt(engine.version);
      return [
        ...(solved ? whatIfParts(solved.curves, solved.shift, engine.size, this.tones) : []),
        ...(findings
          ? findingsParts(
              findings,
              findings.shift,
              axis === null ? null : engine.size.height - axis,
            )
          : []),
      ];
    },
    /** One click, and labels and functions measure angles alike. */
    agree() {
      engine.carryOut([{ do: "unit", unit: this.$store.bench.axesNote.unit }]);
    },
    get agreeText() {
      return this.$store.bench.axesNote
        ? say("Measure in {unit}", { unit: this.$store.bench.axesNote.unit })
        : "";
    },
    get hasWhy() {
      return this.$store.bench.isReady && Boolean(this.$store.bench.empty);
    },
  });

// @ts-check
/** The bounds of the window as numbers that can be typed. */

import { setHidden } from "../../shared/element.js";
import { takeHold } from "../../shared/hold.js";
import { titleHeight } from "../plane/grid.paint.js";
import { across, down } from "../plane/marks.paint.js";
import { askWindow, changeAxes, zoomStep } from "./actions.js";
import { unitsOf } from "./affine.model.js";
import { boundLevel, boundUpright, liftAbove } from "./bounds.model.js";
import { pointOn } from "./scale.js";
import { slideBy } from "./slide.model.js";
import { held, stretchStep, stretchTo } from "./stretch.js";

const BEHIND_MS = 80;
/** How high a bound is: fingers need more. */
const boundPx = () => (matchMedia("(pointer: coarse)").matches ? 36 : 24);
/** An axis so near to the lower edge has its numbers under the tool bar. */
const UNDER_TOOLS_PX = 68;

/** @param {import("../session/engine.js").Engine} engine */
export const windowBox = (engine) => () => ({
  xLow: "",
  xHigh: "",
  yLow: "",
  yHigh: "",
  reading: "",
  problem: "",
  /** The bounds across as they were shown last. */
  shown: ["", ""],
  /** @type {any} */
  painter: null,
  timer: 0,
  /** The axis that is being stretched by its handle. @type {import("./stretch.js").Held | null} */
  axis: null,

  init() {
    // The numbers may be a moment behind the pointer, the picture may not.
    this.painter = (scene, shift) => {
      this.timer ||= setTimeout(() => {
        this.timer = 0;
        this.read();
      }, BEHIND_MS);
      return () => this.placeBounds(scene.axes, shift);
    };
    engine.picture.painters.add(this.painter);
  },
  destroy() {
    engine.picture.painters.delete(this.painter);
    clearTimeout(this.timer);
  },
  /** The bounds stand at the ends of the axes, or at the edges if these are out of sight. */
  placeBounds(axes, shift) {
    const { x_axis, y_axis } = axes;
    const { width, height } = engine.size;
    const level = boundLevel(x_axis === null ? null : down(shift, x_axis), height, boundPx());
    const upright = boundUpright(y_axis === null ? null : across(shift, y_axis), width);
    const { across: onAxis, upright: onUpright, yLow, yHigh, xGrip, yGrip } = this.$refs;
    const onEdge = (tenths, shifted, length) =>
      tenths === null || shifted < 0 || shifted > length ? null : shifted;
    const axisLevel = onEdge(x_axis, down(shift, x_axis ?? 0), height);
    const axisUpright = onEdge(y_axis, across(shift, y_axis ?? 0), width);
    setHidden(xGrip, axisLevel === null);
    setHidden(yGrip, axisUpright === null);
    slideBy(onAxis, 0, level);
    slideBy(onUpright, upright, 0);
    if (axisLevel !== null) slideBy(xGrip, 0, Math.round(axisLevel) - level);
    if (axisUpright !== null) slideBy(yGrip, Math.round(axisUpright) - upright, 0);
    // The tool bar leaves the numbers of the axis free.
    const isLow = axisLevel !== null && axisLevel > height - UNDER_TOOLS_PX;
    this.$refs.tools.classList.toggle("is-high", isLow);
    slideBy(yLow, 0, -liftAbove(upright, width));
    slideBy(yHigh, 0, titleHeight(axes));
  },
  /** The handles at the ends of the axes stretch them. */
  grabAxis(event) {
    if (!takeHold(event, { isFocused: true })) return;
    this.axis = held(engine, event.currentTarget.dataset.axis, this.alongAxis(event));
  },
  dragAxis(event) {
    if (this.axis) stretchTo(engine, this.axis, this.alongAxis(event));
  },
  dropAxis() {
    if (this.axis) engine.changed("window");
    this.axis = null;
  },
  /** Where a pointer stands along the axis that it holds, in px of the plane. */
  alongAxis(event) {
    const at = pointOn(this.$root, event);
    return event.currentTarget.dataset.axis === "x" ? at.x : at.y;
  },
  keyAxis(event) {
    const isLonger = ["ArrowRight", "ArrowUp", "+"].includes(event.key);
    if (!isLonger && !["ArrowLeft", "ArrowDown", "-"].includes(event.key)) return;
    event.preventDefault();
    stretchStep(engine, event.currentTarget.dataset.axis, isLonger);
  },
  select(event) {
    event.target.select();
  },
  toggleEqual() {
    changeAxes(engine, { equal: !this.$store.bench.axes.equal });
  },
  get variable() {
    const functions = this.$store.bench.functions;
    return functions.length && functions.every((row) => row.variable === functions[0].variable)
      ? functions[0].variable
      : "x";
  },
  /** Show the present window, but leave alone what is being typed. */
  read() {
    const { activeElement } = document;
    if (activeElement?.closest(".plane-bound, .reading-field")) return;
    this.showBounds();
    this.reading = engine.picture.scene?.reading?.text ?? "";
    this.problem = "";
  },
  /** Show the window that is drawn. */
  showBounds() {
    const { x, y, log_x, log_y } = engine.window;
    const texts = [
      ...rounded(x, engine.size.width, log_x),
      ...rounded(y, engine.size.height, log_y),
    ];
    const names = ["x_low", "x_high", "y_low", "y_high"];
    [this.xLow, this.xHigh, this.yLow, this.yHigh] = texts.map(
      (text, k) => engine.viewport.follows[names[k]] ?? text,
    );
    this.shown = [this.xLow, this.xHigh];
  },
  /** A typed place of the reading line, such as 2pi; the window follows if it is outside. */
  async readTyped() {
    try {
      this.problem = "";
      await engine.askReading(this.reading);
    } catch (error) {
      this.problem = error.message;
    }
  },
  zoomIn() {
    zoomStep(engine, true);
  },
  zoomOut() {
    zoomStep(engine, false);
  },
  toggleWords() {
    this.$store.bench.isDescribed = !this.$store.bench.isDescribed;
  },
  togglePlaneOnly() {
    this.$store.bench.isPlaneOnly = !this.$store.bench.isPlaneOnly;
  },
  toggleBox() {
    this.$store.bench.isBoxing = !this.$store.bench.isBoxing;
  },
  stepBack() {
    engine.viewport.step(-1);
  },
  stepForward() {
    engine.viewport.step(1);
  },
  home() {
    askWindow(engine, { how: "home" });
  },
  frame() {
    askWindow(engine, { how: "frame" });
  },
  async keep() {
    try {
      const bounds = { x_low: this.xLow, x_high: this.xHigh, y_low: this.yLow, y_high: this.yHigh };
      this.problem = "";
      // With equal scales what was typed stays, and the other axis goes by it.
      const isAcross = this.xLow !== this.shown[0] || this.xHigh !== this.shown[1];
      await engine.askWindow({ how: "bounds", bounds }, isAcross ? "x" : "y");
      this.showBounds();
    } catch (error) {
      this.problem = error.message;
    }
  },
});

/** Bounds with as many figures as a pixel can tell. */
function rounded([low, high], px, isLog) {
  if (isLog)
    return unitsOf([low, high], true).map((value) =>
      String(Number(value.toPrecision(4))).replace("-", "−"),
    );
  const decimalPlaces = Math.ceil(Math.log10((10 * px) / (high - low)));
  const shown = (value) => {
    const text =
      decimalPlaces > 12 || decimalPlaces < -6
        ? value.toPrecision(6)
        : value.toFixed(Math.max(decimalPlaces, 0));
    return String(Number(text)).replace("-", "−");
  };
  return [shown(low), shown(high)];
}

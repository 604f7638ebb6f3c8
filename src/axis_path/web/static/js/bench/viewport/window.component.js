// @ts-check
/** The bounds of the window as numbers that can be typed. */

import { askWindow, zoomStep } from "./actions.js";
import { unitsOf } from "./affine.model.js";

const BEHIND_MS = 80;

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

  init() {
    // The numbers may be a moment behind the hand, the picture may not.
    this.painter = () => {
      this.timer ||= setTimeout(() => {
        this.timer = 0;
        this.read();
      }, BEHIND_MS);
    };
    engine.painters.add(this.painter);
  },
  destroy() {
    engine.painters.delete(this.painter);
    clearTimeout(this.timer);
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
    if (activeElement?.closest(".window-line")) return;
    this.showBounds();
    this.reading = engine.scene?.reading?.text ?? "";
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
  const places = Math.ceil(Math.log10((10 * px) / (high - low)));
  const shown = (value) => {
    const text =
      places > 12 || places < -6 ? value.toPrecision(6) : value.toFixed(Math.max(places, 0));
    return String(Number(text)).replace("-", "−");
  };
  return [shown(low), shown(high)];
}

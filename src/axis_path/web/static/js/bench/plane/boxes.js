// @ts-check
/** Boxes that are drawn on the plane: to zoom into, to search in, to choose points of data. */
import { shortest } from "../panels/findings/findings.model.js";
import { lookThrough } from "../viewport/actions.js";
import { abscissa, boxed } from "../viewport/affine.model.js";

/** A box that is narrower is a click. */
const STILL_PX = 3;

/** @param {import("../session/engine.js").Engine} engine */
export function makeBoxes(engine) {
  return {
    /** The box that is being drawn. @type {any} */
    box: null,
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

    get isBoxing() {
      return this.$store.bench.isBoxing;
    },
  };
}

// @ts-check
/** Keys of the plane. */
import { askWindow, lookThrough, zoomStep } from "../viewport/actions.js";
import { moved } from "../viewport/affine.model.js";

const MOVE_PX = 40;
/** A coarse step of the reading line is so many fine ones. */
const COARSE = 10;

/** @param {import("../session/engine.js").Engine} engine */
export function makePlaneKeys(engine) {
  return {
    key(event) {
      const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[
        event.key
      ];
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key.length === 1 && !this.$store.bench.hasShortcuts) return;
      if (step && event.shiftKey)
        lookThrough(
          engine,
          moved(engine.window, engine.size, -step[0] * MOVE_PX, step[1] * MOVE_PX),
        );
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
  };
}

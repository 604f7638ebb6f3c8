// @ts-check
/** What all lanes are painted on. */
import { LaneLayers } from "./lanes.layer.js";

/** @param {import("../session/engine.js").Engine} engine */
export const lanes = (engine) => () => {
  /** @type {LaneLayers | null} */
  let layers = null;
  return {
    init() {
      layers = new LaneLayers(engine, this.$root);
    },
    destroy() {
      layers?.end();
    },
  };
};

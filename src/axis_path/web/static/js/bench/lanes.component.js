// @ts-check
/** What all lanes are painted on. */
import { LaneSheets } from "./lanes.sheet.js";

/** @param {import("./engine.js").Engine} engine */
export const lanes = (engine) => () => {
  /** @type {LaneSheets | null} */
  let sheets = null;
  return {
    init() {
      sheets = new LaneSheets(engine, this.$root);
    },
    destroy() {
      sheets?.end();
    },
  };
};

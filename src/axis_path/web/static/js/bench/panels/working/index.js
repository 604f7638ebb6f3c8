// @ts-check
/** The working panel, for the registry. */
import { workCells } from "./cells.component.js";
import { workReduction } from "./reduction.component.js";
import { working } from "./working.component.js";
import { workingLine } from "./working_line.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = {
  name: "working",
  title: "Working",
  components: { working, workingLine, workCells, workReduction },
};

// @ts-check
/** The working panel, for the registry. */

import { say } from "../../../shared/words.js";
import { workCells } from "./cells.component.js";
import { workReduction } from "./reduction.component.js";
import { working } from "./working.component.js";
import { workingLine } from "./working_line.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = {
  name: "working",
  title: say("Working"),
  components: { working, workingLine, workCells, workReduction },
};

// @ts-check
/** The values panel, for the registry. */

import { say } from "../../../shared/words.js";
import { samplingCheck } from "../../plane/check.component.js";
import { trailBox } from "../../rows/trail.component.js";
import { tableColumns } from "./columns.component.js";
import { values } from "./values.component.js";
import { whatIf } from "./what_if.component.js";
import { whatIfCurves } from "./what_if_curves.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = {
  name: "values",
  title: say("Values"),
  components: { tableColumns, values, samplingCheck, trailBox, whatIf, whatIfCurves },
};

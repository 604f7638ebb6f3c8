// @ts-check
/** The findings panel, for the registry. */

import { say } from "../../../shared/words.js";
import { findingCard, findingItem } from "./finding.component.js";
import { findings } from "./findings.component.js";
import { sweepBox } from "./sweep.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = {
  name: "findings",
  title: say("Findings"),
  components: { findingCard, findingItem, findings, sweepBox },
};

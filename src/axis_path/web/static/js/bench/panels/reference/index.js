// @ts-check
/** The reference panel, for the registry. */

import { say } from "../../../shared/words.js";
import { reference, referenceEntry } from "./reference.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = {
  name: "reference",
  title: say("Reference"),
  components: { reference, referenceEntry },
};

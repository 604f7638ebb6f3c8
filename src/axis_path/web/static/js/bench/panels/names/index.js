// @ts-check
/** The panel of all names, for the registry. */

import { say } from "../../../shared/words.js";
import { nameList } from "./names.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = { name: "names", title: say("Names"), components: { nameList } };

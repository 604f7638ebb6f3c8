// @ts-check
/** The data panel, for the registry. */

import { say } from "../../../shared/words.js";
import { dataPanel } from "./data.component.js";
import { fitCard } from "./fit_card.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = { name: "data", title: say("Data"), components: { dataPanel, fitCard } };

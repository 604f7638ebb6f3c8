// @ts-check
/** The data panel, for the registry. */
import { dataPanel } from "./data.component.js";
import { fitCard } from "./fit_card.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = { name: "data", title: "Data", components: { dataPanel, fitCard } };

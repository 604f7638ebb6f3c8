// @ts-check
/** The data panel, for the registry. */
import { dataPanel, fitCard } from "./data.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = { name: "data", title: "Data", components: { dataPanel, fitCard } };

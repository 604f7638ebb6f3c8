// @ts-check
/** The reference panel, for the registry. */
import { reference, referenceEntry } from "./reference.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = {
  name: "reference",
  title: "Reference",
  components: { reference, referenceEntry },
};

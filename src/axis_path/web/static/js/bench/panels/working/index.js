// @ts-check
/** The working panel, for the registry. */
import { working, workingLine } from "./working.component.js";

/** @type {import("../registry.js").Panel} */
export const panel = {
  name: "working",
  title: "Working",
  components: { working, workingLine },
};

// @ts-check
/** Every panel at the side, in the order of its tabs: a panel is a folder and a line here. */
import { panel as data } from "./data/index.js";
import { panel as findings } from "./findings/index.js";
import { panel as names } from "./names/index.js";
import { panel as reference } from "./reference/index.js";
import { panel as values } from "./values/index.js";
import { panel as working } from "./working/index.js";

/**
 * @typedef {object} Panel
 * @property {string} name of its folder, which holds its template of the same name.
 * @property {string} title of its tab.
 * @property {Record<string, (engine: any) => () => any>} components that its template uses.
 */

/** @type {readonly Panel[]} */
export const PANELS = Object.freeze([findings, values, data, working, names, reference]);

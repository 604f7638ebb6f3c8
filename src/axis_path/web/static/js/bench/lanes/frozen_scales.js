// @ts-check
/** The scales of paths' lanes during a drag, by the ids of their rows: they do not follow it. @type {Map<number, {low: number, high: number}>} */
export const frozenScales = new Map();

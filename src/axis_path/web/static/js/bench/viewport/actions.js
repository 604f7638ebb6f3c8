// @ts-check
/** Ways to change the window that buttons and keys share. */
import { isDrawable, zoomed } from "./affine.model.js";

/** @typedef {import("../session/engine.js").Engine} Engine */
const KEY_ZOOM = 1.25;

/** Look through another window if it can be drawn truly. @param {Engine} engine @param {any} window */
export function lookThrough(engine, window) {
  if (isDrawable(window)) engine.viewport.set(window);
}

/** Zoom about the middle. @param {Engine} engine @param {boolean} isCloser */
export function zoomStep(engine, isCloser) {
  const middle = { x: engine.size.width / 2, y: engine.size.height / 2 };
  lookThrough(
    engine,
    zoomed(engine.window, engine.size, middle, isCloser ? 1 / KEY_ZOOM : KEY_ZOOM),
  );
}

/** Ask for the home window, or for one that fits what is drawn, or one row of it. @param {Engine} engine @param {object} request */
export function askWindow(engine, request) {
  return engine.askWindow(request).catch((error) => engine.complain(error));
}

/** Change how the axes look. @param {Engine} engine @param {object} axes what differs. */
export function changeAxes(engine, axes) {
  return engine.commit([{ do: "axes", axes }]);
}

/** Move the reading line, and the window with it if it would leave it. @param {Engine} engine @param {number} x @param {boolean} [isTyped] whether it is taken as it is. */
export function showAt(engine, x, isTyped = false) {
  engine.viewport.reveal(x);
  engine.read(x, null, isTyped);
}

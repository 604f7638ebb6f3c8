// @ts-check
/**
 * What the plane shows besides its curves, while the window is being stretched: painted on two canvases, one below
 * the curves and one above. All of it changes in every frame then, and a browser takes several times as long for
 * elements, which it styles, lays out, paints and puts together anew. As soon as the hand rests they stand again.
 */
import { isMoved } from "./affine.model.js";
import { Looks, paintParts } from "./parts.paint.js";
import { slideBy } from "./slide.model.js";
import { put } from "./svg.js";

/** @typedef {import("./svg.js").Part} Part */

/** The layers of elements, from the lowest: those below the curves, @type {string[]} */
const UNDER = ["grid", "xLabels", "yLabels", "edges", "xName", "yName"];
/** and those above them. */
const OVER = ["marks", "found", "pinned"];
export const LAYERS = [...UNDER, ...OVER];
/** A hand that has stretched nothing for so long is at rest. */
const REST_MS = 120;

/**
 * Shows the parts of a plane as elements, or as sketches. It is frozen, so that Alpine gives it as it is and not as a proxy.
 * @param {Record<string, any>} refs the layers by name, both canvases, `under` and `over`, and the `surface` that holds them.
 */
export function sketchOn(refs) {
  const looks = new Looks(refs.grid);
  /** The window that was shown last. @type {any} */
  let shown = null;
  let stretchedAt = -Infinity;
  /** Whether it was stretched more than once without a rest: a single step is as quick with elements. */
  let isGoingOn = false;
  let timer = 0;
  /** What is on the canvases, and not yet among the elements. @type {Record<string, Part[]> | null} */
  let sketched = null;

  /** @param {Record<string, Part[]>} parts */
  const stand = (parts) => {
    for (const name of LAYERS) {
      slideBy(refs[name], 0, 0);
      put(refs[name], parts[name]);
    }
  };

  /** Let elements stand for what is on the canvases. */
  const rest = () => {
    clearTimeout(timer);
    if (!sketched) return;
    stand(sketched);
    sketched = null;
    refs.surface.classList.remove("is-sketched");
  };

  /**
   * Show parts, as elements or on the canvases.
   * @param {Record<string, Part[]>} parts by their layers. @param {any} window @param {{width: number, height: number}} size
   */
  const show = (parts, window, size) => {
    const now = performance.now();
    const isRecent = now - stretchedAt < REST_MS;
    const isStretched = shown !== null && !isMoved(shown, window);
    shown = window;
    if (isStretched) stretchedAt = now;
    isGoingOn = isRecent && (isStretched || isGoingOn);
    if (!isGoingOn) {
      rest();
      stand(parts);
      return;
    }
    for (const [canvas, layers] of [[refs.under, UNDER], [refs.over, OVER]]) paintParts(canvas, layers.flatMap((name) => parts[name]), size, looks);
    if (!sketched) refs.surface.classList.add("is-sketched");
    sketched = parts;
    clearTimeout(timer);
    timer = setTimeout(rest, REST_MS);
  };

  return Object.freeze({ show, rest, forget: () => looks.forget() });
}

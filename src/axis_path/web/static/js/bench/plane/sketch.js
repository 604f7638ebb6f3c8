// @ts-check
/**
 * What the plane shows while its window is being stretched: one canvas, with the curves on it. All of it
 * changes in every frame then, and a browser takes several times as long for elements, which it styles, lays out,
 * paints and puts together anew. As soon as the pointer rests they stand again.
 */
import { isMoved } from "../viewport/affine.model.js";
import { slideBy } from "../viewport/slide.model.js";
import { cleared } from "./canvas.js";
import { Looks, paintParts } from "./parts.paint.js";
import { put } from "./svg.js";

/** @typedef {import("./svg.js").Part} Part */

/** The layers of elements, from the lowest: those below the curves, @type {string[]} */
const UNDER = ["grid", "edges"];
/** and those above them: a curve that crosses a number would make another one of it. */
const OVER = ["angleLabels", "xLabels", "yLabels", "xName", "yName", "marks", "findings", "pinned"];
export const LAYERS = [...UNDER, ...OVER];
/** A pointer that has stretched nothing for so long is at rest. */
const REST_MS = 120;

/**
 * The parts by their layers, and what paints the curves on a canvas, and where they are to stand.
 * @typedef {{parts: Record<string, Part[]>, paintCurves: (canvas: any) => void, standCurves: () => void}} Picture
 */

/**
 * Shows a plane as it is, or as a sketch. It is frozen, so that Alpine gives it as it is and not as a proxy.
 * @param {Record<string, any>} refs the layers by name, the canvases `curves` and `sketch`, and the `surface` that holds them.
 */
export function sketchOn(refs) {
  const looks = new Looks(refs.grid);
  /** The window that was shown last. @type {any} */
  let shown = null;
  let stretchedAt = -Infinity;
  /** Whether it was stretched more than once without a rest: a single step is as quick with elements. */
  let isGoingOn = false;
  let timer = 0;
  /** What is on the sketch, and does not stand yet. @type {Picture | null} */
  let sketched = null;

  /** Let parts stand as elements. @param {Record<string, Part[]>} parts */
  const stand = (parts) => {
    for (const name of LAYERS) {
      slideBy(refs[name], 0, 0);
      put(refs[name], parts[name]);
    }
  };

  /** Let stand what is on the sketch. */
  const rest = () => {
    clearTimeout(timer);
    if (!sketched) return;
    sketched.standCurves();
    stand(sketched.parts);
    sketched = null;
    refs.surface.classList.remove("is-sketched");
  };

  /** Whether the next picture is sketched: a pointer goes on stretching its window. @param {any} window */
  const isNext = (window) => {
    const now = performance.now();
    const isRecent = now - stretchedAt < REST_MS;
    const isStretched = shown !== null && !isMoved(shown, window);
    shown = window;
    if (isStretched) stretchedAt = now;
    isGoingOn = isRecent && (isStretched || isGoingOn);
    return isGoingOn;
  };

  /** Show a picture as a sketch. @param {Picture} picture @param {{width: number, height: number}} size */
  const show = (picture, size) => {
    const canvas = cleared(refs.sketch, size, 0);
    const paint = (layers) =>
      paintParts(
        canvas,
        layers.flatMap((name) => picture.parts[name]),
        looks,
      );
    paint(UNDER);
    picture.paintCurves(canvas);
    paint(OVER);
    if (!sketched) refs.surface.classList.add("is-sketched");
    sketched = picture;
    clearTimeout(timer);
    timer = setTimeout(rest, REST_MS);
  };

  return Object.freeze({ isNext, show, stand, rest, forget: () => looks.forget() });
}

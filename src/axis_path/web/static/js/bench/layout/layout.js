// @ts-check
/** Owns the sizes of the parts of the Bench: sets them on the page and keeps them in this browser. */
import { fitted, grownSide, limitsOf, readSizes, USUAL } from "./layout.model.js";

/** @typedef {import("./layout.model.js").Part} Part */

const KEY = "axis-path-layout";
/** On a phone it is a sheet from below. */
const SHEET = "(max-width: 43.75em)";
/** Between these widths the side panel lies over the plane. */
const OVERLAY = "(min-width: 62.5625em) and (max-width: 73.6875em)";

export class Layout {
  /** @param {any} store */
  constructor(store) {
    this.store = store;
    this.sizes = readSizes(read());
    /** How wide the definitions would have to be, so that none takes a second line. */
    this.wanted = 0;
    this.overlay = matchMedia(OVERLAY);
    this.overlay.addEventListener("change", () => this.follow());
    this.sheet = matchMedia(SHEET);
    this.sheet.addEventListener("change", () => this.follow());
    this.follow();
    this.followKeyboard();
  }

  /** Above an on-screen keyboard less of the page is seen. */
  followKeyboard() {
    const { visualViewport } = window;
    if (!visualViewport) return;
    const tell = () => {
      const { style } = document.documentElement;
      style.setProperty("--visible-height", `${Math.round(visualViewport.height)}px`);
      style.setProperty("--visible-top", `${Math.round(visualViewport.offsetTop)}px`);
    };
    for (const name of ["resize", "scroll"]) visualViewport.addEventListener(name, tell);
    tell();
  }

  /** Fold the panel where it lies over the plane, until it is opened. */
  follow() {
    this.store.isOverlay = this.overlay.matches;
    this.store.isOverlayOpen = false;
    this.store.isSheet = this.sheet.matches;
    this.store.isSheetOpen = false;
  }

  /** The element whose properties hold the sizes, once the page stands. */
  get body() {
    return /** @type {HTMLElement | null} */ (document.querySelector(".bench-body"));
  }

  /** What the parts share. */
  get room() {
    const { body } = this;
    return body
      ? { width: body.clientWidth, height: body.clientHeight }
      : { width: innerWidth, height: innerHeight };
  }

  /** @param {Part} part @returns {[number, number]} */
  limits(part) {
    return limitsOf(part, this.room, this.sizes);
  }

  /** The size of a part as it is shown. @param {Part} part */
  size(part) {
    const { sizes, room } = this;
    const isGrowing = part === "side" && sizes.side === USUAL.side;
    const size = isGrowing ? grownSide(this.wanted, room, sizes) : sizes[part];
    return fitted(part, size, room, sizes);
  }

  /** Let the definitions have the width that the longest of them takes, until somebody sets it. @param {number} width */
  grow(width) {
    if (width === this.wanted) return;
    this.wanted = width;
    this.apply();
  }

  /** Give a part another size. @param {Part} part @param {number} size */
  resize(part, size) {
    this.sizes[part] = fitted(part, size, this.room, this.sizes);
    this.apply();
  }

  /** Give a part its usual size. @param {Part} part */
  reset(part) {
    this.resize(part, USUAL[part]);
    this.keep();
  }

  /** Set the sizes on the page. */
  apply() {
    const style = this.body?.style;
    style?.setProperty("--side-width", `${this.size("side")}px`);
    style?.setProperty("--panel-width", `${this.size("panel")}px`);
    style?.setProperty("--plane-part", `${this.size("plane")}%`);
  }

  /** Keep the sizes in this browser. */
  keep() {
    try {
      localStorage.setItem(KEY, JSON.stringify(this.sizes));
    } catch {
      // Storage can be closed; the sizes then last as long as the page.
    }
  }
}

function read() {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}

// @ts-check
/** A border between two parts of the Bench: dragged, moved with the keys, returned with a double click. */
import { takeHold } from "../../shared/hold.js";
import { say } from "../../shared/words.js";

/** @typedef {import("./layout.model.js").Part} Part */

const STEP_PX = 16;
const LARGE_STEP_PX = 80;

/** @param {import("./layout.js").Layout} layout */
export const splitter = (layout) => () => ({
  /** @type {Part} */
  part: "plane",
  /** The size as it is shown, for those who listen. */
  now: 0,
  /** Where the pointer took hold, and the size then. @type {{at: number, size: number} | null} */
  held: null,
  /** @type {any} */
  resized: null,

  init() {
    this.part = /** @type {Part} */ (this.$root.dataset.part);
    this.resized = new ResizeObserver(() => this.show());
    this.resized.observe(/** @type {HTMLElement} */ (layout.body));
  },
  destroy() {
    this.resized.disconnect();
  },
  get isAcross() {
    return this.part === "plane";
  },
  get least() {
    return layout.limits(this.part)[0];
  },
  get most() {
    return layout.limits(this.part)[1];
  },
  get spoken() {
    return this.isAcross
      ? say("{count} percent", { count: this.now })
      : say("{count} pixels", { count: this.now });
  },
  /** The page may have another size: what is kept is fitted into it. */
  show() {
    layout.apply();
    this.now = layout.size(this.part);
  },
  /** Change the size by so many px in the direction in which it grows. @param {number} from @param {number} px */
  resize(from, px) {
    const by = this.isAcross ? (100 * px) / layout.room.height : px;
    layout.resize(this.part, from + by);
    this.now = layout.size(this.part);
  },
  /** The side panel grows to the left. @param {PointerEvent} event */
  along(event) {
    if (this.isAcross) return event.clientY;
    return this.part === "panel" ? -event.clientX : event.clientX;
  },
  grab(event) {
    if (!takeHold(event, { isFocused: true })) return;
    this.held = { at: this.along(event), size: layout.size(this.part) };
  },
  drag(event) {
    if (this.held) this.resize(this.held.size, this.along(event) - this.held.at);
  },
  drop() {
    if (!this.held) return;
    this.held = null;
    layout.keep();
  },
  /** @param {KeyboardEvent} event */
  key(event) {
    const grows = this.isAcross ? "ArrowDown" : this.part === "panel" ? "ArrowLeft" : "ArrowRight";
    const shrinks = this.isAcross ? "ArrowUp" : this.part === "panel" ? "ArrowRight" : "ArrowLeft";
    const step = event.shiftKey ? LARGE_STEP_PX : STEP_PX;
    if (event.key === grows) this.resize(layout.size(this.part), step);
    else if (event.key === shrinks) this.resize(layout.size(this.part), -step);
    else if (event.key === "Home") layout.resize(this.part, this.least);
    else if (event.key === "End") layout.resize(this.part, this.most);
    else if (event.key === "Enter") this.reset();
    else return;
    event.preventDefault();
    this.now = layout.size(this.part);
    layout.keep();
  },
  reset() {
    layout.reset(this.part);
    this.now = layout.size(this.part);
  },
});

// @ts-check
/** The list of rows: which are chosen, and in what order they stand. */
import { takeHold } from "../../shared/hold.js";
import { naturalWidth } from "../../shared/mathml.js";
import { say, sayCount } from "../../shared/words.js";

/** What stands beside a formula in its column, in px. */
const BESIDE_FORMULA_PX = 112;

/** @param {import("../session/engine.js").Engine} engine @param {import("../layout/layout.js").Layout} layout */
export const rows = (engine, layout) => () => ({
  /** @type {any[]} */
  chosenRows: [],
  /** The row that is being moved, and the row it would stand behind. @type {any} */
  moving: null,

  init() {
    this.$watch("formulas", () => this.$nextTick(() => this.grow()));
    document.fonts.addEventListener("loadingdone", () => this.grow());
  },
  /** What is written in all rows: when it changes, the column may have to be wider. */
  get formulas() {
    return this.shownRows.map((row) => row.mathml).join();
  },
  grow() {
    const formulas = [
      ...this.$refs.rows.querySelectorAll(".row-item:not(.is-laneless) .row-formula > :last-child"),
    ];
    layout.grow(Math.ceil(BESIDE_FORMULA_PX + Math.max(0, ...formulas.map(naturalWidth))));
  },
  get hasChosen() {
    return this.chosenRows.length > 0;
  },
  get chosenText() {
    return sayCount("{count} line selected", "{count} lines selected", this.chosenRows.length);
  },
  /** The row that was chosen last: with Shift all from there on are chosen. @type {number | null} */
  chosenLast: null,

  /** Choose a row, or choose it no more; a range goes on from the row before. */
  choose(id, isRange = false) {
    const ids = this.shownRows.map((row) => row.id);
    const [from, to] = [ids.indexOf(this.chosenLast), ids.indexOf(id)];
    if (isRange && from >= 0) {
      const range = ids.slice(Math.min(from, to), Math.max(from, to) + 1);
      this.chosenRows = [...new Set([...this.chosenRows, ...range])];
    } else if (this.chosenRows.includes(id)) {
      this.chosenRows = this.chosenRows.filter((other) => other !== id);
    } else {
      this.chosenRows = [...this.chosenRows, id];
    }
    this.chosenLast = id;
  },
  chooseNone() {
    this.chosenRows = [];
  },
  async deleteChosen() {
    const ids = [...this.chosenRows];
    const error = await engine.carryOut([{ do: "remove_several", ids }]);
    if (!error)
      this.$store.bench.say(
        say("{count} lines were deleted. Undo brings them back.", { count: ids.length }),
        true,
      );
    this.chosenRows = [];
  },
  hideChosen() {
    engine.carryOut(this.chosenRows.map((id) => ({ do: "hide", id, hidden: true })));
    this.chosenRows = [];
  },
  disableChosen() {
    engine.carryOut(this.chosenRows.map((id) => ({ do: "disable", id, disabled: true })));
    this.chosenRows = [];
  },

  /** Where a row is dropped: behind the last row whose middle lies above the pointer. */
  placeFor(y, id) {
    /** @type {number | null} */
    let after = null;
    for (const item of this.$refs.rows.querySelectorAll(".row-item")) {
      const box = item.getBoundingClientRect();
      const other = Number(item.dataset.row);
      if (box.top + box.height / 2 < y && other !== id) after = other;
    }
    return after;
  },
  grip(event, id) {
    if (!takeHold(event)) return;
    this.moving = { id, from: event.clientY, after: undefined };
  },
  pull(event) {
    if (!this.moving || Math.abs(event.clientY - this.moving.from) < 5) return;
    this.moving.after = this.placeFor(event.clientY, this.moving.id);
  },
  letGo(event) {
    const { moving } = this;
    this.moving = null;
    if (!moving) return;
    if (moving.after === undefined) this.choose(moving.id, event.shiftKey);
    else this.move(moving.id, moving.after);
  },
  gripKey(event, id) {
    if (event.key === " " || event.key === "Enter") this.choose(id, event.shiftKey);
    else if (event.key === "ArrowUp" || event.key === "ArrowDown")
      this.shift(id, event.key === "ArrowDown" ? 1 : -1);
    else return;
    event.preventDefault();
  },
  /** Move a row one place up or down among those that are shown. */
  shift(id, by) {
    const ids = this.shownRows.map((row) => row.id);
    const to = ids.indexOf(id) + by;
    if (to < 0 || to >= ids.length) return;
    this.move(id, by > 0 ? ids[to] : (ids[to - 1] ?? null));
  },
  move(id, after) {
    return engine.commit([{ do: "move", id, after }]);
  },
  /** The number of a row, as it is shown. */
  numberOf(id) {
    return this.shownRows.findIndex((row) => row.id === id) + 1;
  },
  /** Put the focus on a row, or on the nearest that is left; without any, where the next is written. */
  focusAt(index, part = ".row-more") {
    const list = /** @type {HTMLElement} */ (document.querySelector(".rows"));
    this.$nextTick(() => {
      const rows = list.querySelectorAll(".row-item");
      const row = rows[Math.min(index, rows.length - 1)];
      const target = row?.querySelector(part) ?? document.getElementById("new-line");
      /** @type {HTMLElement} */ (target).focus();
    });
  },
  /** Sliders have their own place; a slider with a problem shows as a row, where it can be mended. */
  get shownRows() {
    const sliders = new Set(this.$store.bench.sliders.map((slider) => slider.id));
    return this.$store.bench.rows.filter((row) => !sliders.has(row.id) || row.problem);
  },
});

// @ts-check
/** The legend: a sample of each stroke with its formula; it can be dragged. */
import { takeHold } from "../../shared/hold.js";
import { changeAxes } from "../viewport/actions.js";

const KEY_PX = 8;
const STEPS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** @param {import("../session/engine.js").Engine} engine */
export const legend = (engine) => () => ({
  /** @type {any} */
  held: null,
  /** Where the pointer has put it, until the server has. @type {any} */
  at: null,

  init() {
    this.$watch("$store.bench.legend", () => this.put());
    this.put();
  },
  get isShown() {
    return this.$store.bench.legend !== null;
  },
  get lines() {
    const { legend, rows } = this.$store.bench;
    const shown = new Set(legend ? legend.rows : []);
    return rows
      .filter((row) => shown.has(row.id))
      .map((row) => ({ id: row.id, mathml: row.mathml, tone: `tone-${row.tone % 8}` }));
  },
  place() {
    const { legend } = this.$store.bench;
    return this.at ?? { x: legend.x, y: legend.y };
  },
  put() {
    if (!this.isShown) return;
    const { x, y } = this.place();
    this.$root.style.setProperty("--legend-row", `${this.$store.bench.legend.row}px`);
    Object.assign(this.$root.style, {
      left: `${x}px`,
      top: `${y}px`,
      width: `${this.$store.bench.legend.width}px`,
    });
  },
  grab(event) {
    event.stopPropagation();
    if (!takeHold(event)) return;
    this.held = { x: event.clientX, y: event.clientY, from: this.place() };
  },
  drag(event) {
    event.stopPropagation();
    if (!this.held) return;
    this.at = {
      x: this.held.from.x + event.clientX - this.held.x,
      y: this.held.from.y + event.clientY - this.held.y,
    };
    this.put();
  },
  drop() {
    if (this.held && this.at) this.keep();
    this.held = null;
  },
  key(event) {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    const { x, y } = this.place();
    this.at = { x: x + step[0] * KEY_PX, y: y + step[1] * KEY_PX };
    this.put();
  },
  keyEnd(event) {
    if (STEPS[event.key] && this.at) this.keep();
  },
  async keep() {
    const { width, height } = engine.size;
    await changeAxes(engine, { legend_at: [this.at.x / width, this.at.y / height] });
    this.at = null;
    this.put();
  },
});

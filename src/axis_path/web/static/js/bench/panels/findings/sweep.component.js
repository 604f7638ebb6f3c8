// @ts-check
/** A finding followed over the range of a slider: asked for, waited for, shown as a curve and a table. */
import { getAlways, post } from "../../../shared/api.js";
import { saveAs } from "../../../shared/save.js";
import { say } from "../../../shared/words.js";
import { label, put, svg } from "../../plane/svg.js";
import { plotOf } from "./sweep.model.js";

const LOOK_MS = 250;
const SHOWN = 40;
const SIZE = { width: 300, height: 190 };
const TITLES = {
  zeros: say("Zeros"),
  extrema: say("Extrema"),
  intersections: say("Intersections"),
};
const WHAT = [
  { value: "zeros", words: say("the zeros") },
  { value: "extrema", words: say("the extrema") },
  { value: "intersections", words: say("the intersections") },
];

/** @param {import("../../session/engine.js").Engine} engine */
export const sweepBox = (engine) => () => ({
  what: "zeros",
  line: "",
  other: "",
  slider: "",
  low: "",
  high: "",
  count: "61",
  over: "range",
  /** @type {"x" | "y"} */
  measure: "x",
  problem: "",
  /** The sweep that is under way. @type {any} */
  running: null,
  /** @type {any} */
  result: null,
  from: 0,
  isOld: false,
  whats: WHAT,
  /** @type {any} */
  watcher: null,
  /** @type {any} */
  replot: null,
  timer: 0,

  init() {
    this.watcher = {
      mark: () => {
        this.isOld = this.result !== null;
      },
      ask: () => {},
      isBehind: () => false,
    };
    engine.subscriptions.add(this.watcher);
    this.$watch("measure", () => this.plot());
    this.replot = () => this.plot();
    document.addEventListener("themechange", this.replot);
  },
  destroy() {
    document.removeEventListener("themechange", this.replot);
    engine.subscriptions.delete(this.watcher);
    clearTimeout(this.timer);
  },
  get canSweep() {
    return this.$store.bench.functions.length > 0 && this.$store.bench.sliders.length > 0;
  },
  get isMeeting() {
    return this.what === "intersections";
  },
  /** What can be chosen; what is chosen is always one of them, so that the list shows what is used. */
  get sweepRows() {
    return this.among("line", this.$store.bench.functions, -1);
  },
  get others() {
    return this.among(
      "other",
      this.$store.bench.functions.filter((row) => String(row.id) !== this.line),
      0,
    );
  },
  get sweepSliders() {
    return this.among("slider", this.$store.bench.sliders, 0);
  },
  among(name, list, usual) {
    if (list.length && !list.some((option) => String(option.id) === this[name]))
      this[name] = String(list.at(usual).id);
    return list;
  },
  /** Lines that are drawn for several values of the chosen slider. */
  get families() {
    const rows = this.$store.bench.rows.filter((row) => String(row.family?.slider) === this.slider);
    return rows.map((row) => ({
      id: row.id,
      words: say("the family of {name}", { name: row.name ?? row.text }),
    }));
  },
  get isByCount() {
    return this.over === "range";
  },
  get isRunning() {
    return this.running !== null;
  },
  get progressText() {
    const { done, total } = this.running ?? { done: 0, total: 0 };
    return done ? say("{done} of {total} values", { done, total }) : say("waiting for its turn …");
  },
  get hasResult() {
    return this.result !== null;
  },
  get resultTitle() {
    const { what, name, other, slider } = this.result;
    const of = other ? say("{first} and {second}", { first: name, second: other }) : name;
    return say("{what} of {of} against {slider}", { what: TITLES[what], of, slider });
  },
  get events() {
    return this.result.events.map((event, key) => ({ ...event, key }));
  },
  get eventsText() {
    const values = this.result.rows.length;
    return this.result.events.length
      ? ""
      : say("Nothing appears or vanishes at the {count} values that were checked.", {
          count: values,
        });
  },
  get hasY() {
    return this.result.what !== "zeros";
  },
  get lines() {
    return this.result.rows.slice(this.from, this.from + SHOWN).map((row, k) => ({
      key: this.from + k,
      value: row.value,
      items:
        row.items.map((item) => (item.y ? `(${item.x}, ${item.y})` : item.x)).join("; ") || "none",
      isSure: row.complete,
    }));
  },
  get hasPages() {
    return this.result.rows.length > SHOWN;
  },
  get hasEarlier() {
    return this.from > 0;
  },
  get hasLater() {
    return this.from + SHOWN < this.result.rows.length;
  },
  earlier() {
    this.from = Math.max(this.from - SHOWN, 0);
  },
  later() {
    this.from += SHOWN;
  },

  async begin() {
    this.problem = "";
    const values = this.isByCount ? { count: Number(this.count) } : { family: Number(this.over) };
    const body = {
      what: this.what,
      line: Number(this.line),
      slider: Number(this.slider),
      low: this.low || null,
      high: this.high || null,
      ...values,
      ...(this.isMeeting ? { other: Number(this.other) } : {}),
    };
    if (this.isMeeting && !this.others.length) {
      this.problem = say("An intersection needs a second function.");
      return;
    }
    try {
      const { sweep, total } = await post(`${engine.path}/sweeps`, engine.body(body));
      this.running = { id: sweep, done: 0, total };
      engine.store.say(say("The sweep has started"));
      this.look();
    } catch (error) {
      this.problem = error.message;
    }
  },
  async look() {
    if (!this.running) return;
    try {
      const sweep = await getAlways(`${engine.path}/sweeps/${this.running.id}`);
      if (!this.running) return;
      if (sweep.state === "waiting" || sweep.state === "running") {
        this.running.done = sweep.done;
        this.timer = setTimeout(() => this.look(), LOOK_MS);
        return;
      }
      this.running = null;
      this.problem = sweep.state === "done" ? "" : sweep.problem;
      if (sweep.state === "done") this.take(sweep.result);
    } catch (error) {
      if (error.status === 0) {
        // It goes on without us; ask again when there is a connection.
        this.timer = setTimeout(() => this.look(), 4 * LOOK_MS);
        return;
      }
      this.running = null;
      this.problem = error.message;
    }
  },
  async cancel() {
    const { id } = this.running;
    this.running = null;
    clearTimeout(this.timer);
    this.problem = say("The sweep was cancelled.");
    await post(`${engine.path}/sweeps/${id}/cancel`, {}).catch((error) => engine.complain(error));
  },
  take(result) {
    this.result = result;
    this.from = 0;
    this.isOld = false;
    this.measure = result.what === "extrema" ? "y" : "x";
    engine.store.say(
      say("The sweep is done. {sentences}", {
        sentences: result.events.map((event) => event.sentence).join(" "),
      }),
    );
    this.$nextTick(() => this.plot());
  },
  forget() {
    this.result = null;
  },
  plot() {
    if (!this.result) return;
    const drawn = plotOf(this.result, this.measure, SIZE);
    const parts = [
      ...drawn.ticks.map((tick) => svg("path", { class: "sweep-grid", d: tick.d })),
      ...drawn.ticks.map((tick) =>
        label(tick.text, tick.x, tick.y, { class: "tick-label", "text-anchor": tick.anchor }),
      ),
      ...drawn.lines.map((d) => svg("path", { class: "sweep-line", d })),
      ...drawn.dots.map(([cx, cy]) => svg("circle", { class: "sweep-dot", cx, cy, r: 1.8 })),
      ...drawn.events.map(({ x, y }) =>
        svg("circle", { class: "sweep-event", cx: x, cy: y, r: 5 }),
      ),
    ];
    put(this.$refs.plot, parts);
  },
  get plotLabel() {
    return say("{title}, as a curve", { title: this.resultTitle });
  },
  /** RFC 4180: what holds a comma stands in quotes. */
  save() {
    const quoted = (text) => (/[",\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
    const plain = (text) => quoted(text.replaceAll("−", "-"));
    const most = Math.max(...this.result.rows.map((row) => row.items.length), 1);
    const heads = Array.from({ length: most }, (_, k) =>
      this.hasY ? [`x${k + 1}`, `y${k + 1}`] : [`x${k + 1}`],
    ).flat();
    const rows = this.result.rows.map((row) =>
      [row.value, ...row.items.flatMap((item) => (this.hasY ? [item.x, item.y] : [item.x]))].map(
        plain,
      ),
    );
    const text = [[this.result.slider, ...heads], ...rows]
      .map((cells) => cells.join(","))
      .join("\r\n");
    saveAs(new Blob([`${text}\r\n`], { type: "text/csv" }), `${this.resultTitle}.csv`);
  },
});

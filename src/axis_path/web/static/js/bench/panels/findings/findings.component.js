// @ts-check
/** Findings: what is asked, answered anew with every change, and how it is asked. */

import { say } from "../../../shared/words.js";
import { foundReport } from "../../session/reports.model.js";
import { liveQuery } from "../../transport/live_query.js";
import { unitsOf } from "../../viewport/affine.model.js";
import { changeOf, choicesFor, shortest } from "./findings.model.js";
import { sayLate, writeNumbers } from "./findings.paint.js";

/** What can be asked of a line, with the kinds of lines that it can be asked of. */
const CURVES = ["function", "path", "polar", "relation"];
/** @type {{value: import("#types/commands").Find["what"], words: string, kinds: string[]}[]} */
const QUESTIONS = [
  { value: "zeros", words: say("Zeros"), kinds: ["function"] },
  { value: "extrema", words: say("Extrema"), kinds: ["function"] },
  { value: "inflections", words: say("Points of inflection"), kinds: ["function"] },
  { value: "crossing", words: say("Crossing of the y axis"), kinds: ["function"] },
  { value: "breaks", words: say("Breaks"), kinds: ["function"] },
  { value: "asymptotes", words: say("Asymptotes"), kinds: ["function"] },
  { value: "intersections", words: say("Intersections"), kinds: CURVES },
  { value: "point", words: say("Slope and tangent"), kinds: ["function"] },
  { value: "interval", words: say("Area and length"), kinds: ["function"] },
  { value: "data", words: say("Crossings of data"), kinds: ["list", "point"] },
];

/** @param {import("../../session/engine.js").Engine} engine */
export const findings = (engine) => () => ({
  /** @type {import("#types/commands").Find["what"]} */
  what: "zeros",
  /** @type {any} */
  line: null,
  /** @type {any} */
  other: null,
  where: "window",
  low: "",
  high: "",
  abscissa: "",
  way: "lines",
  problem: "",
  equation: "",
  unknown: "",
  reach: "everywhere",
  solveLow: "",
  solveHigh: "",
  solveProblem: "",
  /** @type {any[]} */
  entries: [],
  isBehind: false,
  /** Whether what stands here comes with the picture while a pointer moves. */
  isFollowing: false,
  // Alpine puts what is not declared here into the outermost component.
  /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),
  /** How many answers each entry had when it was last at rest, by its id. @type {Map<number, any>} */
  counted: new Map(),

  /** The entries that were reported. @type {Set<number>} */
  reported: new Set(),
  hasTold: false,

  init() {
    this.counted = new Map();
    this.live = liveQuery(engine, "findings", {
      take: (answer, body) => this.take(answer, body),
      // What comes with the picture is of its state.
      behind: () => {
        if (!this.isFollowing) this.isBehind = true;
      },
      follow: (findings) => this.follow(findings),
      seesWindow: true,
      keepsLate: true,
    });
    this.$watch("$store.bench.tab", () => this.sayWanted());
    this.$watch("$store.bench.bracket", (bracket) => this.takeBracket(bracket));
    this.live.ask();
  },
  /** What was located is reported when it is there. */
  reportNew(entries) {
    const fresh = entries.find((entry) => !this.reported.has(entry.id));
    this.reported = new Set(entries.map((entry) => entry.id));
    if (fresh && this.hasTold) this.$store.bench.said = foundReport(fresh);
    this.hasTold = true;
  },
  destroy() {
    this.live.end();
  },
  /** What can keep up with the pointer comes with the picture; the rest is behind until the pointer rests. */
  follow(findings) {
    if (!findings) {
      if (this.isFollowing && this.$store.bench.tab === "findings") this.isBehind = true;
      this.isFollowing = false;
      return;
    }
    const made = new Map(findings.findings.map((entry) => [entry.id, entry]));
    if (this.$store.bench.tab === "findings") {
      const cards = this.$root.querySelectorAll(".ledger > article");
      engine.picture.findings.entries.forEach((before, k) => {
        const given = made.get(before.id);
        const now = given && this.shownEntry(given);
        if (!now) sayLate(cards[k], before, true);
        else if (!writeNumbers(cards[k], before, now)) this.entries[k] = now;
      });
      this.isBehind = false;
    }
    this.isFollowing = true;
  },
  /** An entry as it is shown, with what became of it since it was last at rest. */
  shownEntry(entry) {
    const change = changeOf(this.counted.get(entry.id), entry);
    return {
      ...entry,
      change,
      isLate: false,
      rows: entry.rows.map((row, k) => shownRow(row, k, entry)),
    };
  },
  sayWanted() {
    engine.findingsWanted = !this.entries.length
      ? ""
      : this.$store.bench.tab === "findings" && !this.$store.bench.isPanelFolded
        ? "ledger"
        : "marks";
  },
  /** @param {import("#types/answers").FindingsAnswer} answer @param {any} body */
  take(answer, body) {
    const entries = answer.findings.map((entry) => {
      const shown = this.shownEntry(entry);
      this.counted.set(entry.id, {
        total: entry.total,
        change: shown.change,
        doubles: doublesOf(entry),
      });
      return shown;
    });
    if (this.isFollowing && !engine.picture.isOf(body.drafts)) {
      // The picture has moved on: only what was behind anyway comes nearer.
      const late = new Map(entries.map((entry) => [entry.id, { ...entry, isLate: true }]));
      engine.picture.findings.entries.forEach((before, k) => {
        if (before.isLate && late.has(before.id)) this.entries[k] = late.get(before.id);
      });
      return;
    }
    engine.picture.findings.entries = this.entries = entries;
    this.reportNew(entries);
    this.isFollowing = false;
    this.sayWanted();
    engine.showFindings({
      marks: answer.marks,
      spans: answer.spans,
      window: body.window,
      drafts: body.drafts,
    });
    this.isBehind = this.live.isPending || !engine.picture.isOf(body.drafts);
  },

  get questions() {
    return QUESTIONS;
  },
  get question() {
    return QUESTIONS.find((question) => question.value === this.what) ?? QUESTIONS[0];
  },
  get lineRows() {
    const rows = choicesFor(this.$store.bench.rows, this.question.kinds);
    if (rows.length && !rows.some((row) => String(row.id) === String(this.line)))
      this.line = String(rows[rows.length - 1].id);
    return rows;
  },
  get otherRows() {
    const rows = this.lineRows.filter((row) => String(row.id) !== String(this.line));
    if (rows.length && !rows.some((row) => String(row.id) === String(this.other)))
      this.other = String(rows[0].id);
    return rows;
  },
  get hasEntries() {
    return this.entries.length > 0;
  },
  setDigits(event) {
    return engine.commit([{ do: "digits", digits: Number(event.target.value) }]);
  },
  get hasLines() {
    return this.lineRows.length > (this.isMeeting ? 1 : 0);
  },
  get hasRows() {
    return this.$store.bench.rows.length > 0;
  },
  get missing() {
    if (this.hasLines) return "";
    if (this.what === "data")
      return say("Write a list of points first, as in L = [(0, 1), (1, 3)].");
    return this.isMeeting
      ? say("An intersection needs two curves.")
      : say("Write a function first. Then you can locate something on it.");
  },
  get isMeeting() {
    return this.what === "intersections";
  },
  get isPoint() {
    return this.what === "point";
  },
  get isData() {
    return this.what === "data";
  },
  get hasInterval() {
    return !this.isPoint && !this.isData && this.what !== "crossing";
  },
  get chosen() {
    return this.$store.bench.rows.find((row) => String(row.id) === String(this.line));
  },
  get hasDomain() {
    const lane = engine.picture.scene?.rows.find(
      (row) => String(row.id) === String(this.line),
    )?.lane;
    return Boolean(this.chosen?.domain && lane?.low && lane?.high);
  },
  get isTyped() {
    return this.hasInterval && this.where === "typed";
  },
  get isReachTyped() {
    return this.reach === "typed";
  },
  get isEmptyLedger() {
    return this.$store.bench.isReady && !this.entries.length && !this.isBehind;
  },
  get hasLabels() {
    return this.entries.some((entry) => entry.labels.length > 0);
  },

  async find() {
    /** @type {import("#types/commands").Find} */
    const command = { do: "find", what: this.what, line: Number(this.line) };
    if (this.isMeeting) command.other = Number(this.other);
    if (this.isPoint)
      command.text =
        this.abscissa || String(engine.reading === null ? 0 : shortest(engine.reading, this.pixel));
    if (this.isData) command.text = this.way;
    const error = await engine.commit([{ ...command, ...(this.hasInterval ? this.bounds() : {}) }]);
    this.problem = error ? error.message : "";
    if (!error) this.$store.bench.bracket = null;
  },
  async solve() {
    /** @type {import("#types/commands").Find} */
    const command = {
      do: "find",
      what: "solve",
      text: this.equation,
      unknown: this.unknown.trim(),
    };
    const error = await engine.commit([{ ...command, ...this.solveBounds() }]);
    this.solveProblem = error ? error.message : "";
  },
  get pixel() {
    return (engine.window.x[1] - engine.window.x[0]) / Math.max(engine.size.width, 1);
  },
  windowBounds() {
    const [low, high] = unitsOf(engine.window.x, engine.window.log_x);
    return { low: exactly(low), high: exactly(high) };
  },
  bounds() {
    if (this.where === "domain" && this.hasDomain) return { low: null, high: null };
    if (this.where === "typed") return { low: this.low, high: this.high };
    return { ...this.windowBounds(), at_window: true };
  },
  solveBounds() {
    if (this.reach === "window") return this.windowBounds();
    if (this.reach === "typed") return { low: this.solveLow || null, high: this.solveHigh || null };
    return { low: null, high: null, over_complex: this.reach === "complex" };
  },
  /** A bracket was dragged on the plane or a lane: it is where to search next. */
  takeBracket(bracket) {
    if (!bracket) return;
    if (!this.hasInterval) this.what = "zeros";
    if (
      bracket.line !== null &&
      choicesFor(this.$store.bench.rows, this.question.kinds).some((row) => row.id === bracket.line)
    )
      this.line = String(bracket.line);
    this.where = "typed";
    this.low = bracket.low;
    this.high = bracket.high;
    this.$store.bench.openTab("findings");
    this.$nextTick(() => this.$refs.locate.focus());
  },
  toggleBracket() {
    this.$store.bench.isBracketing = !this.$store.bench.isBracketing;
  },
  /** The field is as high as its lines. */
  growSolve() {
    this.$refs.equation.rows = Math.min(this.equation.split("\n").length, 8);
  },
  /** Enter solves; with Shift it begins another equation. */
  solveKey(event) {
    if (event.shiftKey) return;
    event.preventDefault();
    if (this.equation.trim()) this.solve();
  },
  hideLabels() {
    engine.carryOut([{ do: "label_finding", query: null }]);
  },
});

/** A bound of the window as a text that the language reads. */
const exactly = (x) => String(Number(x.toPrecision(12)));

const doublesOf = (entry) =>
  entry.rows.filter(
    (row) => row.flags.length && row.flags.some((flag) => flag === "double" || flag === "touches"),
  ).length;

/** @param {any} row @param {number} k @param {any} entry */
const shownRow = (row, k, entry) => ({
  ...row,
  key: k,
  lead: row.label && entry.what === "solve" ? `${row.label} =` : row.label,
  isPlace:
    ["zeros", "inflections", "breaks", "extrema", "intersections", "data"].includes(entry.what) ||
    (entry.what === "solve" && !row.text.includes(entry.variable) && !row.label),
  decimalText: row.decimal ? `${row.is_equal ? "=" : "≈"} ${row.decimal}` : "",
  valueText: row.value
    ? entry.what === "intersections"
      ? `y = ${row.value}`
      : say("value {value}", { value: row.value })
    : "",
  doubt: row.note
    ? row.proved === false
      ? say("found, not proved: {note}", { note: row.note })
      : row.note
    : "",
  flagText: row.flags.join(", "),
  canShow: row.x !== null,
  isLabelled: entry.labels.includes(k),
  isProved: row.proved === true,
  isDoubtful: row.proved === false,
});

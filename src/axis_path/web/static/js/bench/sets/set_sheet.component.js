// @ts-check
/** A whole set of equations on one sheet: typeset, with its solutions, their check, and its text. */

import { say } from "../../shared/words.js";
import { liveQuery } from "../transport/live_query.js";
import { equationsOf, setText, typedBounds } from "./set_text.js";

/** @param {import("../session/engine.js").Engine} engine */
export const setSheet = (engine) => () => ({
  /** @type {import("#types/answers").EquationSetAnswer | null} */
  answer: null,
  problem: "",
  isBehind: false,
  isWriting: false,
  /** Whether the solutions that stand were put into the equations. */
  isChecked: false,
  label: "",
  lines: "",
  /** What is typed as bounds, by the names of the unknowns. @type {Record<string, { low: string, high: string }>} */
  typed: {},
  /** @type {import("../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),

  init() {
    this.live = liveQuery(engine, "equation_set", {
      take: (answer, body) => this.take(answer, body.checked),
      body: () => ({ id: this.$store.bench.openedSet }),
      isOpen: () => this.$store.bench.openedSet !== null,
      behind: (isBehind) => (this.isBehind = isBehind),
      fail: (error) => this.fail(error),
    });
    this.$watch("$store.bench.openedSet", (id) => {
      Object.assign(this, { answer: null, problem: "", isWriting: false, typed: {} });
      if (id === null) {
        this.$refs.sheet.close();
        return;
      }
      this.live.ask();
      this.$refs.sheet.showModal();
    });
  },
  destroy() {
    this.live.end();
  },
  nothing() {},
  /** @param {import("#types/answers").EquationSetAnswer} answer @param {boolean} [isChecked] */
  take(answer, isChecked = false) {
    const typed = typedBounds(answer.bounds, this.answer?.bounds ?? [], this.typed);
    this.answer = answer;
    this.typed = typed;
    this.isChecked = isChecked;
    this.isBehind = this.live.isPending;
    this.check();
  },
  /** The check takes a moment: it is asked for once the solutions stand. */
  check() {
    if (this.isChecked || !this.answer?.solutions.length) return;
    this.live.askMore(() => ({ id: this.$store.bench.openedSet, checked: true }));
  },
  fail(error) {
    // The line is gone, or no set any more, as after undo.
    if (!this.answer) this.problem = error.message;
    else this.close();
  },
  close() {
    this.$store.bench.openedSet = null;
  },

  get title() {
    const name = this.answer?.title;
    return name ? say("Equations: {name}", { name }) : say("Equations");
  },
  get equations() {
    return (this.answer?.equations ?? []).map((mathml, key) => ({ key, number: key + 1, mathml }));
  },
  get known() {
    return this.answer?.known ?? [];
  },
  get hasKnown() {
    return this.known.length > 0;
  },
  get verdict() {
    return this.answer?.verdict ?? "";
  },
  get verdictClass() {
    return { "is-sure": Boolean(this.answer?.is_sure) };
  },
  get note() {
    return this.answer?.note ?? "";
  },
  get solutions() {
    const answer = this.answer;
    if (!answer) return [];
    const isOne = answer.solutions.length === 1;
    return answer.solutions.map((solution, key) => ({
      key,
      title: isOne ? say("Solution") : say("Solution {number}", { number: key + 1 }),
      values: solution.values,
      hasChecks: solution.checks.length > 0,
      checks: solution.checks.map((check, k) => ({ ...check, key: k })),
      isUsed: !isOne && key === answer.chosen,
      canUse: !isOne && key !== answer.chosen,
      isUnproved: !solution.proved,
    }));
  },
  use(solution) {
    this.carryOut({
      do: "choose_solution",
      id: this.$store.bench.openedSet,
      number: solution.key,
    });
  },
  async carryOut(command) {
    this.problem = "";
    const error = await engine.commit([command]);
    if (error) this.problem = error.message;
  },

  get bounds() {
    return (this.answer?.bounds ?? []).map((bound) => ({
      ...bound,
      ...this.typed[bound.name],
      key: bound.name,
      label: bound.unit
        ? say("{name} in {unit}", { name: bound.name, unit: bound.unit })
        : bound.name,
      lowLabel: say("Least {name}", { name: bound.name }),
      highLabel: say("Greatest {name}", { name: bound.name }),
    }));
  },
  get boxHint() {
    const box = this.answer?.box || 100;
    return say(
      "Without bounds, an unknown is searched from −{box} to {box}, and farther if nothing is found there.",
      { box },
    );
  },
  /** @param {"low" | "high"} side */
  typeBound(bound, side, event) {
    this.typed[bound.name][side] = event.target.value;
  },
  typeLow(bound, event) {
    this.typeBound(bound, "low", event);
  },
  typeHigh(bound, event) {
    this.typeBound(bound, "high", event);
  },
  searchBetween() {
    const whole = Object.entries(this.typed).filter(
      ([, { low, high }]) => low.trim() || high.trim(),
    );
    const half = whole.find(([, { low, high }]) => !low.trim() || !high.trim());
    if (half) {
      this.problem = say("Type both bounds for `{name}`, or neither.", { name: half[0] });
      return;
    }
    const bounds = whole.map(([name, { low, high }]) => ({ name, low, high }));
    this.carryOut({ do: "search_between", id: this.$store.bench.openedSet, bounds });
  },

  write() {
    const { label, equations } = equationsOf(this.answer?.text ?? "");
    Object.assign(this, { label, lines: equations.join("\n"), isWriting: true, problem: "" });
    this.$nextTick(() => this.$refs.lines.focus());
  },
  get lineCount() {
    return Math.max(3, this.lines.split("\n").length + 1);
  },
  async keep() {
    const text = setText(this.label, this.lines);
    if (!text) {
      this.problem = say("Write an equation first, as in `W = m g_n`.");
      return;
    }
    this.problem = "";
    const error = await engine.commit([{ do: "write", id: this.$store.bench.openedSet, text }]);
    if (error) this.problem = error.message;
    else this.isWriting = false;
  },
  leave() {
    Object.assign(this, { isWriting: false, problem: "" });
  },
  /** Escape leaves the field for the equations first, so that nothing typed is lost by closing. */
  cancel(event) {
    if (!this.isWriting) return;
    event.preventDefault();
    this.leave();
  },

  async copyLatex() {
    try {
      await navigator.clipboard.writeText(this.answer?.latex ?? "");
      this.$store.bench.say(say("The equations are copied as LaTeX."), true);
      this.problem = "";
    } catch {
      this.problem = say("The browser does not allow this page to copy.");
    }
  },
  print() {
    document.body.classList.add("prints-set");
    window.addEventListener("afterprint", () => document.body.classList.remove("prints-set"), {
      once: true,
    });
    window.print();
  },
});

// @ts-check
/** A row reduction step by step: the program's way, or the student's own operations. */

import { say } from "../../../shared/words.js";
import { liveQuery } from "../../transport/live_query.js";

/** @param {import("../../session/engine.js").Engine} engine */
export const workReduction = (engine) => () => ({
  /** Whether the student chooses the operations. */
  isOwn: false,
  /** @type {string[]} */
  operations: [],
  operation: "",
  problem: "",
  /** How many of the program's steps are shown. */
  shown: 1,
  /** @type {import("#types/answers").ReductionAnswer | null} */
  answer: null,
  isBehind: false,
  /** @type {import("../../transport/live_query.js").LiveQuery} */ live: /** @type {any} */ (null),

  init() {
    this.live = liveQuery(engine, "reduction", {
      take: (answer) => this.take(answer),
      body: () => ({ text: this.line.name ?? this.line.text, operations: this.operations }),
      behind: (isBehind) => (this.isBehind = isBehind),
      fail: (error) => (this.problem = error.message),
    });
    this.live.ask();
  },
  destroy() {
    this.live.end();
  },
  /** @param {import("#types/answers").ReductionAnswer} answer */
  take(answer) {
    this.isBehind = this.live.isPending;
    this.answer = answer;
    if (!answer.own_problem) return;
    // What cannot be carried out goes back into its field, with the reason.
    this.problem = answer.own_problem.message;
    this.operation = this.operations.at(-1) ?? "";
    this.operations = this.operations.slice(0, -1);
    this.live.ask();
  },
  get start() {
    return this.matrixOf(this.answer?.start ?? [], []);
  },
  /** The cells of a matrix, with the pivots and the line before the right sides. @param {string[][]} rows @param {number[][]} pivots */
  matrixOf(rows, pivots) {
    const width = this.answer?.unknowns.length ?? 0;
    return rows.map((row, r) => ({
      key: r,
      label: `R${r + 1}`,
      cells: row.map((text, c) => ({
        key: c,
        text,
        isPivot: pivots.some(([row, column]) => row === r && column === c),
        isRight: width > 0 && c === width,
      })),
    }));
  },
  get heads() {
    const { unknowns = [] } = this.answer ?? {};
    return unknowns.length ? [...unknowns, "="] : [];
  },
  get hasHeads() {
    return this.heads.length > 0;
  },
  get steps() {
    const answer = this.answer;
    if (!answer) return [];
    if (this.isOwn)
      return answer.own.map((step, key) => ({
        key,
        operation: step.operation,
        sentence: step.sentence,
        rows: this.matrixOf(step.rows, []),
        isNearer: step.is_nearer || step.is_done,
      }));
    return answer.steps.slice(0, this.shown).map((step, key) => ({
      key,
      operation: step.operation,
      sentence: "",
      rows: this.matrixOf(step.rows, step.pivots),
      isNearer: false,
    }));
  },
  get count() {
    return this.answer?.steps.length ?? 0;
  },
  get hasNext() {
    return !this.isOwn && this.shown < this.count;
  },
  get nextText() {
    return say("Next step ({number} of {count})", {
      number: Math.min(this.shown, this.count),
      count: this.count,
    });
  },
  get isWhole() {
    return !this.isOwn && this.shown >= this.count;
  },
  get isReduced() {
    return this.answer !== null && this.count === 0;
  },
  /** What is read off at the end. */
  get verdict() {
    if (!this.answer) return "";
    const isDone = this.isOwn ? this.answer.own.at(-1)?.is_done : this.isWhole;
    return isDone ? this.answer.sentence : "";
  },
  get solution() {
    return this.verdict ? (this.answer?.solution ?? []) : [];
  },
  get howText() {
    return this.isOwn ? say("Show me the steps") : say("Choose the operations myself");
  },
  next() {
    this.shown += 1;
  },
  showAll() {
    this.shown = this.count;
  },
  toggleOwn() {
    this.isOwn = !this.isOwn;
    this.$nextTick(() => this.isOwn && this.$refs.operation.focus());
  },
  carryOut() {
    const text = this.operation.trim();
    if (!text) return;
    this.problem = "";
    this.operations = [...this.operations, text];
    this.operation = "";
    this.live.ask();
  },
  takeBack() {
    this.problem = "";
    this.operations = this.operations.slice(0, -1);
    this.live.ask();
  },
  get hasOperations() {
    return this.operations.length > 0;
  },
});

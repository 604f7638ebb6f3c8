// What is said to those who listen, and what is heard of a curve.
import assert from "node:assert/strict";
import { test } from "node:test";
import {
  heightsOf,
  soundOf,
  toneOf,
} from "../../src/axis_path/web/static/js/bench/description/sound.model.js";
import {
  foundReport,
  readingReport,
  reportOf,
} from "../../src/axis_path/web/static/js/bench/session/reports.model.js";
import {
  areOn,
  keepOn,
  SHORTCUTS,
} from "../../src/axis_path/web/static/js/bench/session/shortcuts.model.js";
import { WindowHistory } from "../../src/axis_path/web/static/js/bench/viewport/history.model.js";
import { near } from "./near.js";

const row = (id, name, more = {}) => ({
  id,
  name,
  text: name,
  kind: "function",
  problem: null,
  ...more,
});

test("a change is told in one sentence for each line", () => {
  const f = row(1, "f");
  const bad = row(2, null, {
    text: "g(x) = (",
    problem: { message: "A bracket `(` is not closed." },
  });
  assert.equal(reportOf([], [f]), "f is drawn.");
  assert.equal(reportOf([f], [f]), "");
  assert.equal(reportOf([f], [f, bad]), "Line 2 does not work: A bracket ( is not closed.");
  assert.equal(reportOf([f], [{ ...f, text: "f(x) = 2" }]), "f was redrawn.");
  assert.equal(reportOf([f, bad], [f]), "Line 2 was deleted.");
  assert.equal(reportOf([f], [{ ...f, disabled: true }]), "f is turned off.");
  assert.equal(reportOf([], [row(3, "k", { kind: "parameter", value: "4.2" })]), "k is 4.2.");
  assert.equal(
    reportOf(
      [],
      [1, 2, 3, 4].map((id) => row(id, `f${id}`)),
    ),
    "4 lines have changed.",
  );
});

test("what was located and what is read is told", () => {
  const entry = {
    title: "Zeros of f",
    variable: "x",
    verdict: "Proved: exactly 4 zeros",
    note: "",
    problem: "",
    rows: [-3, -1, 1, 3].map((x) => ({ label: "", isPlace: true, text: String(x), valueText: "" })),
  };
  assert.equal(
    foundReport(entry),
    "Zeros of f. x = -3; x = -1; x = 1; and 1 more. Proved: exactly 4 zeros",
  );
  assert.equal(
    foundReport({ ...entry, problem: "The line is gone." }),
    "Zeros of f: The line is gone.",
  );
  assert.equal(
    readingReport({ text: "2" }, [
      row(1, "f", { reading: { text: "4", reason: "" } }),
      row(2, "g", { reading: { text: "undefined", reason: "a division by zero" } }),
    ]),
    "2: f 4, g is undefined",
  );
});

test("a curve is heard by its height, and not where it has no value", () => {
  // From the lower left corner to the middle of the upper edge; then nothing.
  const heights = heightsOf([[0, 1000, 500, 0]], { width: 100, height: 100 }, 11);
  assert.deepEqual(
    heights.map((part) => part !== null),
    [...Array(6).fill(true), ...Array(5).fill(false)],
  );
  for (const [k, part] of heights.slice(0, 6).entries()) near(part, k / 5, 1e-9);
  // The same step up is the same interval of tones.
  near(toneOf(0.75) / toneOf(0.5), toneOf(0.5) / toneOf(0.25), 1e-9);
  const { tones, clicks } = soundOf(
    { curve: { pieces: [[0, 500, 1000, 500]] }, lane: { marks: [{ x: 250 }, { x: 1200 }] } },
    { width: 100, height: 100 },
    5,
  );
  assert.equal(new Set(tones).size, 1);
  assert.deepEqual(clicks, [0.25]);
});

test("undo goes back through the windows since the last change", () => {
  let time = 0;
  const history = new WindowHistory(() => time);
  for (const window of ["home", "near"]) {
    history.leave(window);
    time += 1000;
  }
  assert.deepEqual([history.state.isUndone, history.state.isRedone], [true, false]);
  assert.equal(history.step(-1, "nearer"), "near");
  assert.equal(history.step(-1, "near"), "home");
  assert.deepEqual([history.state.isUndone, history.state.isRedone], [false, true]);
  assert.equal(history.step(1, "home"), "near");
  history.settle();
  assert.deepEqual([history.state.isUndone, history.state.isRedone], [false, false]);
  assert.equal(history.state.back, true);
});

test("shortcuts avoid characters that need AltGr, and can be turned off", () => {
  const keys = SHORTCUTS.flatMap((group) => group.keys.map(([key]) => key));
  assert.ok(!keys.some((key) => /[[\]{}@\\|~€]/.test(key)));
  const kept = new Map();
  const storage = {
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, value) => kept.set(key, value),
  };
  assert.equal(areOn(storage), true);
  keepOn(storage, false);
  assert.equal(areOn(storage), false);
});

// What the panels and the rows say, copy and complete, without a page.
import assert from "node:assert/strict";
import { describe, test } from "node:test";
import * as findings from "../../src/axis_path/web/static/js/bench/panels/findings/findings.model.js";
import { plotOf } from "../../src/axis_path/web/static/js/bench/panels/findings/sweep.model.js";
import * as values from "../../src/axis_path/web/static/js/bench/panels/values/values.model.js";
import * as names from "../../src/axis_path/web/static/js/bench/rows/names.model.js";
import { ShownFindings } from "../../src/axis_path/web/static/js/bench/session/shown_findings.model.js";
import { near } from "./near.js";

describe("completion", () => {
  const known = [
    { name: "sin", meaning: "the sine of an angle", insert: "sin(" },
    { name: "sinh", meaning: "the hyperbolic sine", insert: "sinh(" },
    { name: "asin", meaning: "the angle whose sine is x", insert: "asin(", spellings: ["arcsin"] },
    { name: "pi", meaning: "half a turn", insert: "pi" },
  ];

  test("names match by prefix, spelling and meaning", () => {
    for (const [word, expected] of [
      ["si", ["sin", "sinh"]],
      ["sin", ["sinh"]],
      ["arc", ["asin"]],
      ["sine", ["sin", "sinh", "asin"]],
      ["turn", ["pi"]],
      ["tur", []],
      ["SI", ["sin", "sinh"]],
      ["q", []],
    ]) {
      const found = names.matching(word, known).map(({ name }) => name);
      assert.deepEqual(found, expected, word);
    }
  });

  test("a name replaces the word before the caret", () => {
    assert.equal(names.wordBefore("2 si", 4), "si");
    assert.equal(names.wordBefore("f(x) = ", 7), "");
    assert.equal(names.wordBefore("2si + 1", 3), "si");
    assert.deepEqual(names.completed("2 si", 4, "sin("), { text: "2 sin(", caret: 6 });
    assert.deepEqual(names.completed("si(x)", 2, "sin("), { text: "sin(x)", caret: 3 });
    assert.deepEqual(names.completed("2p x", 2, "pi"), { text: "2pi x", caret: 3 });
    assert.deepEqual(names.inserted("x + 1", 0, 5, "√(…)"), { text: "√(x + 1)", caret: 8 });
    assert.deepEqual(names.inserted("", 0, 0, "|…|"), { text: "||", caret: 1 });
    assert.deepEqual(names.inserted("2x", 1, 1, "π"), { text: "2πx", caret: 2 });
  });
});

describe("findings", () => {
  test("a bracket is rounded to what a pixel can tell", () => {
    const rounded = [
      [1.23456789, 0.0303],
      [-0.000123456, 1e-6],
      [7, 2],
      [1234567.8, 1000],
      [0.1 + 0.2, 1e-9],
    ].map(([x, pixel]) => findings.shortest(x, pixel));
    assert.deepEqual(rounded, ["1.23", "-0.000123", "7", "1235000", "0.3"]);
  });

  test("what became of answers is said in words", () => {
    const row = (...flags) => ({ flags });
    const entry = (...rows) => ({ total: rows.length, rows, problem: "" });
    const before = (total, doubles = 0) => ({ total, doubles, change: "as before" });
    for (const [was, is, expected] of [
      [undefined, entry(row()), ""],
      [before(1), entry(row()), "as before"],
      [before(1), entry(row(), row()), "One has appeared."],
      [before(5), entry(row(), row()), "3 are gone."],
      [before(2), entry(row("double")), "Two have merged into one."],
      [before(1, 1), entry(row(), row()), "One has separated into two."],
      [before(2), { ...entry(row()), problem: "gone" }, ""],
    ]) {
      assert.equal(findings.changeOf(was, is), expected);
    }
  });

  test("an entry is copied as text, LaTeX and CSV", () => {
    const row = {
      label: "minimum",
      text: "−√2",
      decimal: "−1.414213562",
      decimalText: "≈ −1.414213562",
      valueText: "value −2",
      value: "−2",
      flagText: "global",
      doubt: "",
      note: 'a "sure", one',
      proved: true,
      isPlace: true,
      latex: "-\\sqrt{2}",
    };
    const entry = {
      title: "Extrema of f",
      where: "−3 ≤ x ≤ 3",
      variable: "x",
      what: "extrema",
      rows: [row, { ...row, label: "", proved: null, note: "" }],
      verdict: "Proved",
      note: "",
      remark: "mine",
    };
    const lines = findings.asText(entry).split("\n");
    assert.equal(lines[0], "Extrema of f, −3 ≤ x ≤ 3");
    assert.equal(lines[1], "minimum x = −√2; ≈ −1.414213562; value −2; global");
    assert.deepEqual(lines.filter(Boolean).slice(-2), ["Proved", "mine"]);
    assert.ok(findings.asLatex(entry).includes("& x = -\\sqrt{2} \\approx -1.414213562"));
    const [head, first, second] = findings.asCsv(entry).trimEnd().split(/\r?\n/);
    assert.equal(head, "what,x,decimal,value,proved,note");
    assert.equal(first, 'minimum,-√2,-1.414213562,-2,yes,"a ""sure"", one"');
    assert.equal(second, "extrema,-√2,-1.414213562,-2,,");
  });

  test("what was located is shown for its own state only", () => {
    const found = new ShownFindings();
    const size = { width: 600, height: 400 };
    const window = { x: [-10, 10], y: [-5, 5], ...size };
    const drafts = [{ do: "set" }];
    assert.equal(found.at(1, [], window, size), null);
    found.take({ marks: [1], spans: [], window, drafts }, 7);
    const right = found.at(7, drafts, { x: [-5, 5], y: [-5, 5] }, size);
    assert.deepEqual([right.marks, right.shift.ax], [[1], 2]);
    assert.equal(found.at(8, drafts, window, size), null);
    assert.equal(found.at(7, [], window, size), null);
    assert.equal(found.at(7, drafts, window, { ...size, width: 500 }), null);
  });

  test("the curve of a sweep stands on its scales", () => {
    const points = [
      [0, -2, 4],
      [1, -1, 1],
      [2, 0, NaN],
    ];
    const result = {
      low_value: 0,
      high_value: 4,
      rows: [1, 2, 3],
      branches: [{ points }],
      events: [{ value: 2 }],
    };
    const size = { width: 300, height: 190 };
    const byX = plotOf(result, "x", size);
    const [[left, low], , [right, high]] = byX.dots;
    // A half of the scale to the right, and upwards on the screen.
    near(right, 44 + (290 - 44) / 2, 1e-6);
    assert.ok(left < right && low > high);
    near(byX.events[0].y, high, 1e-6);
    const below = byX.ticks.filter(({ anchor }) => anchor === "middle");
    assert.deepEqual(
      below.map(({ text }) => text),
      ["0", "1", "2", "3", "4"],
    );
    assert.equal(plotOf(result, "y", size).dots.length, 2);
    assert.deepEqual(plotOf({ ...result, branches: [], events: [] }, "x", size).lines, []);
  });
});

describe("values", () => {
  test("a long table scrolls to any row", () => {
    const view = 350;
    for (const count of [3, 201, 5_000, 400_000, 1_000_000]) {
      for (const height of [22, 25.5]) {
        const whole = Math.min(count * height, 12_000_000);
        for (const part of [0, 0.001, 0.25, 0.5, 0.9, 1]) {
          const where = JSON.stringify([count, height, part]);
          let rows = new values.Rows({ count, from: 0, loaded: Math.min(count, 200), height });
          const row = rows.rowAt(part * Math.max(whole - view, 0), view);
          assert.ok(row >= 0 && row <= count - 1, where);
          if (count * height > view) near(row / count, part, 0.02 + view / whole);
          const from = rows.wanted(row, view);
          if (from !== null) {
            assert.ok(from <= row, where);
            rows = new values.Rows({
              count,
              from,
              loaded: Math.min(count - from, values.PART),
              height,
            });
            // The row that was at the top is there again, and now enough is loaded.
            if (rows.loaded * height > view) near(rows.rowAt(rows.topOf(row), view), row, 1e-6);
            assert.ok(from === 0 || rows.wanted(row, view) === null, where);
          } else {
            const isEnough = row + view / height <= rows.from + rows.loaded + 1;
            assert.ok(isEnough || rows.loaded >= count, where);
          }
          near(rows.above + rows.loaded * height + rows.below, whole, rows.loaded * height);
        }
      }
    }
  });

  test("the rows around an abscissa are found, and numbers stand under one another", () => {
    const lines = [5, 3, 3.5, 0, -2].map((value, row) => ({ value, row }));
    const around = (x) => values.rowsAround(lines, x).map(({ row }) => row);
    assert.deepEqual([3, 4, -1, 9, null, 3.2].map(around), [[1], [0, 1], [3, 4], [], [], [0, 1]]);
    const shown = ["1.5", "−20", "3·10^7", ""].map((text) => values.aligned(text, 2));
    assert.deepEqual([values.plainNumber(shown[0]), values.plainNumber(shown[1])], ["1.5", "-20"]);
    assert.equal(shown[3], "—");
  });
});

test("the call around the caret knows which argument is written", () => {
  for (const [text, name, index] of [
    ["quantile(L, ", "quantile", 1],
    ["matrix(1/(i + j), i, 1, ", "matrix", 3],
    ["det([[1, 2], [3, ", "det", 0],
    ["max(min(1, 2), ", "max", 1],
    ["2 (3, ", undefined, undefined],
    ["sin x", undefined, undefined],
  ]) {
    const call = names.callAround(text, text.length);
    assert.deepEqual([call?.name, call?.index], [name, index], text);
  }
});

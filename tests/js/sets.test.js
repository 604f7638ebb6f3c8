// Sets of equations as they are typed, and the curves of what-if tables, without a page.
import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { whatIfParts } from "../../src/axis_path/web/static/js/bench/plane/what_if.paint.js";
import {
  equationsOf,
  setText,
  typedBounds,
} from "../../src/axis_path/web/static/js/bench/sets/set_text.js";

describe("the text of a set", () => {
  test("equations stand in lines, and go back to the same text", () => {
    for (const [text, label, equations] of [
      ["W = m g_n; m = 3 kg", "", ["W = m g_n", "m = 3 kg"]],
      ["ramp: N = W cos a;F = 0.3*N", "ramp", ["N = W cos a", "F = 0.3*N"]],
      ["cos u = u;", "", ["cos u = u"]],
      ["p = max(1; 2); L = [1; 2]", "", ["p = max(1; 2)", "L = [1; 2]"]],
      [" α_1: x = 1; y = 2 ;; ", "α_1", ["x = 1", "y = 2"]],
      ["a := 2; b = a", "", ["a := 2", "b = a"]],
    ]) {
      const read = equationsOf(text);
      assert.deepEqual(read, { label, equations }, text);
      const again = equationsOf(setText(label, equations.join("\n")));
      assert.deepEqual(again, { label, equations }, text);
    }
  });

  test("empty lines are left out, and a single equation ends with a semicolon", () => {
    assert.equal(setText("", "\n  W = m g_n \n\n"), "W = m g_n;");
    assert.equal(setText(" ramp ", "a = 1\n b = 2"), "ramp: a = 1; b = 2");
    assert.equal(setText("ramp", " \n "), "");
    assert.equal(setText("", "a = 1; b = 2"), "a = 1; b = 2");
  });
});

describe("the bounds of a search", () => {
  const before = [
    { name: "u", low: "0", high: "10" },
    { name: "w", low: "", high: "" },
  ];

  test("what was typed stays when an answer arrives late", () => {
    const typed = { u: { low: "", high: "10" }, w: { low: "", high: "4" } };
    const late = typedBounds(before, before, typed);
    assert.deepEqual(late, typed);
    // What another window or undo changed is shown, but for the field that was typed in.
    const changed = [{ name: "u", low: "2", high: "20" }, before[1]];
    assert.deepEqual(typedBounds(changed, before, typed).u, { low: "", high: "20" });
  });

  test("the first answer is shown as it is, and names come and go", () => {
    assert.deepEqual(typedBounds(before, [], {}).u, { low: "0", high: "10" });
    const other = [{ name: "v", low: "1", high: "2" }];
    assert.deepEqual(typedBounds(other, before, { u: { low: "9", high: "9" } }), {
      v: { low: "1", high: "2" },
    });
  });

  test("what was kept is no longer typed", () => {
    const typed = { u: { low: "3", high: "4" }, w: { low: "", high: "" } };
    const kept = [{ name: "u", low: "3", high: "4" }, before[1]];
    const after = typedBounds(kept, before, typed);
    assert.deepEqual(after.u, { low: "3", high: "4" });
    assert.deepEqual(typedBounds(before, kept, after).u, { low: "0", high: "10" });
  });
});

describe("the curves of a what-if table", () => {
  const shift = { ax: 1, ay: 1, bx: 0, by: 0 };
  const tones = ["a", "b", "c", "d", "e", "f", "g", "h"];
  const curve = {
    label: "W",
    tone: 1,
    lines: [
      [0, 0, 100, 50],
      [200, 60, 300, 10, 400, 0],
    ],
    dots: [0, 0, 100, 50, 400, 0],
  };

  test("strokes are not joined with one another, and dots stand at the rows", () => {
    const parts = whatIfParts([curve], shift, { width: 100 }, tones);
    const [line, dots] = parts;
    assert.equal((pathOf(line).match(/M/g) ?? []).length, 2);
    assert.equal((pathOf(dots).match(/M/g) ?? []).length, 3);
    assert.ok(pathOf(line).startsWith("M0 0L10 5M20 6"));
  });

  test("a label stays within the plane", () => {
    const parts = whatIfParts([curve], shift, { width: 30 }, tones);
    const box = parts.find((part) => part.attributes.class === "what-if-box");
    const { x, y, width } = box.attributes;
    assert.ok(x + width <= 30);
    assert.ok(y >= 0);
    assert.deepEqual(whatIfParts([], shift, { width: 30 }, tones), []);
  });
});

const pathOf = (part) => part.attributes.d;

// The units among which a value is shown, without a page.
import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { makeUnits } from "../../src/axis_path/web/static/js/bench/rows/row_units.js";
import { makeRowSet } from "../../src/axis_path/web/static/js/bench/sets/row_set.js";
import { unitOptionsOf, withoutUnit } from "../../src/axis_path/web/static/js/bench/units.js";

const choice = {
  measures: "a force (kg m/s²)",
  shown: "kN",
  fits: [
    { symbol: "N", text: "N" },
    { symbol: "kN", text: "kN" },
    { symbol: "kg m/s^2", text: "kg m/s²" },
  ],
};

/** An engine that notes the commands it is given. */
function recorder() {
  const sent = [];
  return { sent, carryOut: (commands) => sent.push(...commands) };
}

/** A part of a row over a store. */
function over(part, store, row) {
  return Object.defineProperties(
    { $store: { bench: store }, row, isEditing: false, called: row.text, readingText: "1.5 kN" },
    Object.getOwnPropertyDescriptors(part),
  );
}

describe("the units of a value", () => {
  test("the one that is shown is marked, and taken from the end of the text only", () => {
    const options = unitOptionsOf(choice);
    assert.deepEqual(
      options.filter(({ isShown }) => isShown).map(({ symbol }) => symbol),
      ["kN"],
    );
    assert.equal(withoutUnit("1.9205 kN", options), "1.9205");
    assert.equal(withoutUnit("undefined", options), "undefined");
    assert.equal(withoutUnit("3 N", options), "3 N");
    assert.equal(withoutUnit("3 kN m", options), "3 kN m");
    assert.deepEqual(unitOptionsOf(null), []);
    assert.equal(withoutUnit("3 kN", []), "3 kN");
  });

  test("a row offers units for its value, and sends the one that is chosen", () => {
    const engine = recorder();
    const store = { units: { rows: { 4: { choice, hidden: null } } } };
    const row = over(makeUnits(engine), store, { id: 4, text: "W", value: true, disabled: false });
    assert.equal(row.valueText, "1.5");
    assert.ok(row.hasUnit);
    assert.equal(row.unitLabel, "Unit of W, a force (kg m/s²)");
    row.showIn({ target: { value: "N" } });
    assert.deepEqual(engine.sent, [{ do: "show_in", id: 4, unit: "N" }]);
    const plain = over(makeUnits(engine), { units: null }, { id: 4, text: "a", value: true });
    assert.ok(!plain.hasUnit);
    assert.equal(plain.valueText, "1.5 kN");
  });

  test("each value of a set has units of its own", () => {
    const engine = recorder();
    const values = [
      { name: "W", mathml: "", text: "1.9205 kN", used_by: [], choice },
      { name: "mu", mathml: "", text: "0.015", used_by: [], choice: null },
    ];
    const set = { values, count: 1, chosen: 0, known: [], unknown: ["W", "μ"], meanings: [] };
    const row = over(makeRowSet(engine), { sets: { 2: set } }, { id: 2, text: "ramp" });
    const [weight, grip] = row.setValues;
    assert.deepEqual([weight.text, weight.hasUnit], ["= 1.9205", true]);
    assert.equal(weight.label, "Unit of W, a force (kg m/s²)");
    assert.deepEqual([grip.text, grip.hasUnit, grip.options], ["= 0.015", false, []]);
    row.showValueIn(weight, { target: { value: "N" } });
    assert.deepEqual(engine.sent, [{ do: "show_in", id: 2, name: "W", unit: "N" }]);
    assert.equal(row.setNames, "Unknown: W and μ.");
  });
});

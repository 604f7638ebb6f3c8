// Comparison of numbers within a stated tolerance.
import assert from "node:assert/strict";

/** Check that a number is within a tolerance of another. */
export function near(actual, expected, tolerance) {
  assert.ok(Math.abs(actual - expected) <= tolerance, `${actual} is not ${expected}`);
}

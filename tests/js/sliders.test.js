// The steps of sliders, and what plays.
import assert from "node:assert/strict";
import { describe, test } from "node:test";
import * as motion from "../../src/axis_path/web/static/js/bench/session/motion.model.js";
import { Trails } from "../../src/axis_path/web/static/js/bench/session/trails.model.js";
import * as steps from "../../src/axis_path/web/static/js/bench/sliders/steps.model.js";
import { near } from "./near.js";

describe("steps", () => {
  const uneven = { low_value: 0, high_value: 2 * Math.PI, step_value: 1 / 8 };
  const fine = { low_value: 0, high_value: 3, step_value: 1 / 1000 };
  const coarse = { low_value: 0, high_value: 0.3, step_value: 0.1 };

  test("the upper end of a slider is a step of its own", () => {
    assert.equal(steps.valueOfStep(uneven, steps.stepNear(uneven, 6.28)), 2 * Math.PI);
    assert.equal(steps.valueOfStep(uneven, steps.stepNear(uneven, 6.2)), 6.25);
    assert.equal(steps.lastStep(coarse), 3);
    assert.equal(steps.stepMeant(fine, 2.9996, steps.stepsInPixel(fine, 200)), 3000);
    assert.equal(steps.stepMeant(fine, 0.007, steps.stepsInPixel(fine, 200)), 0);
  });

  test("steps ahead and around stay within the range and are bounded in number", () => {
    assert.deepEqual(steps.stepsAhead(fine, 2940, 2970, 15), [3000, 2985]);
    assert.deepEqual(steps.stepsAhead(fine, 30, 0, 15), []);
    assert.deepEqual(steps.stepsAround(fine, 15, 15, 4), [30, 0, 45, 60]);
    assert.deepEqual(steps.stepsAround(fine, 2993, 15, 3), [3000, 2985, 2970]);
    assert.deepEqual(steps.stepsAround(coarse, 1, 1, 9), [2, 0, 3]);
    const million = { low_value: 0, high_value: 1, step_value: 1e-6 };
    assert.equal(steps.stepsAround(million, 5e5, 1, 2000).length, 1000);
  });

  test("the prefetch order is near, then coarse, then the rest", () => {
    const range = { low_value: 0, high_value: 3, step_value: 1 / 100 };
    const all = steps.stepsAround(range, 20, 1, 999);
    const sorted = [...all].sort((a, b) => a - b);
    assert.ok(sorted.every((k, n) => k === (n < 20 ? n : n + 1)));
    assert.deepEqual(all.slice(0, 6), [21, 19, 22, 18, 23, 17]);
    const first = all.slice(0, all.indexOf(31));
    const widest = (some) => {
      const inOrder = [...some].sort((a, b) => a - b);
      return Math.max(...inOrder.slice(1).map((k, n) => k - inOrder[n]));
    };
    assert.equal(widest(first), 3);
    assert.equal(widest(first.filter((k) => k > 20 && k < 30)), 1);
    assert.equal(widest(first.filter((k) => k > 290)), 1);
    const onward = steps.stepsOnward(range, 20, 24, 25, 1);
    assert.ok(onward.every((k) => k > 25 && (k < 57 || k > 263 || k % 3 === 0)));
    assert.equal(steps.stepsOnward(range, 20, 26, 25, 1)[0], 24);
  });

  test("a fast drag shows cached steps that it has passed", () => {
    const range = { low_value: 0, high_value: 1, step_value: 1 / 100 };
    for (const [known, shown, before, now, expected] of [
      // Nothing known: the very step.
      [[], 10, 10, 14, 14],
      // The last known one that was passed, in both directions; never one beyond the pointer.
      [[11, 13, 15], 10, 10, 14, 13],
      [[9, 7, 5], 10, 10, 6, 7],
      [[14], 10, 10, 14, 14],
      // Nothing passed, but the next frame passes one; far away ones are not waited for.
      [[18], 10, 10, 14, null],
      [[15], 10, 10, 14, null],
      [[19], 10, 10, 14, 14],
      // What is shown is behind the pointer already, where it waited.
      [[11], 11, 14, 18, 18],
    ]) {
      const found = steps.stepInPassing(range, shown, before, now, 1, (k) => known.includes(k));
      assert.equal(found, expected, JSON.stringify([known, shown, before, now]));
    }
  });
});

describe("motion", () => {
  const play = (forward, at_end) => ({ seconds: 4, forward, at_end, in_step: false });

  test("what plays stands where the clock says, however seldom it is looked at", () => {
    for (const [forward, at_end, begin, elapsed, part, isOver] of [
      [true, "stop", 0.5, 1, 0.75, false],
      [true, "stop", 0.5, 3_600, 1, true],
      [false, "stop", 0.5, 1, 0.25, false],
      [false, "stop", 0.5, 9, 0, true],
      [true, "restart", 0.5, 3, 0.25, false],
      [false, "restart", 0.25, 2, 0.75, false],
      [true, "restart", 0.5, 3_603, 0.25, false],
      [true, "reverse", 0.5, 1, 0.75, false],
      [true, "reverse", 0.5, 3, 0.75, false],
      [true, "reverse", 0.5, 5, 0.25, false],
      [true, "reverse", 0, 3_600 * 8 + 1, 0.25, false],
      [false, "reverse", 0.5, 1, 0.25, false],
      [false, "reverse", 0.5, 3, 0.25, false],
    ]) {
      const found = motion.placeAt(play(forward, at_end), begin, elapsed);
      near(found.part, part, 1e-9);
      assert.equal(found.isOver, isOver, `${at_end} ${forward} ${elapsed}`);
    }
    near(motion.beginning(play(true, "stop"), 1), 0, 0);
    near(motion.beginning(play(false, "stop"), 0), 1, 0);
    near(motion.beginning(play(true, "restart"), 7), 1, 0);
    near(motion.inSteps(2.39, 0.8), 1.6, 1e-9);
  });

  test("trails keep new points until the study stores them", () => {
    const trails = new Trails({
      1: [
        [0, 0],
        [1, 1],
      ],
    });
    trails.visit({ 1: [[2, 4]], 2: [[5, 5]] }, true);
    const { commands, sent } = trails.commands();
    trails.visit({ 1: [[3, 9]] }, true);
    assert.deepEqual(trails.last(1, 99), [
      [0, 0],
      [1, 1],
      [2, 4],
      [3, 9],
    ]);
    assert.deepEqual(trails.last(1, 2), [
      [2, 4],
      [3, 9],
    ]);
    assert.deepEqual(trails.last(7, 9), []);
    assert.deepEqual(commands[0].points, [[2, 4]]);
    trails.keep(
      {
        1: [
          [0, 0],
          [1, 1],
          [2, 4],
        ],
        2: [[5, 5]],
      },
      sent,
    );
    assert.deepEqual(trails.last(1, 99), [
      [0, 0],
      [1, 1],
      [2, 4],
      [3, 9],
    ]);
    assert.deepEqual(trails.last(2, 99), [[5, 5]]);
    trails.visit({ 2: Array.from({ length: 5000 }, (_, k) => [k, k]) }, true);
    assert.equal(trails.last(2, Infinity).length, 2001);
    // Who sets out elsewhere begins a stroke; who sets out where the trail ends goes on with it.
    trails.visit({ 3: [[0, 0]] }, false);
    trails.visit(
      {
        3: [
          [0, 0],
          [1, 1],
        ],
      },
      false,
    );
    trails.visit({ 3: [[7, 7]] }, false);
    assert.deepEqual(trails.last(3, 9), [[0, 0], [0, 0], [1, 1], null, [7, 7]]);
    trails.drop();
    assert.deepEqual(trails.last(1, 99), [
      [0, 0],
      [1, 1],
      [2, 4],
    ]);
  });
});

// Windows, how pictures follow them, and the windows before.
import assert from "node:assert/strict";
import { describe, test } from "node:test";
import * as affine from "../../src/axis_path/web/static/js/bench/viewport/affine.model.js";
import { WindowHistory } from "../../src/axis_path/web/static/js/bench/viewport/history.model.js";
import * as slides from "../../src/axis_path/web/static/js/bench/viewport/slide.model.js";
import { near } from "./near.js";

describe("windows", () => {
  test("a moved or zoomed picture puts every point where it belongs", () => {
    const made = { x: [-10, 10], y: [-7, 7], width: 660, height: 430 };
    const size = { width: 660, height: 430 };
    const decades = { x: [-2, 2], y: [-7, 7], width: 660, height: 430, log_x: true };
    assert.equal(affine.pxOf(affine.showing(decades, 1000), 660, 1000), 330);
    assert.equal(affine.showing(decades, 3), decades);
    near(affine.abscissa(decades, 660, affine.pxOf(decades, 660, 7)), 7, 1e-12);
    const windows = [
      affine.moved(made, size, 33, -20),
      affine.zoomed(made, size, { x: 100, y: 50 }, 0.5),
      affine.zoomed(affine.moved(made, size, -5, 3), size, { x: 660, y: 0 }, 3),
    ];
    for (const now of windows) {
      const shift = affine.shiftBetween(made, now, size);
      for (const x of [-10, -1.5, 0, 4, 10]) {
        const put = shift.ax * affine.pxOf(made, 660, x) + shift.bx;
        near(put, affine.pxOf(now, 660, x), 1e-6);
        near(affine.abscissa(now, 660, put), x, 1e-9);
      }
    }
  });

  test("a growing window is requested ahead, with lines true at their shown size", () => {
    const before = { x: [-3, 5], y: [2, 9] };
    const size = { width: 400, height: 300 };
    const parts = [1.04, 1.5, 0.9].map((factor) => {
      const zoomed = (times) => affine.zoomed(before, size, { x: 130, y: 70 }, factor ** times);
      const [now, ahead] = [zoomed(1), zoomed(4)];
      const then = affine.later(before, now, 3);
      const made = affine.grown(now, then);
      for (const axis of ["x", "y"])
        for (const k of [0, 1]) near(then[axis][k], ahead[axis][k], 1e-9);
      const width = ({ x: [low, high] }) => high - low;
      // Lines are asked for that are true as large as they will be shown, and hardly more.
      const needed = width(made) / Math.min(width(then), width(now));
      const shown = affine.stretchAhead(now, then, made);
      assert.ok(Math.min(needed, 2) <= shown && shown < needed + 0.25, `${factor}: ${shown}`);
      const grown = (axis, k) =>
        Math.abs(made[axis][k] - now[axis][k]) / (now[axis][1] - now[axis][0]);
      return Math.max(...["x", "y"].flatMap((axis) => [grown(axis, 0), grown(axis, 1)]));
    });
    assert.ok(parts[0] > 0 && parts[0] < 1 / 3);
    near(parts[1], 1 / 2, 1e-9);
    assert.equal(parts[2], 0);
  });

  test("zooming keeps the point under the pointer", () => {
    const window = { x: [-3, 5], y: [2, 9] };
    const next = affine.zoomed(window, { width: 400, height: 300 }, { x: 130, y: 70 }, 0.37);
    near(affine.abscissa(window, 400, 130), affine.abscissa(next, 400, 130), 1e-12);
  });

  test("dragging an axis keeps the fixed point and the held one", () => {
    for (const [low, high, fixed, from, to] of [
      [-10, 10, 330, 500, 600],
      [0, 4, 100, 400, 150],
      [-3, -1, 330, 100, 20],
    ]) {
      const now = affine.stretched([low, high], 660, fixed, from, to);
      const at = ([a, b], px) => a + (px / 660) * (b - a);
      near(at(now, fixed), at([low, high], fixed), 1e-9);
      near(at(now, to), at([low, high], from), 1e-9);
    }
  });

  test("windows too fine or too far are not drawable", () => {
    for (const [window, expected] of [
      [{ x: [0, 1], y: [0, 1] }, true],
      [{ x: [1e15, 1e15 + 1], y: [0, 1] }, false],
      [{ x: [0, Infinity], y: [0, 1] }, false],
      [{ x: [1, 0], y: [0, 1] }, false],
      [{ x: [0, 1e120], y: [0, 1] }, false],
      [{ x: [-3, 3], y: [0, 1], log_x: true }, true],
      [{ x: [1, 1.01], y: [0, 1], log_x: true }, false],
      [{ x: [0, 1], y: [90, 120], log_y: true }, false],
    ]) {
      assert.equal(affine.isDrawable(window), expected, JSON.stringify(window));
    }
  });

  test("a box becomes the window whichever way it is drawn", () => {
    const window = { x: [0, 20], y: [0, 10] };
    const size = { width: 200, height: 100 };
    for (const [a, b] of [
      [
        { x: 50, y: 20 },
        { x: 100, y: 60 },
      ],
      [
        { x: 100, y: 60 },
        { x: 50, y: 20 },
      ],
      [
        { x: 50, y: 60 },
        { x: 100, y: 20 },
      ],
    ]) {
      assert.deepEqual({ ...affine.boxed(window, size, a, b) }, { x: [5, 10], y: [4, 8] });
    }
    const equal = affine.equalised({ x: [0, 20], y: [-1, 3] }, size);
    assert.deepEqual(
      [equal.x, equal.y],
      [
        [0, 20],
        [-4, 6],
      ],
    );
  });

  test("the history takes one movement as one step", () => {
    let now = 0;
    const history = new WindowHistory(() => now);
    history.leave("a");
    for (const window of ["a1", "a2", "a3"]) {
      now += 100;
      history.leave(window);
    }
    now += 5000;
    history.leave("b");
    assert.deepEqual(
      [history.step(-1, "c"), history.step(-1, "b"), history.step(-1, "a"), history.state],
      ["b", "a", null, { back: false, forward: true, isUndone: false, isRedone: true }],
    );
    assert.deepEqual(
      [history.step(1, "a"), history.step(1, "b"), history.step(1, "c"), history.state],
      ["b", "c", null, { back: true, forward: false, isUndone: true, isRedone: false }],
    );
    history.step(-1, "c");
    history.leave("b");
    assert.equal(history.state.back, true);
    assert.equal(history.state.forward, false);
  });
});

describe("pictures that follow the pointer", () => {
  const size = { width: 660, height: 430 };

  test("a picture slides until it is stretched or runs out", () => {
    const slide = new slides.Slide();
    const at = (bx, by = 0, ax = 1) => ({ ax, bx, ay: 1, by });
    const scene = {};
    const narrow = { ...size, width: 600 };
    assert.equal(slide.to(scene, at(0), size), null, "painted");
    assert.deepEqual(slide.to(scene, at(12.4, -3.6), size), { ax: 1, ay: 1, dx: 12, dy: -4 });
    assert.equal(slide.to(scene, at(12.4, 0, 1.01), size), null, "stretched: painted");
    assert.deepEqual(slide.to(scene, at(13, 0, 1.01), size), { ax: 1, ay: 1, dx: 1, dy: 0 });
    assert.equal(slide.to({}, at(13, 0, 1.01), size), null, "another scene");
    assert.equal(slide.to(scene, at(0), narrow), null, "another size");
    assert.equal(slide.to(scene, at(slides.BEYOND_PX + 1), narrow), null, "too far");
    slide.forget();
    assert.equal(slide.to(scene, at(slides.BEYOND_PX + 1), narrow), null);
  });

  test("a canvas stretches within what is drawn", () => {
    const slide = new slides.Slide(true);
    const scene = {};
    slide.to(scene, { ax: 1, bx: 10, ay: 1, by: 0 }, size);
    const stretched = slide.to(scene, { ax: 1.2, bx: 10, ay: 1.2, by: 5 }, size);
    near(stretched.dx, -2, 1e-9);
    assert.deepEqual([stretched.ax, stretched.ay, stretched.dy], [1.2, 1.2, 5]);
    assert.equal(slide.to(scene, { ax: 1.6, bx: 10, ay: 1.6, by: 5 }, size), null);
    const made = { ...size, x: [0, 6.6], y: [0, 4.3], beyond: 100 };
    const moved = (px, more = {}) =>
      slides.isCovered({ ...made, ...more }, { x: [px / 100, 6.6 + px / 100], y: [0, 4.3] }, size);
    assert.deepEqual(
      [
        moved(0),
        moved(60),
        moved(-60),
        moved(70),
        moved(10, { beyond: 0 }),
        moved(10, { width: 600 }),
      ],
      [true, true, true, false, false, false],
    );
    assert.equal(slides.isCovered(made, { x: [0, 6.7], y: [0, 4.3] }, size), false);
  });

  test("lines are true in a window up to the scale they were drawn for", () => {
    const plain = { beyond: 100, stretch: 1.5, log_x: false, log_y: false };
    const made = { ...size, x: [0, 6.6], y: [0, 4.3], ...plain };
    const isTrue = (x, y, more = {}) => slides.isTrueIn(made, { x, y, ...more }, size);
    assert.ok(isTrue([0, 6.6], [0, 4.3]));
    assert.ok(isTrue([-1, 7.6], [-1, 5.3]));
    assert.ok(isTrue([1, 5.4], [1, 3.867]));
    assert.ok(!isTrue([-1.02, 6.6], [0, 4.3]));
    assert.ok(!isTrue([0, 6.6], [0, 5.32]));
    assert.ok(!isTrue([1, 4.9], [1, 3.54]));
    assert.ok(!isTrue([0, 6.6], [0, 4.3], { log_y: true }));
  });
});

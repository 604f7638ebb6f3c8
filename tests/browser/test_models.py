"""The pure parts of the scripts, run in the browser that will run them."""

from tests.browser.bench import BrowserTest


class ModelTest(BrowserTest):
    def call(self, expression: str):
        """Give the value of an expression that uses the model as ``m``."""
        self.page.goto(f"{self.base}/studies")
        self.page.evaluate(
            "async () => { const root = document.querySelector('link[rel=stylesheet]').href;"
            " window.m = await import(new URL('../../js/bench/affine.model.js', root)) }"
        )
        return self.page.evaluate(f"() => {{ const m = window.m; return {expression}; }}")

    def test_a_picture_follows_the_hand_to_the_pixel(self) -> None:
        """Moving or zooming and mapping the old picture puts every place where it belongs."""
        found = self.call(
            """(() => {
              const made = { x: [-10, 10], y: [-7, 7], width: 660, height: 430 };
              const size = { width: 660, height: 430 };
              const wrong = [];
              const windows = [m.moved(made, size, 33, -20), m.zoomed(made, size, { x: 100, y: 50 }, 0.5),
                               m.zoomed(m.moved(made, size, -5, 3), size, { x: 660, y: 0 }, 3)];
              for (const now of windows) {
                const shift = m.shiftBetween(made, now, size);
                for (const x of [-10, -1.5, 0, 4, 10]) {
                  const old = m.pxOf(made, 660, x);
                  const put = shift.ax * old + shift.bx;
                  if (Math.abs(put - m.pxOf(now, 660, x)) > 1e-6) wrong.push([x, put]);
                  if (Math.abs(m.abscissa(now, 660, put) - x) > 1e-9) wrong.push([x, 'back']);
                }
              }
              return wrong;
            })()"""
        )
        self.assertEqual([], found)

    def test_the_point_under_the_pointer_stays_while_zooming(self) -> None:
        found = self.call(
            """(() => {
              const window = { x: [-3, 5], y: [2, 9] };
              const size = { width: 400, height: 300 };
              const next = m.zoomed(window, size, { x: 130, y: 70 }, 0.37);
              return [m.abscissa(window, 400, 130), m.abscissa(next, 400, 130)];
            })()"""
        )
        self.assertAlmostEqual(found[0], found[1], places=12)

    def test_windows_too_fine_or_too_far_are_not_drawn(self) -> None:
        table = (
            ("{x: [0, 1], y: [0, 1]}", True),
            ("{x: [1e15, 1e15 + 1], y: [0, 1]}", False),
            ("{x: [0, Infinity], y: [0, 1]}", False),
            ("{x: [1, 0], y: [0, 1]}", False),
            ("{x: [0, 1e120], y: [0, 1]}", False),
        )
        for window, expected in table:
            with self.subTest(window):
                self.assertEqual(expected, self.call(f"m.isDrawable({window})"))

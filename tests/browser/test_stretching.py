"""What stands in for the picture while its window is stretched: sketches of elements, and curves painted beside the page."""

import base64
import json
from typing import Any

import numpy as np

from tests.browser.bench import BrowserTest

#: A bit of everything that stands on a plane besides its curves.
LINES = (
    "f(x) = x^3/20 - x", "q(x) = x^2/4 for x < 0; 2 - x for 0 <= x < 3", "t(x) = tan(x)", "A = (-4, 2)",
    "L = [(1, 3), (2, 3.5), (4, 2.5)]", "z(x, y) = x^2 + 3y", "P(u) = (5cos(3u), 4sin(2u)) for 0 <= u <= 2pi",
)  # fmt: skip
#: A pointer that zooms in and out by the same, a step with every frame, and ends where it began.
WAVER = """async (steps) => {
  const surface = document.querySelector('.plane-surface'), { left, top } = surface.getBoundingClientRect();
  for (let k = 0; k < steps; k += 1) {
    surface.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, clientX: left + 200, clientY: top + 150, deltaY: k % 2 ? 20 : -20 }));
    await new Promise(requestAnimationFrame);
  }
}"""
#: Zooms in and out at once, and keeps what the sketch shows, as a copy above all else.
COPY = """() => {
  const surface = document.querySelector('.plane-surface'), { left, top } = surface.getBoundingClientRect();
  for (const deltaY of [-20, 20, -20, 20]) {
    surface.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, clientX: left + 200, clientY: top + 150, deltaY }));
  }
  if (!surface.classList.contains('is-sketched')) return 0;
  const canvas = surface.querySelector('.plane-sketch');
  const copy = Object.assign(document.createElement('canvas'), { width: canvas.width, height: canvas.height, className: 'copy', hidden: true });
  copy.getContext('2d').drawImage(canvas, 0, 0);
  surface.append(copy);
  return 1;
}"""
#: The width of a picture, and one byte for each of its pixels.
DARKNESS = """async (data) => {
  const image = Object.assign(new Image(), { src: 'data:image/png;base64,' + data });
  await image.decode();
  const pen = new OffscreenCanvas(image.width, image.height).getContext('2d');
  pen.drawImage(image, 0, 0);
  const { data: all } = pen.getImageData(0, 0, image.width, image.height);
  const bytes = Uint8Array.from({ length: all.length / 4 }, (_, k) => all[4 * k + 1]);
  let text = '';
  for (let k = 0; k < bytes.length; k += 8192) text += String.fromCharCode(...bytes.subarray(k, k + 8192));
  return [image.width, btoa(text)];
}"""
#: Keeps what a worker was told, and what it painted.
PAINTED_BY_WORKER = """() => {
  const ask = Worker.prototype.postMessage, draw = CanvasRenderingContext2D.prototype.drawImage;
  Worker.prototype.postMessage = function (told) {
    window.told = told;
    ask.call(this, told);
  };
  const pixels = (canvas) => canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height).data;
  CanvasRenderingContext2D.prototype.drawImage = function (...all) {
    draw.apply(this, all);
    // One that was asked for in a pause has nothing around it, and may come when the pointer has gone on.
    if (this.canvas.matches('.plane-curves') && window.told.scene.window.beyond) Object.assign(window, { shown: pixels(this.canvas), shownFor: window.told });
  };
  window.paintedHere = async () => {
    const root = document.querySelector('link[rel=stylesheet]').href;
    const load = (name) => import(new URL(`../../js/bench/${name}`, root));
    const [{ cleared }, { paintCurves }, { UNMOVED }] = await Promise.all(['plane/canvas.js', 'plane/curves.paint.js', 'viewport/affine.model.js'].map(load));
    const { scene, tones } = window.shownFor;
    const canvas = new OffscreenCanvas(1, 1);
    paintCurves(cleared(canvas, scene.window, scene.window.beyond, scene.window.beyond), scene, UNMOVED, tones, () => []);
    return pixels(canvas);
  };
}"""


class StretchingTest(BrowserTest):
    def darkness(self) -> np.ndarray:
        """Return how dark each pixel of the plane is."""
        picture = self.page.locator(".plane-surface").screenshot()
        width, text = self.page.evaluate(DARKNESS, base64.b64encode(picture).decode())
        return 255 - np.frombuffer(base64.b64decode(text), np.uint8).astype(int).reshape(-1, width)

    def show(self, what: str) -> None:
        """Show the elements or the copies alone."""
        self.page.evaluate(
            "(what) => { for (const each of document.querySelectorAll('.plane-layer, .plane-curves, .copy'))"
            " { each.hidden = !each.matches(what); each.style.display = each.matches(what) ? 'block' : 'none'; } }",
            what,
        )

    def test_a_sketch_looks_as_the_elements_do(self) -> None:
        self.open_new_study(*LINES)
        self.settle()
        # Without answers the sketch and the elements are of the same scene.
        self.page.evaluate("() => { WebSocket.prototype.send = () => {} }")
        self.page.evaluate("() => { window.fetch = () => new Promise(() => {}) }")
        papers = []
        for theme in ("light", "dark"):
            if theme == "dark":
                self.page.get_by_role("button", name="Light or dark").click()
            self.assertEqual(1, self.page.evaluate(COPY))
            self.page.wait_for_selector(".plane-surface:not(.is-sketched)")
            self.show(".plane-layer, .plane-curves")
            elements = self.darkness()
            self.show(".copy")
            sketch = self.darkness()
            self.show(".plane-layer, .plane-curves")
            self.page.evaluate(
                "() => document.querySelectorAll('.copy').forEach((c) => c.remove())"
            )
            paper = int(np.median(elements))
            papers.append(paper)
            self.assertGreater((abs(elements - paper) > 40).sum(), 4_000)
            # Letters may stand a part of a pixel elsewhere: what differs much is the edge of something.
            differs = abs(elements - sketch) > 70
            self.assertLess(differs.sum(), 0.02 * (abs(elements - paper) > 40).sum())
            around = np.lib.stride_tricks.sliding_window_view(np.pad(sketch, 1, "edge"), (3, 3))
            far = (elements < around.min(axis=(2, 3)) - 40) | (
                elements > around.max(axis=(2, 3)) + 40
            )
            self.assertEqual(0, far.sum())
        self.assertGreater(papers[1] - papers[0], 100)

    def test_line_width_is_constant_while_stretching(self) -> None:
        self.open_new_study("y = 2.23")
        self.settle()
        asked: list[str] = []
        self.page.on("request", lambda request: asked.append(request.url))
        # Without answers nothing is known but what was drawn before.
        self.page.evaluate("() => { WebSocket.prototype.send = () => {} }")

        def line() -> tuple[float, float]:
            """Return where the line is and how wide, in px, between its flag and the axis."""
            part = self.darkness()[:190, 130:190].mean(axis=1)
            inked = np.clip(part - np.median(part), 0, None)
            runs = np.split(np.arange(len(inked)), np.flatnonzero(inked < 25))
            run = max(runs, key=lambda run: inked[run[1:]].sum())[1:]
            return float(np.average(run, weights=inked[run])), inked[run].sum() / inked[run].max()

        was_at, was_wide = line()
        turned = -240
        steps = f"[{turned / 4}, {turned / 4}, {turned / 4}, {turned / 4}]"
        self.assertEqual(1, self.page.evaluate(COPY.replace("[-20, 20, -20, 20]", steps)))
        self.page.wait_for_timeout(60)
        self.assertEqual([], asked)
        self.show(".copy")
        at, wide = line()
        self.assertAlmostEqual(150 + (was_at - 150) * 1.0015**-turned, at, delta=1.2)
        self.assertAlmostEqual(was_wide, wide, delta=0.5)

    def test_findings_are_requested_after_zooming(self) -> None:
        self.open_new_study("f(x) = x^2 - 2")
        self.settle()
        asked: list[str] = []
        self.page.on("request", lambda request: asked.append(request.url))
        self.page.evaluate(WAVER, 40)
        # On a slow machine a pointer may seem to pause.
        self.assertLess(len(asked), 8)
        self.settle()
        self.page.wait_for_timeout(200)
        self.assertTrue(any("finding" in url for url in asked))

    def test_a_curve_makes_no_other_number_of_a_label(self) -> None:
        self.open_new_study("y = 0.01x - 0.45", "y = 0.013x - 0.4", "x = -0.6 + y/99")
        self.page.mouse.move(5, 5)
        self.settle()
        labels = self.page.locator(".tick-label")
        plane = self.box(self.page.locator(".plane-surface"))
        boxes = [
            (text, self.box(label))
            for text, label in zip(labels.all_text_contents(), labels.all(), strict=True)
        ]
        with_curves = self.darkness()
        self.page.evaluate(
            "() => { document.querySelector('.plane-curves').style.display = 'none' }"
        )
        alone = self.darkness()
        seen = 0
        for text, box in boxes:
            left, top = round(box["x"] - plane["x"]), round(box["y"] - plane["y"])
            part = np.s_[
                max(top, 0) : top + round(box["height"]), max(left, 0) : left + round(box["width"])
            ]
            differs = abs(with_curves - alone)[part]
            seen += (differs > 40).any()
            self.assertFalse(((alone[part] > 90) & (differs > 30)).any(), text)
        self.assertGreater(seen, 5)

    def test_worker_paints_curves_as_the_page_does(self) -> None:
        self.open_new_study(*LINES)
        self.settle()
        self.page.evaluate(PAINTED_BY_WORKER)
        # On a slow machine the first answers may come when the pointer rests.
        for _ in range(6):
            self.page.evaluate(WAVER, 40)
            if self.page.evaluate("() => Boolean(window.shown)"):
                break
        found = self.page.evaluate(
            "async () => { const here = await window.paintedHere(); return [here.length, here.filter((v) => v).length,"
            " here.filter((v, k) => Math.abs(v - window.shown[k]) > 2).length] }"
        )
        self.assertGreater(found[0], 4 * 700 * 400)
        self.assertGreater(found[1], 10_000)
        self.assertEqual(0, found[2])
        # At rest the page has painted for the window alone, and elements stand.
        self.settle()
        self.assertEqual("0px", self.page.locator(".plane-curves").evaluate("(c) => c.style.left"))
        self.assertTrue(self.page.locator(".tick-label").first.is_visible())

    def test_without_a_worker_the_page_paints_curves_itself(self) -> None:
        self.page.route("**/curves.worker.js", lambda route: route.abort())
        self.open_new_study("f(x) = x^2 - 3")
        self.settle()
        before = self.ink()
        self.page.evaluate(PAINTED_BY_WORKER)
        for _ in range(4):
            self.page.evaluate(WAVER, 12)
            self.settle()
        self.assertIsNone(self.page.evaluate("() => window.shown ?? null"))
        self.assertAlmostEqual(before, self.ink(), delta=0.05 * before)

    def test_wheel_click_requests_the_exact_window(self) -> None:
        asked: list[dict[str, Any]] = []
        self.page.on(
            "websocket",
            lambda socket: socket.on("framesent", lambda text: asked.append(json.loads(text))),
        )
        self.open_new_study("f(x) = x^3/20 - x")
        self.page.keyboard.press("Escape")
        turn = """([deltaY, times]) => {
          const surface = document.querySelector('.plane-surface'), { left, top } = surface.getBoundingClientRect();
          for (let k = 0; k < times; k += 1)
            surface.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, clientX: left + 200, clientY: top + 150, deltaY }));
        }"""
        for times in (1, 1, 5):
            self.settle()
            # A pointer that has rested for less goes on.
            self.page.wait_for_timeout(200)
            asked.clear()
            self.page.evaluate(turn, [90, times])
            self.settle()
            scenes = [query for query in asked if query["part"] == "scene"]
            self.assertNotIn("beyond", scenes[-1])
            if times == 1:
                # What stands at rest is what was asked for at once.
                self.assertEqual(1, len(scenes))
            fields = self.page.locator(".plane-bound")
            shown = [float(fields.nth(k).input_value().replace("−", "-")) for k in (0, 1)]
            for bound, wanted in zip(scenes[-1]["window"]["x"], shown, strict=True):
                self.assertAlmostEqual(bound, wanted, delta=0.02)
        # A step whose new picture is late stretches the old one.
        self.page.evaluate("() => { WebSocket.prototype.send = () => {} }")
        self.page.evaluate(turn, [90, 1])
        self.page.wait_for_selector(".plane-curves[style*='matrix']")

    def test_pan_wins_over_bounds_that_follow_a_slider(self) -> None:
        self.open_new_study("s = 3", "f(x) = x^2 - s")
        fields = self.page.locator(".plane-bound")
        fields.nth(3).fill("s + 4")
        fields.nth(3).press("Enter")
        self.settle()
        low, high = (float(fields.nth(k).input_value().replace("−", "-")) for k in (0, 1))
        # Each answer is of a window that the pointer has left.
        self.page.evaluate(
            "() => { const send = WebSocket.prototype.send; WebSocket.prototype.send = function (question) {"
            " setTimeout(() => send.call(this, question), 150); } }"
        )
        self.page.locator(".plane-surface").focus()
        for _ in range(8):
            self.page.keyboard.press("Shift+ArrowRight")
            self.page.wait_for_timeout(60)
        self.settle()
        width = self.box(self.page.locator(".plane-surface"))["width"]
        found = float(fields.nth(0).input_value().replace("−", "-"))
        self.assertAlmostEqual(low + 8 * 40 / width * (high - low), found, delta=0.02)
        self.assertEqual("s + 4", fields.nth(3).input_value())

"""Pictures that follow the pointer without being painted anew, and are as true as painted ones."""

from tests.browser.bench import BrowserTest

LINES = (
    "f(x) = x^3/20 - x", "g(x) = (x^2 + 1)/((x - 3)(x + 4))", "h(x) = 3 exp(-x/5) sin(3x)",
    "q(x) = x^2/4 for x < 0; 2 - x for 0 <= x < 3", "r(theta) = 4 sin(2theta) for 0 <= theta <= 2pi",
)  # fmt: skip
#: Counts how often each canvas is painted.
COUNT = """() => {
  window.painted = {};
  const pen = CanvasRenderingContext2D.prototype, clear = pen.clearRect;
  pen.clearRect = function (...box) {
    window.painted[this.canvas.className] = (window.painted[this.canvas.className] ?? 0) + 1;
    return clear.apply(this, box);
  };
}"""
#: The ink of the curves as it stands in the window: a row of characters for each row of pixels.
INK = """() => {
  const canvas = document.querySelector('.plane-curves');
  const plane = document.querySelector('.plane-surface').getBoundingClientRect();
  const { left, top } = canvas.getBoundingClientRect();
  const { width, height } = plane;
  const data = canvas.getContext('2d').getImageData(plane.left - left, plane.top - top, width, height);
  const ink = (x, y) => (data.data[4 * (y * data.width + x) + 3] > 60 ? '#' : ' ');
  return Array.from({ length: data.height }, (_, y) => Array.from({ length: data.width }, (_, x) => ink(x, y)).join(''));
}"""
#: Lets one question for a picture beyond the window through, and keeps all others back.
GATE = """() => {
  const send = WebSocket.prototype.send, held = [];
  let isOpen = false, isThrough = false;
  WebSocket.prototype.send = function (question) {
    const isFirst = !isThrough && question.includes('"beyond":');
    isThrough ||= isFirst;
    if (isOpen || isFirst) send.call(this, question);
    else held.push(() => send.call(this, question));
  };
  window.openGate = () => { isOpen = true; for (const each of held.splice(0)) each(); };
}"""
NEXT_FRAME = "() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))"


class SlidingTest(BrowserTest):
    def far_from_ink(self, places: list[str], others: list[str]) -> int:
        """Count the inked pixels that have no inked one beside them in the other picture."""
        around = [(dx, dy) for dx in (-1, 0, 1) for dy in (-1, 0, 1)]
        return sum(
            places[y][x] == "#" and all(others[y + dy][x + dx] == " " for dx, dy in around)
            for y in range(1, len(places) - 1)
            for x in range(1, len(places[0]) - 1)
        )

    def test_pan_uses_what_is_drawn_beyond_the_window(self) -> None:
        # The first line is drawn without dashes, which begin where a curve comes into sight.
        self.open_new_study("f(x) = tan(x)/2 + 2sin(5x)/(x^2/9 + 1) for -9.7 <= x < 9")
        box = self.box(self.page.locator(".plane-surface"))
        x, y = box["x"] + box["width"] * 0.3, box["y"] + box["height"] * 0.4
        # One picture that is drawn beyond the window comes, and no other: a slow hand rests between moves.
        self.page.mouse.move(x, y)
        self.settle()
        self.page.evaluate(GATE)
        self.page.evaluate(COUNT)
        self.page.mouse.down()
        for step in range(1, 6):
            self.page.mouse.move(x + 4 * step, y)
        self.page.wait_for_function(
            "() => parseInt(document.querySelector('.plane-curves').style.left) < -50"
        )
        self.page.evaluate("() => { window.painted = {} }")
        for step in range(1, 15):
            self.page.mouse.move(x + 20 + 4 * step, y - 2 * step)
        self.page.evaluate(NEXT_FRAME)
        self.assertEqual({}, self.page.evaluate("() => window.painted"))
        slid = self.page.evaluate(INK)
        self.page.evaluate("() => window.openGate()")
        self.page.mouse.up()
        self.settle()
        self.assertGreaterEqual(self.page.evaluate("() => window.painted['plane-curves']"), 1)
        exact = self.page.evaluate(INK)
        self.assertGreater(sum(row.count("#") for row in exact), 3_000)
        self.assertEqual([0, 0], [self.far_from_ink(slid, exact), self.far_from_ink(exact, slid)])
        self.assertEqual(
            ["0px", ""],
            self.page.locator(".plane-curves").evaluate("(c) => [c.style.left, c.style.transform]"),
        )

    def test_zoom_stretches_the_picture_until_painted(self) -> None:
        self.open_new_study(*LINES)
        box = self.box(self.page.locator(".plane-surface"))
        self.page.mouse.move(box["x"] + 200, box["y"] + 150)
        self.settle()
        # Without answers nothing is painted anew.
        self.page.evaluate(COUNT)
        self.page.evaluate("() => { WebSocket.prototype.send = () => {} }")
        self.page.evaluate("() => { window.fetch = () => new Promise(() => {}) }")
        self.page.mouse.wheel(0, -100)
        self.page.evaluate(NEXT_FRAME)
        scale = self.page.locator(".plane-curves").evaluate(
            "(c) => new DOMMatrix(c.style.transform).a"
        )
        self.assertAlmostEqual(1.0015**100, scale, places=2)
        # Lanes are quickly painted, and then sharp. That of a curve by an angle has a scale of its
        # own, and stands on another sheet.
        self.assertEqual({"lane-sheet": 1}, self.page.evaluate("() => window.painted"))
        self.assertEqual(
            ["", ""],
            self.page.locator(".lane-sheet").evaluate_all(
                "(all) => all.map((c) => c.style.transform)"
            ),
        )
        # For a pointer that goes on it is painted on the sketch, and stands when it rests.
        for _ in range(4):
            self.page.mouse.wheel(0, -100)
        self.page.wait_for_selector(".plane-surface:not(.is-sketched)")
        self.assertEqual(1, self.page.evaluate("() => window.painted['plane-curves']"))

    def test_lanes_are_painted_when_they_come_into_sight(self) -> None:
        self.open_new_study(*[f"f_{k}(x) = x + 7 - {k}" for k in range(14)])
        self.page.evaluate(COUNT)
        self.page.evaluate("() => document.querySelector('.rows').scrollTo(0, 0)")
        self.page.wait_for_timeout(300)
        self.page.evaluate("() => { window.painted = {} }")
        self.page.locator(".plane-surface").focus()
        self.page.keyboard.press("Shift+ArrowRight")
        self.settle()
        # Once on the way, drawn beyond the window, and once at rest.
        self.page.wait_for_function("() => window.painted['lane-sheet']")
        self.assertLessEqual(self.page.evaluate("() => window.painted['lane-sheet']"), 2)
        # One canvas for all that are seen or near, and for no more.
        sheet = self.page.locator(".lane-sheet:visible")
        self.assertLess(self.box(sheet)["height"], 12 * 54)
        last = self.row("f_13")
        last.scroll_into_view_if_needed()
        self.page.wait_for_timeout(300)
        # Its zero stands where it belongs: at 6, which the moved window shows.
        low, high = (
            float(field.input_value().replace("−", "-"))
            for field in self.page.locator(".plane-bound").all()[:2]
        )
        lane = self.box(last.locator(".lane"))
        wanted = (6 - low) / (high - low) * lane["width"] + lane["x"]
        self.assertAlmostEqual(wanted, self.darkest_x(last.locator(".lane")), delta=1.5)
        # Rows above it become lower, and fewer: it is painted where its lane has gone.
        before = last.evaluate("(row) => row.offsetTop")
        self.row("f_12").hover()
        self.choose_for("f_12", "Turn off")
        self.assertLess(last.evaluate("(row) => row.offsetTop"), before - 5)
        self.assertAlmostEqual(wanted, self.darkest_x(last.locator(".lane")), delta=1.5)
        self.row("f_11").hover()
        self.choose_for("f_11", "Delete")
        self.assertAlmostEqual(wanted, self.darkest_x(last.locator(".lane")), delta=1.5)

    def test_the_reading_line_covers_no_number_of_a_zero(self) -> None:
        self.open_new_study("f(x) = x - 1.63")
        lane = self.row("f").locator(".lane")
        field = self.page.locator(".reading-field input")
        for place, free in (("1.5", True), ("5", False)):
            field.fill(place)
            field.press("Enter")
            self.settle()
            line, whole = self.box(lane.locator(".lane-reading")), self.box(lane)
            left = whole["y"] + whole["height"] - line["y"] - line["height"]
            self.assertEqual(free, left > 12, place)

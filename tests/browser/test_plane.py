"""The plane and the lanes under a pointer: axes, windows, rows, paths and relations."""

import math

from playwright.sync_api import Route

from tests.browser.bench import BrowserTest


class PlaneTest(BrowserTest):
    def bounds(self) -> list[float]:
        fields = self.page.locator(".plane-bound").all()[:4]
        return [float(field.input_value().replace("−", "-")) for field in fields]

    def drag(self, start: tuple[float, float], stop: tuple[float, float], key: str = "") -> None:  # type: ignore[override]
        """Drag on the plane; places are px from its upper left."""
        box = self.box(self.page.locator(".plane-surface"))
        if key:
            self.page.keyboard.down(key)
        self.page.mouse.move(box["x"] + start[0], box["y"] + start[1])
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + stop[0], box["y"] + stop[1], steps=5)
        self.page.mouse.up()
        if key:
            self.page.keyboard.up(key)
        self.settle()

    def test_a_box_an_axis_and_steps_through_windows(self) -> None:
        self.open_new_study("f(x) = x")
        home = self.bounds()
        box = self.box(self.page.locator(".plane-surface"))
        width, height = box["width"], box["height"]
        self.drag((width / 4, height / 4), (width / 2, height / 2), key="Shift")
        zoomed = self.bounds()
        for expected, found in zip([-5, 0, 0, 3.25], zoomed, strict=True):
            self.assertAlmostEqual(expected, found, delta=0.1)
        self.page.get_by_role("button", name="Earlier window").click()
        self.settle()
        self.assertEqual(home, self.bounds())
        self.page.locator(".plane-surface").focus()
        self.page.keyboard.press(".")
        self.settle()
        self.assertEqual(zoomed, self.bounds())
        self.page.keyboard.press(",")
        self.page.wait_for_timeout(800)
        # The labels of the x axis are taken at 5 and drawn to where 10 was: it shows half as much.
        self.drag((width * 0.75, height / 2 + 12), (width - 1, height / 2 + 12))
        stretched = self.bounds()
        self.assertAlmostEqual(-5, stretched[0], delta=0.1)
        self.assertAlmostEqual(5, stretched[1], delta=0.1)
        self.assertEqual(home[2:], stretched[2:])
        # A box by button; Escape gives it up.
        self.page.get_by_role("button", name="Zoom into a box").click()
        self.drag((10, 10), (12, 11))
        self.assertEqual(stretched, self.bounds())

    def test_two_fingers_zoom_about_their_midpoint(self) -> None:
        self.open_new_study("f(x) = x")
        left, right, low, high = self.bounds()
        box = self.box(self.page.locator(".plane-surface"))
        hands = self.page.context.new_cdp_session(self.page)

        def touch(kind: str, *places: float) -> None:
            """Let fingers be at parts of the plane's width, a quarter of its height from the top."""
            points = [
                {"x": box["x"] + part * box["width"], "y": box["y"] + box["height"] / 4, "id": k}
                for k, part in enumerate(places)
            ]
            hands.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

        touch("touchStart", 0.5)
        touch("touchStart", 0.5, 0.7)
        for k in range(1, 11):
            touch("touchMove", 0.5 - 0.01 * k, 0.7 + 0.01 * k)
        touch("touchEnd")
        self.settle()
        # What was seen between the fingers is seen over twice as much, and the place between them stays.
        middle, up = left + 0.6 * (right - left), high - (high - low) / 4
        expected = [
            middle + (left - middle) / 2,
            middle + (right - middle) / 2,
            up + (low - up) / 2,
            up + (high - up) / 2,
        ]
        for wanted, found in zip(expected, self.bounds(), strict=True):
            self.assertAlmostEqual(wanted, found, delta=0.15)

    def test_axes_are_changed_in_place_and_undone(self) -> None:
        self.open_new_study("f(x) = sin x")
        self.page.get_by_role("button", name="Axes and grid", exact=True).click()
        form = self.page.get_by_role("form", name="Axes and grid")
        form.locator("[name='x.labels']").select_option("degrees")
        self.settle()
        self.page.get_by_role("button", name="Measure in degrees").click()
        self.settle()
        self.assertEqual(0, self.page.locator(".axes-note:visible").count())
        form.locator("[name='x.step']").fill("-3")
        form.locator("[name='x.step']").press("Tab")
        form.get_by_text("not above zero").wait_for()
        form.locator("[name='x.step']").fill("5")
        form.locator("[name='x.step']").press("Tab")
        form.locator("[name='grid']").select_option("polar")
        self.settle()
        # An answer that arrives takes nothing away from what is being typed.
        held: list[Route] = []
        self.page.route("**/commands", lambda route: held.append(route))
        with self.page.expect_request("**/commands"):
            form.locator("[name='equal']").check()
        form.locator("[name='title']").fill("Beam\nsweep")
        held[0].continue_()
        self.page.unroute("**/commands")
        self.settle()
        form.locator("[name='title']").press("Tab")
        self.settle()
        self.check_access()
        form.locator("[name='title']").press("Escape")
        form.wait_for(state="hidden")
        self.page.locator(".plane-title", has_text="sweep").wait_for()
        self.assertEqual(["Beam", "sweep"], self.page.locator(".plane-title").all_inner_texts())
        self.assertGreater(self.page.locator(".grid-circle").count(), 3)
        self.assertIn("5°", self.page.locator(".tick-label").all_text_contents())
        low, high, floor, top = self.bounds()
        box = self.box(self.page.locator(".plane-surface"))
        self.assertAlmostEqual(
            (high - low) / box["width"], (top - floor) / box["height"], delta=1e-3
        )
        self.page.reload()
        self.page.wait_for_selector(".grid-circle")
        for _ in range(4):
            self.page.get_by_role("button", name="Undo").click()
            self.settle()
        self.assertEqual(0, self.page.locator(".grid-circle").count())

    def test_an_axis_is_made_logarithmic_and_plain_again(self) -> None:
        self.open_new_study("f(x) = x^2", "g(x) = 1/x")
        self.page.get_by_role("button", name="Axes and grid", exact=True).click()
        for name in ("x.log", "y.log"):
            self.page.locator(f"[name='{name}']").check()
            self.settle()
        self.check_access()
        self.page.get_by_role("button", name="Close axes and grid").click()
        self.assertEqual([0.01, 10, 0.0065, 6.5], self.bounds())
        labels = self.page.locator(".tick-label").all_text_contents()
        self.assertLessEqual({"0.01", "0.1", "1"}, set(labels))
        # Both powers are straight lines: three decades across, as many up.
        box = self.box(self.page.locator(".plane-surface"))
        self.drag((box["width"] * 2 / 3, 200), (box["width"] / 3, 200))
        low, high = self.bounds()[:2]
        self.assertTrue(0.09 < low < 0.11 and 90 < high < 110, (low, high))
        self.page.get_by_role("button", name="Frame").click()
        self.settle()
        self.assertGreater(self.bounds()[3], 1000)
        self.page.mouse.move(box["x"] + 330, box["y"] + 100)
        self.settle()
        readings = self.page.locator(".row-value:visible").all_text_contents()
        x = float(self.page.get_by_label("x-value of the reading line").input_value())
        for text, value in zip(readings, (x * x, 1 / x), strict=True):
            self.assertAlmostEqual(1, float(text) / value, places=3)
        window = self.bounds()
        # The window is stored a moment after it came to rest.
        self.page.wait_for_timeout(700)
        self.settle()
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.settle()
        self.assertEqual(window, self.bounds())
        for _ in range(2):
            self.page.get_by_role("button", name="Undo").click()
            self.settle()
        # What was seen is still seen.
        self.assertEqual(window[1], self.bounds()[1])
        self.assertIn("20", self.page.locator(".tick-label").all_text_contents())

    def test_every_kind_of_line_is_drawn(self) -> None:
        for line in ("P(t) = (5cos(3t), 4sin(2t))", "r(theta) = 4", "x^2/25 + y^2/9 = 1", "y > x", "A = (1, 2)",
                     "L = [(1, 2), (3, 4)]", "d(x, y) = x y"):  # fmt: skip
            with self.subTest(line):
                self.open_new_study(line)
                drawn = self.ink() + self.page.locator(".point-dot").count()
                self.assertGreater(drawn, 0)
                self.assertEqual(0, self.page.locator(".row-why:visible").count())
        self.check_access()

    def test_the_end_of_a_path_is_dragged_on_its_own_scale(self) -> None:
        self.open_new_study("r(theta) = 3 for 0 <= theta <= 2pi")
        handle = self.row("r").get_by_role("slider", name="Upper end of the domain of r")
        box = self.box(handle)
        lane = self.box(self.row("r").locator(".lane"))
        # The scale goes 6 % beyond both ends; half a turn is in its middle.
        self.page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 10)
        self.page.mouse.down()
        self.page.mouse.move(lane["x"] + lane["width"] / 2, box["y"] + 10, steps=6)
        self.settle()
        # While the pointer drags it, the handle stays under it.
        held = self.box(handle)
        self.assertAlmostEqual(
            lane["x"] + lane["width"] / 2, held["x"] + held["width"] / 2, delta=2
        )
        self.page.mouse.up()
        self.settle()
        value = float((handle.get_attribute("aria-valuetext") or "").split(",")[0])
        self.assertAlmostEqual(math.pi, value, delta=0.03)

    def test_points_of_ones_own_are_checked_against_the_curve(self) -> None:
        self.open_new_study()
        self.page.get_by_role("tab", name="Values").click()
        self.page.get_by_text("Write a function first. Then it can be checked here.").wait_for()
        self.assertFalse(self.page.get_by_role("button", name="Show the points").is_visible())
        for line in ("f(x) = sin(3x)", "g(x) = x/2"):
            self.write(line)
        self.page.get_by_label("Number of points").fill("5")
        self.page.get_by_role("button", name="Show the points").click()
        self.page.get_by_text("These 5 points miss 18 turns of the curve.").wait_for()
        self.assertEqual(5, self.page.locator(".check-dot").count())
        self.page.get_by_label("Function to check").select_option(label="g")
        self.page.get_by_label("How to enter the points").select_option("step")
        self.page.get_by_label("Step between points").fill("1/2")
        self.page.get_by_role("button", name="Show the points").click()
        self.page.get_by_text("These 41 points show this curve as it is.").wait_for()
        self.page.get_by_role("button", name="Hide the points").click()
        self.settle()
        self.assertEqual(0, self.page.locator(".check-dot").count())

    def test_the_reading_line_is_typed_and_marks_are_caught(self) -> None:
        self.open_new_study("f(x) = x^2 - 4", "P(t) = (5cos t, 3 sin t)")
        field = self.page.get_by_label("x-value of the reading line")
        field.fill("pi/2")
        field.press("Enter")
        self.settle()
        self.assertEqual("1.5708", self.page.locator(".reading-tag text").text_content())
        self.page.locator(".plane-surface").focus()
        self.page.keyboard.press("PageUp")
        self.settle()
        far = float(self.page.locator(".reading-tag text").text_content() or "")
        self.page.keyboard.press("ArrowLeft")
        self.settle()
        near = float(self.page.locator(".reading-tag text").text_content() or "")
        self.assertTrue(1.6 < near < far < 2.4)
        field.fill("1/0")
        field.press("Enter")
        self.page.get_by_text("has no value").wait_for()
        box = self.box(self.page.locator(".plane-surface"))
        self.page.mouse.move(box["x"] + box["width"] * 0.6 + 3, box["y"] + box["height"] / 2 + 3)
        self.page.locator(".caught", has_text="f = 0 at x = 2").wait_for()
        self.settle()
        self.assertIn("t = ", self.row("P").locator(".row-value").inner_text())
        self.assertEqual("2", self.page.locator(".reading-tag text").text_content())
        self.assertIn("0", self.row("f").locator(".row-value").inner_text())

    def test_a_picture_is_saved_and_opened_again(self) -> None:
        self.open_demo("Breakwater")
        self.page.get_by_role("button", name="Picture", exact=True).click()
        self.check_access()
        form = self.page.get_by_role("form", name="Picture")
        for ending in ("svg", "pdf", "study", "png"):
            form.locator("[x-model='format']").select_option(ending)
            with self.page.expect_download() as saved:
                form.get_by_role("button", name="Save").click()
            path = saved.value.path()
            self.assertTrue(saved.value.suggested_filename.startswith("Breakwater."))
        self.page.goto(f"{self.base}/studies")
        self.page.get_by_text("Open from a file").click()
        self.page.locator("input[type=file]").set_input_files(path)
        self.page.get_by_role("button", name="Open", exact=True).click()
        self.page.wait_for_selector(".tick-label")
        self.assertEqual("Breakwater", self.page.locator("#study-title").input_value())
        self.assertEqual(3, len(self.page.locator(".lane:visible").all()))
        self.page.goto(f"{self.base}/studies")
        self.page.get_by_text("Open from a file").click()
        self.page.locator("input[type=file]").set_input_files(
            {"name": "a.svg", "mimeType": "image/svg+xml", "buffer": b"<svg/>"}
        )
        self.page.get_by_role("button", name="Open", exact=True).click()
        self.page.get_by_text("There is no study in this file.").wait_for()

    def test_the_look_of_a_line_and_the_legend(self) -> None:
        self.open_new_study("f(x) = x^2/6 - 2", "L = [(1, 2), (3, 4), (5, 1)]")
        self.row("L").hover()
        self.choose_for("L", "Colour and line style …")
        group = self.page.get_by_role("group", name="Style of L")
        group.get_by_label("points").select_option("square")
        group.get_by_label("joined").check()
        group.get_by_role("button", name="dotted").click()
        self.settle()
        self.check_access()
        self.assertEqual(3, self.page.locator(".plane-marks rect.point-dot").count())
        self.assertEqual(1, self.page.locator(".plane-marks polyline").count())
        group.get_by_role("button", name="Close").click()
        self.page.get_by_role("button", name="Axes and grid", exact=True).click()
        self.page.locator("[name='legend']").check()
        self.settle()
        self.page.get_by_role("button", name="Close axes and grid").click()
        legend = self.page.get_by_role("group", name="Legend")
        before = self.box(legend)
        self.page.mouse.move(before["x"] + 10, before["y"] + 10)
        self.page.mouse.down()
        self.page.mouse.move(before["x"] - 90, before["y"] - 20, steps=4)
        self.page.mouse.up()
        self.settle()
        self.page.reload()
        self.page.wait_for_selector(".legend-line math")
        self.settle()
        after = self.box(legend)
        self.assertAlmostEqual(before["x"] - 100, after["x"], delta=2)
        self.assertAlmostEqual(before["y"] - 30, after["y"], delta=2)

    def test_stale_picture_is_dimmed(self) -> None:
        # Without a socket the page asks with requests.
        self.page.route_web_socket("**/socket", lambda socket: socket.close())
        self.open_new_study("f(x) = x")
        self.page.route("**/scene", lambda route: route.abort())
        self.page.get_by_role("button", name="Zoom in", exact=True).click()
        self.page.locator(".is-stale").wait_for()
        self.assertLess(
            float(
                self.page.locator(".plane").evaluate("(plane) => getComputedStyle(plane).opacity")
            ),
            1,
        )
        # It is asked again until there is an answer; a refusal is left to the student.
        self.page.unroute("**/scene")
        self.page.wait_for_function("() => !document.querySelector('.is-stale')")
        self.page.route("**/scene", lambda route: route.fulfill(status=500, json={}))
        self.page.get_by_role("button", name="Zoom in", exact=True).click()
        self.page.locator(".is-stale").wait_for()
        # The pointer has rested: nothing is asked by itself any more.
        self.page.wait_for_timeout(700)
        self.page.unroute("**/scene")
        self.page.get_by_role("button", name="Try again").click()
        self.settle()
        self.assertEqual(0, self.page.locator(".is-stale").count())
        self.assertFalse(self.page.get_by_role("button", name="Try again").is_visible())

    def test_equal_scales_stay_equal_while_zooming_and_resizing(self) -> None:
        self.open_new_study("x^2 + y^2 = 9")
        self.page.get_by_role("button", name="Axes and grid", exact=True).click()
        self.page.locator("[name='equal']").check()
        self.settle()
        self.page.get_by_role("button", name="Close axes and grid").click()
        for act in (
            lambda: self.page.get_by_role("button", name="Zoom in", exact=True).click(),
            lambda: self.page.set_viewport_size({"width": 1000, "height": 900}),
            lambda: self.page.get_by_role("button", name="Frame").click(),
            lambda: self.type_bound("upper bound", "pi"),
            lambda: self.type_bound("left bound", "-4"),
        ):
            act()  # type: ignore[no-untyped-call]
            self.settle()
            low, high, floor, top = self.bounds()
            box = self.box(self.page.locator(".plane-surface"))
            across, up = box["width"] / (high - low), box["height"] / (top - floor)
            self.assertAlmostEqual(1, across / up, delta=0.02)
        # What was typed last stands.
        self.assertEqual("−4", self.page.get_by_label("left bound").input_value())

    def type_bound(self, label: str, text: str) -> None:
        self.page.get_by_label(label).fill(text)
        self.page.get_by_label(label).press("Enter")


class RowsTest(BrowserTest):
    def names(self) -> list[str]:
        return [self.text(formula)[0] for formula in self.page.locator(".row-formula").all()]

    def test_rows_are_moved_by_dragging_and_by_keys(self) -> None:
        self.open_new_study("f(x) = x", "g(x) = 2x", "h(x) = 3x")
        grips = self.page.locator(".row-grip")
        start, stop = self.box(grips.nth(2)), self.box(grips.nth(0))
        self.page.mouse.move(start["x"] + 5, start["y"] + 20)
        self.page.mouse.down()
        self.page.mouse.move(stop["x"] + 5, stop["y"] + 2, steps=6)
        self.page.mouse.up()
        self.settle()
        self.assertEqual(["h", "f", "g"], self.names())
        self.page.get_by_role("button", name="Line 1: move h").focus()
        self.page.keyboard.press("ArrowDown")
        self.settle()
        self.assertEqual(["f", "h", "g"], self.names())

    def test_rows_are_selected_deleted_and_duplicated(self) -> None:
        self.open_new_study("f(x) = x", "g(x) = 2x", "h(x) = 3x")
        self.row("f").hover()
        self.choose_for("f", "Duplicate")
        self.assertEqual(4, self.page.locator(".row-item").count())
        # A check box chooses a line, and with Shift all lines from the one before.
        self.page.get_by_label("Select g").click()
        self.page.get_by_label("Select h").click(modifiers=["Shift"])
        self.page.get_by_text("2 lines selected").wait_for()
        self.check_access()
        self.page.get_by_role("group", name="Actions for the selected lines").get_by_role(
            "button", name="Delete"
        ).click()
        self.settle()
        self.assertEqual(2, self.page.locator(".row-item").count())
        self.page.get_by_role("button", name="Undo").click()
        self.settle()
        self.assertEqual(4, self.page.locator(".row-item").count())


class NarrowTest(BrowserTest):
    def test_forms_that_open_over_the_bench_fit_every_width(self) -> None:
        for width, height in ((1280, 800), (1024, 768), (768, 1024), (390, 844)):
            self.page = self.open_page(width=width, height=height)
            self.open_demo("Breakwater")
            for opener, name in (("Axes and grid", "Axes and grid"), ("Picture", "Picture")):
                with self.subTest(width, form=name):
                    self.page.get_by_role("button", name=opener, exact=True).click()
                    form = self.page.get_by_role("form", name=name)
                    box = self.box(form)
                    self.assertGreaterEqual(box["x"], 0)
                    self.assertLessEqual(box["x"] + box["width"], width)
                    wide = self.page.evaluate("() => document.documentElement.scrollWidth")
                    self.assertLessEqual(wide, width)
                    form.locator("select").first.press("Escape")
                    form.wait_for(state="hidden")
            self.check_access()

    def test_the_new_controls_are_reached_with_the_keyboard_alone(self) -> None:
        self.open_new_study("f(x) = x", "P(t) = (t, t) for 0 <= t <= 1")
        reached = set[str]()
        for _ in range(70):
            self.page.keyboard.press("Tab")
            name = self.page.evaluate(
                "() => document.activeElement.getAttribute('aria-label') ?? document.activeElement.innerText"
            )
            reached.add(" ".join(str(name).split()))
        for wanted in ("Zoom into a box", "Axes and grid", "x-value of the reading line", "Picture", "More for f",
                       "Select P", "Line 2: move P", "Upper end of the domain of P"):  # fmt: skip
            with self.subTest(wanted):
                self.assertIn(wanted, reached)

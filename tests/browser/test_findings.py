"""Findings under a pointer: asked from the panel, a lane and the plane, opened, labelled, followed."""

from contextlib import suppress

from playwright.sync_api import Error, Locator, Route

from tests.browser.bench import BrowserTest

#: Notes in each frame what `c` is, what the upper zero is, and whether it is said to be behind.
FRAMES = """() => {
  window.frames_seen = []
  const look = () => {
    const rows = [...document.querySelectorAll('.finding-row')]
    const row = rows.at(-1)
    const decimal = row.querySelector('.finding-decimal').textContent || row.querySelector('.finding-x').textContent
    const told = [...document.querySelectorAll('.row-value')].map((each) => each.textContent).filter(Boolean).at(-1)
    window.frames_seen.push([told, decimal.replace(/[^0-9.]/g, ''), Boolean(row.closest('.is-behind'))])
    if (!window.isOver) requestAnimationFrame(look)
  }
  requestAnimationFrame(look)
}"""


class FindingsTest(BrowserTest):
    def locate(self, what: str, of: str = "") -> Locator:
        self.page.get_by_label("What to locate").select_option(what)
        if of:
            self.page.get_by_label("Of which line").select_option(label=of)
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        return self.entry(0)

    def solve(self, text: str) -> Locator:
        field = self.page.get_by_label("Equation, inequality, or several equations in lines")
        field.fill(text)
        field.press("Enter")
        self.settle()
        return self.entry(0)

    def entry(self, k: int) -> Locator:
        return self.page.locator("article.finding").nth(k)

    def texts_of(self, entry: Locator) -> list[str]:
        """What the lines of an entry say, each without the mark before it."""
        return [self.text(item).lstrip("●○") for item in entry.locator(".finding-item").all()]

    def test_findings_move_with_the_drag_and_match_the_picture(self) -> None:
        """In every frame the panel tells of the very state that the rows show."""
        self.open_new_study("f(x) = x^2 - c", "a = 1.3", "c = a^2")
        self.locate("zeros", "f")
        self.page.evaluate(FRAMES)
        track = self.page.get_by_role("slider", name="Slider a")
        box = self.box(track)
        self.page.mouse.move(box["x"] + box["width"] * 0.6, box["y"] + 10)
        self.page.mouse.down()
        for k in range(60):
            self.page.mouse.move(box["x"] + box["width"] * (0.6 + k / 200), box["y"] + 10)
            self.page.wait_for_timeout(15)
        frames = self.page.evaluate("() => { window.isOver = true; return window.frames_seen }")
        self.page.mouse.up()
        shown = [(float(c), float(zero)) for c, zero, is_behind in frames if not is_behind]
        for c, zero in shown:
            self.assertAlmostEqual(c, zero**2, delta=1e-4 * c)
        self.assertGreater(len({zero for _, zero in shown}), 5)
        self.settle()
        self.assertIn("exactly two zeros", self.entry(0).inner_text())

    def test_marks_stay_while_a_change_is_committed(self) -> None:
        """They come with the change: the ledger's own answer is not waited for."""
        self.open_new_study("f(x) = x^2 - c", "c = 4")
        self.locate("zeros", "f")
        marks = self.page.locator(".plane-findings .located-mark")
        self.assertEqual(2, marks.count())
        plane = self.box(self.page.locator(".plane-surface"))
        middle = plane["x"] + plane["width"] / 2
        unit = (self.centre_x(marks.last) - middle) / 2
        held: list[Route] = []
        self.page.route("**/findings", lambda route: held.append(route))
        slider = self.page.get_by_role("slider", name="Slider c")
        shown = 0
        # A busy moment has no time for them: then there are none, but never those of another state.
        keys = ["ArrowRight"] * 20 + ["Undo"] * 5
        for count, key in enumerate(keys * 4):
            if shown and count >= len(keys):
                break
            with self.page.expect_response(
                lambda answer: answer.url.endswith(("commands", "history"))
            ):
                if key == "Undo":
                    self.page.get_by_role("button", name="Undo").click()
                else:
                    slider.press(key)
            self.page.wait_for_function(
                "() => document.querySelector('.saved').textContent === 'saved'"
            )
            self.page.evaluate(
                "() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))"
            )
            value = float(slider.get_attribute("aria-valuenow") or 0)
            for mark, side in zip(marks.all(), (-1, 1), strict=False):
                shown += 1
                self.assertAlmostEqual(
                    middle + side * unit * value**0.5, self.centre_x(mark), delta=1.5
                )
        self.assertGreater(shown, 0)
        self.page.unroute("**/findings")
        for route in held:
            # A question that nobody needs any more was given up.
            with suppress(Error):
                route.continue_()
        self.settle()
        self.assertEqual(2, marks.count())

    def test_every_kind_is_located_from_the_panel(self) -> None:
        self.open_new_study("f(x) = x^3/4 - 2x", "h(x) = 1/(x - 1)", "L = [(0, -1), (1, 1)]")
        entry = self.locate("extrema", "f")
        self.assertIn("Proved:exactlytwoextrema", self.text(entry))
        self.assertIn("maximumx=−1.632993162value2.177324216", self.texts_of(entry))
        self.assertEqual("Extrema of f", entry.get_by_role("heading").inner_text())
        self.assertEqual("x=1", self.texts_of(self.locate("breaks", "h"))[0].removeprefix("pole"))
        shown = self.texts_of(self.locate("asymptotes", "h"))
        self.assertEqual(["verticalx=1", "horizontaly=0"], shown)
        self.assertEqual("x=0", self.texts_of(self.locate("inflections", "f"))[0][:3])
        self.assertIn("exactlytwointersections", self.text(self.locate("intersections", "f")))
        self.assertEqual(1, self.texts_of(self.locate("data", "L")).count("zerox=0.5"))
        self.assertIn("area", self.text(self.locate("interval", "f")))
        self.page.get_by_label("What to locate").select_option("point")
        self.page.get_by_label("At which place").fill("2")
        point = self.locate("point", "f")
        self.assertIn("slope1", self.texts_of(point))
        point.get_by_role("button", name="Add the tangent").click()
        self.settle()
        self.assertEqual(
            "g(x)=f(2)+f′(2)\u2062(x−2)", self.text(self.row("g").locator(".row-formula"))
        )
        self.check_access()
        self.assertGreater(self.page.locator(".located-mark").count(), 5)

    def test_curves_of_every_kind_are_offered_for_intersections(self) -> None:
        self.open_new_study("r(theta) = 2", "P(t) = (t, t/2)", "f(x) = x", "x^2 + y^2 = 9", "a = 1")
        self.page.get_by_label("What to locate").select_option("intersections")
        self.assertEqual(
            ["r", "P", "f"],
            self.page.get_by_label("Of which line").locator("option").all_inner_texts(),
        )
        self.page.get_by_label("Of which line").select_option(label="r")
        self.page.get_by_label("Of which second line").select_option(label="f")
        texts_of = self.texts_of(self.locate("intersections"))
        self.assertEqual(2, len(texts_of))
        self.assertIn("x=1.414213562", "".join(texts_of))

    def test_equations_are_solved_drawn_and_shown_on_the_lanes(self) -> None:
        self.open_new_study("f(x) = x^2 - 2")
        entry = self.solve("x^2 - 1 = x")
        self.assertEqual(2, len(self.texts_of(entry)))
        self.assertIn("≈1.618033989", self.texts_of(entry)[1])
        self.assertIn("Proved:exactlytwosolutions", self.text(entry))
        entry.get_by_role("button", name="Draw both sides").click()
        self.settle()
        self.assertEqual(3, self.page.locator(".row-item .lane:visible").count())
        self.assertIn("holdsin1interval", self.text(self.solve("f(x) <= 0")))
        self.assertEqual(4, self.page.locator(".located-span").count())
        self.solve("x + y = 3")
        self.page.get_by_text("letters without a value").wait_for()
        field = self.page.get_by_label("Equation, inequality, or several equations in lines")
        field.fill("x + y = 3\nx - y = 1")
        self.page.get_by_role("button", name="Solve", exact=True).click()
        self.settle()
        self.assertEqual(["x=2", "y=1"], self.texts_of(self.entry(0)))

    def test_lane_interval_plane_label_and_table_rows(self) -> None:
        self.open_new_study("f(x) = x^2 - 3")
        lane = self.box(self.row("f").locator(".lane-field"))
        y = lane["y"] + lane["height"] / 2
        self.page.mouse.move(lane["x"] + lane["width"] / 2, y)
        self.page.mouse.down()
        self.page.mouse.move(lane["x"] + lane["width"] * 0.75, y, steps=4)
        self.page.mouse.up()
        bounds = [
            float(
                self.page.get_by_role("form", name="Locate")
                .get_by_label(end, exact=True)
                .input_value()
            )
            for end in ("from", "to")
        ]
        self.assertAlmostEqual(0, bounds[0], delta=0.05)
        self.assertAlmostEqual(5, bounds[1], delta=0.05)
        entry = self.locate("zeros")
        self.assertIn("Proved:exactlyonezero", self.text(entry))
        self.assertIn("≈1.732050808", self.texts_of(entry)[0])
        entry.get_by_role("button", name="Why").click()
        entry.get_by_text("sign changes here").wait_for()
        self.assertIn("f(√3) = 0", entry.inner_text())
        # One press on the mark labels it, one more takes the label away.
        mark = self.box(self.page.locator(".located-mark").first)
        for count in (1, 0):
            self.page.mouse.click(mark["x"] + mark["width"] / 2, mark["y"] + mark["height"] / 2)
            self.settle()
            self.assertEqual(count, self.page.locator(".located-label").count())
        entry.get_by_role("button", name="Show in table").click()
        self.page.wait_for_selector(".is-around")
        around = self.page.locator(".is-around th > span").all_inner_texts()
        self.assertEqual(["1", "2"], around)

    def test_answers_follow_a_slider_and_report_changes(self) -> None:
        self.open_new_study("f(x) = x^2 - a", "a = 4")
        entry = self.locate("zeros", "f")
        self.assertEqual(2, len(self.texts_of(entry)))
        for value, words in (("0", "Two have merged into one."), ("-1", "One is gone.")):
            field = self.page.locator(".slider-value")
            field.fill(value)
            field.press("Enter")
            self.settle()
            self.assertEqual(words, entry.locator(".finding-change").inner_text())
        self.assertEqual(0, self.page.locator(".located-mark").count())
        entry.get_by_role("button", name="Copy, note, labels").click()
        entry.get_by_role("button", name="Add a note").click()
        entry.get_by_label("Note", exact=True).fill("none below zero")
        entry.get_by_label("Note", exact=True).press("Tab")
        self.settle()
        with self.page.expect_download() as saved:
            entry.get_by_role("button", name="CSV").click()
        self.assertEqual("findings.csv", saved.value.suggested_filename)
        self.page.reload()
        self.page.wait_for_selector("article.finding")
        self.assertEqual("none below zero", entry.get_by_label("Note", exact=True).input_value())


class ValuesTest(BrowserTest):
    def heads(self) -> list[str]:
        return self.page.locator(".values-table:visible tbody th > span").all_inner_texts()

    def test_demo_walk_from_graph_to_table_to_proof(self) -> None:
        self.open_new_study("f(x) = x^2 - 2")
        self.page.get_by_role("tab", name="Values").click()
        self.settle()
        for step, expected in enumerate((("1", "2"), ("1.4", "1.5"), ("1.41", "1.42"))):
            # The row before a change of sign says so; one press looks ten times more finely.
            signs = self.page.locator(".row-happens:visible", has_text="±")
            row = signs.last.locator("xpath=ancestor::tr")
            at = self.heads().index(row.locator("th > span").inner_text())
            self.assertEqual(expected, tuple(self.heads()[at : at + 2]))
            if step < 2:
                signs.last.click()
                self.settle()
                self.assertIn(
                    f"between {expected[0]} and", self.page.locator(".finer-line").inner_text()
                )
        self.page.get_by_role("button", name="Back").click()
        self.settle()
        self.assertEqual("1.9", self.heads()[9])
        self.page.get_by_role("button", name="Back").click()
        self.settle()
        self.assertEqual(11, len(self.heads()))
        self.page.get_by_role("tab", name="Findings").click()
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        self.assertIn("1.414213562", self.page.locator("article.finding").inner_text())

    def test_x_values_and_number_formats_can_be_chosen(self) -> None:
        self.open_new_study("f(x) = 1000/3 sin x", "g(x) = 1/x")
        self.page.get_by_role("tab", name="Values").click()
        self.settle()
        panel = self.page.locator("#panel-values")
        panel.get_by_label("How to enter the x-values").select_option("count")
        for label, text in (("start", "0"), ("stop", "pi"), ("rows", "7")):
            panel.get_by_label(label, exact=True).fill(text)
            panel.get_by_label(label, exact=True).press("Enter")
            self.settle()
        self.assertEqual(["0", "π/6", "π/3", "π/2"], self.heads()[:4])
        panel.get_by_label("How many digits").select_option("3")
        panel.get_by_label("Number format", exact=True).select_option("scientific")
        self.settle()
        self.assertIn("1.67·10^2", panel.locator(".values-table").first.inner_text())
        panel.get_by_label("Number format", exact=True).select_option("fixed")
        self.settle()
        self.assertIn("166.667", panel.locator(".values-table").first.inner_text())
        panel.get_by_label("How to enter the x-values").select_option("own")
        panel.get_by_label("my x-values", exact=True).fill("0, 1, 5/2")
        panel.get_by_label("my x-values", exact=True).press("Tab")
        self.settle()
        self.assertEqual(["0", "1", "2.5"], self.heads())
        with self.page.expect_download() as saved:
            panel.get_by_role("button", name="CSV").click()
        lines = saved.value.path().read_text().split()
        self.assertEqual(["x,f,g", "0,0,"], lines[:2])
        self.check_access()
        panel.get_by_label("How to enter the x-values").select_option("step")
        panel.get_by_label("step", exact=True).fill("0")
        panel.get_by_label("step", exact=True).press("Enter")
        self.page.get_by_text("The step of a table cannot be 0.").wait_for()

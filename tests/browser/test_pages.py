"""Pages in a real browser: the list of studies, access for all, looks and sizes, weight."""

import re

from playwright.sync_api import Route, expect

from tests.browser.bench import BrowserTest

#: What a page may weigh without its fonts, in bytes.
LARGEST_PAGE = 500_000


class StudiesTest(BrowserTest):
    def test_study_list_create_rename_copy_delete_restore(self) -> None:
        self.open_new_study()
        self.page.get_by_role("link", name="Axis Path").click()
        card = self.page.locator(".study-card", has_text="Untitled study").first
        card.get_by_text("Rename").first.click()
        card.get_by_label("New title of Untitled study").fill("Pier <b>7</b>")
        card.get_by_role("button", name="Rename").click()
        self.page.get_by_role("button", name="Duplicate Pier <b>7</b>").click()
        titles = self.page.locator(".study-title")
        expect(titles.first).to_have_text("Pier <b>7</b> (copy)")
        count = titles.count()
        self.page.get_by_role("button", name="Delete Pier <b>7</b> (copy)").click()
        expect(titles).to_have_count(count - 1)
        self.page.get_by_role("button", name="Undo").click()
        expect(titles).to_have_count(count)

    def test_the_demo_is_there(self) -> None:
        self.page.goto(self.base)
        titles = {
            "Morning tide", "Mooring line", "Beam sweep", "Wake", "Breakwater", "Fuel log",
            "Lock gate", "Ferry ramp",
        }  # fmt: skip
        self.assertLessEqual(titles, set(self.page.locator(".study-title").all_inner_texts()))


#: Forms, menus and messages of the Bench: the study, and what is pressed one after the other.
STATES: dict[str, tuple[str, tuple[tuple[str, str], ...]]] = {
    "axes": ("Beam sweep", (("button", "Axes and grid"),)),
    "picture": ("Beam sweep", (("button", "Picture"),)),
    "keys": ("Beam sweep", (("button", "Keys"),)),
    "plane in words": ("Mooring line", (("button", "The plane in words"),)),
    "menu of a line": ("Mooring line", (("button", "More for rope"),)),
    "look": (
        "Mooring line",
        (("button", "More for rope"), ("menuitem", "Colour and line style …")),
    ),
    "family": (
        "Mooring line",
        (("button", "More for rope"), ("menuitem", "Family of curves …")),
    ),
    "sampling check": (
        "Mooring line",
        (("button", "More for rope"), ("menuitem", "Sampling check …")),
    ),
    "trail": ("Wake", (("button", "More for wave"), ("menuitem", "Runner and trail …"))),
    "slider": ("Morning tide", (("button", "Range, step and motion of a"),)),
    "findings": ("Morning tide", (("tab", "Findings"), ("css", ".finding-why"))),
    "columns": ("Mooring line", (("tab", "Values"), ("button", "rope"))),
    "exact values": ("Mooring line", (("tab", "Values"), ("button", "Exact values"))),
    "data": ("Fuel log", (("tab", "Data"),)),
    "equations": ("Ferry ramp", (("css", ".row-set-state .btn:visible"),)),
    "plane only": ("Morning tide", (("button", "Plane only"),)),
}


class AccessTest(BrowserTest):
    def test_axe_finds_no_violations_in_forms_menus_and_messages(self) -> None:
        # So high that no target is cut off by what it scrolls in.
        self.page = self.open_page(height=2_200)
        for name, (study, presses) in STATES.items():
            with self.subTest(name):
                self.open_demo(study)
                for role, label in presses:
                    is_css = role == "css"
                    target = (
                        self.page.locator(label)
                        if is_css
                        else self.page.get_by_role(role, name=label, exact=True)  # type: ignore[arg-type]
                    )
                    target.first.click()
                    self.settle()
                self.check_access()

    def test_axe_finds_no_violations_in_messages(self) -> None:
        self.page = self.open_page(height=2_200)
        self.check_messages_of_the_server()
        self.check_messages_of_fields()

    def check_messages_of_the_server(self) -> None:
        page = self.page
        # Without a socket the page asks with requests, which can be held up.
        page.route_web_socket("**/socket", lambda socket: socket.close())
        self.open_new_study("f(x) = x", "a = 2")
        page.route(page.url, self.answer_as_just_installed)
        page.reload()
        page.get_by_text("Axis Path was just installed.").wait_for()
        self.check_access()

        held: list[Route] = []
        page.route("**/findings", lambda route: held.append(route))
        page.get_by_role("button", name="Locate", exact=True).click()
        page.get_by_role("button", name="Stop").wait_for()
        self.check_access()
        page.get_by_role("button", name="Stop").click()
        page.unroute("**/findings")

        page.route("**/commands", lambda route: route.abort())
        page.fill("#new-line", "g(x) = 2x")
        page.press("#new-line", "Enter")
        page.get_by_text("The server did not answer.").wait_for()
        self.check_access()
        page.unroute("**/commands")
        page.get_by_role("button", name="Try again").click()
        self.settle()

        page.context.set_offline(True)
        page.get_by_role("button", name="Zoom in", exact=True).click()
        page.get_by_text("There is no connection to the server.").wait_for()
        page.locator(".is-stale").wait_for()
        self.check_access()
        page.context.set_offline(False)
        page.wait_for_function("() => !document.querySelector('.is-stale')")
        self.settle()

        page.evaluate(
            """() => {
              const dataTransfer = new DataTransfer()
              dataTransfer.items.add(new File(["x,y"], "log.csv"))
              document.querySelector(".bench").dispatchEvent(
                new DragEvent("dragover", { dataTransfer, bubbles: true, cancelable: true }))
            }"""
        )
        page.get_by_text("Drop the file to read its columns").wait_for()
        self.check_access()

    def answer_as_just_installed(self, route: Route) -> None:
        """Pass a page on, with a server in it that is still being compiled."""
        response = route.fetch()
        body = re.sub(r"(\"is_compiled\": ?)true", r"\1false", response.text())
        route.fulfill(response=response, body=body)

    def check_messages_of_fields(self) -> None:
        page = self.page
        self.open_demo("Fuel log")
        page.get_by_role("tab", name="Data").click()
        page.get_by_role("button", name="Fit", exact=True).click()
        page.locator(".notice-line").get_by_role("button", name="Undo").wait_for()
        self.settle()
        self.check_access()

        self.open_new_study("f(x) = sin(x) + a", "a = 1", "g(x) = sinn(x)")
        page.get_by_label("left bound").fill("2 +")
        self.check_refused(".plane-problem")
        page.get_by_role("button", name="Axes and grid", exact=True).click()
        page.locator("[name='x.step']").fill("2 +")
        self.check_refused(".axes-form .field-problem")
        page.get_by_role("button", name="Range, step and motion of a").click()
        page.locator("[name='step']").fill("-1")
        self.check_refused(".field-problem.is-wide")
        page.get_by_label("Equation, inequality", exact=False).fill("2 + = 1")
        self.check_refused(".solve-form .field-problem")
        panel = page.locator(".panel")
        for tab, field, text in (
            ("Values", "step", "0"),
            ("Working", "Calculate", "1/0 +"),
        ):
            page.get_by_role("tab", name=tab).click()
            panel.get_by_label(field, exact=tab == "Values").first.fill(text)
            self.check_refused(".panel .field-problem")

    def check_refused(self, message: str) -> None:
        """Check the page while a text that was just written is refused."""
        self.page.keyboard.press("Enter")
        self.page.locator(f"{message}:visible").first.wait_for()
        self.settle()
        self.check_access()

    def test_axe_finds_no_violations(self) -> None:
        for width in (1280, 620):
            self.page = self.open_page(width=width)
            with self.subTest(width):
                self.page.goto(f"{self.base}/studies")
                self.check_access()
                self.open_demo("Mooring line")
                self.check_access()
                for tab in ("Values", "Working", "Reference"):
                    self.page.get_by_role("tab", name=tab).click()
                    self.settle()
                    self.check_access()
                self.page.goto(f"{self.base}/nowhere")
                self.check_access()

    def test_axe_finds_nothing_while_a_bad_line_is_written(self) -> None:
        self.open_new_study("f(x) = a x", "g(x) = sinn(x)", "a = 2")
        self.page.get_by_role("button", name="Range, step and motion of a").click()
        self.row("f").locator(".row-formula").click()
        self.page.wait_for_timeout(300)
        self.check_access()

    def test_everything_is_reached_with_the_keyboard_alone(self) -> None:
        self.open_demo("Mooring line")
        self.page.get_by_role("tab", name="Values").click()
        reached = set[str]()
        for _ in range(150):
            self.page.keyboard.press("Tab")
            name = self.page.evaluate(
                "() => document.activeElement.getAttribute('aria-label')"
                " ?? document.activeElement.id ?? document.activeElement.innerText"
            )
            reached.add(str(name) or self.page.evaluate("() => document.activeElement.innerText"))
        for wanted in (
            "Slider s",
            "Lower end of the domain of rope",
            "Hide rope",
            "More for water",
            "tab-values",
            "new-line",
            "left bound",
            "Home window",
            "study-title",
        ):
            with self.subTest(wanted):
                self.assertIn(wanted, reached)


class SpokenTest(BrowserTest):
    def said(self) -> str:
        return self.page.locator("#said").inner_text()

    def test_changes_are_announced(self) -> None:
        self.open_new_study("f(x) = x^2 - 4")
        self.assertEqual("f is drawn.", self.said())
        self.write("g(x) = (x")
        self.assertIn("Line 2 does not work: A closing bracket is missing", self.said())
        self.page.get_by_role("button", name="Undo").click()
        self.settle()
        self.assertEqual("Undone: Write g. g was deleted.", self.said())
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        self.assertEqual("Zeros of f. x = −2; x = 2. Proved: exactly two zeros", self.said())
        self.page.get_by_role("tab", name="Values").click()
        self.settle()
        self.assertIn("Table of 11 rows: f.", self.said())
        self.page.get_by_role("tab", name="Working").click()
        self.page.get_by_label("Calculate", exact=False).first.fill("6*7")
        self.page.keyboard.press("Enter")
        self.settle()
        self.assertIn("6*7: 42", self.said())
        self.page.locator(".plane-surface").focus()
        self.page.keyboard.press("ArrowRight")
        self.page.wait_for_function(
            "() => document.querySelector('#said').innerText.includes(': f ')"
        )

    def test_the_plane_is_read_in_words_and_heard(self) -> None:
        self.open_new_study("f(x) = x^2 - 3 for -2 <= x <= 3")
        self.page.get_by_role("button", name="The plane in words").click()
        words = self.page.get_by_role("region", name="The plane in words")
        words.get_by_text("From x = −2 it falls to its minimum (0, −3), then rises").wait_for()
        self.assertEqual(1, words.get_by_role("heading", level=3).count())
        self.check_access()
        # Tones are noted instead of played.
        self.page.evaluate(
            """() => {
              window.heard = []
              const ramp = AudioParam.prototype.linearRampToValueAtTime
              AudioParam.prototype.linearRampToValueAtTime = function (value, at) {
                window.heard.push(value)
                return ramp.call(this, value, at)
              }
            }"""
        )
        words.get_by_role("button", name="Hear f(x)").click()
        self.assertIn("Hearing f", self.said())
        heard = self.page.evaluate("window.heard")
        self.assertGreater(len(heard), 50)
        self.assertGreater(max(heard), 2 * min(number for number in heard if number > 1))
        words.get_by_role("button", name="Close the description").click()
        self.page.locator(".plane-surface").focus()
        self.page.keyboard.press("Escape")
        before = self.page.locator(".reading-field input").input_value()
        self.page.keyboard.press("ArrowRight")
        self.settle()
        self.assertNotEqual(before, self.page.locator(".reading-tag text").text_content())

    def test_keys_are_shown_and_turned_off(self) -> None:
        self.open_new_study("f(x) = x")
        plane = self.page.locator(".plane-surface")
        plane.focus()
        self.page.keyboard.press("?")
        sheet = self.page.get_by_role("dialog", name="Keys")
        sheet.get_by_text("earlier window, later window").wait_for()
        self.check_access()
        sheet.get_by_label("shortcuts are on").uncheck()
        sheet.get_by_role("button", name="Close the keys").click()
        plane.focus()
        right = self.page.get_by_label("right bound")
        for key in ("+", "?", "Control+z"):
            self.page.keyboard.press(key)
            self.settle()
        self.assertEqual("10", right.input_value())
        self.assertFalse(sheet.is_visible())
        self.assertEqual(1, self.page.locator(".row-item").count())
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.page.get_by_role("button", name="Keys", exact=True).click()
        self.assertFalse(sheet.get_by_label("shortcuts are on").is_checked())

    def test_undo_covers_the_window(self) -> None:
        self.open_new_study("f(x) = x")
        right, undo = self.page.get_by_label("right bound"), self.page.get_by_label("Undo")
        self.page.get_by_role("button", name="Zoom in", exact=True).click()
        self.settle()
        self.assertEqual("Undo: move of the window (Ctrl+Z)", undo.get_attribute("title"))
        undo.click()
        self.settle()
        self.assertEqual("10", right.input_value())
        self.assertEqual(1, self.page.locator(".row-item").count())
        self.page.get_by_label("Redo").click()
        self.settle()
        self.assertNotEqual("10", right.input_value())

    def test_the_focus_stays_where_the_work_was(self) -> None:
        self.open_new_study("f(x) = a x", "a = 1", "g(x) = 2", "h(x) = 3")

        def focused() -> str:
            label: str = self.page.evaluate(
                "document.activeElement.getAttribute('aria-label')"
                " ?? document.activeElement.className"
            )
            return label

        self.choose_for("g", "Delete")
        self.assertEqual("More for h", focused())
        self.choose_for("h", "Colour and line style …")
        self.assertIn("teal, solid", focused())
        self.page.keyboard.press("Escape")
        self.assertEqual("More for h", focused())
        self.row("f").locator(".row-formula").click()
        self.page.keyboard.press("End")
        self.page.keyboard.type(" + 1")
        self.page.keyboard.press("Enter")
        self.settle()
        self.assertEqual("row-formula", focused())
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        remove = self.page.get_by_role("button", name="Remove: Zeros of", exact=False).first
        remove.focus()
        self.page.keyboard.press("Enter")
        self.settle()
        self.page.wait_for_function("() => document.activeElement !== document.body")
        self.page.get_by_label("Delete slider a").focus()
        self.page.keyboard.press("Enter")
        self.settle()
        self.page.wait_for_function("() => document.activeElement !== document.body")

    def test_the_plane_alone_has_the_page_and_larger_text(self) -> None:
        self.open_demo("Morning tide")
        surface = self.page.locator(".plane-surface")
        self.page.get_by_role("button", name="Plane only").click()
        self.settle()
        box = self.box(surface)
        # The sliders have a strip below, and cover nothing.
        strip = self.box(self.page.locator(".bench-side"))
        self.assertGreater(box["width"] * (box["height"] + strip["height"]), 0.98 * 1280 * 800)
        self.assertLess(strip["height"], 110)
        self.assertGreater(self.box(self.page.locator(".tick-label").first)["height"], 18)
        # A pointer means what it points at.
        self.page.mouse.move(box["x"] + box["width"] * 0.25, box["y"] + 300)
        self.settle()
        x = float(self.page.locator(".reading-tag text").text_content() or "nan")
        self.assertAlmostEqual(-1 + 14 * 0.25, x, delta=0.02)
        self.page.keyboard.press("Escape")
        self.settle()
        self.assertTrue(self.page.get_by_role("button", name="Undo").is_visible())

    def test_large_text_makes_the_plane_grow_with_it(self) -> None:
        self.open_demo("Morning tide")
        label = self.page.locator(".tick-label").first
        before = self.box(label)["height"]
        self.page.evaluate("document.documentElement.style.fontSize = '32px'")
        self.page.wait_for_function(
            "() => getComputedStyle(document.documentElement).getPropertyValue('--plane-scale')"
            " === '2'"
        )
        self.settle()
        self.assertAlmostEqual(2 * before, self.box(label)["height"], delta=2)
        lane = self.page.locator(".lane:visible").first
        surface = self.box(self.page.locator(".plane-surface"))
        self.assertAlmostEqual(surface["x"], self.box(lane)["x"], delta=1)
        self.assertAlmostEqual(surface["width"], self.box(lane)["width"], delta=2)


class LookTest(BrowserTest):
    def test_nothing_is_cut_off_at_any_width(self) -> None:
        for width, height in ((1280, 800), (1024, 768), (1000, 700), (768, 1024), (390, 844)):
            self.page = self.open_page(width=width, height=height)
            self.open_demo("Morning tide")
            wide = self.page.evaluate("() => document.documentElement.scrollWidth")
            with self.subTest(width):
                self.assertLessEqual(wide, width)
                self.assertGreater(self.ink(), 300)

    def test_a_long_formula_goes_on_in_another_line(self) -> None:
        self.open_new_study("s = 3")
        self.write("rope2(x) = s cosh(x/s) - s cosh(4/s) + 3 - x^4/1000 + x^3/100 - 0.125x + 12")
        button = self.row("rope2").locator(".row-formula")
        room = self.box(button)
        parts = [self.box(part) for part in button.locator("math").all()]
        self.assertGreater(len({round(part["y"] / 20) for part in parts}), 1)
        for part in parts:
            self.assertLessEqual(part["x"] + part["width"], room["x"] + room["width"] + 1)
            self.assertLessEqual(part["y"] + part["height"], room["y"] + room["height"] + 1)

    def test_the_plane_has_the_room(self) -> None:
        for width, height, demo, least in (
            (1280, 800, "Morning tide", 0.35),
            (1280, 800, "", 0.45),
            (1024, 768, "Mooring line", 0.4),
        ):
            self.page = self.open_page(width=width, height=height)
            if demo:
                self.open_demo(demo)
            else:
                self.open_new_study("f(x) = x")
            plane = self.box(self.page.locator(".plane-surface"))
            with self.subTest(demo, width=width):
                self.assertGreater(plane["width"] * plane["height"], least * width * height)
                self.assertGreaterEqual(plane["width"], 600)
            if width == 1280 and demo:
                self.page.get_by_role("button", name="Hide the side panel").click()
                self.settle()
                folded = self.box(self.page.locator(".plane-surface"))
                self.assertGreater(folded["width"] * folded["height"], 0.5 * width * height)
        # Where the panel lies over the plane, it is folded until somebody opens it.
        self.page.get_by_role("button", name="Show the side panel").click()
        self.assertEqual(plane, self.box(self.page.locator(".plane-surface")))
        self.assertTrue(self.page.get_by_role("tab", name="Findings").is_visible())

    def test_splitters_move_and_are_remembered(self) -> None:
        self.open_demo("Morning tide")
        surface = self.page.locator(".plane-surface")
        before = self.box(surface)
        panel = self.page.get_by_role("separator", name="Width of the side panel")
        panel.focus()
        for _ in range(4):
            self.page.keyboard.press("ArrowLeft")
        self.settle()
        self.assertAlmostEqual(before["width"] - 64, self.box(surface)["width"], delta=1)
        self.assertEqual("364", panel.get_attribute("aria-valuenow"))
        height = self.page.get_by_role("separator", name="Height of the plane")
        self.drag(height, 0, -100)
        self.assertAlmostEqual(before["height"] - 100, self.box(surface)["height"], delta=8)
        side = self.page.get_by_role("separator", name="Width of the definitions")
        side.focus()
        self.page.keyboard.press("Shift+ArrowRight")
        self.settle()
        lane = self.box(self.page.locator(".lane:visible").first)
        self.assertAlmostEqual(self.box(surface)["x"], lane["x"], delta=0.5)
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.settle()
        stored = self.box(surface)
        self.assertAlmostEqual(before["height"] - 100, stored["height"], delta=8)
        self.assertAlmostEqual(before["width"] - 144, stored["width"], delta=2)
        for separator in (panel, height, side):
            separator.dblclick(position={"x": 5, "y": 5}, force=True)
            separator.press("Enter")
        self.settle()
        self.assertEqual(before, self.box(surface))

    def test_the_panel_folds_away_to_give_the_plane_the_width(self) -> None:
        self.open_demo("Morning tide")
        before = self.box(self.page.locator(".plane-surface"))["width"]
        self.page.get_by_role("button", name="Hide the side panel").click()
        self.settle()
        self.assertEqual(before + 300, self.box(self.page.locator(".plane-surface"))["width"])
        self.page.get_by_role("button", name="Show the side panel").click()
        self.settle()
        self.assertEqual(before, self.box(self.page.locator(".plane-surface"))["width"])

    def test_dark_is_chosen_and_stays_chosen(self) -> None:
        self.open_demo("Morning tide")
        self.page.get_by_role("button", name="Light or dark").click()
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.assertEqual("dark", self.page.evaluate("document.documentElement.dataset.bsTheme"))

    def test_formulas_and_texts_use_the_faces_that_are_shipped(self) -> None:
        self.open_demo("Morning tide")
        loaded = self.page.evaluate(
            "() => document.fonts.ready.then(() => [...document.fonts]"
            ".filter((f) => f.status === 'loaded').map((f) => f.family.replaceAll('\"', '')))"
        )
        self.assertLessEqual({"Atkinson Hyperlegible Next", "STIX Two Math"}, set(loaded))


class WeightTest(BrowserTest):
    def test_the_bench_is_light_and_asks_no_one_else(self) -> None:
        self.open_demo("Morning tide")
        entries = self.page.evaluate(
            "() => [...performance.getEntriesByType('navigation'),"
            " ...performance.getEntriesByType('resource')].map((e) => [e.name, e.transferSize])"
        )
        strangers = [url for url, _ in entries if not re.match(rf"{self.base}/|data:", url)]
        self.assertEqual([], strangers)
        self.assertGreater(len(entries), 8)
        self.assertLess(sum(n for url, n in entries if "/fonts/" not in url), LARGEST_PAGE)

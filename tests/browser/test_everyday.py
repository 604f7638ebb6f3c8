"""What a student does every day, by mouse, by keyboard alone, and by touch, in few steps."""

from collections.abc import Callable

from playwright.sync_api import Locator

from tests.browser.bench import BrowserTest

#: How the page is used: the size of the screen, and what presses.
HANDS = (
    ("mouse", 1280, 800),
    ("keys", 1280, 800),
    ("touch", 390, 844),
    ("touch", 820, 1180),
)


class EverydayTest(BrowserTest):
    hand: str
    steps: int

    def begin(self, hand: str, width: int, height: int) -> None:
        self.hand = hand
        more = {"has_touch": True, "is_mobile": True} if hand == "touch" else {}
        self.page = self.open_page(width=width, height=height, **more)

    def press(self, target: Locator) -> None:
        """Press something with the pointer; it counts as a step."""
        self.steps += 1
        if self.hand == "keys":
            # Whether each can be reached with Tab is tested elsewhere.
            target.focus()
            self.page.keyboard.press("Enter")
        elif self.hand == "touch":
            target.scroll_into_view_if_needed()
            target.tap()
        else:
            target.click()
        self.settle()

    def button(self, name: str) -> None:
        self.press(self.page.get_by_role("button", name=name, exact=True))

    def tab(self, name: str) -> None:
        self.press(self.page.get_by_role("tab", name=name))

    def item(self, name: str, item: str) -> None:
        self.button(f"More for {name}")
        self.press(self.page.get_by_role("menuitem", name=item, exact=True))

    def type_line(self, text: str) -> None:
        """Write a line in the field for a new one: one step."""
        self.steps += 1
        field = self.page.locator("#new-line")
        if self.hand == "touch":
            field.scroll_into_view_if_needed()
            field.tap()
        else:
            field.focus()
        self.page.keyboard.insert_text(text)
        self.page.keyboard.press("Enter")
        self.settle()

    def edit(self, name: str, text: str) -> None:
        self.press(self.row(name).locator(".row-formula"))
        self.steps += 1
        field = self.row(name).locator(".line-input")
        field.fill(text)
        field.press("Enter")
        self.settle()

    def choose(self, target: Locator, value: str) -> None:
        self.steps += 1
        target.select_option(value)
        self.settle()

    def leave(self) -> None:
        """Leave the line: on a phone it has the whole page while it is written."""
        self.page.evaluate("document.activeElement.blur()")
        self.page.wait_for_function("() => !document.querySelector('.bench.is-writing')")
        self.settle()

    def at_most(self, most: int, task: str, work: Callable[[], None]) -> None:
        self.steps = 0
        work()
        with self.subTest(task, hand=self.hand):
            self.assertLessEqual(self.steps, most)

    def test_lines_are_plotted_restricted_shifted_and_taken_away(self) -> None:
        for hand, width, height in HANDS:
            self.begin(hand, width, height)
            self.open_new_study()
            self.at_most(1, "plot", lambda: self.type_line("f(x) = x^2"))
            whole = self.ink()
            self.at_most(2, "restrict", lambda: self.edit("f", "f(x) = x^2 for 0 <= x <= 2"))
            self.assertLess(self.ink(), whole)
            self.at_most(2, "shift", lambda: self.edit("f", "f(x) = (x - 3)^2 + 1"))
            self.at_most(1, "circle", lambda: self.type_line("x^2 + y^2 = 9"))
            self.leave()
            before = self.ink()
            self.at_most(1, "hide", lambda: self.button("Hide f"))
            self.assertLess(self.ink(), before)
            self.at_most(1, "undo", lambda: self.button("Undo"))
            self.assertEqual(before, self.ink())

            def colour() -> None:
                self.item("f", "Colour and line style …")
                self.button("violet, dotted")

            self.at_most(4, "colour", colour)
            self.assertEqual(1, self.row("f").locator(".row-definition > .tone-2").count())
            self.at_most(4, "delete", lambda: self.item("f", "Delete"))
            self.assertEqual(1, self.page.locator(".row-item").count())

    def test_axes_are_stretched_and_labelled(self) -> None:
        for hand, width, height in HANDS:
            self.begin(hand, width, height)
            self.open_new_study("f(x) = sin(x)")
            self.leave()
            before = self.page.get_by_label("right bound").input_value()
            self.at_most(1, "stretch", self.stretch)
            self.assertNotEqual(before, self.page.get_by_label("right bound").input_value())

            def labels() -> None:
                self.button("Axes and grid")
                self.choose(self.page.locator("[name='x.labels']"), "pi")

            self.at_most(2, "multiples of pi", labels)
            self.page.locator(".tick-label", has_text="π").first.wait_for()
            self.button("Close axes and grid")
            self.at_most(1, "degrees", lambda: self.button("degrees"))

    def stretch(self) -> None:
        self.steps += 1
        grip = self.page.get_by_role("button", name="Stretch the x axis")
        if self.hand == "keys":
            grip.focus()
            self.page.keyboard.press("ArrowRight")
        else:
            self.drag(grip, -60)
        # The numbers may be a moment behind the pointer.
        self.page.wait_for_timeout(200)
        self.settle()

    def test_a_slider_plays_and_leaves_a_trail(self) -> None:
        for hand, width, height in HANDS:
            self.begin(hand, width, height)
            self.open_new_study("A = (a, a^2/4)")

            def slider() -> None:
                self.button("Add a slider for a")

            self.at_most(1, "slider", slider)
            self.leave()

            def trail() -> None:
                self.item("A", "Trail …")
                self.steps += 1
                self.page.get_by_label("leave a trail").check()
                self.settle()

            self.at_most(4, "trail", trail)
            self.button("Close")
            self.page.evaluate(
                "window.knobBefore = document.querySelector('.track-knob').style.left"
            )
            self.at_most(1, "play", lambda: self.play("Play a"))
            self.page.wait_for_function(
                "() => document.querySelector('.track-knob').style.left !== window.knobBefore"
            )
            self.play("Pause a")
            self.settle()

    def play(self, name: str) -> None:
        """Press a button while something moves, and nothing comes to rest."""
        self.steps += 1
        button = self.page.get_by_role("button", name=name, exact=True)
        if self.hand == "keys":
            button.focus()
            self.page.keyboard.press("Enter")
        elif self.hand == "touch":
            button.tap()
        else:
            button.click()

    def test_tables_findings_fits_solutions_and_pictures(self) -> None:
        for hand, width, height in HANDS:
            self.begin(hand, width, height)
            self.open_new_study("f(x) = x^2 - 4")
            self.leave()
            self.at_most(1, "table", lambda: self.tab("Values"))
            self.page.locator("tr[data-value-row]").first.wait_for()

            def zeros() -> None:
                self.tab("Findings")
                self.button("Locate")

            def minimum() -> None:
                self.choose(self.page.get_by_label("What to locate"), "extrema")
                self.button("Locate")

            self.at_most(4, "zeros", zeros)
            self.page.locator(".finding", has_text="exactly two zeros").wait_for()
            self.at_most(4, "minimum", minimum)
            self.page.locator(".finding", has_text="global in this interval").wait_for()

            def solve() -> None:
                self.steps += 1
                self.page.get_by_label("Equation, inequality").fill("x^2 = 2")
                self.button("Solve")

            self.at_most(4, "solve", solve)
            self.page.locator(".finding", has_text="exactly two solutions").wait_for()

            def fit() -> None:
                self.tab("Data")
                self.steps += 1
                self.page.get_by_label("Columns from a spreadsheet").fill(
                    "v,u\n1,2\n2,4.1\n3,5.9\n"
                )
                self.button("Read")
                self.button("Fit")

            self.at_most(4, "fit", fit)
            self.assertEqual(2, self.page.locator(".row-item").count())
            if self.hand == "touch" and width < 700:
                self.button("Hide the side panel")
            self.check_access()

            def export() -> None:
                self.button("Picture")
                with self.page.expect_download():
                    self.button("Save")

            self.at_most(4, "export", export)

"""Working, its tables, reductions and Names without a pointer, and what is said of them."""

from playwright.sync_api import Locator, expect

from tests.browser.bench import BrowserTest


class WorkingByKeysTest(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.open_new_study("a = 2", "M = [[1, 2], [3, 4]]")
        self.page.get_by_role("tab", name="Working").press("Enter")
        self.settle()

    def keys(self, *keys: str) -> None:
        for key in keys:
            self.page.keyboard.press(key)

    def calculate(self, *texts: str) -> None:
        self.page.get_by_role("combobox", name="Calculate").focus()
        for text in texts:
            self.page.keyboard.type(text)
            # The first Escape closes the list of names, if it is open.
            self.keys("Escape", "Enter")
            self.settle()

    def focused(self) -> str:
        """Return the name of what has the focus."""
        name: str = self.page.evaluate(
            "() => { const e = document.activeElement;"
            " return e.getAttribute('aria-label') ?? e.innerText ?? e.id; }"
        )
        return name.strip()

    def tab_to(self, name: str) -> None:
        for _ in range(80):
            self.keys("Tab")
            if self.focused() == name:
                return
        self.fail(f"the Tab key does not reach {name}")

    def choose(self, line: str, item: str) -> None:
        self.page.get_by_role("button", name=f"More for {line}", exact=True).focus()
        self.keys("Enter")
        self.page.wait_for_selector("[role=menu]:popover-open")
        for _ in range(20):
            if self.focused() == item:
                break
            self.keys("ArrowDown")
        self.keys("Enter")
        self.settle()

    def formula(self, text: str) -> Locator:
        return self.page.locator(f'.work-formula[title="Edit {text}"]')

    def said(self) -> str:
        return self.page.locator("#said").inner_text()

    def test_results_are_said_and_shapes_chosen(self) -> None:
        self.calculate("7/3")
        self.assertEqual("7/3: 7/3 2.333333333", " ".join(self.said().split()))
        self.tab_to("decimal")
        self.keys("Enter")
        self.settle()
        self.assertEqual("decimal", self.focused())
        self.assertEqual(
            "true", self.page.get_by_role("button", name="decimal").get_attribute("aria-pressed")
        )
        self.tab_to("Digits of this line")
        self.keys("ArrowDown")
        self.settle()
        self.assertIn("2.333", self.page.locator(".work-large").first.inner_text())
        self.calculate("1/0")
        self.assertIn("division by zero", self.said())

    def test_a_line_is_edited_moved_and_deleted(self) -> None:
        self.calculate("1 + 1", "a^2")
        self.formula("1 + 1").focus()
        self.keys("Enter")
        expect(self.page.locator(".work .line-input").first).to_be_focused()
        self.page.keyboard.type(" + a")
        self.keys("Enter")
        self.settle()
        expect(self.page.locator(".work").first.locator(".work-large")).to_contain_text("4")
        self.formula("a^2").focus()
        self.keys("Enter")
        expect(self.page.locator(".work .line-input").last).to_be_focused()
        self.page.keyboard.type("nonsense (")
        self.keys("Escape")
        self.assertEqual(1, self.formula("a^2").count())
        self.choose("a^2", "Move up")
        self.assertEqual(1, self.page.get_by_label("Calculation 1: a^2").count())
        self.choose("a^2", "Delete")
        self.assertEqual("work-line", self.page.evaluate("() => document.activeElement.id"))
        self.assertEqual(1, self.page.locator(".work").count())
        self.page.locator(".notice-line").get_by_role("button", name="Undo").focus()
        self.keys("Enter")
        self.settle()
        self.assertEqual(2, self.page.locator(".work").count())

    def test_a_table_is_walked_and_changed(self) -> None:
        self.page.get_by_label("More for M", exact=True).focus()
        self.keys("Enter")
        self.page.wait_for_selector("[role=menu]:popover-open")
        while self.focused() != "Open as a table":
            self.keys("ArrowDown")
        self.keys("Enter")
        self.settle()
        self.tab_to("row 1, column 1")
        self.keys("ArrowRight")
        self.assertEqual("row 1, column 2", self.focused())
        self.keys("ArrowDown", "ArrowLeft")
        self.assertEqual("row 2, column 1", self.focused())
        self.page.keyboard.type("a + 1")
        self.keys("ArrowUp")
        self.settle()
        self.assertEqual("row 1, column 1", self.focused())
        self.calculate("det(M)")
        self.assertEqual("det(M): -2", " ".join(self.said().split()))
        self.page.locator(".work-cells").get_by_label("row 2, column 1").focus()
        self.keys("Control+a")
        self.page.keyboard.type("5")
        self.keys("Enter")
        self.settle()
        self.assertEqual("=−6", self.text(self.page.locator(".work-large").first))
        self.tab_to("Close the table")
        self.keys("Enter")
        self.assertEqual("More for M", self.focused())

    def test_a_system_is_reduced(self) -> None:
        self.calculate("x + 2y = 5; 3x - y = 1")
        self.page.get_by_role("button", name="Reduce the rows").focus()
        self.keys("Enter")
        self.page.locator(".reduction-operation").first.wait_for()
        self.assertEqual("Row reduction", self.focused())
        self.tab_to("All steps")
        self.keys("Enter")
        self.settle()
        verdict = self.page.locator(".reduction-verdict")
        self.assertIn("exactly one solution", verdict.inner_text())
        self.assertEqual("status", verdict.get_attribute("role"))
        self.page.get_by_role("button", name="Choose the operations myself").focus()
        self.keys("Enter")
        self.page.get_by_label("Row operation").focus()
        for text, words in (("R2 <- R2 - 3 R1", "You are nearer."), ("R2 <- R2 - R9", "no row 9")):
            self.page.keyboard.type(text)
            self.keys("Enter")
            self.settle()
            self.page.locator(".work-reduction").get_by_text(words, exact=False).first.wait_for()
            self.keys("Control+a")
        self.page.get_by_role("button", name="Close the reduction").focus()
        self.keys("Enter")
        self.assertEqual("More for x + 2y = 5; 3x - y = 1", self.focused())

    def test_names_are_sorted_sought_and_jumped_to(self) -> None:
        self.write("d = a^2")
        self.page.get_by_role("tab", name="Names").press("Enter")
        self.settle()
        rows = self.page.locator(".name-table tbody tr th")
        self.assertEqual(["a", "M", "d"], [text.strip() for text in rows.all_inner_texts()])
        self.page.get_by_role("button", name="value", exact=True).focus()
        self.keys("Enter")
        head = self.page.locator("th[aria-sort=ascending]")
        self.assertIn("value", head.inner_text())
        self.keys("Enter")
        self.assertEqual(1, self.page.locator("th[aria-sort=descending]").count())
        self.page.get_by_role("searchbox", name="Search the names").focus()
        self.page.keyboard.type("2 by 2")
        self.assertEqual(1, rows.count())
        self.keys("Escape")
        self.page.get_by_role("button", name="What a uses, and what uses it").focus()
        self.keys("Enter")
        links = self.page.locator(".name-links:visible")
        self.assertEqual("usesnoothernameusedbyd", self.text(links))
        self.page.get_by_role("searchbox", name="Search the names").focus()
        self.page.keyboard.type("2 by 2")
        self.tab_to("Go to the line of M")
        self.keys("Enter")
        self.assertIn("Edit M", self.page.evaluate("() => document.activeElement.title"))

    def test_a_note_and_a_sketch_are_named(self) -> None:
        self.calculate("# half of it", "t^2 - 4")
        self.page.get_by_role("img", name="Sketch of t^2 - 4").wait_for()
        self.assertEqual(1, self.page.get_by_label("Calculation 1: # half of it").count())
        self.page.get_by_role("button", name="Draw on the plane").focus()
        self.keys("Enter")
        self.settle()
        self.row("f").wait_for()
        self.assertEqual("work-line", self.page.evaluate("() => document.activeElement.id"))
        self.check_access()

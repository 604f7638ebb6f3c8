"""Working in the real interface: results of every kind, a grid, a reduction, names."""

from playwright.sync_api import Locator

from tests.browser.bench import BrowserTest


class WorkingTest(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.open_new_study("a = 2")
        self.page.get_by_role("tab", name="Working").click()
        self.settle()
        self.field = self.page.get_by_role("combobox", name="Calculate")

    def calculate(self, *texts: str) -> None:
        for text in texts:
            self.field.fill(text)
            self.field.press("Enter")
            self.settle()

    def work(self, number: int) -> Locator:
        return self.page.locator(".work").nth(number - 1)

    def shown(self, number: int) -> str:
        return self.text(self.work(number).locator(".work-result")).replace("\u2062", "")

    def choose(self, number: int, item: str) -> None:
        self.work(number).get_by_role("button", name="More for", exact=False).click()
        self.page.get_by_role("menuitem", name=item, exact=True).click()
        self.settle()

    def test_results_of_every_kind_and_shape(self) -> None:
        self.calculate(
            "7/3", "s = [[a, 1], [0, 1/2]]", "s^-1", "(1 + 2i)^2", "is_prime(97)", "t + a"
        )
        self.assertIn("≈2.333333333", self.shown(1))
        self.assertIn("2by2matrix", self.shown(2))
        self.assertIn("−3+4", self.shown(4))
        self.assertIn("true", self.shown(5))
        self.work(1).get_by_role("button", name="1 ½").click()
        self.settle()
        self.assertIn("21/3", self.shown(1))
        self.work(4).get_by_role("button", name="r ∠ φ").click()
        self.settle()
        self.assertIn("5∠", self.shown(4))
        self.check_access()
        # What depends on a slider follows it.
        self.page.get_by_role("slider", name="Slider a").press("ArrowRight")
        self.settle()
        self.assertNotIn("[2,1]", self.shown(2))
        self.page.get_by_role("button", name="Clear all").click()
        self.settle()
        self.assertEqual(0, self.page.locator(".work").count())
        self.page.locator(".notice-line").get_by_role("button", name="Undo").click()
        self.settle()
        self.assertEqual(6, self.page.locator(".work").count())

    def test_a_large_matrix_stands_as_a_part_of_a_table(self) -> None:
        self.calculate(
            "matrix(i/j, i, 1, 40, j, 1, 30)", "f(M) = M[2, 3]", "f([[1, 2, 3], [4, 5, 6]])"
        )
        corner = self.work(1).locator(".work-corner")
        self.assertEqual(["2", "1", "2/3", "1/2", "2/5"],
                         corner.locator("tbody tr").nth(1).locator("td").all_inner_texts())  # fmt: skip
        self.assertTrue(self.work(1).locator(".work-large").is_hidden())
        self.assertLess(self.box(self.work(1))["height"], 320)
        self.check_access()
        self.work(1).get_by_role("button", name="Open as a table").click()
        self.work(1).get_by_text("rows 1 to 20 of 40, columns 1 to 20 of 30").wait_for()
        self.assertTrue(corner.is_hidden())
        self.work(1).get_by_role("button", name="Close the table").click()
        self.assertTrue(corner.is_visible())
        self.assertTrue(self.work(3).locator(".work-corner").is_hidden())
        self.assertIn("=6", self.shown(3))

    def test_earlier_inputs_are_recalled_and_lines_edited_and_moved(self) -> None:
        self.calculate("1/3 + 1/6", "k = 4")
        self.field.press("ArrowUp")
        self.assertEqual("k = 4", self.field.input_value())
        self.field.press("ArrowUp")
        self.assertEqual("1/3 + 1/6", self.field.input_value())
        self.field.fill("")
        self.work(1).locator(".work-formula").click()
        line = self.work(1).locator("input.line-input")
        line.fill("k/3")
        line.press("Enter")
        self.settle()
        self.assertIn("1.333333333", self.shown(1))
        self.choose(1, "Move down")
        self.assertIn("1.333333333", self.shown(2))
        self.choose(1, "Make it a definition")
        self.page.get_by_role("slider", name="Slider k").wait_for()
        self.assertIn("1.333333333", self.shown(1))

    def test_a_matrix_is_entered_in_a_grid(self) -> None:
        self.field.fill("M = ")
        self.page.get_by_role("button", name="Enter a matrix in a grid").click()
        self.page.wait_for_function("() => document.activeElement.dataset.cell === '0,0'")
        for text, key in (("1", "Tab"), ("2", "Tab"), ("3", "Tab"), ("4", "Enter")):
            self.page.keyboard.type(text)
            self.page.keyboard.press(key)
        self.page.wait_for_function("() => document.activeElement.dataset.cell === '2,1'")
        self.page.keyboard.type("5")
        self.assertEqual("M = [[1, 2], [3, 4], [0, 5]]", self.field.input_value())
        self.check_access()
        self.page.get_by_role("button", name="Remove row").click()
        self.page.get_by_role("button", name="Calculate", exact=True).click()
        self.settle()
        self.calculate("M M")
        self.assertIn("2by2matrix", self.shown(2))
        self.choose(2, "Open as a table")
        cells = self.work(2).locator(".work-cells tbody td")
        self.assertEqual(["7", "10", "15", "22"], [self.text(cells.nth(k)) for k in range(4)])
        self.work(2).get_by_text("These entries are computed").wait_for()

    def test_entries_are_changed_in_the_table_of_a_row(self) -> None:
        self.write("M = [[1, 2], [3, a]]")
        row = self.row("M")
        row.get_by_role("button", name="More for M").click()
        self.page.get_by_role("menuitem", name="Open as a table").click()
        table = row.locator(".work-cells")
        table.get_by_label("row 1, column 2").fill("5/2")
        self.page.keyboard.press("Enter")
        self.page.wait_for_function(
            "() => document.activeElement.getAttribute('aria-label') === 'row 2, column 2'"
        )
        self.settle()
        self.assertEqual("a", table.get_by_label("row 2, column 2").input_value())
        table.get_by_label("row 2, column 1").fill("(")
        self.page.keyboard.press("Tab")
        table.get_by_role("alert").get_by_text("bracket", exact=False).wait_for()
        table.get_by_label("row 2, column 1").press("Escape")
        table.get_by_role("button", name="Add column").click()
        self.settle()
        self.check_access()
        self.calculate("M")
        self.assertIn("[[1, 2.5, 0], [3, 2, 0]]", self.work(1).locator(".work-beside").inner_text())
        for _ in range(2):
            self.page.get_by_role("button", name="Undo").first.click()
            self.settle()
        self.assertEqual(4, table.locator("input").count())

    def test_a_new_line_of_the_study_has_a_grid(self) -> None:
        self.page.locator("#new-line").fill("B = ")
        self.page.get_by_role("button", name="Matrix", exact=True).click()
        self.page.wait_for_function("() => document.activeElement.dataset.cell === '0,0'")
        self.page.keyboard.type("4")
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.type("a")
        self.assertEqual("B = [[4, 0], [a, 0]]", self.page.locator("#new-line").input_value())
        self.check_access()
        self.page.get_by_role("button", name="Add the line").click()
        self.row("B").wait_for()

    def test_notes_stand_between_lines(self) -> None:
        self.calculate("# half of `a^2/2`, see `(`", "a^2/2")
        note = self.work(1).locator(".row-note")
        self.assertEqual(1, note.locator("math mfrac").count())
        self.assertIn("see(", self.text(note))
        self.write("# as `y = x^2` shows")
        self.assertEqual(1, self.page.locator(".row-item .row-note math msup").count())

    def test_a_system_is_reduced_step_by_step_and_by_hand(self) -> None:
        self.calculate("x + 2y = 5; 3x - y = 1")
        self.work(1).get_by_role("button", name="Reduce the rows").click()
        box = self.work(1).locator(".work-reduction")
        self.assertEqual(
            "R2 ← R2 − 3 R1", box.locator(".reduction-operation span").first.inner_text()
        )
        box.get_by_role("button", name="All steps").click()
        box.get_by_text("There is exactly one solution.").wait_for()
        self.assertEqual(["x = 1", "y = 2"], box.locator(".reduction-solution").all_inner_texts())
        self.check_access()
        box.get_by_role("button", name="Choose the operations myself").click()
        field = box.get_by_label("Row operation")
        for text, words in (("R1 <-> R2", ""), ("R1 <- R1 - R9", "no row 9"), ("R1 <-> R2", "")):
            field.fill(text)
            field.press("Enter")
            self.settle()
            if words:
                box.get_by_text(words, exact=False).first.wait_for()
        for text in ("R2 <- R2 - 3R1", "R2 <- -1/7 R2", "R1 <- R1 - 2R2"):
            field.fill(text)
            field.press("Enter")
            self.settle()
        box.get_by_text("This is the reduced form.").wait_for()

    def painted(self, number: int) -> int:
        """Return how many pixels of a sketch are painted."""
        canvas = self.work(number).locator(".work-sketch canvas")
        canvas.wait_for()
        self.settle()
        count: int = canvas.evaluate(
            "(c) => c.getContext('2d').getImageData(0, 0, c.width, c.height).data"
            ".filter((value, k) => k % 4 === 3 && value > 0).length"
        )
        return count

    def test_sketches_are_painted_and_put_on_the_plane(self) -> None:
        self.calculate("t^2 - a", "[1, 4, -2]", "[[1, 2], [3, -4]]")
        self.assertGreater(self.painted(1), 300)
        for number in (2, 3):
            self.choose(number, "Sketch")
            self.assertGreater(self.painted(number), 300)
        self.check_access()
        self.work(1).get_by_role("button", name="Draw on the plane").click()
        self.row("f").wait_for()

    def test_a_table_fits_on_a_phone(self) -> None:
        self.write("M = [[1, 2, 3, 4, 5], [6, 7, 8, 9, 10]]")
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.settle()
        self.page.get_by_label("More for M", exact=True).click()
        self.page.get_by_role("menuitem", name="Open as a table").click()
        self.row("M").locator(".work-cells td input").first.wait_for()
        self.settle()
        self.assertLessEqual(
            self.page.evaluate("() => document.documentElement.scrollWidth - innerWidth"), 0
        )

    def test_arguments_are_shown_while_a_call_is_written(self) -> None:
        self.field.press_sequentially("quantile([1, 2], ")
        hint = self.page.locator(".work-field .call-hint")
        hint.wait_for()
        self.assertEqual("p", hint.locator(".is-now").inner_text())
        self.assertIn("from 0 to 1", hint.inner_text())

    def test_names_are_listed_found_and_jumped_to(self) -> None:
        for line in ("f(x) = a x", "M = [[1, 2], [3, 4]]", "b = a/4"):
            self.write(line)
        self.page.get_by_role("tab", name="Names").click()
        rows = self.page.locator(".name-table tbody tr")
        self.assertEqual(4, rows.count())
        self.assertIn("2 by 2 matrix", rows.nth(2).inner_text())
        self.check_access()
        self.page.get_by_role("searchbox", name="Search the names").fill("function")
        self.assertEqual(1, rows.count())
        rows.first.get_by_role("button", name="Go to the line of f").click()
        focused = self.page.evaluate("document.activeElement.closest('[data-row]')?.dataset.row")
        self.assertEqual(self.row("f").get_attribute("data-row"), focused)

    def test_complex_solutions_stand_on_the_plane(self) -> None:
        self.page.get_by_role("tab", name="Findings").click()
        self.page.get_by_label("Equation, inequality", exact=False).fill("x^3 = 1")
        self.page.get_by_label("Where to solve").select_option("complex")
        self.page.get_by_role("button", name="Solve", exact=True).click()
        self.settle()
        entry = self.page.locator(".finding").first
        self.assertIn("Proved: exactly 3 solutions", entry.inner_text())
        self.assertEqual(3, self.page.locator(".plane-findings .located-mark").count())

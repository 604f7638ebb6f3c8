"""Writing a line with its aids, the Reference, and the Working, as a pointer uses them."""

from tests.browser.bench import SAME_PX, BrowserTest


class WritingTest(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.open_new_study()
        self.field = self.page.locator("#new-line")

    def offered(self) -> list[str]:
        options = self.page.locator(".row-new .name:visible")
        return [self.text(option.locator(".name-signature")) for option in options.all()]

    def test_known_names_are_offered_and_taken_by_key_and_pointer(self) -> None:
        self.write("tide(t) = 2 + sin t")
        self.field.press_sequentially("g(x) = ti")
        self.page.locator(".row-new .name").first.wait_for()
        self.assertTrue(self.offered()[0].startswith("tide(t)"))
        self.field.press("Tab")
        self.page.wait_for_function(
            "() => document.querySelector('#new-line').value === 'g(x) = tide('"
        )
        self.field.press_sequentially("x) + arcs")
        self.page.locator(".row-new .name").first.wait_for()
        self.assertEqual("asin(x)", self.offered()[0])
        self.field.press("ArrowDown")
        self.assertEqual(
            "true", self.page.locator(".row-new .name").first.get_attribute("aria-selected")
        )
        self.field.press("Enter")
        self.page.wait_for_function(
            "() => { const field = document.querySelector('#new-line');"
            " return field.value.endsWith('asin(') && field.selectionStart === field.value.length }"
        )
        self.field.press_sequentially("x/9)")
        self.page.locator(".row-new .line-preview math").wait_for()
        self.check_access()
        self.field.press("Enter")
        self.settle()
        self.assertIn("asin(x9)", self.text(self.row("g").locator(".row-formula")))

    def test_keys_for_signs_put_them_where_the_caret_stands(self) -> None:
        self.field.fill("f(x) = x + 1")
        self.field.evaluate("(field) => field.setSelectionRange(7, 12)")
        self.page.get_by_role("button", name="√, square root").click()
        self.page.wait_for_function(
            "() => document.querySelector('#new-line').value === 'f(x) = √(x + 1)'"
        )
        self.page.get_by_role("button", name="π, pi").click()
        self.field.press("Enter")
        self.settle()
        self.assertEqual(1, self.row("f").locator("msqrt").count())

    def test_earlier_lines_come_back(self) -> None:
        self.write("f(x) = x^2")
        self.write("a = 3")
        self.field.press("ArrowUp")
        self.assertEqual("a = 3", self.field.input_value())
        self.field.press("ArrowUp")
        self.page.wait_for_function(
            "() => document.querySelector('#new-line').value === 'f(x) = x^2'"
        )
        self.field.press("ArrowDown")
        self.field.press("ArrowDown")
        self.page.wait_for_function("() => document.querySelector('#new-line').value === ''")

    def test_a_missing_bracket_is_closed_with_one_click(self) -> None:
        self.field.fill("f(x) = 2(x + 1")
        self.page.get_by_role("button", name="Close the bracket").click()
        self.page.wait_for_function(
            "() => document.querySelector('#new-line').value === 'f(x) = 2(x + 1)'"
        )
        self.write("g(x) = sinn(x)")
        self.page.get_by_role("button", name="Use sin", exact=True).click()
        self.settle()
        self.assertIn("g(x)=sin(x)", self.text(self.row("g").locator(".row-formula")))

    def test_the_reference_is_searched_and_its_examples_inserted(self) -> None:
        self.field.fill("f(x) = ")
        self.page.get_by_role("button", name="Reference", exact=True).click()
        search = self.page.get_by_role("searchbox", name="Search the Reference")
        search.fill("greatest common")
        entry = self.page.locator(".reference-entry:visible")
        self.assertEqual(1, entry.count())
        entry.locator("math").first.wait_for()
        self.assertIn("gcd(m,n)", self.text(entry))
        self.check_access()
        search.fill("angle whose tangent")
        self.page.get_by_title("Insert the example atan(3/4)").click()
        self.page.wait_for_function(
            "() => document.querySelector('#new-line').value === 'f(x) = atan(3/4)'"
        )
        search.fill("qqq")
        self.page.get_by_text("Nothing matches.").wait_for()

    def test_values_show_their_exact_form_with_the_decimal(self) -> None:
        self.write("k = sqrt(8)")
        self.write("A = (1/2, k)")
        self.page.locator(".row-exact math").first.wait_for()
        self.page.wait_for_function(
            "() => document.querySelectorAll('.row-exact math').length === 2"
        )
        self.assertEqual(1, self.row("k").locator(".row-exact msqrt").count())
        self.assertEqual("2.8284", self.row("k").locator(".row-value").inner_text())

    def test_rename_updates_uses_and_delete_names_users(self) -> None:
        self.write("f(x) = x^2")
        self.write("g(x) = f(x) + 1")
        self.row("f").locator(".row-formula").click()
        field = self.page.get_by_label("Text of f", exact=True)
        field.fill("rope(x) = x^2")
        field.press("Enter")
        self.settle()
        self.assertIn("g(x)=rope(x)+1", self.text(self.row("g").locator(".row-formula")))
        self.row("rope").hover()
        self.choose_for("rope", "Delete")
        self.page.get_by_text(
            "rope was deleted, but g needed it. Undo brings it back."
        ).first.wait_for()
        self.settle()
        self.page.get_by_role("button", name="Undo").click()
        self.settle()
        self.assertTrue(self.row("rope").is_visible())


class RowTest(BrowserTest):
    def test_a_line_is_edited_in_place_with_the_same_aids(self) -> None:
        self.open_new_study("f(x) = x", "g(x) = x^2")
        self.row("f").locator(".row-formula").click()
        field = self.page.get_by_label("Text of f", exact=True)
        field.fill("f(x) = flo")
        field.press_sequentially("o")
        self.row("f").locator(".name").first.wait_for()
        self.row("f").locator(".name").first.dispatch_event("mousedown")
        self.page.wait_for_function(
            "() => [...document.querySelectorAll('.row-editor input')].some((f) => f.value === 'f(x) = floor(')"
        )
        # A Reference that is opened for a line puts its example into that line.
        self.row("f").get_by_role("button", name="Reference", exact=True).click()
        self.page.get_by_role("searchbox", name="Search the Reference").fill("hanging rope")
        field.fill("f(x) = ")
        self.page.get_by_title("Insert the example 3 cosh(x/3)").click()
        self.page.wait_for_function(
            "() => [...document.querySelectorAll('.row-editor input')].some((f) => f.value === 'f(x) = 3 cosh(x/3)')"
        )
        field.press("Enter")
        self.settle()
        self.assertIn("f(x)=3cosh", self.text(self.row("f").locator(".row-formula")))

    def test_every_kind_of_line_is_stored_and_typeset(self) -> None:
        self.open_new_study("area(l, w) = l w", "L = from 0 to 1 in 3 points")
        self.page.locator(".row-state", has_text="its variables are not x and y").wait_for()
        self.assertEqual("[0, 0.5, 1]", self.row("L").locator(".row-value").inner_text())
        self.assertEqual(0, self.page.locator(".row-problem:visible").count())
        self.write("q(x) = area(x, L)")
        self.page.locator(".row-problem", has_text="A function has one value at a place").wait_for()
        self.page.reload()
        self.page.locator(".row-state", has_text="its variables are not x and y").wait_for()


class NarrowTest(BrowserTest):
    def test_aids_and_panel_work_on_a_tablet_too(self) -> None:
        """Leaving the field hides its keys, and must not move away what is being tapped."""
        self.page = self.open_page(width=800, height=900)
        self.open_new_study("f(x) = x")
        field = self.page.locator("#new-line")
        field.press_sequentially("g(x) = sq")
        name = self.page.locator(".row-new .name").first
        name.wait_for()
        self.assertGreaterEqual(self.box(name)["y"], 0)
        # What is wrong with it so far has its place before anything is tapped.
        self.page.locator(".new-problem:visible").wait_for()
        tab = self.page.get_by_role("tab", name="Reference")
        tab.scroll_into_view_if_needed()
        before = self.box(tab)
        self.page.mouse.move(before["x"] + 20, before["y"] + 10)
        self.page.mouse.down()
        # A slow finger: it is longer down than keys outlast the field's focus otherwise.
        self.page.wait_for_timeout(700)
        self.assertTrue(self.page.locator(".row-new .sign-keys").is_visible())
        self.assertLess(abs(before["y"] - self.box(tab)["y"]), SAME_PX)
        self.page.mouse.up()
        self.page.locator(".row-new .sign-keys").wait_for(state="hidden")
        self.page.get_by_role("searchbox", name="Search the Reference").fill("square root")
        self.page.get_by_label("Insert sqrt", exact=True).click()
        self.page.wait_for_function(
            "() => document.querySelector('#new-line').value.endsWith('sqrt(')"
        )


class WorkingTest(BrowserTest):
    def test_working_shows_exact_forms_and_follows_the_study(self) -> None:
        self.open_new_study("f(x) = a x^2")
        self.page.get_by_role("button", name="Add a slider for a").click()
        self.settle()
        self.page.get_by_role("tab", name="Working").click()
        field = self.page.get_by_label("Calculate", exact=True)
        for text in ("sin(pi/12)", "f(3) + 1/3", "(2 + 3i)^2", "sqrt(", "1/7"):
            field.fill(text)
            field.press("Enter")
            self.settle()
        cards = self.page.locator(".work")
        cards.nth(4).wait_for()
        self.assertIn("≈0.2588190451", self.text(cards.nth(0)))
        self.assertEqual(2, cards.nth(0).locator("math").count())
        self.assertIn("=−5+12\u2062i", self.text(cards.nth(2)))
        self.assertIn("A closing bracket is missing.", cards.nth(3).inner_text())
        self.check_access()
        before = self.text(cards.nth(1))
        track = self.page.get_by_role("slider", name="Slider a")
        track.focus()
        self.page.keyboard.press("ArrowRight")
        self.settle()
        self.page.wait_for_function(
            "(before) => document.querySelectorAll('.work')[1].innerText.replace(/\\s/g, '') !== before",
            arg=before,
        )
        self.page.locator(".work-form select").select_option("50")
        self.page.get_by_text("0.14285714285714285714285714285714285714285714285714").wait_for()
        self.page.reload()
        self.page.wait_for_selector(".work")
        self.settle()
        self.assertEqual(5, self.page.locator(".work").count())
        self.page.get_by_role("button", name="More for 1/7", exact=True).click()
        self.page.get_by_role("menuitem", name="Delete", exact=True).click()
        self.settle()
        self.page.wait_for_function("() => document.querySelectorAll('.work').length === 4")

    def test_a_long_calculation_can_be_stopped_and_ends_by_itself(self) -> None:
        self.open_new_study("f(x) = x")
        self.page.get_by_role("tab", name="Working").click()
        field = self.page.get_by_label("Calculate", exact=True)
        field.fill("sum(sum(1/(k + j), k, 1, 1000), j, 1, 2000)")
        field.press("Enter")
        stop = self.page.get_by_role("button", name="Stop")
        stop.click()
        self.page.get_by_text("Stopped. Dimmed values").wait_for()
        self.check_access()
        self.page.get_by_role("button", name="Try again").click()
        self.page.get_by_text("longer than 2 s, so it was stopped").first.wait_for()
        stop.wait_for(state="hidden")

    def test_timeout_of_the_exact_form_is_shown(self) -> None:
        self.open_new_study("k = integral(sqrt(1 + sin(t)^3) exp(-t^2), t, 0, 1)")
        self.page.get_by_text("no exact form was found in time").first.wait_for()
        self.assertTrue(self.row("k").locator(".row-value").inner_text().startswith("0."))

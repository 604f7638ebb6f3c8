"""The Bench in a real browser: define, drag, read, locate, undo, reload."""

from playwright.sync_api import Route

from tests.browser.bench import SAME_PX, BrowserTest


class DefineTest(BrowserTest):
    def test_a_definition_is_drawn_at_once_and_typeset(self) -> None:
        self.open_new_study()
        self.assertIn("This study is empty", self.page.locator(".plane-why").inner_text())
        self.assertEqual(0, self.ink())

        self.write("f(x) = x^2 - 3")

        self.assertGreater(self.ink(), 300)
        self.assertFalse(self.page.locator(".plane-why").is_visible())
        self.assertEqual(1, self.row("f").locator("math msup").count())
        self.assertEqual("f", self.page.locator(".flag-text").text_content())

    def test_the_preview_shows_how_a_line_reads_while_it_is_written(self) -> None:
        self.open_new_study()
        self.page.fill("#new-line", "g(x) = 1/2x for x > 0")
        preview = self.page.locator(".row-new .line-preview")
        preview.locator("mfrac").wait_for()
        self.assertIn("for", preview.inner_text())
        self.page.fill("#new-line", "g(x) = (x")
        self.page.get_by_text("A closing bracket is missing.").wait_for()

    def test_bad_line_is_stored_and_marked(self) -> None:
        self.open_new_study("f(x) = x")
        before = self.ink()
        self.write("g(x) = 2 sinn(x)")
        row = self.page.locator(".row-item", has_text="sinn")
        self.assertIn(
            "sinn is unknown. Did you mean sin?", row.locator(".problem-message").inner_text()
        )
        self.assertEqual("sinn", row.locator("mark").inner_text())
        self.assertEqual(before, self.ink())

        row.get_by_role("button", name="Use sin").click()
        self.settle()

        self.assertEqual(0, self.page.locator(".row-problem:visible").count())
        self.assertGreater(self.ink(), before)

    def test_a_line_is_edited_in_place(self) -> None:
        self.open_new_study("f(x) = x^2")
        self.row("f").locator(".row-formula").click()
        field = self.row("f").locator(".line-input")
        self.assertEqual("f(x) = x^2", field.input_value())
        field.fill("f(x) = x^3 for x >= 0")
        self.row("f").locator(".line-preview mn", has_text="3").wait_for()
        field.press("Enter")
        self.settle()
        self.assertIn(
            "x≥0", self.text(self.row("f").locator(".row-domain").first).replace("𝑥", "x")
        )
        self.row("f").locator(".row-formula").click()
        self.row("f").locator(".line-input").fill("nonsense (")
        self.row("f").locator(".line-input").press("Escape")
        self.settle()
        self.assertEqual(0, self.page.locator(".row-problem:visible").count())

    def test_names_without_a_value_become_sliders(self) -> None:
        self.open_new_study("f(x) = m x + c")
        self.assertEqual(0, self.ink())
        self.page.get_by_role("button", name="Add sliders for m, c").click()
        self.settle()
        self.assertEqual(2, self.page.locator(".slider").count())
        self.assertGreater(self.ink(), 300)

    def test_lines_are_hidden_disabled_and_deleted(self) -> None:
        self.open_new_study("f(x) = x", "g(x) = f(x) + 1")
        both = self.ink()
        self.row("f").hover()
        self.page.get_by_role("button", name="Hide f").click()
        self.settle()
        one = self.ink()
        self.assertLess(one, both)
        self.row("g").get_by_text("all x").wait_for()
        self.page.get_by_role("button", name="Hide f").click()
        self.choose_for("f", "Turn off")
        self.assertIn(
            "Add a slider for f",
            self.page.locator(".row-problem:visible").inner_text(),
        )
        self.choose_for("f", "Turn on")
        self.assertEqual(both, self.ink())
        self.choose_for("g", "Delete")
        self.assertEqual(1, self.page.locator(".row-item").count())

    def test_notes_stand_among_the_lines(self) -> None:
        self.open_new_study("# The ferry can dock", "f(x) = 2")
        self.assertEqual("The ferry can dock", self.page.locator(".row-note:visible").inner_text())

    def test_angles_are_measured_in_the_unit_that_is_shown(self) -> None:
        self.open_new_study("f(x) = sin x")
        self.page.get_by_role("button", name="degrees", exact=True).click()
        self.settle()
        self.assertEqual(
            "true",
            self.page.get_by_role("button", name="degrees", exact=True).get_attribute(
                "aria-pressed"
            ),
        )
        self.page.locator(".plane-surface").focus()
        self.page.get_by_label("right bound").fill("360")
        self.page.get_by_label("right bound").press("Enter")
        self.settle()
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        found = self.page.locator(".finding-x").all_inner_texts()
        self.assertEqual(["x=0", "x=180", "x=360"], ["".join(text.split()) for text in found])


class UndoTest(BrowserTest):
    def test_undo_and_redo_by_button_and_keyboard(self) -> None:
        self.open_new_study("f(x) = x", "a = 2", "g(x) = a x")
        self.choose_for("g", "Delete")
        self.assertEqual(1, self.page.locator(".row-item").count())
        undo, redo = (self.page.get_by_role("button", name=n, exact=True) for n in ("Undo", "Redo"))
        self.assertIn("Delete g", undo.get_attribute("title") or "")
        undo.click()
        self.settle()
        self.assertEqual(2, self.page.locator(".row-item").count())
        self.page.locator(".plane-surface").focus()
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertEqual(1, self.page.locator(".row-item").count())
        self.page.keyboard.press("Control+Shift+z")
        self.settle()
        redo.click()
        self.settle()
        self.assertEqual(1, self.page.locator(".row-item").count())
        self.assertTrue(redo.is_disabled())
        for _ in range(4):
            undo.click()
            self.settle()
        self.assertEqual(
            0, self.page.locator(".row-item").count() + self.page.locator(".slider").count()
        )
        self.assertTrue(undo.is_disabled())


class HandTest(BrowserTest):
    def unit(self) -> float:
        """Return how many px are one unit of the window from -10 to 10."""
        return self.box(self.page.locator(".plane-surface"))["width"] / 20

    def test_a_slider_moves_the_curve_and_every_number_with_it(self) -> None:
        self.open_demo("Morning tide")
        reading = self.row("h").locator(".row-value")
        before, zero = reading.inner_text(), self.page.locator(".finding-x").first.inner_text()
        track = self.page.get_by_role("slider", name="Slider a")
        box = self.box(track)
        self.page.mouse.move(box["x"] + box["width"] * 0.5, box["y"] + 10)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + box["width"] * 0.9, box["y"] + 10, steps=12)
        self.page.wait_for_function(
            "(old) => document.querySelector('.finding-x').innerText !== old", arg=zero
        )
        self.assertNotEqual(before, reading.inner_text())
        self.page.mouse.up()
        self.settle()
        self.assertEqual("2.7", self.page.locator("#slider-3").input_value())

    def test_drag_has_one_request_and_the_latest_wins(self) -> None:
        self.open_demo("Morning tide")
        self.page.evaluate("window.mostScenes = 0")
        track = self.page.get_by_role("slider", name="Slider a")
        box = self.box(track)
        self.page.mouse.move(box["x"] + 5, box["y"] + 10)
        self.page.mouse.down()
        for step in range(60):
            self.page.mouse.move(box["x"] + 5 + 3.5 * step, box["y"] + 10)
        self.page.mouse.up()
        self.settle()
        self.assertEqual(1, self.page.evaluate("window.mostScenes"))
        shown = float(self.page.locator("#slider-3").input_value())
        self.assertAlmostEqual(3 * 211.5 / (box["width"]), shown, delta=0.06)

    def test_slider_keys_typed_values_and_range(self) -> None:
        self.open_new_study("f(x) = a x", "a = 1")
        track = self.page.get_by_role("slider", name="Slider a")
        track.focus()
        for key in ("ArrowRight", "ArrowRight", "Shift+ArrowLeft"):
            self.page.keyboard.press(key)
            self.settle()
        field = self.page.locator(".slider-value")
        self.assertEqual("0.2", field.input_value())
        field.fill("pi/4")
        field.press("Enter")
        self.settle()
        self.assertEqual("pi/4", field.input_value())
        self.page.get_by_role("button", name="Range, step and motion of a").click()
        for label, value in (("from", "0"), ("to", "2pi"), ("step", "0")):
            self.page.locator(".slider-range").get_by_label(label, exact=True).fill(value)
        self.page.get_by_role("button", name="Keep").click()
        self.page.get_by_text("The step of a slider is more than 0.").wait_for()
        self.page.locator(".slider-range").get_by_label("step", exact=True).fill("1/8")
        self.page.get_by_role("button", name="Keep").click()
        self.settle()
        self.assertIn("2π", self.page.locator(".slider-ends").inner_text())
        track.focus()
        self.page.keyboard.press("End")
        self.settle()
        # It stands at the exact end, not at the nearest decimal.
        self.assertEqual("2pi", field.input_value())

    def test_a_domain_handle_is_dragged_flipped_and_taken_away(self) -> None:
        self.open_new_study("f(x) = x^2 for -2 <= x <= 3")
        high = self.handle("f", "Upper")
        self.assertEqual("3, included", high.get_attribute("aria-valuetext"))
        whole = self.ink()
        self.drag(high, -2 * self.unit())
        self.assertEqual("1, included", high.get_attribute("aria-valuetext"))
        self.assertLess(self.ink(), whole)
        self.assertEqual(2, self.page.locator(".end-dot").count())
        high.dblclick()
        self.settle()
        self.assertEqual("1, excluded", high.get_attribute("aria-valuetext"))
        self.assertEqual(1, self.page.locator(".plane-marks .end-open").count())
        high.focus()
        self.page.keyboard.press("Shift+ArrowRight")
        self.settle()
        self.assertEqual("1.2, excluded", high.get_attribute("aria-valuetext"))
        self.page.keyboard.press("Delete")
        self.settle()
        self.assertEqual("no limit", high.get_attribute("aria-valuetext"))
        self.assertIn(
            "x≥−2", self.text(self.row("f").locator(".row-domain").first).replace("𝑥", "x")
        )

    def test_an_end_is_typed_on_its_lane(self) -> None:
        self.open_new_study("f(x) = x^2 for -1 <= x <= sqrt(2)", "r(theta) = 2")
        field = self.page.locator(".end-form:visible input")
        self.handle("f", "Upper").click()
        self.assertEqual("sqrt(2)", field.input_value())
        self.check_access()
        field.fill("1/0")
        field.press("Enter")
        self.page.locator(".end-problem", has_text="division by zero").wait_for()
        field.fill("2pi")
        field.press("Enter")
        field.wait_for(state="hidden")
        self.assertIn("−1≤x≤2π", self.text(self.row("f")))
        # A sign begins a new text; leaving the field keeps it, Escape does not.
        self.handle("f", "Lower").focus()
        self.page.keyboard.type("-3/4")
        self.page.keyboard.press("Tab")
        self.settle()
        self.page.keyboard.press("F2")
        self.handle("f", "Lower").press("F2")
        field.fill("7")
        field.press("Escape")
        self.settle()
        self.assertIn("−34≤x≤2π", self.text(self.row("f")))
        self.handle("r", "Upper").click()
        field.fill("pi")
        field.press("Enter")
        self.settle()
        self.assertIn("θ≤π", self.text(self.row("r")))
        self.handle("r", "Upper").click()
        field.fill("")
        field.press("Enter")
        self.settle()
        self.assertNotIn("θ≤π", self.text(self.row("r")))

    def test_a_function_without_a_domain_gets_one_from_its_grip(self) -> None:
        self.open_new_study("f(x) = x")
        self.drag(self.handle("f", "Lower"), 10 * self.unit() - 8)
        self.assertRegex(self.text(self.row("f").locator(".row-domain").first), "≥0$")

    def test_the_plane_is_dragged_and_zoomed_at_the_pointer(self) -> None:
        self.open_new_study("f(x) = x")
        left, right = (self.page.get_by_label(f"{side} bound") for side in ("left", "right"))
        self.assertEqual(("−10", "10"), (left.input_value(), right.input_value()))
        surface = self.page.locator(".plane-surface")
        self.drag(surface, 2 * self.unit())
        self.assertEqual("−12", left.input_value())
        box = self.box(surface)
        self.page.mouse.move(box["x"], box["y"] + 100)
        self.page.mouse.wheel(0, -400)
        self.settle()
        self.assertAlmostEqual(-12, float(left.input_value().replace("−", "-")), delta=0.02)
        self.assertLess(float(right.input_value().replace("−", "-")), 0)
        self.page.get_by_role("button", name="Home window").click()
        self.settle()
        self.assertEqual("10", right.input_value())

    def test_typed_bounds_are_expressions_and_wrong_ones_are_explained(self) -> None:
        self.open_new_study("f(x) = sin x")
        right = self.page.get_by_label("right bound")
        right.fill("2pi")
        right.press("Enter")
        self.settle()
        right.evaluate("(field) => field.blur()")
        right.fill("-20")
        right.press("Enter")
        self.page.get_by_text("The window's x goes from a lower to a higher number.").wait_for()

    def test_frame_makes_the_window_fit(self) -> None:
        self.open_new_study("f(x) = x^2 + 50 for 0 <= x <= 4")
        self.assertIn("lies above the window", self.row("f").locator(".row-why").inner_text())
        self.row("f").get_by_role("button", name="Frame").click()
        self.settle()
        self.assertFalse(self.row("f").locator(".row-why").is_visible())
        self.assertGreater(self.ink(), 200)

    def test_an_empty_plane_states_the_reason(self) -> None:
        self.open_new_study("f(x) = sqrt(x) for -5 <= x <= -1")
        self.assertIn(
            "it has no real value for −5 ≤ x ≤ −1 (sqrt of a negative number at x = −3)",
            self.row("f").locator(".row-why").inner_text(),
        )


class ReadTest(BrowserTest):
    def test_reading_line_aligns_plane_and_lanes(self) -> None:
        for width in (1280, 1017, 1433, 800):
            self.page = self.open_page(width=width)
            self.open_new_study("f(x) = x^2 - 3 for -1 <= x <= 3")
            surface = self.page.locator(".plane-surface")
            box = self.box(surface)
            self.page.mouse.move(box["x"] + box["width"] * 0.7, box["y"] + 50)
            self.settle()
            lines = self.page.locator(".reading-line")
            places = [self.box(lines.nth(k))["x"] for k in range(lines.count())]
            with self.subTest(width):
                self.assertEqual(2, len(places))
                self.assertLess(max(places) - min(places), SAME_PX)
                for side, x in (("Lower", -1), ("Upper", 3)):
                    on_plane = box["x"] + box["width"] * (x + 10) / 20
                    self.assertLess(abs(self.centre_x(self.handle("f", side)) - on_plane), SAME_PX)
                mark = self.centre_x(self.page.locator(".mark-line"))
                lane = self.row("f").locator(".lane")
                self.assertLess(abs(self.darkest_x(lane) - mark), SAME_PX)

    def test_arrow_keys_move_the_reading_line_and_show_values(self) -> None:
        self.open_new_study("f(x) = 2x", "g(x) = sqrt(x)")
        self.page.locator(".plane-surface").focus()
        self.page.keyboard.press("ArrowLeft")
        self.settle()
        self.assertEqual("−0.08", self.row("f").locator(".row-value").inner_text())
        self.assertEqual("undefined", self.row("g").locator(".row-value").inner_text())
        self.assertEqual(
            "sqrt of a negative number at x = −1/25",
            self.row("g").locator(".row-value").get_attribute("title"),
        )

    def test_the_table_and_the_reading_line_move_together(self) -> None:
        self.open_new_study("f(x) = x^2", "g(x) = 1/x")
        self.page.get_by_role("tab", name="Values").click()
        self.settle()
        for label, value in (("start", "0"), ("stop", "2"), ("step", "1/2")):
            self.page.get_by_label(label, exact=True).fill(value)
            self.page.get_by_label(label, exact=True).press("Tab")
        self.settle()
        rows = self.page.locator("tr[data-value-row]")
        self.assertEqual(5, rows.count())
        cells = [self.text(rows.nth(k)) for k in range(5)]
        self.assertEqual(["00—", "0.5×0.252", "111", "1.52.250.666667", "240.5"], cells)
        rows.nth(0).click()
        self.settle()
        self.assertIn("a division by zero", self.page.locator(".cell-reasons").inner_text())
        for _ in range(2):
            self.page.keyboard.press("ArrowDown")
            self.settle()
        self.assertEqual("1", self.page.locator(".reading-tag text").text_content())
        self.assertEqual("1", self.row("g").locator(".row-value").inner_text())

    def test_an_impossible_table_states_the_reason(self) -> None:
        self.open_new_study("f(x) = x")
        late: list[Route] = []
        self.page.route("**/table", lambda route: late.append(route))
        self.page.get_by_role("tab", name="Values").click()
        self.page.get_by_label("step", exact=True).fill("0")
        self.page.get_by_label("step", exact=True).press("Enter")
        self.page.get_by_text("The step of a table cannot be 0.").wait_for()
        # A table asked for before the step was typed comes late: the reason stays.
        for route in late:
            route.continue_()
        self.page.unroute("**/table")
        self.page.locator("tr[data-value-row]").first.wait_for()
        self.assertTrue(self.page.get_by_text("The step of a table cannot be 0.").is_visible())


class LocateTest(BrowserTest):
    def test_zeros_over_window_domain_and_typed_interval(self) -> None:
        self.open_new_study("f(x) = x^2 - 2 for 0 <= x <= 5")
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        card = self.page.locator(".finding").first
        self.assertIn("1.414213562", card.inner_text())
        self.assertIn("Proved: exactly one zero", card.inner_text())
        self.page.get_by_label("Where to search").select_option("domain")
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        self.assertIn("0≤x≤5", self.text(self.page.locator(".finding").first))
        self.page.get_by_label("Where to search").select_option("typed")
        self.page.locator(".find-bounds").first.get_by_label("from").fill("3")
        self.page.locator(".find-bounds").first.get_by_label("to").fill("2pi")
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        self.assertIn("Proved: no zero", self.page.locator(".finding").first.inner_text())
        self.assertEqual(3, self.page.locator(".finding").count())
        self.page.get_by_role("button", name="Remove: Zeros of f").first.click()
        self.settle()
        self.assertEqual(2, self.page.locator(".finding").count())

    def test_pressing_a_finding_moves_the_reading_line(self) -> None:
        self.open_new_study("f(x) = x - 4")
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        self.page.locator(".finding-item").click()
        self.settle()
        self.assertEqual("4", self.page.locator(".reading-tag text").text_content())
        self.assertEqual("0", self.row("f").locator(".row-value").inner_text())

    def test_findings_never_stay_when_their_function_changes(self) -> None:
        self.open_new_study("f(x) = x - 4")
        self.page.get_by_role("button", name="Locate", exact=True).click()
        self.settle()
        self.row("f").locator(".row-formula").click()
        self.row("f").locator(".line-input").fill("f(x) = 2x - 4")
        self.row("f").locator(".line-input").press("Enter")
        self.settle()
        self.assertEqual("x=2", self.text(self.page.locator(".finding-x")))
        self.choose_for("f", "Delete")
        self.assertEqual(0, self.page.locator(".finding").count())


class KeepTest(BrowserTest):
    def test_a_reload_brings_back_exactly_the_same_bench(self) -> None:
        self.open_new_study("f(x) = a x^2 - 3 for x < 4", "a = 0.5", "# note", "g(x) = (")
        self.drag(self.page.locator(".plane-surface"), -90, 40)
        self.page.get_by_role("slider", name="Slider a").focus()
        self.page.keyboard.press("ArrowRight")
        self.settle()
        self.page.get_by_role("tab", name="Values").click()
        self.page.fill("#study-title", "Kept")
        self.page.press("#study-title", "Enter")
        self.settle()
        self.page.wait_for_timeout(800)
        before = (self.page.locator("body").inner_text(), self.ink())
        fields = [field.input_value() for field in self.page.locator("input").all()]

        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.settle()

        self.assertEqual(before, (self.page.locator("body").inner_text(), self.ink()))
        self.assertEqual(
            fields, [field.input_value() for field in self.page.locator("input").all()]
        )
        self.assertEqual("Kept · Axis Path", self.page.title())

    def test_saved_appears_only_after_the_commit(self) -> None:
        self.open_new_study("f(x) = x")
        held = []
        self.page.route("**/commands", lambda route: held.append(route))
        self.page.fill("#new-line", "g(x) = 2x")
        self.page.press("#new-line", "Enter")
        self.page.get_by_text("saving …").wait_for()
        self.page.wait_for_timeout(200)
        self.assertEqual("saving …", self.page.locator(".saved").inner_text())
        held[0].continue_()
        self.settle()
        self.assertEqual("saved", self.page.locator(".saved").inner_text())

    def test_server_loss_keeps_work_and_offers_retry(self) -> None:
        self.open_new_study("f(x) = x")
        self.page.route("**/commands", lambda route: route.abort())
        self.page.fill("#new-line", "g(x) = 2x")
        self.page.press("#new-line", "Enter")
        self.page.get_by_text("The server did not answer.").wait_for()
        self.assertEqual("g(x) = 2x", self.page.locator("#new-line").input_value())
        self.page.unroute("**/commands")
        self.page.get_by_role("button", name="Try again").click()
        self.page.press("#new-line", "Enter")
        self.settle()
        self.assertEqual("saved", self.page.locator(".saved").inner_text())
        self.assertEqual(2, self.page.locator(".row-item").count())

    def test_a_change_in_another_window_is_noticed(self) -> None:
        self.open_new_study("f(x) = x")
        first = self.page
        self.page = self.open_page()
        self.page.goto(first.url)
        self.page.wait_for_selector(".tick-label")
        self.write("g(x) = 2x")
        self.page = first
        self.page.fill("#new-line", "h(x) = 3x")
        self.page.press("#new-line", "Enter")
        self.page.get_by_text("was changed in another window").wait_for()
        self.assertEqual("not saved", self.page.locator(".saved").inner_text())
        self.assertEqual("h(x) = 3x", self.page.locator("#new-line").input_value())
        self.page.get_by_role("button", name="Reload the page").click()
        self.row("g").wait_for()

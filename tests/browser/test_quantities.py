"""Quantities in the real interface: typed, checked, shown in other units, on axes with units."""

from playwright.sync_api import expect

from tests.browser.bench import BrowserTest

FALL = "h(t) = 20 m + 12 m/s t - 1/2 g_n t^2 for 0 s <= t <= 5 s"


class QuantityTest(BrowserTest):
    def test_values_are_shown_in_a_chosen_unit(self) -> None:
        self.open_new_study("m = 12 kg", "W = m g_n", "v = 2 (45 km/h)")
        row = self.row("W")
        self.assertIn("117.6798", self.text(row.locator(".row-reading")))
        row.get_by_role("combobox", name="Unit of W").select_option("kN")
        self.settle()
        self.assertIn("0.1176798", self.text(row.locator(".row-reading")))
        self.row("v").get_by_role("combobox", name="Unit of v").select_option("m/s")
        self.settle()
        self.assertEqual("25", self.text(self.row("v").locator(".row-value")))
        self.check_access()
        self.page.get_by_role("slider", name="Slider m").press("ArrowRight")
        self.settle()
        expect(row.locator(".row-value")).to_contain_text("0.12749")
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        expect(self.row("W").locator(".row-value")).to_contain_text("0.1274")
        self.page.keyboard.press("Control+z")
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertIn("90", self.text(self.row("v").locator(".row-value")))

    def test_an_error_teaches_and_mends(self) -> None:
        self.open_new_study("m = 12 kg", "g = 9.81", "W = m g")
        self.page.fill("#new-line", "F = m g in N")
        words = self.page.get_by_text("mass and force differ by m/s²")
        expect(words.last).to_be_visible()
        self.page.get_by_role("button", name="Use g_n").last.click()
        self.settle()
        self.page.press("#new-line", "Enter")
        self.settle()
        self.assertIn("117.6798", self.text(self.row("F").locator(".row-reading")))
        # A name hides a unit, and one press means the unit.
        self.write("A = (2, 10 m)")
        row = self.row("A")
        self.assertIn("120 kg", row.locator(".row-reading").inner_text())
        row.get_by_role("button", name="Mean the metre").click()
        self.settle()
        self.assertIn("10 m", row.locator(".row-reading").inner_text())

    def test_another_unit_of_an_axis_keeps_the_picture(self) -> None:
        self.open_new_study(FALL)
        self.page.get_by_role("button", name="Frame", exact=True).click()
        self.settle()
        names = self.page.locator(".axis-name")
        self.assertEqual({"t in s", "y in m"}, set(names.all_text_contents()))
        ink, lane = self.ink(), self.row("h").locator(".lane")
        zero = self.darkest_x(lane)
        self.page.get_by_role("button", name="Axes and grid").click()
        form = self.page.get_by_role("form", name="Axes and grid")
        form.get_by_label("unit").first.select_option("ms")
        self.settle()
        form.get_by_label("unit").last.select_option("ft")
        self.settle()
        self.assertEqual({"t in ms", "y in ft"}, set(names.all_text_contents()))
        self.assertLess(abs(ink - self.ink()), 0.02 * ink)
        self.assertAlmostEqual(zero, self.darkest_x(lane), delta=1)
        self.check_access()
        self.page.keyboard.press("Escape")
        # Findings, tables and the reading line carry the units.
        self.page.get_by_role("tab", name="Findings").click()
        self.page.get_by_role("button", name="Locate").click()
        self.settle()
        expect(self.page.locator(".finding").first).to_contain_text("3585.058896 ms")
        self.page.get_by_role("tab", name="Values").click()
        self.settle()
        expect(self.page.locator(".values-table:visible thead").first).to_contain_text("in ft")
        self.page.keyboard.press("Control+z")
        self.page.keyboard.press("Control+z")
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertEqual({"t in s", "y in m"}, set(names.all_text_contents()))
        self.assertAlmostEqual(zero, self.darkest_x(lane), delta=1)

    def test_a_set_of_equations_is_checked_by_substitution(self) -> None:
        self.open_new_study("m = 12 kg")
        self.page.get_by_role("tab", name="Findings").click()
        field = self.page.get_by_label("Equation, inequality, or several equations in lines")
        field.fill("W = m g_n\nN = W cos(60°)\nF = W/4 + 0.3 N")
        field.press("Enter")
        self.settle()
        entry = self.page.locator("article.finding").first
        expect(entry).to_contain_text("In equation 3 N is the unknown")
        entry.get_by_text("Check by substitution").click()
        check = entry.locator(".finding-check")
        expect(check.locator("li").last).to_contain_text("47.07192 N")
        expect(check.locator(".is-proved")).to_have_text(["0", "0", "0"])
        self.check_access()
        # What is checked follows the study.
        self.page.get_by_role("slider", name="Slider m").press("End")
        self.settle()
        expect(check.locator("li").last).to_contain_text("392.266 N")

    def test_the_reference_shows_what_is_known_of_a_constant(self) -> None:
        self.open_new_study("m = 12 kg")
        self.page.get_by_role("tab", name="Reference").click()
        search = self.page.get_by_placeholder("name, meaning or group")
        entries = self.page.locator(".reference-entry:visible")
        for words, shown in (
            ("gravity", "9.80665 m/s² (exact); 3rd CGPM 1901"),
            ("gravitation", "(± 1.5·10^−15); CODATA 2022"),
            ("nautical mile", "1 nmi = 1852 m"),
        ):
            search.fill(words)
            expect(entries.first).to_contain_text(shown)


class SetTest(BrowserTest):
    def test_a_set_is_written_solved_opened_and_used(self) -> None:
        self.open_new_study("h = 5 m")
        self.page.focus("#new-line")
        self.page.get_by_role("button", name="Equations", exact=True).click()
        form = self.page.locator(".new-set")
        form.get_by_label("Name").fill("fall")
        form.get_by_label("One equation in each line").fill("v^2 = 2 g_n h\nt_f = 2h/v")
        form.get_by_role("button", name="Add the equations").click()
        self.settle()
        row = self.row("fall")
        expect(row.locator(".row-set-values")).to_contain_text("= −9.9029 m/s")
        expect(row.locator(".row-set-state")).to_contain_text("Proved: exactly two solutions")
        expect(row.locator(".row-set-names")).to_have_text("Known: h. Unknown: v and t_f.")
        self.write("way(t) = v t for 0 s <= t <= 2 s")
        row.get_by_role("button", name="Open the equations").click()
        sheet = self.page.get_by_role("dialog", name="Equations: fall")
        solution = sheet.locator(".set-solution").nth(1)
        expect(solution).to_contain_text("9.902853124 m/s")
        solution.get_by_text("Check by substitution").click()
        expect(solution.locator(".set-checks tbody tr")).to_have_count(2)
        expect(solution.locator(".set-checks")).to_contain_text("98.0665 m²/s²")
        self.check_access()
        solution.get_by_role("button", name="Use this one").click()
        expect(solution).to_contain_text("used in the study")
        # The equations are written anew, with an unknown too many.
        sheet.get_by_role("button", name="Change the equations").click()
        lines = sheet.get_by_label("One equation in each line")
        self.assertEqual("v^2 = 2 g_n h\nt_f = 2h/v", lines.input_value())
        lines.fill("v^2 = 2 g_n h\nt_f = 2h/v\nE = 1/2 M v^2")
        sheet.get_by_role("button", name="Keep the equations").click()
        expect(sheet.locator(".set-note")).to_contain_text("one equation is missing")
        self.page.keyboard.press("Escape")
        expect(sheet).to_be_hidden()
        self.page.keyboard.press("Control+z")
        self.settle()
        expect(row.locator(".row-set-values")).to_contain_text("= 9.9029 m/s")
        # What depends on the set follows the slider, and says so where there is no solution.
        slider = self.page.get_by_role("slider", name="Slider h")
        slider.press("Home")
        self.settle()
        expect(row.locator(".row-set-state")).to_contain_text("Proved: no solution")
        expect(self.row("way").locator(".row-problem")).to_contain_text("have no solution")

    def test_a_letter_is_meant_as_a_unit_with_one_press(self) -> None:
        self.open_new_study("F = W + 0.3 N; N = W/2; W = 4 N")
        row = self.page.locator("[data-row]").first
        expect(row.locator(".row-set-values")).to_contain_text("= 4.6 N")
        expect(row).to_contain_text("In equation 1 N is the unknown")
        row.get_by_role("button", name="Mean the newton").click()
        self.settle()
        expect(row.locator(".row-set-values")).to_contain_text("= 4.3 N")
        self.page.keyboard.press("Control+z")
        self.settle()
        expect(row.locator(".row-set-values")).to_contain_text("= 4.6 N")

    def test_a_what_if_table_varies_a_given_value_and_is_drawn(self) -> None:
        self.open_new_study("ramp: N = W cos a; W = m g_n; m = 20 kg; a = 60°", "p = 3 m")
        self.page.get_by_role("tab", name="Values").click()
        panel = self.page.get_by_role("region", name="What if")
        panel.get_by_label("The name that is varied").select_option("m")
        panel.get_by_label("What is computed").fill("N")
        panel.get_by_role("button", name="Compute it").click()
        cells = panel.locator("tbody tr").nth(3).locator("th, td")
        expect(cells).to_have_text(["3", "14.7100"])
        expect(panel.locator("thead")).to_contain_text("m in kg")
        marks = self.page.locator(".what-if-dots")
        expect(marks).to_have_count(1)
        # A name that follows from the equations takes the place of a given one.
        panel.get_by_label("The name that is varied").select_option("N")
        instead = panel.get_by_label("The given value that follows instead")
        expect(instead).to_be_visible()
        instead.select_option("a")
        panel.get_by_label("What is computed").fill("a/1°")
        panel.get_by_role("button", name="Compute it").click()
        panel.get_by_label("to", exact=True).fill("240")
        panel.get_by_label("in steps of").fill("40 N")
        panel.get_by_label("in steps of").press("Enter")
        expect(panel.locator(".what-if-missing").first).to_contain_text("beyond about 196.13 N")
        self.check_access()
        panel.get_by_label("draw it on the plane").uncheck()
        expect(marks).to_have_count(0)
        with self.page.expect_download() as download:
            panel.get_by_role("button", name="CSV").click()
        head = download.value.path().read_text().splitlines()[0]
        self.assertEqual("N in N,N in N,a/1°", head)
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        expect(panel.locator("tbody tr")).to_have_count(7)
        panel.get_by_role("button", name="Take it away").click()
        expect(panel.locator("tbody tr:visible")).to_have_count(0)
        # The study itself was never changed.
        expect(self.row("ramp").locator(".row-set-values")).to_contain_text("= 20 kg")

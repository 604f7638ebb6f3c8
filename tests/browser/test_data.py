"""Data under a pointer: pasted, loaded, typed, drawn as points, fitted, predicted, kept."""

import base64
import io
import tempfile
from pathlib import Path

import xlsxwriter

from tests.browser.bench import BrowserTest


class DataTest(BrowserTest):
    def open_data(self) -> None:
        self.open_new_study()
        self.page.get_by_role("tab", name="Data").click()

    def press(self, name: str) -> None:
        self.page.get_by_role("button", name=name, exact=True).click()
        self.settle()

    def cell(self, column: str, row: int) -> str:
        return self.page.get_by_label(f"{column}, row {row}", exact=True).input_value()

    def test_from_pasted_columns_to_points_a_fit_and_a_prediction(self) -> None:
        self.open_data()
        self.assertTrue(self.page.get_by_role("button", name="Read", exact=True).is_disabled())
        paste = self.page.get_by_label("Columns from a spreadsheet")
        paste.fill("speed (kn);litres (L/h)\n4;3,1\n6;fog\n8;8,3\n10;12,6\n12;18,1")
        self.press("Read")
        read = self.page.get_by_label("What was read")
        read.wait_for()
        self.assertIn("Separator: semicolon, with decimal commas", read.inner_text())
        self.assertIn("line 3, column 2: “fog”", read.inner_text())
        self.press("Use this data")
        self.assertEqual(
            "speed / kn", self.page.get_by_label("Name of the column speed").input_value()
        )
        self.assertEqual(["3.1", "", "8.3"], [self.cell("litres", row) for row in (1, 2, 3)])
        # The cell that was no number is written by hand, and a wrong one is put back.
        gap = self.page.get_by_label("litres, row 2", exact=True)
        gap.fill("5.2")
        gap.press("Enter")
        self.settle()
        gap.fill("mist")
        gap.press("Tab")
        self.settle()
        self.page.get_by_text("mist").first.wait_for()
        self.assertEqual("5.2", self.cell("litres", 2))
        self.check_access()

    def test_points_a_fit_a_prediction_and_the_curve_as_a_line(self) -> None:
        self.open_data()
        self.page.get_by_label("Columns from a spreadsheet").fill(
            "v,u\n4,3.1\n6,5.2\n8,8.3\n10,12.6\n12,18.1"
        )
        self.press("Read")
        # What is read without a doubt is taken and drawn at once, with a way back.
        notice = self.page.locator(".notice-line")
        notice.get_by_text("Added 2 columns of 5 rows. On the plane: u against v.").wait_for()
        notice.get_by_role("button", name="Undo").click()
        self.settle()
        self.assertEqual(0, self.page.locator(".data-table").filter(visible=True).count())
        self.press("Redo")
        self.assertEqual(1, self.page.locator(".data-dot").count())
        self.page.get_by_label("What to fit").select_option("polynomial")
        self.press("Fit")
        card = self.page.locator("article.finding", has_text="Polynomial of degree 2")
        card.wait_for()
        self.assertIn("y = c0 + c1 x + c2 x^2", card.inner_text())
        self.assertEqual(5, card.locator(".residual-dot").count())
        card.get_by_label("The known value").fill("20")
        card.get_by_role("button", name="Predict").click()
        card.get_by_text("outside the data").wait_for()
        # The curve of the fit is drawn, and a second press draws no second one.
        self.press("Fit")
        self.assertEqual(1, self.page.locator(".row-item").count())
        self.page.get_by_text("The fitted curve is on the plane").first.wait_for()
        for summary in self.page.locator(".data-summary summary").all():
            summary.click()
        self.check_access()
        # All of it is there when the study is opened again.
        self.page.reload()
        self.settle()
        self.page.get_by_role("tab", name="Data").click()
        card.wait_for()
        self.assertEqual("5.2", self.cell("u", 2))

    def test_a_loaded_file_a_sorted_table_and_a_way_back(self) -> None:
        self.open_data()
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "log.csv"
            file.write_text("t,höhe\n3,1\n1,4\n2,9\n", encoding="latin-1")
            self.page.get_by_label("Load a file").set_input_files(file)
            self.settle()
        self.page.get_by_text("Added 2 columns of 3 rows").first.wait_for()
        self.press("Change how it was read")
        self.page.get_by_text("Encoding of the file: Windows-1252.").wait_for()
        self.press("Use this data")
        self.press("Sort by t")
        self.assertEqual(["1", "2", "3"], [self.cell("t", row) for row in (1, 2, 3)])
        self.press("Sort by t")
        self.assertEqual(["3", "2", "1"], [self.cell("t", row) for row in (1, 2, 3)])
        self.press("New column")
        self.press("Delete the column t")
        self.assertEqual(0, self.page.get_by_label("t, row 1", exact=True).count())
        self.press("Undo")
        self.assertEqual("3", self.cell("t", 1))
        name = self.page.get_by_label("Name of the column t", exact=True)
        name.fill("2 t")
        name.press("Enter")
        self.settle()
        self.page.get_by_text("cannot be the name").wait_for()
        self.assertEqual("t", name.input_value())

    def take(self, text: str) -> None:
        self.open_data()
        self.page.get_by_label("Columns from a spreadsheet").fill(text)
        self.press("Read")
        self.page.get_by_label("y column").select_option("u")

    def open_more(self) -> None:
        self.page.get_by_text("Calculate a column or filter rows").click()

    def test_a_dropped_workbook_is_read_sheet_by_sheet(self) -> None:
        self.open_new_study("f(x) = x")
        content = io.BytesIO()
        with xlsxwriter.Workbook(content) as book:
            for name, rows in (
                ("Notes", [["written by", "Ada"]]),
                ("Fuel", [["speed", "litres"], [4, 3.1], [8, 8.3], [12, 18.1]]),
            ):
                sheet = book.add_worksheet(name)
                for k, row in enumerate(rows):
                    sheet.write_row(k, 0, row)
        dropped = self.page.evaluate_handle(
            """(content) => {
              const bytes = Uint8Array.from(atob(content), (letter) => letter.charCodeAt(0))
              const transfer = new DataTransfer()
              transfer.items.add(new File([bytes], 'log.xlsx'))
              return transfer
            }""",
            base64.b64encode(content.getvalue()).decode(),
        )
        plane = self.page.locator(".plane-surface")
        plane.dispatch_event("dragover", {"dataTransfer": dropped})
        self.page.get_by_text("Drop the file").wait_for()
        plane.dispatch_event("drop", {"dataTransfer": dropped})
        self.page.get_by_label("Sheet of the workbook").select_option("Fuel")
        self.page.get_by_text("8.3").first.wait_for()
        self.press("Use this data")
        self.assertEqual("8.3", self.cell("litres", 2))
        self.assertEqual(1, self.page.locator(".data-dot").count())

    def first_line(self) -> str:
        return self.page.locator(".row-formula").first.inner_text()

    def test_a_calculated_column_and_error_bars(self) -> None:
        self.take("v,u,e\n4,3.1,0.3\n6,5.2,0.4\n")
        self.open_more()
        self.page.get_by_label("Name of the calculated column").fill("rate")
        self.page.get_by_label("Formula of the calculated column").fill("u/v")
        self.press("Calculate")
        self.assertEqual("0.775", self.cell("rate", 1))
        self.assertFalse(self.page.get_by_label("rate, row 1", exact=True).is_editable())
        formula = self.page.get_by_label("Formula of rate")
        formula.fill("v/")
        formula.press("Enter")
        self.settle()
        self.page.locator("#panel-data [role=alert]:visible").wait_for()
        self.assertEqual("u/v", formula.input_value())
        self.page.get_by_label("y error bars").select_option("e")
        self.press("Draw points")
        self.assertEqual(1, self.page.locator(".data-bar").count())
        self.check_access()

    def test_box_selection_is_fitted_and_followed(self) -> None:
        self.take("v,u\n4,3.1\n6,5.2\n8,8.3\n10,12.6\n14,60\n")
        self.press("Fit")
        steep = self.first_line()
        self.press("Select with a box")
        plane = self.page.locator(".plane-surface").bounding_box()
        left, bottom = plane["x"] + 4, plane["y"] + plane["height"] - 8  # type: ignore[index]
        self.page.mouse.move(left, bottom)
        self.page.mouse.down()
        self.page.mouse.move(left + plane["width"] * 0.7, bottom - plane["height"] * 0.7)  # type: ignore[index]
        self.page.mouse.up()
        self.settle()
        self.assertIn("4 rows are selected", self.page.locator(".chosen-rows").inner_text())
        self.assertEqual(4, self.page.locator(".data-chosen").count())
        self.press("Keep only these")
        self.open_more()
        condition = self.page.get_by_label("rows where")
        self.assertEqual("4 <= v <= 10; 3.1 <= u <= 12.6", condition.input_value())
        flat = self.first_line()
        self.assertNotEqual(steep, flat)
        for text, line in (("v >", flat), ("", steep)):
            condition.fill(text)
            self.press("Keep")
            alert = self.page.locator("#panel-data [role=alert]:visible")
            self.assertEqual(bool(text), alert.count() > 0)
            self.assertEqual(line, self.first_line())

    def test_a_formula_of_ones_own_starts_from_sliders(self) -> None:
        self.take("v,u\n1,2\n2,2.9\n4,6.1\n8,24\n")
        self.page.get_by_label("What to fit").select_option("formula")
        self.page.get_by_label("formula", exact=True).fill("p exp(q x)")
        self.press("Fit")
        alert = self.page.locator("#panel-data [role=alert]:visible")
        self.assertIn("no value to start", alert.inner_text())
        self.press("Add sliders for the start values")
        sliders = [
            slider.get_attribute("data-slider") for slider in self.page.locator(".slider").all()
        ]
        self.assertEqual(["p", "q"], sliders)
        self.press("Fit")
        self.assertIn("p", self.page.locator(".fit-table").first.inner_text())

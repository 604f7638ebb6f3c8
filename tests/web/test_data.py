"""The Data panel over HTTP: texts read, columns changed, points drawn, curves fitted and kept."""

import base64
import io
import uuid
import zipfile
from typing import Any

import numpy as np
import xlsxwriter

from tests.web.test_views import WebTest

#: How a text is written, and what must be read from it: separator, decimal sign, names, cells.
TEXTS = (
    (
        "speed,litres\n4,3.1\n5,3.9\n",
        "comma",
        ".",
        ["speed", "litres"],
        [["4", "5"], ["3.1", "3.9"]],
    ),
    ("t;h\n1,5;2,25\n2;−3\n", "semicolon", ",", ["t", "h"], [["1.5", "2"], ["2.25", "−3"]]),
    ("a\tb\n1\t\n2\t1e3\n", "tab", ".", ["a", "b"], [["1", "2"], ["", "1000"]]),
    ("1 2\n3 4\n", "space", ".", None, [["1", "3"], ["2", "4"]]),
)
COLUMNS = [
    {"name": "v", "unit": "kn", "cells": ["4", "6", "8", "10"]},
    {"name": "u", "unit": "L/h", "cells": ["3", "5", "7", "9"]},
]


class DataTest(WebTest):
    def change(self, study_id: uuid.UUID, status: int = 200, **command: object) -> dict[str, Any]:
        return self.post(study_id, "commands", status, commands=[command])

    def data(self, study_id: uuid.UUID, **given: object) -> dict[str, Any]:
        return self.post(study_id, "data", **given)["data"]  # type: ignore[arg-type, no-any-return]

    def study(self) -> uuid.UUID:
        study_id = self.make("y = x")
        self.change(study_id, do="columns", columns=COLUMNS)
        return study_id

    def cells(self, study_id: uuid.UUID) -> dict[str, list[str]]:
        return {column["name"]: column["cells"] for column in self.data(study_id)["columns"]}

    def test_texts_are_read_as_they_are_written(self) -> None:
        study_id = self.make()
        for text, separator, decimal, names, cells in TEXTS:
            with self.subTest(text):
                read = self.post(study_id, "read_data", text=text)
                self.assertEqual((separator, decimal), (read["separator"], read["decimal"]))
                self.assertEqual(names is not None, read["header"])
                self.assertEqual(cells, [column["cells"] for column in read["columns"]])
                if names:
                    self.assertEqual(names, [column["name"] for column in read["columns"]])
                self.assertEqual(0, read["bad_count"])

    def test_cells_that_are_not_numbers_are_listed_with_their_position(self) -> None:
        study_id = self.make()
        read = self.post(study_id, "read_data", text="a,b\n1,2\n3,fog\n<b>,6\n")
        self.assertEqual(
            [(3, 2, "fog"), (4, 1, "<b>")],
            [(cell["line"], cell["column"], cell["text"]) for cell in read["bad"]],
        )
        self.assertEqual(["1", "3", ""], read["columns"][0]["cells"])
        self.assertIn(
            "empty", self.post(study_id, "read_data", 400, text=" \n")["error"]["message"]
        )

    def test_workbooks_are_read_by_their_sheets(self) -> None:
        study_id = self.make()
        content = io.BytesIO()
        with xlsxwriter.Workbook(content) as book:
            for name, rows in (("Fuel", [["v", "u"], [4, 0.1], [-1e-9, None], []]), ("Empty", [])):
                sheet = book.add_worksheet(name)
                for k, row in enumerate(rows):
                    sheet.write_row(k, 0, row)
        coded = base64.b64encode(content.getvalue()).decode()
        read = self.post(study_id, "read_workbook", content=coded)
        self.assertEqual(["Fuel", "Empty"], read["sheets"])
        self.assertEqual("v\tu\n4\t0.1\n-1e-09", read["text"])
        columns = self.post(study_id, "read_data", text=read["text"], separator="tab")["columns"]
        self.assertEqual(
            [["4", "−1/1000000000"], ["0.1", ""]], [column["cells"] for column in columns]
        )
        self.assertEqual(
            "", self.post(study_id, "read_workbook", content=coded, sheet="Empty")["text"]
        )
        # A damaged file, one that is no workbook, and one that grows beyond all bounds.
        swollen = io.BytesIO()
        with zipfile.ZipFile(swollen, "w", zipfile.ZIP_DEFLATED) as packed:
            packed.writestr("xl/workbook.xml", b" " * 65_000_000)
        for wrong, sheet, words in (
            (content.getvalue()[:-40], "", "not a workbook"),
            (b"PK\3\4 v,u", "", "not a workbook"),
            (swollen.getvalue(), "", "too large"),
            (content.getvalue(), "Wind", "no sheet `Wind`"),
        ):
            with self.subTest(words, size=len(wrong)):
                text = base64.b64encode(wrong).decode()
                refused = self.post(study_id, "read_workbook", 400, content=text, sheet=sheet)
                self.assertIn(words, refused["error"]["message"])

    def test_columns_are_written_renamed_sorted_and_undone(self) -> None:
        study_id = self.study()
        self.change(study_id, do="cell", name="u", row=5, text="0.1")
        self.change(study_id, do="cell", name="u", row=0, text="11")
        self.assertEqual(["11", "5", "7", "9", "", "0.1"], self.cells(study_id)["u"])
        self.change(study_id, do="sort_columns", name="u", falls=True)
        self.assertEqual(["11", "9", "7", "5", "0.1", ""], self.cells(study_id)["u"])
        # The rows stay together.
        self.assertEqual(["4", "10", "8", "6"], self.cells(study_id)["v"][:4])
        self.change(study_id, do="rename_column", name="u", to="burn", unit="L")
        self.assertIn("burn", self.cells(study_id))
        self.post(study_id, "history", do="undo")
        self.change(study_id, do="remove_column", name="v")
        self.assertEqual(["u"], list(self.cells(study_id)))
        for wrong, message in (
            ({"do": "cell", "name": "u", "row": 0, "text": "fog"}, "fog"),
            ({"do": "cell", "name": "none", "row": 0, "text": "1"}, "none"),
            ({"do": "rename_column", "name": "u", "to": "2 b"}, "2 b"),
            ({"do": "columns", "columns": []}, "columns"),
            ({"do": "plot", "x": "v", "y": "u"}, "v"),
        ):
            with self.subTest(wrong):
                self.assertIn(message, self.change(study_id, 400, **wrong)["error"]["message"])

    def test_points_and_fits_follow_their_columns(self) -> None:
        study_id = self.study()
        self.change(study_id, do="plot", x="v", y="u")
        self.change(study_id, do="fit", model="linear", x="v", y="u")
        data = self.data(study_id, predict={"fit": 1, "of": "x", "value": 20})
        (fit,) = data["fits"]
        self.assertEqual(["−1", "1"], [coefficient["value"] for coefficient in fit["coefficients"]])
        self.assertEqual(("-1 + 1 x", "c0 + c1 x"), (fit["line"], fit["form"]))
        self.assertTrue(fit["predicted"].startswith("19;"))
        self.assertIn("outside the data", fit["predicted"])
        back = self.data(study_id, predict={"fit": 1, "of": "y", "value": 6})
        self.assertTrue(back["fits"][0]["predicted"].startswith("7;"))
        self.change(study_id, do="rename_column", name="u", to="burn", unit="")
        self.change(study_id, do="cell", name="burn", row=3, text="11")
        data = self.data(study_id)
        self.assertEqual([("v", "burn")], [(p["x"], p["y"]) for p in data["plots"]])
        self.assertEqual("1.3", data["fits"][0]["coefficients"][1]["value"])
        summary = data["columns"][1]["summary"]
        self.assertEqual((6.5, 6, 3), (summary["mean"], summary["quartiles"][1], summary["least"]))
        drawn = self.post(study_id, "scene")["scene"]["data"][0]["points"]
        across, up = np.diff(drawn[::2]), np.diff(drawn[1::2])
        self.assertLess(np.ptp(across), 2)
        # Down the screen y grows: 3, 5, 7, 11 are 2, 2 and 4 apart.
        np.testing.assert_allclose(up / up[0], [1, 1, 2], atol=0.01)
        self.change(study_id, do="unfit", fit=1)
        self.assertEqual([], self.data(study_id)["fits"])
        self.post(study_id, "history", do="undo")
        # A fit and points go with their column, and come back with it.
        self.change(study_id, do="remove_column", name="v")
        data = self.data(study_id)
        self.assertEqual(([], []), (data["fits"], data["plots"]))
        self.post(study_id, "history", do="undo")
        self.assertEqual(1, len(self.data(study_id)["fits"]))

    def test_impossible_fits_state_the_reason(self) -> None:
        study_id = self.study()
        for wrong, message in (
            ({"model": "polynomial", "degree": 9}, "points"),
            ({"model": "wish"}, "wish"),
            ({"model": "formula", "formula": "p +", "start": {"p": 1}}, ""),
            ({"model": "linear", "x": "w"}, "w"),
        ):
            with self.subTest(wrong):
                asked = {"do": "fit", "x": "v", "y": "u", **wrong}
                self.assertIn(message, self.change(study_id, 400, **asked)["error"]["message"])

    def test_rows_in_a_box_are_marked_after_sorting_and_filtering(self) -> None:
        study_id = self.study()
        self.change(study_id, do="plot", x="v", y="u")
        for box, rows in (
            ([[5, 11], [0, 8]], [1, 2]),
            ([[0, 1], [0, 1]], []),
            ([[4, 4], [3, 3]], [0]),
        ):
            with self.subTest(box):
                self.assertEqual(rows, self.data(study_id, box=box)["chosen"])
        self.change(study_id, do="sort_columns", name="v", falls=True)
        self.assertEqual([1, 2], self.data(study_id, box=[[5, 9], [0, 8]])["chosen"])
        self.change(study_id, do="filter_rows", text="v < 8")
        data = self.data(study_id, box=[[5, 9], [0, 8]])
        self.assertEqual(
            ([2], 2, [True, True, False, False]), (data["chosen"], data["kept"], data["out"])
        )
        scene = self.post(study_id, "scene", box=[[5, 9], [0, 8]])
        self.assertEqual([0], scene["scene"]["data"][0]["chosen"])
        for bad in ("all", [[1, 2]], [[1, "2"], [3, 4]]):
            self.post(study_id, "data", status=400, box=bad)

    def test_broken_parts_are_reported_and_the_rest_works(self) -> None:
        study_id = self.study()
        self.change(study_id, do="calculate", name="w", formula="u/v")
        self.change(study_id, do="filter_rows", text="u > 4")
        self.change(study_id, do="remove_column", name="u")
        data = self.data(study_id)
        v, w = data["columns"]
        self.assertEqual((["4", "6", "8", "10"], ""), (v["cells"], v["problem"]))
        self.assertEqual([], w["cells"])
        self.assertIn("u", w["problem"])
        self.assertIn("u", data["filter_problem"])
        self.assertIsNone(data["kept"])

    def test_an_impossible_fit_says_what_to_do(self) -> None:
        study_id = self.make("a = 1")
        columns = {
            "v": ["1", "2", "3"], "same": ["2", "2", "2"], "low": ["-1", "0", "4"],
            "short": ["1", "2"], "gaps": ["1", None, None], "u": ["1", "3", "4"],
        }  # fmt: skip
        for name, cells in columns.items():
            self.change(study_id, do="columns", columns=[{"name": name, "cells": cells}])
        for fields, message in (
            ({"model": "polynomial", "degree": 5, "x": "v"}, "points"),
            ({"model": "polynomial", "degree": 99, "x": "v"}, "degree"),
            ({"model": "linear", "x": "same"}, "x"),
            ({"model": "logarithmic", "x": "low"}, "above 0"),
            ({"model": "linear", "x": "short"}, "row by row"),
            ({"model": "linear", "x": "gaps"}, "points"),
            ({"model": "linear", "x": "fog"}, "fog"),
            ({"model": "mist", "x": "v"}, "mist"),
            ({"model": "formula", "x": "v", "formula": "p x +"}, ""),
            ({"model": "formula", "x": "v", "formula": "p x + q", "start": {"p": 1}}, "q"),
            ({"model": "formula", "x": "v", "formula": "p x", "start": {"p": 1, "q": 1}}, "q"),
        ):
            with self.subTest(fields):
                error = self.change(study_id, 400, do="fit", y="u", **fields)["error"]
                self.assertIn(message, error["message"])
        self.assertEqual([], self.data(study_id)["fits"])

"""The Values panel over HTTP: rows by every way to say them, each digit held against many more."""

import csv
import io
import json
import math
import uuid
import zipfile
from contextlib import closing
from decimal import Decimal
from itertools import pairwise
from typing import Any
from xml.etree import ElementTree

import mpmath

from axis_path.core.data import read_columns
from tests.web.test_views import WINDOW, WebTest

#: Functions with the same in many digits.
FUNCTIONS = (
    ("sin(x)", mpmath.sin),
    ("exp(-x^2)", lambda x: mpmath.exp(-x * x)),
    ("x^3 - 7x", lambda x: x**3 - 7 * x),
    ("1/(1 + x^2)", lambda x: 1 / (1 + x * x)),
    ("10^9 ln(2 + x^2)", lambda x: 10**9 * mpmath.log(2 + x * x)),
)
#: What cannot be made a table, and what is said.
REFUSED = (
    ({"start": "0", "stop": "5", "step": "0"}, "step"),
    ({"start": "0", "stop": "5", "step": "-1"}, "step"),
    ({"start": "0", "stop": "10^12", "step": "1"}, "rows"),
    ({"start": "0", "stop": "5", "step": "fog("}, ""),
    ({"start": "0", "stop": "1/0", "step": "1"}, ""),
    ({"start": "0", "stop": "5", "step": "1", "count": "1"}, "rows"),
    ({"start": "0", "stop": "5", "step": "1", "count": "2.5"}, "whole"),
    ({"start": "0", "stop": "5", "step": "1", "count": "10^12"}, "rows"),
    ({"start": "0", "stop": "5", "step": "1", "listed": "1, fog(, 3"}, ""),
)


class ValuesTest(WebTest):
    def spec(self, study_id: uuid.UUID, **fields: object) -> None:
        usual = {"start": "0", "stop": "5", "step": "1"}
        self.post(study_id, "commands", commands=[{"do": "table", **usual, **fields}])

    def table(self, study_id: uuid.UUID, **given: object) -> dict[str, Any]:
        return self.post(study_id, "table", **given)["table"]  # type: ignore[arg-type, no-any-return]

    def number(self, text: str) -> Decimal:
        mantissa, _, power = text.replace("−", "-").partition("·10^")
        return Decimal(f"{mantissa}e{power or 0}")

    def test_every_digit_is_right_in_every_form(self) -> None:
        study_id = self.make(*(f"f{k}(x) = {text}" for k, (text, _) in enumerate(FUNCTIONS)))
        mpmath.mp.dps = 60
        for form in ("significant", "fixed", "scientific"):
            for digits in (1, 3, 6, 12):
                self.spec(study_id, start="-3", stop="3", step="3/8", form=form, digits=digits)
                for row in self.table(study_id)["rows"]:
                    for (text, exact), cell in zip(FUNCTIONS, row["cells"], strict=True):
                        with self.subTest(text, form=form, digits=digits, x=row["x"]):
                            value = exact(mpmath.mpf(row["value"]))
                            shown = self.number(cell["text"])
                            # Half of a unit of the last place, and not more, may be between them.
                            last = shown.as_tuple().exponent
                            if form == "significant":
                                # The zeros of a large number are no digits of it.
                                last = max(last, shown.adjusted() + 1 - digits)
                            unit = Decimal(1).scaleb(last)  # type: ignore[arg-type]
                            off = abs(Decimal(mpmath.nstr(value, 40)) - shown)
                            self.assertLessEqual(off, unit / 2 + Decimal("1e-30"))

    def test_rows_by_count_and_from_a_list(self) -> None:
        study_id = self.make("f(x) = x")
        self.spec(study_id, start="0", stop="pi", count="7")
        self.assertEqual(
            ["0", "π/6", "π/3", "π/2", "2π/3", "5π/6", "π"],
            [row["x"] for row in self.table(study_id)["rows"]],
        )
        self.spec(study_id, listed="3, 1/3, −2, 3")
        places = [row["value"] for row in self.table(study_id)["rows"]]
        self.assertEqual([3, 1 / 3, -2, 3], places)
        # A column that was copied out of a sheet has nothing between its cells but lines.
        self.spec(study_id, listed="1\n2.5\n4\n")
        self.assertEqual([1, 2.5, 4], [row["value"] for row in self.table(study_id)["rows"]])

    def test_finer_rows_close_in_on_a_zero(self) -> None:
        study_id = self.make("f(x) = x^3 - 2")
        low, high = "1", "2"
        for _ in range(10):
            rows = self.table(study_id, finer=[low, high])["rows"]
            self.assertEqual(11, len(rows))
            (row,) = (r for r in rows if any(h["what"] == "sign" for h in r["happenings"]))
            low, high = row["typed"], rows[rows.index(row) + 1]["typed"]
        bounds = [float(self.exact(text)) for text in (low, high)]
        self.assertLess(bounds[0], 2 ** (1 / 3))
        self.assertGreater(bounds[1], 2 ** (1 / 3))
        self.assertLess(bounds[1] - bounds[0], 1.1e-10)

    def exact(self, text: str) -> float:
        over, _, under = text.replace("−", "-").partition("/")
        return float(over) / float(under or 1)

    def test_undefined_cells_state_the_reason(self) -> None:
        study_id = self.make("f(x) = 1/x", "g(x) = sqrt(x - 1)", "h(x) = x for x > 1")
        self.spec(study_id, start="0", stop="2", step="1")
        first = self.table(study_id)["rows"][0]["cells"]
        self.assertEqual(["", "", ""], [cell["text"] for cell in first])
        self.assertTrue(all("x = 0" in cell["reason"] for cell in first), first)

    def test_invalid_table_is_stored_with_its_problem(self) -> None:
        study_id = self.make("f(x) = x")
        for fields, message in REFUSED:
            with self.subTest(fields):
                body = {"do": "table", "start": "0", "stop": "5", "step": "1", **fields}
                answer = self.client.post(
                    f"/studies/{study_id}/commands",
                    data=json.dumps(
                        {"version": self.version(study_id), "window": WINDOW, "commands": [body]}
                    ),
                    headers={"Content-Type": "application/json", "X-CSRFToken": self.token},
                )
                if answer.status_code == 200:
                    problem = self.table(study_id)["problem"]
                else:
                    problem = answer.get_json()["error"]["message"]
                self.assertTrue(problem)
                self.assertIn(message, problem)

    def columns_of(self, study_id: uuid.UUID, **given: object) -> dict[str, list[str]]:
        table = self.table(study_id, **given)
        self.assertIsNone(table["problem"])
        return {
            column["name"]: [row["cells"][k]["text"] for row in table["rows"]]
            for k, column in enumerate(table["columns"])
        }

    def test_columns_of_every_kind_hold_against_many_digits(self) -> None:
        study_id = self.make(
            "a = 3/2", "f(x) = a x^2 - 3", "s(x) = sin(x)", "p(t) = (cos(t), t/3)", "q(x) = 1/x"
        )
        own = (
            {"text": "f'"}, {"text": "s''"}, {"text": "p"}, {"text": "x s(x) + a"},
            *({"text": "s", "series": series} for series in ("difference", "ratio", "sum")),
            {"text": "q", "out": True}, {"text": "f", "digits": 2, "form": "fixed"},
        )  # fmt: skip
        self.spec(study_id, start="-2", stop="2", step="1/4", digits=12, columns=list(own))
        found = self.columns_of(study_id)
        self.assertEqual(
            ["f", "s", "f'", "s''", "x of p", "y of p", "x s(x) + a", "Δ s", "ratio of s", "Σ s"],
            list(found),
        )
        mpmath.mp.dps = 40
        xs = [mpmath.mpf(k) / 4 for k in range(-8, 9)]
        sines = [mpmath.sin(x) for x in xs]
        wanted = {
            "f'": [3 * x for x in xs], "s''": [-s for s in sines],
            "x of p": [mpmath.cos(x) for x in xs], "y of p": [x / 3 for x in xs],
            "x s(x) + a": [x * s + mpmath.mpf(3) / 2 for x, s in zip(xs, sines, strict=True)],
            "Δ s": [None, *(b - a for a, b in pairwise(sines))],
            "ratio of s": [None, *(b / a if a else None for a, b in pairwise(sines))],
            "Σ s": [sum(sines[: k + 1]) for k in range(len(sines))],
        }  # fmt: skip
        for name, values in wanted.items():
            for cell, value in zip(found[name], values, strict=True):
                with self.subTest(name, cell=cell):
                    self.assertEqual(value is None, cell == "")
                    if value is not None:
                        shown = self.number(cell)
                        half = Decimal(1).scaleb(shown.as_tuple().exponent) / 2  # type: ignore[arg-type]
                        off = abs(shown - Decimal(mpmath.nstr(value, 40)))
                        self.assertLessEqual(off, half + Decimal("1e-30"))
        self.assertEqual("0.38", found["f"][2])
        reasons = [cell["reason"] for cell in self.table(study_id)["rows"][0]["cells"]]
        self.assertIn("no row before", reasons[7])

    def test_rows_over_a_slider_follow_it_until_it_is_deleted(self) -> None:
        study_id = self.make("a = 2", "b = 1", "f(x) = a x^2 + b", "g(x) = x/a")
        self.spec(study_id, over="a", at="pi", columns=[{"text": "f(2)"}, {"text": "a x"}])
        found = self.columns_of(study_id)
        self.assertEqual(["1", "5", "9", "13", "17", "21"], found["f(2)"])
        self.assertEqual(("", "3.14159", "1.57080"), tuple(found["g"][:3]))
        self.assertEqual("3.14159", found["a x"][1])
        self.assertEqual("10.8696", found["f"][1])
        self.post(study_id, "commands", commands=[{"do": "rename", "id": 1, "name": "k"}])
        self.assertEqual(["f", "g", "f(2)", "k x"], list(self.columns_of(study_id)))
        self.post(study_id, "commands", commands=[{"do": "remove", "id": 1}])
        self.assertIn("no slider any more", self.table(study_id)["problem"])

    def test_x_values_from_lists_of_the_study_stay_exact(self) -> None:
        study_id = self.make("L = [1, pi/6, 9/7]", "M = from 0 to pi step pi/4", "f(x) = sin(x)")
        self.spec(study_id, listed="L; 2; M", columns=[{"text": "cos(x)"}])
        rows = self.table(study_id)["rows"]
        self.assertEqual(
            ["1", "π/6", "1.285714286", "2", "0", "π/4", "π/2", "3π/4", "π"], [r["x"] for r in rows]
        )
        cells = self.post(study_id, "exact_cells", abscissa=rows[5]["typed"])["cells"]
        self.assertEqual(
            [("f", "√2/2"), ("cos(x)", "√2/2")], [(c["name"], c["text"]) for c in cells]
        )

    def test_requested_rows_equal_the_whole_table(self) -> None:
        study_id = self.make("f(x) = sqrt(x)", "g(x) = x^2")
        self.spec(study_id, start="-3", stop="100000", step="1", columns=[{"text": "g'"}])
        whole = self.table(study_id)["rows"]
        self.assertEqual(200, len(whole))
        for start, count in ((0, 1), (3, 50), (150, 90), (99_990, 90), (10**9, 5), (-4, 5)):
            table = self.table(study_id, **{"from": start, "rows": count})
            rows = table["rows"]
            self.assertEqual(100_004, table["count"])
            self.assertLessEqual(len(rows), count)
            for row in rows:
                self.assertEqual(row["row"] - 3, row["value"])
                if row["row"] < 200:
                    known = whole[row["row"]]
                    self.assertEqual((known["x"], known["cells"]), (row["x"], row["cells"]))

    def test_rows_are_framed_with_what_the_functions_do_between_them(self) -> None:
        study_id = self.make("f(x) = x^2 - 2", "g(x) = 1/x")
        window = self.post(study_id, "window", how="rows", **{"from": 1, "to": 3})["window"]
        (low, high), (bottom, top) = window["x"], window["y"]
        self.assertTrue(0.5 < low < 1 and 3 < high < 3.5, window)
        self.assertTrue(bottom < -1 and 7 < top < 12, window)
        for ends in ({"from": "1", "to": 3}, {"from": 1}, {"from": 1, "to": None}):
            self.post(study_id, "window", status=400, how="rows", **ends)

    def test_a_broken_column_stays_and_can_be_corrected(self) -> None:
        study_id = self.make("f(x) = x", "g(x) = x^2")
        self.spec(study_id, columns=[{"text": "g(x) + 1"}])
        self.post(study_id, "commands", commands=[{"do": "remove", "id": 2}])
        lost = self.table(study_id)["columns"][1]
        self.assertEqual("g(x) + 1", lost["text"])
        self.assertIn("g", lost["problem"])
        # The same column a second time would be distinguished by nothing.
        for bad in ("fog(", "h(x)", "1 < x", "x" * 501, "g(x) + 1"):
            body = [{"do": "table", "columns": [{"text": "g(x) + 1"}, {"text": bad}]}]
            self.post(study_id, "commands", status=400, commands=body)
        self.assertEqual(2, len(self.table(study_id)["columns"]))

    def file_of(self, study_id: uuid.UUID, kind: str, **given: object) -> bytes:
        answer = self.client.post(
            f"/studies/{study_id}/table.{kind}",
            data=json.dumps({"version": self.version(study_id), "window": WINDOW, **given}),
            headers={"Content-Type": "application/json", "X-CSRFToken": self.token},
        )
        with closing(answer):
            self.assertEqual(200, answer.status_code, answer.get_data()[:200])
            return answer.get_data()

    def test_files_carry_exact_forms_units_and_every_kind_of_column(self) -> None:
        study_id = self.make("f(x) = sin(x)", "p(t) = (t, 2t)")
        names = {"x": {"name": "time, in h"}, "y": {"name": 'depth "m"'}}
        self.post(study_id, "commands", commands=[{"do": "axes", "axes": names}])
        own = [{"text": "p"}, {"text": "f", "series": "sum"}]
        self.spec(study_id, start="0", stop="pi", step="pi/6", columns=own)
        text = self.file_of(study_id, "csv", units=True, exact=True).decode()
        rows = list(csv.reader(io.StringIO(text)))
        self.assertEqual(
            ["x (time, in h)", 'f (depth "m")', "x of p", "y of p", "Σ f", "x exact", "f exact"],
            rows[0][:7],
        )
        self.assertEqual(["0", "0", "0", "0", "0", "0"], rows[1][:6])
        self.assertEqual(("π/3", "√3/2"), tuple(rows[3][5:7]))
        self.assertTrue(math.isclose(2 + math.sqrt(3), float(rows[7][4]), rel_tol=1e-14))
        self.assertTrue(math.isclose(2 * math.pi / 3, float(rows[3][3]) / 1, rel_tol=1e-14))
        book = zipfile.ZipFile(io.BytesIO(self.file_of(study_id, "xlsx")))
        sheet = ElementTree.fromstring(book.read("xl/worksheets/sheet1.xml"))
        space = {"m": sheet.tag[1:].partition("}")[0]}
        cells = {
            c.get("r"): c.findtext(".//m:v", None, space) for c in sheet.iterfind(".//m:c", space)
        }
        for k, row in enumerate(rows[1:], start=2):
            for letter, cell in zip("ABCDE", row, strict=False):
                self.assertTrue(
                    math.isclose(float(cell), float(cells[f"{letter}{k}"]), abs_tol=1e-300)  # type: ignore[arg-type]
                )
        self.spec(study_id, start="0", stop="2000", step="1", columns=own)
        self.post(study_id, "table.csv", status=413, exact=True)

    def test_a_file_is_read_back_as_what_is_shown(self) -> None:
        study_id = self.make("f(x) = x^2 - 2", "g(x) = 1/(x - 3)")
        self.spec(study_id, start="0", stop="6000", step="1")
        answer = self.client.post(
            f"/studies/{study_id}/table.csv",
            data=json.dumps({"version": self.version(study_id), "window": WINDOW}),
            headers={"Content-Type": "application/json", "X-CSRFToken": self.token},
        )
        self.assertEqual("text/csv", answer.mimetype)
        text = answer.get_data(as_text=True)
        self.assertEqual(text.count("\n"), text.count("\r\n"))
        rows = list(csv.reader(io.StringIO(text)))
        self.assertEqual((6002, ["x", "f", "g"]), (len(rows), rows[0]))
        self.assertEqual(["3", "7", ""], rows[4])
        x, f, g = read_columns(text).columns
        for k in (0, 1, 2, 4, 3999, 4000, 4001, 6000):
            self.assertEqual((k, k * k - 2), (x.cells[k], f.cells[k]))
            self.assertTrue(math.isclose(1 / (k - 3), float(g.cells[k]), rel_tol=1e-14))  # type: ignore[arg-type]

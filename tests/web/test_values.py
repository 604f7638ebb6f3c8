"""The Values panel over HTTP: rows by every way to say them, each digit held against many more."""

import csv
import io
import json
import math
import uuid
from decimal import Decimal

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

    def table(self, study_id: uuid.UUID, **given: object) -> dict:
        return self.post(study_id, "table", **given)["table"]

    def number(self, text: str) -> Decimal:
        mantissa, _, power = text.replace("−", "-").partition("·10^")
        return Decimal(f"{mantissa}e{power or 0}")

    def test_every_digit_is_right_in_every_form(self) -> None:
        study_id = self.make(*(f"f{k}(x) = {text}" for k, (text, _) in enumerate(FUNCTIONS)))
        mpmath.mp.dps = 60
        for form in ("significant", "fixed", "powers"):
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
                            unit = Decimal(1).scaleb(last)
                            off = abs(Decimal(mpmath.nstr(value, 40)) - shown)
                            self.assertLessEqual(off, unit / 2 + Decimal("1e-30"))

    def test_places_by_number_of_rows_and_ones_own(self) -> None:
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

    def test_undefined_cells_say_why(self) -> None:
        study_id = self.make("f(x) = 1/x", "g(x) = sqrt(x - 1)", "h(x) = x for x > 1")
        self.spec(study_id, start="0", stop="2", step="1")
        first = self.table(study_id)["rows"][0]["cells"]
        self.assertEqual(["", "", ""], [cell["text"] for cell in first])
        self.assertTrue(all("x = 0" in cell["reason"] for cell in first), first)

    def test_what_cannot_be_a_table_says_why_and_is_kept_to_be_mended(self) -> None:
        study_id = self.make("f(x) = x")
        for fields, told in REFUSED:
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
                self.assertIn(told, problem)

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
            self.assertTrue(math.isclose(1 / (k - 3), float(g.cells[k]), rel_tol=1e-14))

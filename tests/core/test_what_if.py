"""What-if tables: other values of a name, computed as if the study were changed, which it is not."""

import random
import unittest
from fractions import Fraction

import numpy as np

from axis_path.core import MathError, Study
from axis_path.core.draw import Window
from axis_path.core.errors import TableError
from axis_path.core.evaluate import Result
from axis_path.core.features.feature import SceneRequest
from axis_path.core.features.what_if.curves import WhatIfCurve
from axis_path.core.features.what_if.drawing import what_if_curves, what_if_in_scene, where_drawn
from axis_path.core.features.what_if.queries import WhatIf, WhatIfTable
from axis_path.core.features.what_if.section import WhatIfSpec
from axis_path.core.features.what_if.varied import given_in_set

WINDOW = Window((-10.0, 10.0), (-6.5, 6.5), 980, 520)
RAMP = ("ramp: D = S + F; F = mu N; N = W cos a; S = W sin a; W = M g_n; a = asin(h/l); "
        "l = 24 m; M = 1400 kg; mu = 0.015")  # fmt: skip
FORMS = ("{0} + {1}", "{1}/{0}", "2{0} - {1}", "{0}^2 + {1}", "sqrt({0} + {1})")


class CellTest(unittest.TestCase):
    def test_cells_are_what_the_changed_study_would_show(self) -> None:
        drawn = random.Random(3)  # noqa: S311 - a fixed seed is wanted
        for _ in range(25):
            names = [f"n{k}" for k in range(drawn.randrange(3, 6))]
            lines = [f"n0 = {drawn.randrange(1, 9)}"]
            for k, name in enumerate(names[1:], 1):
                form = drawn.choice(FORMS).format(drawn.choice(names[:k]), drawn.randrange(2, 7))
                lines.append(f"{name} = {form}")
            is_set = drawn.random() < 0.5
            whole = ["; ".join(lines)] if is_set else lines
            name = names[0] if is_set else drawn.choice(names)
            study = _study(*whole)
            before = study.to_dict()
            table = _table(study, name=name, start="-2", stop="4", step="3/2", columns=tuple(names))
            for row in range(table.rows.count):
                value = Fraction(-2) + row * Fraction(3, 2)
                changed = [f"{name} = {value}" if line.startswith(name) else line for line in lines]
                fresh = _study(*changed)
                with self.subTest(whole, name=name, value=str(value)):
                    self.assertEqual([_shown(fresh, one) for one in names], _texts(table, row))
            self.assertEqual(before, study.to_dict())

    def test_a_name_of_a_set_takes_the_place_of_a_given_value(self) -> None:
        study = _study("W = m g_n; N = W cos a; m = 20 kg; a = 60°")
        self.assertEqual(("m", "a"), given_in_set(study.snapshot, "N"))
        self.assertEqual((), given_in_set(study.snapshot, "m"))
        with self.assertRaisesRegex(TableError, "instead: `m`, `a`"):
            _table(study, name="N", columns=("m",))
        table = _table(study, name="N", instead="m", listed="100 N, 0.2 kN", columns=("m", "W"))
        self.assertEqual(["20.3943", "200"], _texts(table, 0))
        self.assertEqual(["40.7886", "400"], _texts(table, 1))
        self.assertEqual("N", table.unit.printed)
        again = _table(study, name="m", listed="20 kg", columns=("N", "N/W"))
        self.assertEqual(["98.0665", "0.5"], _texts(again, 0))

    def test_only_what_can_follow_is_offered_instead(self) -> None:
        """Left out, a value must follow from the name: mu says nothing about N."""
        study = _study("h = 3 m", RAMP)
        for name, given in (
            ("N", ("l", "M")), ("D", ("mu", "l", "M")), ("S", ("l", "M")), ("a", ("l",)),
            ("F", ("mu", "l", "M")), ("W", ("M",)), ("M", ()), ("h", ()),
        ):  # fmt: skip
            with self.subTest(name):
                self.assertEqual(set(given), set(given_in_set(study.snapshot, name)))
                for instead in given:
                    # Typed in newtons, although N is a name here.
                    study.apply({"do": "what_if", "name": name, "instead": instead,
                                 "columns": [instead], "listed": _present(study, name)}, WINDOW)  # fmt: skip
                    table = study.snapshot.query(WhatIf).table()
                    # At the present value of the name the other one is what it is now.
                    (text,) = _texts(table, 0)
                    self.assertAlmostEqual(
                        float(study.evaluate(instead).decimal(5).split()[0]),
                        float(text),
                        delta=1e-3,
                    )
        with self.assertRaisesRegex(TableError, "instead: `M`, `l`|instead: `l`, `M`"):
            _table(study, name="N", instead="mu", columns=("D",))
        # A name whose value follows is chosen by its first given value without being asked.
        study.apply({"do": "what_if", "name": "W", "columns": ["D"]}, WINDOW)
        self.assertEqual("M", study.snapshot.section(WhatIfSpec).instead)
        study.apply({"do": "what_if", "name": "h", "instead": ""}, WINDOW)
        self.assertEqual("", study.snapshot.section(WhatIfSpec).instead)
        with self.assertRaisesRegex(TableError, "no given value can follow"):
            _table(_study("u^2 = k;", "k = 4"), name="u", columns=("2u",))

    def test_where_there_is_no_value_is_said(self) -> None:
        study = _study("k = 0", "arch = sqrt(4 - k^2)", "u^2 + k = 2; w = 1/u", "p = 1/k")
        table = _table(study, name="k", start="-3", stop="3", step="1",
                       columns=("arch", "u", "p", "arch + u"))  # fmt: skip
        said = table.missing()
        self.assertIn("`arch` has no value for `k` before about −2:", said[0])
        self.assertIn("`arch` has no value for `k` beyond about 2:", said[1])
        self.assertIn(
            "`u` has no value for `k` beyond about 2: its equations have no solution.", said
        )
        self.assertIn("`p` has no value for `k` = 0: a division by zero.", said)
        self.assertEqual(6, len(said))
        whole = _table(study, name="k", start="5", stop="7", step="1", columns=("arch",))
        self.assertIn("has no value in any row", whole.missing()[0])

    def test_what_cannot_be_varied_is_refused(self) -> None:
        study = _study("a = 2", "A = (1, a)", "f(x) = a x", "x + y = a; x - y = b; b = 1")
        for spec, words in (
            ({"name": "A"}, "no number"), ({"name": "f"}, "no number"), ({"name": "zz"}, "not defined"),
            ({"name": "a", "step": "0"}, "cannot be 0"), ({"name": "a", "step": "kg"}, ""),
            ({"name": "a", "count": "5000"}, "500 rows at most"),
        ):  # fmt: skip
            with self.subTest(spec), self.assertRaisesRegex(MathError, words):
                _table(study, columns=("a",), **spec)
        with self.assertRaises(MathError):
            study.apply({"do": "what_if", "name": "a", "columns": ["sinn(3)"]}, WINDOW)
        self.assertEqual("", study.snapshot.section(WhatIfSpec).name)

    def test_the_table_is_kept_renamed_and_taken_away(self) -> None:
        study = _study("a = 2", "c = a^2")
        study.apply({"do": "what_if", "name": "a", "columns": ["c", "c + a"]}, WINDOW)
        study.rename("a", "q")
        again = Study.from_dict(study.to_dict()).snapshot.section(WhatIfSpec)
        self.assertEqual(("q", ("c", "c + q")), (again.name, again.columns))
        study.apply({"do": "what_if", "name": ""}, WINDOW)
        self.assertEqual(WhatIfSpec(), study.snapshot.section(WhatIfSpec))


def _present(study: Study, name: str) -> str:
    """Return the value of a name as it can be typed, with many digits."""
    return study.evaluate(name).decimal(15).replace("−", "-")


class CurveTest(unittest.TestCase):
    def test_rows_are_joined_only_where_one_solution_leads_on(self) -> None:
        """The least root of u^3 - u = k jumps at k = 2/√27, where two roots meet and vanish."""
        study = _study("u^3 - u = k;", "k = 0")
        table = _table(
            study, name="k", start="-1", stop="1", count="41", columns=("u", "1/u", "k^2")
        )
        lines = [_curve(table, place).lines(WINDOW) for place in range(3)]
        jump = 2 / 27**0.5
        for strokes in lines[:2]:
            spans = [(line[0, 0], line[-1, 0]) for line in strokes]
            self.assertFalse([span for span in spans if span[0] < jump < span[1]], spans)
            joined = sum(stop - start for start, stop in spans)
            self.assertGreater(joined, 1.9)
        self.assertEqual(1, len(lines[2]))
        for line in lines[0]:
            self.assertLess(np.abs(line[:, 1] ** 3 - line[:, 1] - line[:, 0]).max(), 1e-12)
        self.assertEqual(41, len(_curve(table, 0).dots()))

    def test_a_column_is_not_joined_across_a_pole(self) -> None:
        study = _study("k = 1", "u + cos u = k;", "q = 1/(k - 2)")
        table = _table(
            study, name="k", start="1.25", stop="4", step="1/4", columns=("q", "1/(u - 1)")
        )
        for place, pole in ((0, 2.0), (1, 1 + np.cos(1))):
            for line in _curve(table, place).lines(WINDOW):
                self.assertFalse(line[0, 0] < pole < line[-1, 0], line)

    def test_curves_stand_in_the_units_of_the_axes(self) -> None:
        study = _study("W = m g_n; m = 20 kg", "f(t) = 3 N/kg t for 0 g <= t <= 5000 g")
        study.apply({"do": "axis_unit", "axis": "x", "unit": "g"}, WINDOW)
        study.apply(
            {"do": "what_if", "name": "m", "listed": "1, 2 kg", "columns": ["W in mN", "2m"]},
            WINDOW,
        )
        table = study.snapshot.query(WhatIf).table()
        said = where_drawn(study.snapshot, table)
        self.assertEqual("On the plane: W in N against m in g.", said[0])
        self.assertIn("Not drawn, for the axes show something else: 2m in kg", said[1])
        window = Window((0.0, 3000.0), (0.0, 30.0), 300, 300)
        (curve,) = what_if_in_scene(study.snapshot, SceneRequest(window))["what_if"]
        self.assertEqual([1000, 2019, 2000, 1039], curve["dots"])
        self.assertEqual([], what_if_curves(study.snapshot, window, are_solved=True))


def _study(*lines: str) -> Study:
    study = Study()
    for line in lines:
        study.define(line)
    return study


def _table(study: Study, **spec: object) -> WhatIfTable:
    return study.snapshot.query(WhatIf).table(WhatIfSpec(**spec))  # type: ignore[arg-type]


def _texts(table: WhatIfTable, row: int) -> list[str]:
    cells = table.cells(row)
    return [
        (cell.number or cell).decimal(6) if isinstance(cell, Result) else "" for cell in cells
    ]  # fmt: skip


def _shown(study: Study, text: str) -> str:
    result = study.evaluate(text)
    return "" if result.reason or result.decimal(6).endswith("i") else result.decimal(6)


def _curve(table: WhatIfTable, place: int) -> WhatIfCurve:
    column = table.columns[place]
    return WhatIfCurve(table, column, table.unit, column.unit)

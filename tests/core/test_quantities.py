"""Functions, sliders, tables and findings whose numbers have units."""

import unittest
from typing import Any

from axis_path.core import MathError, Study, Window
from axis_path.core.compile.units.plane import AxisName
from axis_path.core.document.data import FitRequest, Plot
from axis_path.core.document.shown_units import ShownUnits
from axis_path.core.errors import UnitError
from axis_path.core.features.axes.queries import Axes
from axis_path.core.features.data.edits import follow_fit
from axis_path.core.features.data.plots import Plots
from axis_path.core.features.data.section import with_data
from axis_path.core.features.units.commands import AxisUnit, ShowIn

FALL = "h(t) = 20 m + 12 m/s t - 1/2 g_n t^2 for 0 s <= t <= 5 s"
WINDOW = Window(x=(0, 5), y=(-50, 30), width=660, height=430, x_unit="s", y_unit="m")


def falling() -> Study:
    """Return a study of a thrown stone."""
    study = Study()
    study.define(FALL)
    return study


class FunctionTest(unittest.TestCase):
    def test_findings_stand_in_the_units_of_the_axes(self) -> None:
        study = falling()
        (zero,) = study.zeros("h")
        self.assertEqual("(240000 + 400√1340665)/196133", zero.exact)
        self.assertEqual(("s", "m"), (study.zeros("h").x_unit, study.zeros("h").y_unit))
        top = next(item for item in study.extrema("h") if not item.at_end)
        self.assertEqual("27.34195673", top.y_text)
        solved = study.solve("h(t) = 3 m")
        self.assertEqual((1, True, "s"), (len(solved), solved.complete, solved.x_unit))
        within = study.zeros("h", low="3000 ms", high="0.1 min")
        self.assertEqual(zero.exact, within[0].exact)
        with self.assertRaises(UnitError):
            study.zeros("h", low="3 m")

    def test_slope_and_area_have_quotient_and_product_units(self) -> None:
        study = falling()
        measures = {m.name: m for m in study.at_point("h", "500 ms").measures}
        self.assertEqual(
            {"value": "m", "slope": "m/s", "second derivative": "m/s²"},
            {name: measure.unit for name, measure in measures.items()},
        )
        self.assertAlmostEqual(7.096675, measures["slope"].value)
        over = {m.name: m for m in study.over_interval("h", 0, "2 s")}
        self.assertEqual(("m s", "m"), (over["integral"].unit, over["mean value"].unit))
        self.assertAlmostEqual(50.9244666666667, over["integral"].value)
        self.assertIn("same unit on both axes", over["arc length"].reason)
        tangent = study.at_point("h", 1).tangent
        self.assertIsNone(study.define(f"k(t) = {tangent}").problem)
        self.assertAlmostEqual(27.096675, study.evaluate("k(1 s)").value)

    def test_another_unit_of_an_axis_changes_numbers_and_not_the_picture(self) -> None:
        study = falling()
        before = self.picture(study, WINDOW)
        study.apply(AxisUnit(axis=AxisName.X, unit="ms"), WINDOW)
        study.apply(ShowIn(id=1, unit="ft"), WINDOW)
        window = study.snapshot.query(Axes).on_axes(WINDOW)
        self.assertEqual((0, 5000), window.x)
        self.assertAlmostEqual(-50 / 0.3048, window.y[0])
        after = self.picture(study, window)
        self.assertEqual(len(before), len(after))
        for one, other in zip(before, after, strict=True):
            self.assertLessEqual(abs(one - other), 2)
        self.assertEqual("3585.058896", study.zeros("h")[0].text)
        self.assertEqual("h in ft", f"h in {study.zeros('h').y_unit}")
        axes = study.scene(window).axes
        self.assertEqual(("t in ms", "y in ft"), (axes["x"]["name"], axes["y"]["name"]))
        again = Study.from_dict(study.to_dict())
        self.assertEqual("ms", again.zeros("h").x_unit)

    def picture(self, study: Study, window: Window) -> list[int]:
        """Return where the curve ends and what its lane shows, in tenths of a px."""
        (row,) = study.scene(window).rows
        marks = [mark["x"] for mark in row["lane"]["marks"]]
        return [*row["curve"]["pieces"][0][:2], *row["curve"]["pieces"][-1][-2:], *marks]

    def test_curves_of_other_dimensions_stand_beside_one_another(self) -> None:
        study = falling()
        study.define("v(t) = 12 m/s - g_n t")
        study.define("ring: x^2 + y^2 = 36 m^2")
        axes = study.scene(WINDOW).axes
        self.assertEqual(("t in s, m", "y in m, m/s"), (axes["x"]["name"], axes["y"]["name"]))
        with self.assertRaises(UnitError) as caught:
            study.intersections("h", "ring")
        self.assertIn("`h` measures a time (s) and `ring` a length (m)", str(caught.exception))
        study.define("k(t) = 5 m + 2 m/s t")
        (met,) = study.intersections("h", "k")
        self.assertAlmostEqual(met.y, study.evaluate(f"k({met.x!r} s)").value)

    def test_tables_take_and_show_units(self) -> None:
        table = falling().values(["h"], start="0 s", stop="2000 ms", step="0.5 s")
        self.assertEqual([0, 0.5, 1, 1.5, 2], table.x.tolist())
        self.assertAlmostEqual(27.096675, table.columns["h"][2])


class SliderTest(unittest.TestCase):
    def test_a_slider_has_a_unit_and_moves_in_it(self) -> None:
        study = Study()
        study.define("m = 12 kg")
        study.define("W = m g_n")
        compiled = len(study.snapshot.analysis.cache.compiled)
        study.set("m", "20000 g", low=0, high="0.1 t")
        definition = study.definitions()[0]
        self.assertEqual(("m = 20 kg", "kg"), (definition.text, definition.slider.unit))  # type: ignore[union-attr]
        self.assertEqual("196.133 N", study.value("W").decimal())
        self.assertEqual(compiled, len(study.snapshot.analysis.cache.compiled))
        with self.assertRaises(UnitError):
            study.set("m", "3 s")
        moved = study.at({"m": 5})  # type: ignore[dict-item]
        self.assertEqual("49.03325 N", moved.value("W").decimal())
        study.define("T = 20 °C")
        study.set("T", 30)
        self.assertEqual("86 °F", study.evaluate("T in °F").decimal())

    def test_a_unit_typed_in_a_field_is_meant_whatever_the_names_are(self) -> None:
        study = Study()
        for text in ("N = 3", "m = 2 kg", "F = 12 kN", "v^2 = 2 g_n h; h = 5 m"):
            study.define(text)
        # m is a name in the lines, but in a field for a force or a length the letters are units.
        study.apply({"do": "set", "id": 3, "value": "500 N"}, WINDOW)
        self.assertEqual("0.5 kN", study.value("F").decimal(6))
        study.apply({"do": "range", "id": 3, "low": "-1 N", "high": "9000 N"}, WINDOW)
        slider = study.definitions()[2].slider
        assert slider is not None
        self.assertEqual(("-1 newton", "9000 newton"), (slider.low, slider.high))
        study.rename("N", "q")
        again = Study.from_dict(study.to_dict())
        kept = again.definitions()[2].slider
        assert kept is not None
        self.assertEqual("9000 newton", kept.high)
        bounds = [{"name": "h", "low": "1 m", "high": "8 m"}]
        study.apply({"do": "search_between", "id": 4, "bounds": bounds}, WINDOW)
        options = study.snapshot.line(4).options
        assert options is not None
        self.assertEqual(("1 metre", "8 metre"), (options.bounds[0].low, options.bounds[0].high))
        # What is no bare quantity is read among the names, as everywhere.
        study.apply({"do": "set", "id": 3, "value": "m g_n"}, WINDOW)
        self.assertEqual("19.6133 N", study.evaluate("F in N").decimal(6))

    def test_a_unit_that_a_name_hides_moves_no_slider(self) -> None:
        study = Study()
        for text in ("s = 7", "d = 2 s"):
            study.define(text)
        self.assertEqual("14", study.value("d").decimal())
        self.assertIsNone(study.definitions()[1].slider)
        study.set("s", 10)
        self.assertEqual("20", study.value("d").decimal())
        study.remove("s")
        self.assertEqual("s", study.value("d").unit)


class ShownTest(unittest.TestCase):
    def units_of(self, study: Study) -> Any:
        return study.scene(WINDOW).to_dict()["units"]

    def test_rows_offer_units_that_fit_and_keep_the_choice(self) -> None:
        study = Study()
        for text in ("v = 90 km/h", "p = 2 v", "n = 3"):
            study.define(text)
        choice = self.units_of(study)["rows"]["2"]["choice"]
        self.assertEqual(("km/h", "a speed (m/s)"), (choice["shown"], choice["measures"]))
        symbols = [one["symbol"] for one in choice["fits"]]
        self.assertTrue({"m/s", "km/h", "kn", "mph"} <= set(symbols), symbols)
        study.apply(ShowIn(id=2, unit="kn"), WINDOW)
        self.assertEqual("kn", study.value("p").unit)
        self.assertEqual("kn", Study.from_dict(study.to_dict()).value("p").unit)
        self.assertNotIn("3", self.units_of(study)["rows"])
        with self.assertRaises(MathError):
            study.apply(ShowIn(id=2, unit="kg"), WINDOW)
        study.remove("p")
        self.assertEqual((), study.snapshot.section(ShownUnits).rows)
        self.assertIsNone(Study().scene(WINDOW).to_dict()["units"])

    def test_a_hidden_unit_is_said_and_one_press_means_it(self) -> None:
        study = Study()
        for text in ("m = 12 kg", "A = (2 s, 10 m)"):
            study.define(text)
        hidden = self.units_of(study)["rows"]["2"]["hidden"]
        self.assertEqual(("m", "metre"), (hidden["name"], hidden["unit"]))
        study.write(2, hidden["text"])
        self.assertEqual("(2 s, 10 m)", study.value("A").decimal())


class DataTest(unittest.TestCase):
    def test_columns_and_fits_have_units_where_the_study_has(self) -> None:
        study = Study()
        study.column("t", [0, 1, 2, 3], "s")
        study.column("s", ["0", "1.5", "3", "4.5"], "km")
        study.edit(with_data, plots=(Plot("t", "s"),), fits=(FitRequest(1, "linear", "t", "s"),))
        study.snapshot, line = follow_fit(study.snapshot, 1)
        # Without other units a fit is one of plain numbers.
        self.assertEqual("3", study.evaluate("f(2)").decimal(6))
        study.apply({"do": "write", "id": None, "text": "v = 90 km/h"}, WINDOW)
        self.assertEqual("3", study.evaluate("f(2 s) in km").number.decimal(6))  # type: ignore[union-attr]
        # The slope has the quotient of both units, so that it is compared with a speed.
        slope = study.evaluate("f'(1 s)/v")
        self.assertEqual("60", slope.decimal(6))
        points = study.snapshot.query(Plots).plotted(Plot("t", "s"))[0]
        self.assertEqual([0, 1.5, 3, 4.5], points[:, 1].tolist())
        study.apply({"do": "axis_unit", "axis": "y", "unit": "m"}, WINDOW)
        points = study.snapshot.query(Plots).plotted(Plot("t", "s"))[0]
        self.assertEqual([0, 1500, 3000, 4500], points[:, 1].tolist())
        # The curve of the fit goes through the points in any unit.
        found = study.solve("f(t) = 2.25 km", "t", "0 s", "5 s")
        self.assertAlmostEqual(1.5, found[0].x, 12)
        # Without the line that has a unit the fit is one of plain numbers again.
        study.apply({"do": "remove", "id": study.snapshot.line_of("v").id}, WINDOW)
        self.assertEqual("3", study.evaluate("f(2)").decimal(6))
        self.assertEqual(line, study.snapshot.line_of("f").id)

    def test_all_models_agree_with_their_plain_fit(self) -> None:
        xs, ys = [1, 2, 3, 4, 5, 6], ["2.1", "3.9", "6.2", "8.8", "12.1", "15.7"]
        for model in ("polynomial", "exponential", "power", "logarithmic"):
            values = []
            for first in ("k = 2", "k = 2 m"):
                study = Study()
                study.define(first)
                study.column("x1", xs, "min")
                study.column("y1", ys, "kg")
                study.edit(with_data, fits=(FitRequest(1, model, "x1", "y1", 2),))
                study.snapshot, _ = follow_fit(study.snapshot, 1)
                text = "f(2.5)" if first == "k = 2" else "f(2.5 min) in kg"
                result = study.evaluate(text)
                values.append((result.number or result).decimal(9))
            with self.subTest(model):
                self.assertEqual(*values)

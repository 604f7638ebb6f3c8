"""Temperatures count from a zero of their own, and their differences do not."""

import random
import unittest
from fractions import Fraction
from typing import Any

from axis_path.core import MathError, Study, Window
from axis_path.core.compile.units.plane import AxisName
from axis_path.core.errors import UnitError
from axis_path.core.features.units.commands import AxisUnit, ShowIn

WINDOW = Window(x=(0, 1200), y=(0, 100), width=600, height=400, x_unit="s", y_unit="°C")
#: One px for each unit, whatever it is.
TALL = Window(x=(0, 1200), y=(0, 700), width=600, height=700)
#: A cup of tea after Newton's law of cooling.
TEA = ("T(t) = 20 °C + 60 K exp(-t/(600 s))", "D(t) = T(t) - 20 °C")
#: Values, in the unit that is shown.
VALUES = {
    "20 °C": "20 °C", "20 °C + 5 K": "25 °C", "25 °C - 20 °C": "5 K", "77 °F - 68 °F": "9 °R",
    "25 °C - 68 °F": "5 K", "20 °C in K": "293.15 K", "300 K in °C": "26.85 °C",
    "(25 °C - 20 °C) in °R": "9 °R", "-40 °C in °F": "−40 °F", "451 °F in °C": "232.777778 °C",
    "2 (25 °C - 20 °C)": "10 K", "abs(20 °C - 25 °C)": "5 K", "mean([20 °C, 30 °C])": "25 °C",
    "max([20 °C, 75 °F])": "23.8888889 °C", "4.19 kJ/(kg K) * 2 kg (60 °C - 20 °C) in kJ": "335.2 kJ",
    "(20 °C - 15 °C)/(2 min) in K/h": "150 K/h", "20 °C - 5 K": "15 °C", "0 °C in °R": "491.67 °R",
    "(3 °C/min) (2 min)": "6 K", "4.19 kJ/(kg °C) * 2 kg * 10 K": "83.8 kJ",
    "5 W/(m^2 °C)": "5 W/(m² °C)", "(20 °C)^2": "85936.9225 K²", "(20 °C) 1 s": "293.15 K s",
    "5 K in °C": "−268.15 °C", "sd([20 °C, 22 °C, 24 °C])": "2 K",
}  # fmt: skip
#: What has no meaning, and a part of what is said of it.
REFUSED = {
    "20 °C + 5 °C": "Two temperatures cannot be added", "2 * 20 °C": "multiple of a temperature",
    "(25 °C - 20 °C) in °C": "difference of temperatures", "5 K - 20 °C + 1 m": "length",
    "(77 °F - 68 °F) in °F": "°R", "3 (25 °C - 20 °C) in °F": "°R", "20 °C - 3 m": "length",
    "-(25 °C - 20 °C) in °C": "difference of temperatures", "sum([20 °C, 30 °C])": "added up",
    "abs(25 °C - 20 °C) in °C": "difference of temperatures",
    "(25 °C - 20 °C) - 20 °C": "cannot be taken from a difference",
}  # fmt: skip


def tea() -> Study:
    """Return a study of a cup that cools down."""
    study = Study()
    for text in TEA:
        study.define(text)
    return study


class ValueTest(unittest.TestCase):
    def test_values_are_shown_as_temperatures_or_as_differences(self) -> None:
        for text, shown in VALUES.items():
            with self.subTest(text):
                self.assertEqual(shown, Study().evaluate(text).decimal(9))

    def test_what_has_no_meaning_is_refused_in_words(self) -> None:
        for text, words in REFUSED.items():
            with self.subTest(text), self.assertRaises(UnitError) as caught:
                Study().evaluate(text)
            self.assertIn(words, caught.exception.message)

    def test_differences_agree_with_kelvins_in_any_unit(self) -> None:
        """Whatever the units of two temperatures, they differ by the same."""
        drawn = random.Random(2)  # noqa: S311 - a fixed seed is wanted
        for _ in range(60):
            kelvins = [Fraction(drawn.randrange(1, 5000), 8) for _ in range(2)]
            texts = [drawn.choice(WAYS)(kelvin) for kelvin in kelvins]
            with self.subTest(texts):
                # What is in K behind a temperature in degrees is taken from it.
                if texts[1][-1] in "CF":
                    difference = Study().evaluate(f"({texts[0]}) - ({texts[1]})")
                    self.assertIn(difference.unit, ("K", "°R"))
                in_kelvin = Study().evaluate(f"(({texts[0]}) - ({texts[1]}))/(1 K)")
                self.assertEqual(kelvins[0] - kelvins[1], in_kelvin.rational)
                ratio = Study().evaluate(f"({texts[0]}) in K")
                self.assertEqual(kelvins[0], ratio.number.rational)  # type: ignore[union-attr]

    def test_rows_offer_degrees_for_temperatures_only(self) -> None:
        study = tea()
        for text in ("warm = T(0 s)", "fall = T(0 s) - T(600 s)", "half = fall/2"):
            study.define(text)
        rows = study.scene(WINDOW).to_dict()["units"]["rows"]
        offered = {id_: {one["symbol"] for one in row["choice"]["fits"]}
                   for id_, row in rows.items() if row["choice"]}  # fmt: skip
        self.assertLessEqual({"K", "°C", "°F"}, offered["3"])
        for id_ in ("4", "5"):
            self.assertLessEqual({"K", "°R"}, offered[id_])
            self.assertFalse(offered[id_] & {"°C", "°F"})
            self.assertIn("difference", rows[id_]["choice"]["measures"])
            with self.assertRaisesRegex(UnitError, "difference of temperatures"):
                study.apply(ShowIn(id=int(id_), unit="°F"), WINDOW)
        study.apply(ShowIn(id=3, unit="°F"), WINDOW)
        self.assertEqual("176 °F", study.value("warm").decimal(9))
        study.apply(ShowIn(id=4, unit="°R"), WINDOW)
        self.assertTrue(study.value("fall").decimal(9).endswith(" °R"))


class PlaneTest(unittest.TestCase):
    def heights(self, study: Study, window: Window = WINDOW) -> list[float]:
        """Return where the curves begin, in px from the top."""
        rows = study.scene(window).to_dict()["rows"]
        return [row["curve"]["pieces"][0][1] / 10 for row in rows]

    def test_a_difference_has_a_unit_of_its_own_on_an_axis(self) -> None:
        study = tea()
        axes = study.scene(WINDOW).axes
        self.assertEqual(("t in s", "y in °C, K"), (axes["x"]["name"], axes["y"]["name"]))
        # 80 °C and 60 K on an axis of 100 that is 400 px high.
        self.assertEqual([80.0, 160.0], self.heights(study))
        self.assertEqual((), study.zeros("T", "0 s", "1 h").items)

    def test_each_of_both_units_is_chosen_by_itself(self) -> None:
        for unit, difference, name, heights in (
            ("°F", "", "y in °F, K", [700 - 176, 700 - 60]),
            ("°R", "°R", "y in °R", [700 - 635.67, 700 - 108]),
            ("K", "", "y in K", [700 - 353.15, 700 - 60]),
            ("", "°R", "y in °C, °R", [700 - 80, 700 - 108]),
            ("°R", "K", "y in °R, K", [700 - 635.67, 700 - 60]),
        ):
            study = tea()
            for text, is_difference in ((unit, False), (difference, True)):
                if text:
                    study.apply(
                        AxisUnit(axis=AxisName.Y, unit=text, of_difference=is_difference), WINDOW
                    )
            with self.subTest(unit, difference=difference):
                self.assertEqual(name, study.scene(WINDOW).axes["y"]["name"])
                for wanted, is_at in zip(heights, self.heights(study, TALL), strict=True):
                    self.assertAlmostEqual(wanted, is_at, delta=0.11)
                again = Study.from_dict(study.to_dict())
                self.assertEqual(self.heights(study, TALL), self.heights(again, TALL))
        study = tea()
        for unit in ("°C", "m"):
            with self.assertRaises(UnitError):
                study.apply(AxisUnit(axis=AxisName.Y, unit=unit, of_difference=True), WINDOW)
        # A row of a curve chooses the unit of the axis, too.
        study.apply(ShowIn(id=2, unit="°R"), WINDOW)
        self.assertEqual("y in °C, °R", study.scene(WINDOW).axes["y"]["name"])

    def test_columns_of_a_what_if_table_stand_on_their_own_unit(self) -> None:
        study = Study()
        for text in ("near(T) = T + 5 K for 0 °C <= T <= 100 °C", "T0 = 80 °C",
                     "rise(T) = T - 20 °C for 0 °C <= T <= 100 °C"):  # fmt: skip
            study.define(text)
        study.apply({"do": "what_if", "name": "T0", "listed": "50, 60",
                     "columns": ["T0", "T0 - 20 °C"]}, WINDOW)  # fmt: skip
        axes = study.scene(TALL).axes
        self.assertEqual(("T in °C", "y in °C, K"), (axes["x"]["name"], axes["y"]["name"]))
        # 50 °C, and 30 K above the room.
        heights = [curve["dots"][1] for curve in study.scene(TALL).to_dict()["what_if"]]
        self.assertEqual([7000 - 500, 7000 - 300], heights)

    def test_findings_say_which_of_both_they_are(self) -> None:
        study = tea()
        with self.assertRaisesRegex(UnitError, "a temperature in °C and `D` a difference in K"):
            study.intersections("T", "D", "0 s", "1 h")
        (half,) = study.solve("D(t) = 30 K", "t", "0 s", "1 h")
        self.assertAlmostEqual(415.88830833597, half.x, 9)
        (warm,) = study.solve("T(t) = 50 °C", "t", "0 s", "1 h")
        self.assertAlmostEqual(half.x, warm.x, 9)
        measures = {one.name: one for one in study.at_point("T", "0 s").measures}
        self.assertEqual(("°C", "K/s"), (measures["value"].unit, measures["slope"].unit))
        self.assertAlmostEqual(-0.1, measures["slope"].value)
        self.assertAlmostEqual(80, measures["value"].value)
        slope = study.evaluate("T'(0 s) in K/min")
        self.assertEqual("−6 K/min", slope.decimal(6))
        over = {one.name: one for one in study.over_interval("T", "0 s", "10 min")}
        self.assertEqual("°C", over["mean value"].unit)
        self.assertIn("show them in K", over["integral"].reason)
        self.assertEqual("198646.34 K s", study.evaluate("integral(T, 0 s, 10 min)").decimal(8))
        table = study.values(["T", "D"], start="0 s", stop="10 min", step="5 min")
        self.assertAlmostEqual(20 + 60 * 0.36787944117, table.columns["T"][2], 6)
        self.assertAlmostEqual(60 * 0.36787944117, table.columns["D"][2], 6)

    def test_sets_take_temperatures_and_give_differences(self) -> None:
        study = Study()
        study.define("mix: Q = c m dT; dT = T2 - T1; T1 = 15 °C; T2 = 60 °C; m = 3 kg;"
                     "c = 4.19 kJ/(kg K)")  # fmt: skip
        self.assertEqual("45 K", study.evaluate("dT").decimal(6))
        self.assertEqual("565.65 kJ", study.evaluate("Q in kJ").decimal(6))
        values = {one["name"]: one for one in _values(study)}
        self.assertNotIn("°C", [one["symbol"] for one in values["dT"]["choice"]["fits"]])
        self.assertIn("°F", [one["symbol"] for one in values["T1"]["choice"]["fits"]])
        with self.assertRaisesRegex(UnitError, "difference of temperatures"):
            study.apply(ShowIn(id=1, name="dT", unit="°C"), WINDOW)
        with self.assertRaisesRegex(UnitError, "Two temperatures cannot be added"):
            study.define("T3 = 10 °C; T4 = 20 °C; s = T3 + T4")
        study.define("T6 = T5 + 5 K; T5 = T3 - 2 K; T3 = 20 °C")
        self.assertEqual("23 °C", study.value("T6").decimal(6))
        study.apply(ShowIn(id=1, name="T2", unit="°F"), WINDOW)
        self.assertEqual("140 °F", {one["name"]: one["text"] for one in _values(study)}["T2"])
        # Other lines know what the names of a set are.
        study.define("f(t) = T2 + 2 K/min t")
        self.assertEqual("70 °C", study.evaluate("f(5 min)").decimal(6))
        with self.assertRaisesRegex(UnitError, "Two temperatures cannot be added"):
            study.define("both = T1 + T2")

    def test_a_slider_of_a_temperature_moves_in_degrees(self) -> None:
        study = Study()
        study.define("T0 = 20 °C")
        study.define("warm(t) = T0 + 2 K/s t")
        study.set("T0", 30, low="0 °C", high="212 °F")
        chosen = study.definitions()[0].slider
        assert chosen is not None
        self.assertEqual(("0 °C", "212 °F"), (chosen.low, chosen.high))
        self.assertEqual("90 °C", study.evaluate("warm(30 s)").decimal(6))
        with self.assertRaises(MathError):
            study.set("T0", "3 m")


#: How a temperature can be typed.
WAYS = (
    lambda kelvin: f"{kelvin} K",
    lambda kelvin: f"{kelvin - Fraction(5463, 20)} °C",
    lambda kelvin: f"{kelvin * Fraction(9, 5) - Fraction(45967, 100)} °F",
    lambda kelvin: f"{kelvin * Fraction(9, 5)} °R",
)


def _values(study: Study) -> list[dict[str, Any]]:
    summary = next(iter(study.scene(WINDOW).to_dict()["sets"].values()))
    values: list[dict[str, Any]] = summary["values"]
    return values

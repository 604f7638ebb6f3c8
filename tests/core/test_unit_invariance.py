"""Other units of the axes, and other units in the lines: the picture and the answers stay."""

import math
import random
import unittest
from collections.abc import Callable
from fractions import Fraction
from typing import Any

from axis_path.core import MathError, Study, Window
from axis_path.core.catalogue.units import read_unit
from axis_path.core.document.data import Plot
from axis_path.core.features.axes.queries import Axes
from axis_path.core.features.data.section import with_data
from axis_path.core.locate import Findings

WINDOW = Window(x=(-1, 9), y=(-40, 60), width=660, height=430)
#: Lines of every kind that is drawn, with units; the axes are in seconds and in metres.
LINES = (
    "h(t) = 20 m + 12 m/s t - 1/2 g_n t^2 for 0 s <= t <= 5 s",
    "wave(t) = 7 m sin(t/(1 s)) + 90 cm",
    "pole(t) = 30 m s/(t - 3 s)",
    "stair(t) = 10 m for t < 2 s; 2 m/s t + 20 m for 2 s < t",
    "bow(t) = 9 m sqrt(t/(1 s) - 1)",
    "k = 3 m/s",
    "line(t) = k t - 5 m",
    "A = (2 s, 3000 cm)",
    "L = [(1 s, 5 m), (4 s, 1 km/50), (100 ms, 0 m)]",
    "way(p) = (p^2/(1 m^2/s), 3p) for 0 m <= p <= 3 m",
    "curve: (y/(10 m))^2 = x/(1 s) + 1/4",
    "area: y > 12 m/s x - 8 m",
    "top = 55 m",
    "roof(t) = top",
)
#: Other units of the axes, with what one of them is in the first ones.
UNITS_X, UNITS_Y = ("ms", "min", "h", "s"), ("cm", "ft", "km", "in", "nmi", "m")


#: How the same is written: a factor and a unit, for speeds, lengths and times.
SPEEDS = ((Fraction(18, 5), "km/h"), (Fraction(1, 1000), "m/ms"), (Fraction(60), "m/min"))
LENGTHS = ((Fraction(100), "cm"), (Fraction(1, 1000), "km"), (Fraction(1, 1852), "nmi"))
TIMES = ((Fraction(1000), "ms"), (Fraction(1, 60), "min"), (Fraction(1, 3600), "h"))
FORMS = (
    "h(t) = {20 m} + {12 m/s} t - 1/2 g_n t^2 for {0 s} <= t <= {5 s}",
    "wave(t) = {7 m} sin(t/{1 s}) + {9 m}/10",
    "pole(t) = {30 m} {1 s}/(t - {3 s})",
    "k = {3 m/s}",
    "line(t) = k t - {5 m}",
)
PLAIN = tuple(form.replace("{", "(").replace("}", ")") for form in FORMS)
#: What is measured of them, in which units.
MEASURES = {
    "h(1 s)": "m", "h'(1 s)": "m/s", "h''(1 s)": "m/s^2", "integral(h, 0 s, 2 s)": "m s",
    "line(4 s)": "m", "pole(5 s)": "m", "k": "m/s", "pole'(4 s)": "m/s",
    "integral(line, 0 s, 3 s)": "m s", "h(1 s) k": "m^2/s", "wave(0 s)": "m",
}  # fmt: skip


def study_of(*lines: str) -> Study:
    """Return a study; a line that does not work is a fault of the test."""
    study = Study()
    for line in lines:
        defined = study.define(line)
        assert defined.problem is None, (line, defined.problem)
    return study


def in_base(text: str) -> float:
    """Return how large a unit is in its base units."""
    unit = read_unit(text)
    assert unit is not None
    assert unit.factor is not None
    return float(unit.factor.number)


class PictureTest(unittest.TestCase):
    """One study in which the units of the axes are changed."""

    study: Study

    @classmethod
    def setUpClass(cls) -> None:
        cls.study = study_of(*LINES)
        cls.study.column("when", [0, 1, 2, 3], "s")
        cls.study.column("reach", ["0", "15", "33", "44"], "m")
        cls.study.edit(with_data, plots=(Plot("when", "reach"),))

    def scene(self, window: Window) -> dict[str, Any]:
        scene: dict[str, Any] = self.study.scene(window).to_dict()
        return scene

    def test_every_kind_of_line_keeps_its_place(self) -> None:
        drawn = random.Random(3)  # noqa: S311 - a fixed seed is wanted
        start = self.study.snapshot.query(Axes).on_axes(WINDOW)
        self.assertEqual(("s", "m"), (start.x_unit, start.y_unit))
        before = self.scene(start)
        for _ in range(7):
            x, y = drawn.choice(UNITS_X), drawn.choice(UNITS_Y)
            for axis, unit in (("x", x), ("y", y)):
                self.study.apply({"do": "axis_unit", "axis": axis, "unit": unit}, WINDOW)
            window = self.study.snapshot.query(Axes).on_axes(start)
            after = self.scene(window)
            with self.subTest(x=x, y=y):
                self.assertIn(f"in {unit}", after["axes"]["y"]["name"])
                self.assertEqual(len(before["rows"]), len(after["rows"]))
                for one, other in zip(before["rows"], after["rows"], strict=True):
                    self.assert_same_row(one, other)
                self.assert_near(_numbers(before["data"]), _numbers(after["data"]), "data")

    def assert_same_row(self, one: dict[str, Any], other: dict[str, Any]) -> None:
        name = one["name"]
        self.assertEqual(one["problem"], other["problem"], name)
        for part in ("curve", "lane"):
            if one[part] is None:
                self.assertIsNone(other[part], name)
                continue
            for field in one[part].keys() - {"scale"}:
                own, new = _numbers(one[part][field]), _numbers(other[part][field])
                near = 20 if field in ("signs", "trends", "bands") else 3
                self.assert_near(_ends(own), _ends(new), f"{name} {part} {field}", near)

    def assert_near(self, one: list[int], other: list[int], what: str, near: int = 3) -> None:
        """Check positions, in tenths of a px: rounded twice, or from px to px in lanes."""
        self.assertEqual(len(one), len(other), what)
        for left, right in zip(one, other, strict=True):
            self.assertLessEqual(abs(left - right), near, what)


def _numbers(part: Any) -> list[int]:
    """Return all positions in plain data, in order; a float is a value, in some unit."""
    if part is None or isinstance(part, bool | str | float):
        return []
    if isinstance(part, int):
        return [part]
    parts = part.values() if isinstance(part, dict) else part
    return [number for one in parts for number in _numbers(one)]


def _ends(numbers: list[int]) -> list[int]:
    """Return a few numbers of a long list: samples between need not be the same ones."""
    return numbers if len(numbers) < 20 else [*numbers[:2], *numbers[-2:]]


class AnswerTest(unittest.TestCase):
    """One study, and the same with every number written in another unit."""

    def test_findings_are_the_same_quantities(self) -> None:
        drawn = random.Random(8)  # noqa: S311 - a fixed seed is wanted
        for _ in range(6):
            speed, length, time = drawn.choice(SPEEDS), drawn.choice(LENGTHS), drawn.choice(TIMES)
            written = [_rewritten(form, speed, length, time) for form in FORMS]
            one, other = study_of(*PLAIN), study_of(*written)
            x, y = drawn.choice(UNITS_X), drawn.choice(UNITS_Y)
            other.apply({"do": "axis_unit", "axis": "x", "unit": x}, WINDOW)
            other.apply({"do": "axis_unit", "axis": "y", "unit": y}, WINDOW)
            with self.subTest(lines=written, x=x, y=y):
                self.assert_same_findings(one, other)
                self.assert_same_measures(one, other)

    def assert_same_findings(self, one: Study, other: Study) -> None:
        ends = ("0 s", "8 s")
        asks: tuple[Callable[[Study], Findings], ...] = (
            lambda study: study.zeros("h", *ends),
            lambda study: study.extrema("h", *ends),
            lambda study: study.zeros("wave", *ends),
            lambda study: study.extrema("wave", *ends),
            lambda study: study.inflections("wave", *ends),
            lambda study: study.breaks("pole", *ends),
            lambda study: study.intersections("h", "line", *ends),
            lambda study: study.intersections("wave", "pole", *ends),
            lambda study: study.solve("h(t) = wave(t)", "t", *ends),
            lambda study: study.solve("pole(t) = 2 m/s t", "t", *ends),
        )
        for ask in asks:
            found, again = ask(one), ask(other)
            self.assertEqual(len(found), len(again))
            self.assertEqual(found.complete, again.complete)
            self.assertEqual(("s", "m"), (found.x_unit, found.y_unit))
            x, y = in_base(again.x_unit), in_base(again.y_unit)
            for item, same in zip(found, again, strict=True):
                self.assertEqual((item.kind, item.proved), (same.kind, same.proved))
                self.assertAlmostEqual(item.x, same.x * x, 9)
                self.assert_close(item.y, same.y * y)

    def assert_same_measures(self, one: Study, other: Study) -> None:
        for text in MEASURES:
            values = [study.evaluate(f"({text})/(1 {unit})") for study, unit in
                      ((one, MEASURES[text]), (other, MEASURES[text]))]  # fmt: skip
            self.assertEqual(values[0].exact, values[1].exact, text)
            self.assertEqual(values[0].decimal(20), values[1].decimal(20), text)

    def test_a_table_converts_its_values_and_not_its_rows(self) -> None:
        one, other = study_of(*PLAIN), study_of(*PLAIN)
        other.apply({"do": "axis_unit", "axis": "x", "unit": "min"}, WINDOW)
        other.apply({"do": "axis_unit", "axis": "y", "unit": "ft"}, WINDOW)
        for name in ("h", "wave", "line"):
            table = one.values([name], start="0 s", stop="6 s", step="0.5 s")
            again = other.values([name], start="0 s", stop="0.1 min", step="500 ms")
            self.assertEqual(len(table.x), len(again.x))
            for row in range(len(table.x)):
                self.assertAlmostEqual(table.x[row], again.x[row] * 60, 12)
                here, there = table.columns[name][row], again.columns[name][row] * 0.3048
                self.assert_close(here, there)

    def assert_close(self, one: float, other: float) -> None:
        """Check that two numbers are the same but for rounding, or that both are missing."""
        self.assertEqual(math.isnan(one), math.isnan(other))
        if math.isfinite(one):
            self.assertAlmostEqual(one, other, 9)

    def test_a_quantity_of_another_dimension_is_refused_everywhere(self) -> None:
        study = study_of(*PLAIN)
        for refused in (
            lambda: study.zeros("h", low="3 m"),
            lambda: study.values(["h"], start="0 kg", stop="1 s", step="1 s"),
            lambda: study.values(["h"], start="0 s", stop="3 s", step="1 m"),
            lambda: study.evaluate("h(3 m)"),
            lambda: study.evaluate("h(3 s) + k"),
            lambda: study.evaluate("h(3 s) in s"),
            lambda: study.solve("h(t) = 3 s"),
            lambda: study.set("k", "3 m"),
            lambda: study.set("k", 1, high="9 s"),
            lambda: study.at_point("h", "1 m"),
            lambda: study.define("far(t) = h(t) for 0 m <= t"),
            lambda: study.define("B = (h(1 s) + 2, 1)"),
        ):
            before = study.to_dict()
            with self.assertRaises(MathError) as caught:
                refused()
            self.assertRegex(caught.exception.message, r"[a-z]")
            self.assertEqual(before, study.to_dict())


def _rewritten(
    line: str, speed: tuple[Fraction, str], length: tuple[Fraction, str], time: tuple[Fraction, str]
) -> str:
    """Return a line in which every quantity is written in another unit."""
    ways = {"m": length, "s": time, "m/s": speed}
    while "{" in line:
        begin, end = line.index("{"), line.index("}")
        number, unit = line[begin + 1 : end].split()
        factor, other = ways[unit]
        line = f"{line[:begin]}({Fraction(number) * factor} {other}){line[end + 1 :]}"
    return line

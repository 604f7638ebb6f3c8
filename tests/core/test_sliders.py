"""Letters that move: ranges that follow other letters, guesses from use, and bad ends."""

import unittest
from fractions import Fraction
from typing import Any

from axis_path.core import MathError, Study, Window
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.errors import SliderError
from axis_path.core.study import SliderKind

WINDOW = Window((-10, 10), (-7, 7))


def do(study: Study, name: str, **command: object) -> str:
    return study.apply({"do": name, **command}, WINDOW)


def line_of(study: Study, name: str) -> Any:
    return next(d.id for d in study.definitions() if d.name == name)


def slider_in(study: Study, name: str) -> Any:
    return next(s for s in study.scene(WINDOW).to_dict()["sliders"] if s["name"] == name)


class RangeTest(unittest.TestCase):
    def setUp(self) -> None:
        self.study = Study()
        self.study.define("f(x) = a sin(x) + b")
        self.study.set("b", 3, low=0, high="2pi", step="pi/24")
        self.study.set("a", 2, low=0, high="2b + 1", step="b/10")
        self.a, self.b = line_of(self.study, "a"), line_of(self.study, "b")

    def test_ends_are_expressions_that_follow_other_sliders(self) -> None:
        self.assertEqual(Fraction(7), self.study.snapshot.query(Sliders).slider_range(self.a).high)
        do(self.study, "set", id=self.b, value="1/2")
        found = self.study.snapshot.query(Sliders).slider_range(self.a)
        self.assertEqual((Fraction(2), Fraction(1, 20)), (found.high, found.step))
        self.assertEqual("2b + 1", slider_in(self.study, "a")["high"])
        # b moves only to what its own steps reach, in a range that is no fraction.
        do(self.study, "set", id=self.b, value=3.2)
        self.assertAlmostEqual(24 * 3.1415926535 / 24, slider_in(self.study, "b")["value"], 6)
        self.assertEqual(["f", "a"], slider_in(self.study, "b")["used_by"])

    def test_names_used_by_bounds_are_renamed_and_protected(self) -> None:
        self.study.rename("b", "width")
        self.assertEqual("2width + 1", self.study.snapshot.line(self.a).slider.high)  # type: ignore[union-attr]
        again = Study.from_dict(self.study.to_dict())
        self.assertEqual(Fraction(7), again.snapshot.query(Sliders).slider_range(self.a).high)
        self.assertIn("a", do(again, "remove", id=self.b))
        self.assertIn("width", slider_in(again, "a")["problem"]["message"])

    def test_an_end_cannot_depend_on_its_own_slider(self) -> None:
        before = self.study.to_dict()
        for text in ("a + 1", "c", "f(2)"):
            self.study.define("c = 3a")
            with self.subTest(text), self.assertRaises(MathError) as caught:
                do(self.study, "range", id=self.a, high=text)
            self.assertIn("depends on `a` itself", caught.exception.message)
            self.study.remove("c")
        self.assertEqual(before, self.study.to_dict())
        # An end that comes to depend on it later is told at the slider, which then stands still.
        self.study.define("c = 5")
        do(self.study, "range", id=self.a, high="c")
        do(self.study, "write", id=line_of(self.study, "c"), text="c = 2a")
        found = slider_in(self.study, "a")
        self.assertIn("depends on `a` itself", found["problem"]["message"])
        self.assertEqual(found["low_value"], found["high_value"])

    def test_bad_ranges_leave_everything_as_it_was(self) -> None:
        before = self.study.to_dict()
        for bad in (
            {"low": "9", "high": "1"}, {"low": "1", "high": "1"}, {"step": "0"}, {"step": "-1"},
            {"step": "99"}, {"high": "1/0"}, {"high": "zz"}, {"high": "("}, {"high": "1e400"},
            {"kind": "colour"}, {"play": {"seconds": 0}}, {"play": {"at_end": "explode"}},
            {"unit": "m" * 21}, {"kind": "whole", "low": "1.2", "high": "1.9", "step": "0.1"},
        ):  # fmt: skip
            with self.subTest(bad), self.assertRaises(MathError) as caught:
                do(self.study, "range", id=self.a, **bad)
            self.assertRegex(caught.exception.message, r"[.?]$")
        self.assertEqual(before, self.study.to_dict())

    def test_a_value_beyond_the_ends_stands_and_offers_to_widen(self) -> None:
        do(self.study, "set", id=self.b, value="3pi")
        found = slider_in(self.study, "b")
        self.assertTrue(found["is_beyond"])
        do(self.study, "widen", id=self.b)
        found = slider_in(self.study, "b")
        self.assertEqual((False, found["text"]), (found["is_beyond"], found["high"]))
        self.assertEqual("0", found["low"])

    def test_whole_numbers_and_angles(self) -> None:
        do(self.study, "range", id=self.a, low="0.5", high="6.9", step="0.1", kind="whole")
        do(self.study, "set", id=self.a, value=3.4)
        self.assertEqual("3", slider_in(self.study, "a")["text"])
        # And then finer, to see what lies between.
        do(self.study, "range", id=self.a, kind="real")
        do(self.study, "set", id=self.a, value=3.4)
        self.assertEqual("3.4", slider_in(self.study, "a")["text"])
        do(self.study, "range", id=self.b, kind="angle")
        do(self.study, "set", id=self.b, value=2.36)
        self.assertEqual("≈ 3π/4", slider_in(self.study, "b")["about"])
        do(self.study, "set", id=self.b, value="2.36")
        self.assertEqual("", slider_in(self.study, "b")["about"])

    def test_a_typed_value_stays_as_it_is_and_is_exact(self) -> None:
        study = Study()
        study.define("f(x) = sin(a x)")
        study.set("a", 1, low=0, high=5, step="0.1")
        window = Window((-5.0, 5.0), (-3.0, 3.0), 300, 200)
        for typed, value in (("1/3", "0"), ("pi", "0"), ("2^0.5", None), ("2.5", None)):
            with self.subTest(typed):
                study.apply({"do": "set", "id": 2, "value": typed}, window)
                (slider,) = study.scene(window).to_dict()["sliders"]
                self.assertEqual(
                    (typed, 0.0, 5.0), (slider["text"], slider["low_value"], slider["high_value"])
                )
                again = Study.from_dict(study.to_dict())
                self.assertEqual(
                    study.scene(window).to_dict()["sliders"],
                    again.scene(window).to_dict()["sliders"],
                )
                if typed == "pi":
                    self.assertEqual(value, study.evaluate("f(2)").exact)
        # A pointer moves it on from there, and a family takes its values.
        study.apply({"do": "set", "id": 2, "value": "pi"}, window)
        self.assertEqual("0.90930", study.at({"a": Fraction(1)}).evaluate("f(2)").decimal(5))
        study.apply({"do": "set", "id": 2, "value": 2.04}, window)
        self.assertEqual("a = 2", study.snapshot.line(2).text)
        # What is taken from other lines is the number that it is now.
        study.define("b = 3")
        study.apply({"do": "set", "id": 2, "value": "b/2"}, window)
        self.assertEqual("a = 1.5", study.snapshot.line(2).text)

    def test_whole_sliders_do_not_clash_with_language_names(self) -> None:
        study = Study()
        study.set("n", 3)
        window = Window((-5.0, 5.0), (-3.0, 3.0), 300, 200)
        study.apply({"do": "range", "id": 1, "kind": "whole"}, window)
        for typed in ("2.5", "5/2", "pi"):
            with self.subTest(typed), self.assertRaises(SliderError):
                study.apply({"do": "set", "id": 1, "value": typed}, window)
        for line in ("e = 3", "pi = 3", "x = 3"):
            study.write(9, line)
            self.assertEqual(1, len(study.scene(window).to_dict()["sliders"]), line)

    def test_a_slider_is_copied_with_its_range_and_made_a_constant(self) -> None:
        do(self.study, "range", id=self.a, note="slack", unit="m", play={"seconds": 2})
        do(self.study, "duplicate", id=self.a)
        copy, own = slider_in(self.study, "a_1"), slider_in(self.study, "a")
        for same in ("low", "high", "step", "note", "unit", "play"):
            self.assertEqual(own[same], copy[same], same)
        self.assertFalse(copy["moves"])
        do(self.study, "fix", id=self.a, fixed=True)
        self.assertEqual(["b", "a_1"], [s["name"] for s in self.study.scene(WINDOW).sliders])
        self.assertEqual("2", self.study.evaluate("a").exact)
        with self.assertRaises(MathError):
            do(self.study, "set", id=self.a, value=1)
        again = Study.from_dict(self.study.to_dict())
        do(again, "fix", id=self.a, fixed=False)
        self.assertEqual("2b + 1", slider_in(again, "a")["high"])

    def test_slider_of_hidden_curves_moves_nothing_visible(self) -> None:
        self.assertTrue(slider_in(self.study, "a")["moves"])
        do(self.study, "hide", id=line_of(self.study, "f"), hidden=True)
        self.assertFalse(slider_in(self.study, "a")["moves"])


class StateTest(unittest.TestCase):
    def test_a_state_is_its_values_whatever_they_were_before(self) -> None:
        """The page takes an answer for that of every version that differs in this value alone."""
        window = Window((-10.0, 10.0), (-6.0, 6.0), 300, 200)
        for lines in (
            ("f(x) = a x", "a = 2"),
            (
                "f(x) = 1/(x - a) for x < a + 4",
                "P(t) = (cos(a t), sin(t)) for 0 <= t <= a",
                "a = 1",
            ),
            ("g(x) = floor(a x) + b", "b = 0.5", "a = 0.75"),
        ):
            study = Study()
            for line in lines:
                study.define(line)
            line_id = study.snapshot.lines[-1].id
            for before in (3, -7.25, "pi", "200"):
                moved = study.copy()
                moved.apply({"do": "set", "id": line_id, "value": before}, window)
                for value in (-2, 0.3, 4.25):
                    command = {"do": "set", "id": line_id, "value": value}
                    with self.subTest(lines, before=before, value=value):
                        scenes = []
                        for one in (study.copy(), moved.copy()):
                            one.apply(command, window)
                            scenes.append(one.scene(window, reading_x=1.5).to_dict())
                        self.assertEqual(*scenes)


class GuessTest(unittest.TestCase):
    def test_the_range_is_guessed_from_use(self) -> None:
        for text, name, unit, kind, low, high in (
            ("sin(x + c)", "c", "radians", SliderKind.ANGLE, "0", "2pi"),
            ("cos(2x - 2c)", "c", "degrees", SliderKind.ANGLE, "0", "360"),
            ("sin(c x)", "c", "radians", SliderKind.REAL, "-10", "10"),
            ("sum(x^k, k, 1, n)", "n", "radians", SliderKind.WHOLE, "1", "10"),
            ("x^n", "n", "radians", SliderKind.WHOLE, "1", "10"),
            ("s cosh(x/s)", "s", "radians", SliderKind.REAL, "0.1", "10"),
            ("phi x", "phi", "radians", SliderKind.ANGLE, "0", "2pi"),
            ("c x^2", "c", "radians", SliderKind.REAL, "-10", "10"),
        ):
            study = Study(unit)
            study.define(f"f(x) = {text}")
            with self.subTest(text):
                do(study, "make_sliders", names=[name])
                made = study.snapshot.definition(line_of(study, name))
                self.assertEqual(
                    (kind, low, high),
                    (made.slider.kind, made.slider.low, made.slider.high),  # type: ignore[union-attr]
                )
                self.assertIsNone(study.snapshot.definition(1).problem)
                self.assertLess(
                    study.snapshot.query(Sliders).slider_range(made.id).low,
                    study.snapshot.query(Sliders).slider_range(made.id).high,
                )

    def test_all_missing_names_become_sliders_or_none_does(self) -> None:
        study = Study()
        study.define("f(x) = a sin(x + c) + d")
        do(study, "make_sliders", names=["a", "c", "d"])
        self.assertEqual(["f", "a", "c", "d"], study.names())
        with self.assertRaises(MathError):
            do(study, "make_sliders", names=["q", "sin"])
        self.assertEqual(["f", "a", "c", "d"], study.names())


if __name__ == "__main__":
    unittest.main()

"""Working: names in any order, shapes of results, sketches, and no more computed than an edit asks."""

import unittest
from collections.abc import Callable
from unittest.mock import patch

from axis_path.core import Result, Study, Window
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.deadline import Deadline, calculation, check, deadline_scope
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate.number_forms import NumberShape, in_powers, written_in
from axis_path.core.features.working import queries
from axis_path.core.features.working.cache import cached_result
from axis_path.core.features.working.commands import (
    ClearWork,
    DefineWork,
    MoveWork,
    ShowWork,
    Unwork,
    Work,
)
from axis_path.core.features.working.queries import WorkingResults
from axis_path.core.features.working.section import ComplexShape, Working
from axis_path.core.features.working.shown import shown_result
from axis_path.core.features.working.sketch import curve_sketch, entries_sketch
from axis_path.core.language.tree import Node

WINDOW = Window((-10, 10), (-7, 7), 200, 120)


def work(study: Study, *texts: str) -> None:
    for text in texts:
        study.apply(Work(None, text), WINDOW)


def shown(study: Study, index: int = -1, digits: int = 10) -> tuple[str, str]:
    """Return what stands large and what stands beside it, or the problem."""
    results = study.snapshot.query(WorkingResults)
    value = results.lines()[index]
    if value.problem is not None:
        return value.problem.message, ""
    result = results.result(value)
    made = shown_result(results, value, result, value.line.digits or digits, study.snapshot.unit)
    return made.large, made.beside


class WorkingTest(unittest.TestCase):
    def test_names_are_known_in_every_line(self) -> None:
        study = Study()
        study.define("a = 2")
        work(study, "s + 1", "s = t^2 + a", "t = 3/2", "f(x) = s x", "f(2)", "M = [[s, 1], [0, t]]",
             "det(M)")  # fmt: skip
        self.assertEqual(("21/4", "5.25"), shown(study, 0))
        self.assertEqual(("17/2", "8.5"), shown(study, 4))
        self.assertEqual(("51/8", "6.375"), shown(study, 6))
        study.set("a", 3)
        self.assertEqual(("25/4", "6.25"), shown(study, 0))
        # The names of Working are none of the study.
        self.assertEqual(["a"], study.names())

    def test_cycles_and_double_names_are_reported(self) -> None:
        study = Study()
        work(study, "u = v + 1", "v = 2u", "w = 1", "w = 2")
        self.assertIn("`u`", shown(study, 0)[0])
        self.assertIn("`v`", shown(study, 1)[0])
        self.assertIn("w", shown(study, 3)[0])

    def test_renaming_reaches_every_line(self) -> None:
        study = Study()
        study.define("a = 2")
        study.define("M = [[a, 1], [0, 1]]")
        work(study, "a + 1", "s = M^2", "det(M) a", "f(x) = a x", "list(a k, k, 1, 3)",
             "M with [1, 1] = a", "M[1, 2] a%")  # fmt: skip
        before = [shown(study, index) for index in (0, 1, 2, 4, 5, 6)]
        study.rename("a", "rise")
        study.rename("M", "N")
        self.assertEqual(before, [shown(study, index) for index in (0, 1, 2, 4, 5, 6)])
        texts = [line.text for line in study.snapshot.section(Working).lines]
        self.assertEqual(
            ["rise + 1", "s = N^2", "det(N) rise", "f(x) = rise x", "list(rise k, k, 1, 3)",
             "N with [1, 1] = rise", "N[1, 2] rise%"],
            texts,
        )  # fmt: skip
        again = Study.from_dict(study.to_dict())
        self.assertEqual(before[1], shown(again, 1))
        study.apply({"do": "remove", "id": 1}, WINDOW)
        self.assertIn("`rise`", shown(study, 0)[0])

    def test_an_edit_computes_only_what_depends_on_it(self) -> None:
        study = Study()
        work(study, *(f"n_{k} = {k} + 1/7" for k in range(60)), *(f"n_{k} m" for k in range(59)))
        work(study, "m = 2")
        computed: list[str] = []

        def counted(
            snapshot: Snapshot, node: Node, owner: str, compute: Callable[[], Result], **more: bool
        ) -> Result:
            def noted() -> Result:
                computed.append(owner)
                return compute()

            return cached_result(snapshot, node, owner, noted, **more)

        def look() -> int:
            computed.clear()
            results = study.snapshot.query(WorkingResults)
            for value in results.lines():
                results.result(value)
            return len(computed)

        with patch.object(queries, "cached_result", counted):
            self.assertEqual(120, look())
            self.assertEqual(0, look())
            study.apply(Work(5, "n_4 = 9"), WINDOW)
            self.assertEqual(2, look())

    def test_what_takes_too_long_is_tried_once(self) -> None:
        study = Study()
        work(study, "1 + 1")
        results = study.snapshot.query(WorkingResults)
        (value,) = results.lines()
        clock = [0.0]
        calls = []

        def slow() -> Result:
            calls.append(1)
            clock[0] += 10
            check()
            raise AssertionError("the time is over")

        def attempt(*, again: bool = False) -> None:
            assert value.node is not None
            with deadline_scope(Deadline(lambda: clock[0])), calculation():
                cached_result(results.among, value.node, "w", slow, again=again)

        for again, count in ((False, 1), (False, 1), (True, 2), (False, 2)):
            with self.assertRaises(StoppedError):
                attempt(again=again)
            self.assertEqual(count, len(calls))

    def test_lines_are_moved_cleared_shown_and_defined(self) -> None:
        study = Study()
        work(study, "1/3", "2/3", "x^2 - 2")
        study.apply(MoveWork(3, 0), WINDOW)
        self.assertEqual([3, 1, 2], [line.id for line in study.snapshot.section(Working).lines])
        study.apply(ShowWork(1, NumberShape.PERCENT, digits=4), WINDOW)
        self.assertEqual(("33.33 %", "1/3"), shown(study, 1))
        study.apply(DefineWork(3), WINDOW)
        self.assertEqual(["f"], study.names())
        self.assertEqual(Study.from_dict(study.to_dict()).to_dict(), study.to_dict())
        study.apply(Unwork(1), WINDOW)
        self.assertEqual(1, len(study.snapshot.section(Working).lines))
        study.apply(ClearWork(), WINDOW)
        self.assertEqual((), study.snapshot.section(Working).lines)

    def test_every_shape_of_a_number(self) -> None:
        study = Study()
        for text, shape, expected in (
            ("7/3", NumberShape.MIXED, "2 1/3"), ("-7/3", NumberShape.MIXED, "−2 1/3"),
            ("1/3", NumberShape.MIXED, ""), ("1/8", NumberShape.PERCENT, "12.5 %"),
            ("12345.678", NumberShape.SCIENTIFIC, "1.2345678·10^4"),
            ("12345.678", NumberShape.ENGINEERING, "12.345678·10^3"),
            ("0.00012", NumberShape.ENGINEERING, "120·10^−6"),
            ("[7/3, 1/2]", NumberShape.MIXED, "[2 1/3, 1/2]"), ("sqrt(8)", NumberShape.EXACT, "2√2"),
        ):  # fmt: skip
            with self.subTest(text, shape=shape):
                self.assertEqual(expected, written_in(study.evaluate(text), shape, 10))
        for text, step, expected in (
            ("1", 1, "1"), ("0", 3, "0"), ("−250", 1, "−2.5·10^2"), ("3·10^20", 3, "300·10^18"),
            ("1.50", 3, "1.50"),
        ):  # fmt: skip
            with self.subTest(text):
                self.assertEqual(expected, in_powers(text, step=step))

    def test_complex_numbers_by_size_and_angle(self) -> None:
        study = Study()
        work(study, "1 + i")
        for shape, expected in (
            (ComplexShape.RECTANGULAR, ("1 + i", "")), (ComplexShape.ANGLE, ("√2 ∠ π/4", "1.4142 ∠ 0.78540")),
            (ComplexShape.POLAR, ("√2 e^(i π/4)", "1.4142 e^(i 0.78540)")),
        ):  # fmt: skip
            study.apply(ShowWork(1, complex_shape=shape), WINDOW)
            self.assertEqual(expected, shown(study, digits=5))
        study.set_unit("degrees")
        self.assertEqual("√2 e^(i 45°)", shown(study)[0])

    def test_sketches_are_of_what_stands_in_the_line(self) -> None:
        study = Study()
        study.define("a = 4")
        work(study, "t^2 - a", "[1, 4, -2]", "[[1, 2], [3, 4]]", "1/u")
        results = study.snapshot.query(WorkingResults)
        parabola, bars, cells, pole = results.lines()
        curve = curve_sketch(results, parabola, 220, 120)
        assert curve.curve is not None
        (points,) = curve.curve.pieces
        self.assertTrue(abs(points[:, 1] - (points[:, 0] ** 2 - 4)).max() < 1e-9)
        self.assertEqual(2, len(curve_sketch(results, pole, 220, 120).curve.pieces))  # type: ignore[union-attr]
        made = entries_sketch(results.result(bars), 220, 120)
        self.assertEqual([1, 4, -2], made.bars.tolist())  # type: ignore[union-attr]
        self.assertEqual((2, 2), entries_sketch(results.result(cells), 220, 120).cells.shape)  # type: ignore[union-attr]

"""A calculation ends when nobody waits for it any longer, and what was stopped is not stored."""

import itertools
import socket
import unittest
from collections import Counter
from contextlib import suppress
from fractions import Fraction
from typing import Any

import numpy as np
from flint import arb

from axis_path.core import Deadline, MathError, Study, Window, deadline_scope
from axis_path.core.arithmetic import ball
from axis_path.core.compile.numbers import Numbers
from axis_path.core.deadline import calculation, timeout_scope
from axis_path.core.errors import StoppedError
from axis_path.core.locate import Interval, Kind
from axis_path.core.locate.search.sampled import sampled_breaks, sampled_turns, sampled_zeros
from axis_path.core.study import SavedQuery, answer
from axis_path.web.bench.leasing import is_closed

LONG = "sum(sum(1/(k + j), k, 1, 1000), j, 1, 2000)"
WINDOW = Window((-10, 10), (-7, 7), 660, 430)


def ticking(step_s: float) -> Deadline:
    """Return the deadline of a caller whose clock moves on with every look at it."""
    ticks = itertools.count()
    return Deadline(lambda: next(ticks) * step_s)


class DeadlineTest(unittest.TestCase):
    def test_slow_work_stops_with_a_message(self) -> None:
        study = Study()
        for text in (LONG, LONG.replace("sum", "product"), "integral(sin(x^2), x, 0, 60)"):
            with self.subTest(text=text), deadline_scope(ticking(0.5)):
                with self.assertRaises(MathError) as raised:
                    study.evaluate(text).decimal(30)
                self.assertEqual("limit.time", raised.exception.code)
                self.assertIn("longer than 2 s", raised.exception.message)

    def test_a_caller_who_left_ends_it_too(self) -> None:
        asked = itertools.count()
        gone = Deadline(itertools.count().__next__, 1e9, 1e9, lambda: next(asked) > 3)
        with deadline_scope(gone), self.assertRaises(MathError) as raised:
            Study().evaluate(LONG)
        self.assertEqual("This was stopped.", raised.exception.message)

    def test_a_short_deadline_skips_only_the_slow_part(self) -> None:
        study = Study()
        study.define("f(x) = sin(x) - x/20")
        with deadline_scope(ticking(0.001)):
            with self.assertRaises(StoppedError), timeout_scope(0.01):
                study.extrema("f", -60, 60)
            # The one outside has its own time, and what is brief cannot make it longer.
            self.assertTrue(study.zeros("f", -5, 5).complete)
            with timeout_scope(1e9), self.assertRaises(MathError):
                study.evaluate(LONG.replace("1000", "100000")).decimal(10)
        with timeout_scope(0):
            self.assertEqual("1", study.evaluate("1").decimal(1))

    def test_stopped_curve_reports_and_is_drawn_later(self) -> None:
        study = Study()
        study.define("f(x) = x^2 - 3")
        with deadline_scope(ticking(3)):
            row = study.scene(WINDOW, reading_x=1).rows[0]
        self.assertIsNone(row["curve"])
        self.assertIn("it was stopped", row["why"]["sentence"])
        self.assertEqual("not known", row["reading"]["text"])
        row = study.scene(WINDOW, reading_x=1).rows[0]
        self.assertTrue(row["curve"]["pieces"])
        self.assertEqual("−2", row["reading"]["text"])

    def test_a_stopped_search_returns_its_findings(self) -> None:
        study = Study()
        study.define("f(x) = (x^2 - 2) (exp(x) - 3) (sin(40x) - x/50) (cos(30x) - 1/3)")
        whole = study.zeros("f", -9, 9)
        self.assertTrue(whole.complete)
        partial = 0
        for step_s in (0.5, 0.1, 0.05, 0.03, 0.02, 0.014, 0.01):
            try:
                with deadline_scope(ticking(step_s)):
                    found = study.zeros("f", -9, 9)
            except MathError as err:
                self.assertEqual("limit.time", err.code)
                continue
            if found.complete:
                continue
            partial += 1
            self.assertIn("Until then these were found", found.note)
            for item in found:
                self.assertFalse(item.proved)
                self.assertTrue(any(abs(item.x - other.x) < 1e-12 for other in whole))
        self.assertGreater(partial, 0)

    def test_stopped_extrema_and_intersections_return_their_findings(self) -> None:
        study = Study()
        for line in ("f(x) = sin(11x) exp(x/9) - x/5 + abs(x)/3", "P(t) = (5cos(3t), 4sin(7t)) for 0 <= t <= 2pi",
                     "Q(t) = (5cos(5t) + 1/7, 4sin(3t)) for 0 <= t <= 2pi"):  # fmt: skip
            study.define(line)
        searches = {
            "extrema": lambda: study.extrema("f", -9, 9),
            "inflections": lambda: study.inflections("f", -9, 9),
            "two paths": lambda: study.intersections("P", "Q", -9, 9),
            "a path and a function": lambda: study.intersections("f", "P", -9, 9),
        }
        for name, search in searches.items():
            whole = [(item.x, item.y, item.kind) for item in search()]  # type: ignore[no-untyped-call]
            self.assertGreater(len(whole), 20, name)
            partial = 0
            for step_s in (0.5, *np.geomspace(0.2, 0.0002, 40).tolist()):
                try:
                    with deadline_scope(ticking(step_s)), calculation():
                        found = search()  # type: ignore[no-untyped-call]
                except MathError as err:
                    self.assertEqual("limit.time", err.code)
                    continue
                if found.complete or "Until then" not in found.note:
                    continue
                partial += 1
                for item in found:
                    self.assertTrue(name == "two paths" or not item.proved)
                    near = 1e-6 if "found" in found.note else 0.08
                    low, high = item.bracket
                    alike = [max(low - x, x - high) for x, y, kind in whole if kind is item.kind]
                    self.assertLess(min(alike), near, (name, step_s, found.note))
            self.assertGreater(partial, 0, name)

    def test_stopped_searches_return_partial_results(self) -> None:
        study = Study()
        study.define("f(x) = 1/sin(7x) + floor(x/2) + sqrt(x + 4) + 1/(x - 1/3)^2")
        unequal = "sin(11x) exp(x/9) > x/5"
        breaks, lines = study.breaks("f", -9, 9), study.asymptotes("f", -9, 9)
        stretches = study.solve_inequality(unequal, None, -9, 9)
        self.assertTrue(breaks.complete and stretches.complete)
        self.assertNotIn("Until then", lines.note)
        seen: Any = {"breaks": set(), "lines": set(), "stretches": set()}
        for step_s in np.geomspace(0.2, 0.0002, 40).tolist():
            with deadline_scope(ticking(step_s)), calculation(), suppress(MathError):
                found = study.breaks("f", -9, 9)
                if not found.complete:
                    seen["breaks"].add("were seen" if "were seen" in found.note else "were found")
                for item in found:
                    self.assertTrue(found.complete or (not item.proved and item.note))
                    low, high = item.bracket
                    same = [entry for entry in breaks if low - 1e-6 <= entry.x <= high + 1e-6]
                    self.assertIn(item.kind, [entry.kind for entry in same])
            with deadline_scope(ticking(step_s)), calculation(), suppress(MathError):
                some = study.asymptotes("f", -9, 9)
                texts = [entry.text for entry in lines]
                if "Until then" in some.note:
                    seen["lines"].add(len(some) < len(lines))
                    if "were found" in some.note:
                        self.assertLessEqual({entry.text for entry in some}, set(texts))
            with deadline_scope(ticking(step_s)), calculation(), suppress(MathError):
                visible = study.solve_inequality(unequal, None, -9, 9)
                if "were seen" in visible.note:
                    seen["stretches"].add(visible.complete)
                    ends = [(entry.low.x, entry.high.x) for entry in visible.items]
                    whole = [(entry.low.x, entry.high.x) for entry in stretches.items]
                    np.testing.assert_allclose(ends, whole, atol=0.04)
        self.assertEqual({"were seen", "were found"}, seen["breaks"])
        self.assertIn(True, seen["lines"])
        self.assertEqual({False}, seen["stretches"])

    def test_a_glance_sees_breaks_where_they_are_and_none_elsewhere(self) -> None:
        inside = Interval(ball.from_fraction(Fraction(-9)), ball.from_fraction(Fraction(9)))
        expected = {
            "tan(x)": {Kind.POLE: 6}, "1/(x - 1/7)^4": {Kind.POLE: 1}, "gamma(x + 1/3)": {Kind.POLE: 9},
            "floor(x/2 + 1/3)": {Kind.JUMP: 9}, "ln(x + 1/7)": {Kind.END: 1}, "abs(x)": {}, "exp(x^2)": {},
            "sin(50x)": {}, "atan(1000x)": {}, "cbrt(x)": {}, "1/(x^2 + 0.0001)": {},
        }  # fmt: skip
        for text, kinds in expected.items():
            with self.subTest(text=text):
                study = Study()
                study.define(f"f(x) = {text}")
                visible = sampled_breaks(study.function("f"), inside)
                self.assertEqual(kinds, dict(Counter(kind for _, kind in visible)))
                whole = study.breaks("f", -9, 9)
                for abscissa, _ in visible:
                    self.assertTrue(
                        any(abscissa.value.overlaps(arb(entry.x, 1e-5)) for entry in whole)
                    )

    def test_timeout_reports_what_is_visible(self) -> None:
        study = Study()
        study.define("f(x) = integral(sin(t^2), t, 0, x) - 0.6")
        study.define("g(x) = 1/x + 0*integral(sin(t^2), t, 0, x)")
        study.define("h(x) = sign(x) + 0*integral(sin(t^2), t, 0, x)")
        with deadline_scope(ticking(0.0004)), calculation():
            found = study.zeros("f", 0, 8)
        with deadline_scope(ticking(0.0004)), calculation():
            # The ledger writes it down, though the time is over.
            saved = answer(study.snapshot, SavedQuery(1, study.snapshot.lines[0].id, "0", "8"))
        self.assertEqual((21, ""), (len(saved.rows), saved.problem))
        self.assertIn("Not complete: 21 found, 0 of them proved", saved.verdict)
        self.assertFalse(found.complete)
        self.assertIn("were seen", found.note)
        self.assertTrue(all(not zero.proved and "two samples" in zero.note for zero in found))
        # By the trapezoidal rule, which is far from proved too.
        t = np.linspace(0, 8, 800_001)
        sums = np.cumsum(np.sin(t**2)) * t[1] - 0.6
        abscissae = t[:-1][sums[:-1] * sums[1:] < 0]
        for zero, x in zip(found, abscissae, strict=True):
            self.assertAlmostEqual(x, zero.x, 3)
            low, high = (study.function("f").sample(np.array([end]))[0] for end in zero.bracket)
            self.assertLess(low * high, 0)
        # The sides of a pole and of a jump differ in sign too.
        for name in ("g", "h"):
            function = study.function(name)
            self.assertEqual(
                [], sampled_zeros(function, study.snapshot.query(Numbers).interval(function, -1, 1))
            )
            self.assertEqual(
                [], sampled_turns(function, study.snapshot.query(Numbers).interval(function, -1, 1))
            )
        with deadline_scope(ticking(0.0004)), calculation():
            self.assertEqual(0, len(study.zeros("g", -1, 1)))
        gone = Deadline(itertools.count().__next__, 1.0, 1.0, lambda: True)
        with deadline_scope(gone), calculation(), self.assertRaises(StoppedError):
            study.zeros("f", 0, 8)

    def test_every_kind_of_slow_line_is_reported_in_its_scene(self) -> None:
        study = Study()
        for line in (
            "f(x) = x^2 for x > sqrt(2)",
            "P(t) = (cos t, sin t) for 0 <= t <= 2pi",
            "r(theta) = 2 + sin(theta)",
            "x^2 + y^2 = 4",
            "y > x",
            "d(x, y) = x y",
            "A = (sqrt(2), 1)",
            "L = [(1, 2), (3, 4)]",
        ):
            study.define(line)
        fields = study.to_dict()
        whole = study.scene(WINDOW).to_dict()
        # Another window: what was drawn before is stored, and needs no time.
        elsewhere = Window((-9, 11), (-6, 7), 660, 430)
        for step_s in (0.5, 3, 30):
            with deadline_scope(ticking(step_s)):
                # One that nothing is known of yet.
                rows = Study.from_dict(fields).scene(elsewhere).rows
            self.assertEqual(8, len(rows))
            said = [
                row
                for row in rows
                if row["why"] or row["problem"] or "no value" in str(row["value"])
            ]
            self.assertGreaterEqual(len(said), 6)
        self.assertEqual(whole, study.scene(WINDOW).to_dict())
        # What was stopped in one state is not stored with the study.
        hurried = Study.from_dict(fields)
        with deadline_scope(ticking(30)):
            hurried.scene(elsewhere)
        self.assertEqual(whole, hurried.copy().scene(WINDOW).to_dict())

    def test_closed_connection_is_recognised(self) -> None:
        here, there = socket.socketpair()
        self.assertFalse(is_closed(here))
        there.send(b"the next request")
        self.assertFalse(is_closed(here))
        self.assertEqual(b"the next request", here.recv(100))
        there.close()
        self.assertTrue(is_closed(here))
        here.close()
        self.assertTrue(is_closed(here))
        self.assertFalse(is_closed(None))

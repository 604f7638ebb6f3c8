"""Several threads share what is stored, and never wait for one another for ever."""

import threading
import unittest
from collections.abc import Callable
from contextlib import suppress

from axis_path.core import Study, Window
from axis_path.core.arithmetic import precision
from axis_path.core.threads import lazy_property
from tests.core.functions import make_function

WAIT_S = 0.5
LONG_S = 60.0


class Bits:
    """Something that is computed from balls once."""

    def __init__(self, meet: Callable[[], None]) -> None:
        self.meet = meet

    @lazy_property
    def made(self) -> int:
        self.meet()
        with precision(64):
            return 64


class ThreadsTest(unittest.TestCase):
    def run_all(self, *works: Callable[[], None], within_s: float = 5.0) -> None:
        threads = [threading.Thread(target=work, daemon=True) for work in works]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(within_s)
        self.assertFalse(any(thread.is_alive() for thread in threads), "two wait for each other")

    def meeting(self) -> Callable[[], None]:
        """Return a place where two threads wait for each other, as long as it may be."""
        barrier = threading.Barrier(2)

        def meet() -> None:
            with suppress(threading.BrokenBarrierError):
                barrier.wait(WAIT_S)

        return meet

    def test_cached_values_and_balls_do_not_deadlock(self) -> None:
        expression = make_function("sin x").expression
        meet = self.meeting()

        def made_of_balls() -> int:
            meet()
            with precision(64):
                return 1

        def balls_of_what_is_made() -> None:
            with precision(64):
                meet()
                self.assertEqual(1, len(expression.program.results))

        self.run_all(
            lambda: self.assertEqual(1, expression.cached("one", made_of_balls, bool)),
            balls_of_what_is_made,
        )

    def test_properties_of_two_objects_do_not_wait_for_each_other(self) -> None:
        meet = self.meeting()
        one, other = Bits(meet), Bits(lambda: None)

        def inside() -> None:
            with precision(64):
                meet()
                self.assertEqual(64, other.made)

        self.run_all(lambda: self.assertEqual(64, one.made), inside)
        one.meet = self.fail
        self.assertEqual(64, one.made)

    def test_scenes_tables_and_findings_of_one_study_at_once(self) -> None:
        study = Study()
        for line in ("s = 1", "f(x) = s sin(3x) + x/5", "P(t) = (s cos(3t), sin(2t)) for 0 <= t <= 2pi",
                     "q(x) = x^2 for x < s; 2 - x for x >= s"):  # fmt: skip
            study.define(line)
        window = Window((-10, 10), (-6.5, 6.5), 330, 215)
        problems: list[Exception] = []

        def work(number: int) -> None:
            try:
                for k in range(6):
                    mine = study.copy()
                    mine.set("s", f"{1 + number + k / 100:.2f}")
                    rows = mine.scene(window, reading_x=1).rows
                    self.assertEqual(4, len(rows))
                    self.assertEqual(5, len(mine.values(["f", "q"], 0, 2, "1/2").x))
                    self.assertTrue(mine.zeros("f", -10, 10).complete)
            except Exception as err:  # noqa: BLE001 - it is told below
                problems.append(err)

        self.run_all(*(lambda n=n: work(n) for n in range(6)), within_s=LONG_S)
        self.assertEqual([], problems)

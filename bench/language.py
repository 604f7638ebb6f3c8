"""Reading lines, and evaluating what they say, against NumPy written by hand in the same run.

Run: PYTHONPATH=src .venv/bin/python -m bench.language
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from typing import Any

import numpy as np

from axis_path.core import Study
from axis_path.core.evaluate.backends.backends import Fast
from axis_path.core.evaluate.backends.sampled import is_arithmetic, sample
from axis_path.core.evaluate.graph.program import Program, run
from axis_path.core.language import Vocabulary, read_line, typeset_line

LINES = (
    "f(x) = a x^2 - 3 for -2 <= x < 3",
    "h(t) = 2.1 + a sin(pi t/6.2) for 0 <= t <= 12.4",
    "rope(x) = s cosh(x/s) - s cosh(4/s) + 3 for -4 <= x <= 4",
    "g(x) = x^2 for x < 0; 2x + 1 for 0 <= x < 2; 5 otherwise",
    "1 < x^2 + y^2 <= 9",
)
_FAST = Fast()
SAMPLES, COLUMNS = 1_281, 1_280
#: An expression of ours, and the same by hand.
EXPRESSIONS: tuple[tuple[str, Callable[[np.ndarray], np.ndarray]], ...] = (
    ("x^3 - 2x + 1", lambda x: x**3 - 2 * x + 1),
    ("exp(-x/5) sin(3x)", lambda x: np.exp(-x / 5) * np.sin(3 * x)),
    ("(x^2 + 1)/(x - 2)", lambda x: (x**2 + 1) / (x - 2)),
    ("sqrt(x^2 + 1) + ln(x^2 + 2)", lambda x: np.sqrt(x**2 + 1) + np.log(x**2 + 2)),
    ("cosh(x/4) - cos(x)^2", lambda x: np.cosh(x / 4) - np.cos(x) ** 2),
)


def median_us(work: Callable[[], object], times: int = 400) -> float:
    """Return the median time of some work in microseconds."""
    taken = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        taken.append(1e6 * (time.perf_counter() - began))
    return statistics.median(taken)


def taken_together(*works: Callable[[], object], times: int = 400) -> list[float]:
    """Return the median times of several works in microseconds, done in turn.

    The processor changes its pace while a run lasts; what is compared is done at one pace.
    """
    taken: list[list[float]] = [[] for _ in works]
    for _ in range(times):
        for work, spent in zip(works, taken, strict=True):
            work()
            began = time.perf_counter()
            work()
            spent.append(1e6 * (time.perf_counter() - began))
    return [statistics.median(spent) for spent in taken]


def read_lines() -> None:
    vocabulary = Vocabulary(values=frozenset({"a", "s"}))
    print("reading a line and its preview (wanted: under 2 ms)")
    for text in LINES:
        spent = median_us(lambda text=text: typeset_line(read_line(text, vocabulary), "f"), 200)  # type: ignore[misc]
        print(f"  {spent / 1000:5.2f} ms  {text}")


def evaluated(program: Program, xs: np.ndarray) -> object:
    """Evaluate an expression as its backend does, before anything is made of the values."""
    return sample(program, xs, {}) if is_arithmetic(program) else run(program, _FAST, xs, {})


def evaluate() -> None:
    xs = np.linspace(-10, 10, SAMPLES)
    print(f"values at {SAMPLES:,} points (wanted: 1.5 times NumPy by hand), "
          f"enclosures of {COLUMNS:,} columns (wanted: 15 times)")  # fmt: skip
    ratios = []
    for text, by_hand in EXPRESSIONS:
        study = Study()
        study.define(f"f(x) = {text}")
        function = study.function("f")
        program = function.expression.program
        with np.errstate(all="ignore"):
            plain, fast, whole, wide = taken_together(
                lambda by_hand=by_hand: by_hand(xs),  # type: ignore[misc]
                lambda program=program: evaluated(program, xs),  # type: ignore[misc]
                lambda function=function: function.sample_unrestricted(xs),  # type: ignore[misc]
                lambda function=function: function.enclose(xs[:-1], xs[1:]),  # type: ignore[misc]
            )
        ratios.append((fast / plain, whole / plain, wide / plain))
        print(
            f"  {plain:6.1f} us by hand, {fast / plain:5.2f} times "
            f"({whole / plain:.2f} with NaN for what is not finite), "
            f"{wide / plain:5.1f} times  {text}"
        )
    fast_all, whole_all, wide_all = map(statistics.median, zip(*ratios, strict=True))
    print(f"  median: {fast_all:.2f} times ({whole_all:.2f}), {wide_all:.1f} times")


def edit() -> None:
    """Change one line that nothing depends on, among few and among many."""
    print("an edit of a line that nothing depends on")
    for count in (5, 500):
        study = Study()
        for k in range(count - 2):
            study.define(
                f"q_{k}(x) = x^2 + {k} sin(x) + a"
                if k % 2
                else f"q_{k}(x) = q_{max(k - 3, 0) | 1 if k > 4 else 1}(x) + {k}"
                if k > 4
                else f"q_{k}(x) = {k} x"
            )
        study.define("a = 2")
        study.write(9_999, "free(x) = x")
        study.names()
        state = iter(range(count * 1_000, 10**6))

        def change(study: Study = study, state: Any = state) -> None:  # noqa: ANN401 - as it is made
            study.write(9_999, f"free(x) = x^2 + {next(state)}")
            study.names()

        print(f"  {count} lines: {median_us(change, 60) / 1000:.2f} ms")


if __name__ == "__main__":
    read_lines()
    evaluate()
    edit()

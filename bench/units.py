"""Time units: what a study without them pays, lines with them, and sets of equations.

    PYTHONPATH=src .venv/bin/python -m bench.units

The yardstick of a study without units is the same study read by a scanner that knows of none; that of
a line with units is the line with plain numbers. Both are timed in turn, so that the pace of the
machine does not matter.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, contextmanager, nullcontext
from unittest.mock import patch

from axis_path.core import Study
from axis_path.core.draw import Window
from axis_path.core.features.what_if.queries import WhatIf
from axis_path.core.features.what_if.section import WhatIfSpec

ROUNDS = 40
PLAIN = (
    "f(x) = x^3 - 3x + {k}/7", "g(x) = sin(2x) + f(x)/{k} for -4 <= x < 4", "P(t) = (cos t, sin({k} t))",
    "ring: x^2 + {k} y^2 = 36", "L = [1, 4, {k}, 9]", "h(x) = |x - {k}| + sqrt(x^2 + 1)",
)  # fmt: skip
#: Lines with units, and the same with plain numbers.
LINES = (
    ("W = 12 kg g_n + {k} N", "W = 12 * 9.80665 + {k}"),
    ("v(t) = {k} m/s + g_n t for 0 s <= t <= 4 s", "v(t) = {k} + 9.80665 t for 0 <= t <= 4"),
    ("E = 1/2 ({k} kg) (90 km/h)^2 in kJ", "E = 1/2 ({k}) (25)^2 / 1000"),
    ("q = {k} L/(100 km) (250 km)", "q = {k}/100 * 250"),
    ("T = 20 °C + {k} K", "T = 293.15 + {k}"),
)
CHAIN = (*(f"s{k} = s{k + 1} + {k} m" for k in range(28)), "s28 = 2 km", "q = 2 s0")
LINEAR = tuple(
    f"{k + 2} u{k} + u{(k + 1) % 30} - u{(k + 7) % 30} = {k * k % 11 - 3}" for k in range(30)
)
CUBICS = tuple(
    line
    for k in range(10)
    for line in (f"x{k}^3 + x{k} = {25 + k}", f"y{k} = 2 x{k} + {k}", f"r{k} = x{k} y{k}")
)


def median_ms(work: Callable[[int], None], rounds: int = ROUNDS) -> float:
    """Return the median time of some work, which gets the number of its round."""
    spent = []
    for k in range(rounds):
        began = time.perf_counter()
        work(k)
        spent.append(1000 * (time.perf_counter() - began))
    return statistics.median(spent)


@contextmanager
def without_units() -> Iterator[None]:
    """Read lines as if there were no units."""
    with patch("axis_path.core.language.scanning.scan.may_begin_unit", lambda _: False):
        yield


def in_turn(
    one: Callable[[int], None],
    other: Callable[[int], None],
    around_other: Callable[[], AbstractContextManager[None]] = nullcontext,
) -> tuple[float, float]:
    """Return the median times of two works that are done in turn, each first as often."""
    spent: tuple[list[float], list[float]] = ([], [])
    works = ((one, nullcontext, spent[0]), (other, around_other, spent[1]))
    for k in range(4 * ROUNDS):
        for work, around, times in works if k % 2 else works[::-1]:
            with around():
                began = time.perf_counter()
                work(k)
                times.append(1000 * (time.perf_counter() - began))
    return statistics.median(spent[0]), statistics.median(spent[1])


def _plain_study(k: int) -> None:
    study = Study()
    for line in PLAIN:
        study.define(line.format(k=1000 + k))


def _other_study(k: int) -> None:
    _plain_study(5000 + k)


def _defining(text: str, first: str) -> Callable[[int], None]:
    """Return work that writes the second line of a study anew, in another way in each round."""
    study = Study()
    study.define(first)

    def define(k: int) -> None:
        study.define(text.format(k=k + 2))

    return define


def _solving(equations: tuple[str, ...]) -> Callable[[int], None]:
    def solve(_: int) -> None:
        Study().solve_system(equations)

    return solve


#: A set that is a line, with an input that a slider moves, and the same as lines of their own.
RAMP = (
    "D = S + F", "F = mu N", "N = W cos a", "S = W sin a", "W = 1400*9.80665", "a = asin(h/24)",
    "mu = 0.015",
)  # fmt: skip
#: A set whose unknown has to be sought in each position.
SOUGHT = ("u^3 + u = h", "w = u^2 + 1")
WINDOW = Window((-2.0, 8.0), (-1000.0, 5000.0), 980, 520)


def _dragging(lines: tuple[str, ...], curve: str) -> Callable[[int], None]:
    """Return work that moves a slider and draws the scene."""
    study = Study()
    for line in ("h = 3", *lines, curve):
        study.define(line)

    def drag(k: int) -> None:
        study.set("h", 1 + k / 100)
        study.scene(WINDOW)

    return drag


def _what_if(lines: tuple[str, ...], column: str, rows: int) -> Callable[[int], None]:
    study = Study()
    for line in ("h = 3", *lines):
        study.define(line)

    def fill(k: int) -> None:
        spec = WhatIfSpec(
            name="h", start=str(k), stop=str(k + 6), count=str(rows), columns=(column,)
        )
        table = study.snapshot.query(WhatIf).table(spec)
        for row in range(rows):
            table.cells(row)

    return fill


def _sets_as_lines() -> None:
    """Print what a set as a line costs, in a drag and in a what-if table."""
    drawn = "y = D x/100"
    ours, yardstick = in_turn(_dragging(("; ".join(RAMP),), drawn), _dragging(RAMP[::-1], drawn))
    print(
        f"a drag with a set of definitions     {ours:7.2f} ms  {ours / yardstick:6.2f} times lines"
    )
    ours, yardstick = in_turn(
        _dragging(("; ".join(SOUGHT),), "y = w x"), _dragging(("w = h^2 + 1",), "y = w x")
    )
    print(
        f"a drag with a sought unknown         {ours:7.2f} ms  {ours / yardstick:6.2f} times a number"
    )
    for title, lines, column in (
        ("50 rows, an expression", ("; ".join(RAMP),), "D"),
        ("50 rows, a sought unknown", ("; ".join(SOUGHT),), "w"),
    ):
        fill = _what_if(lines, column, 50)
        print(f"what-if, {title:28} {median_ms(fill, 10):7.1f} ms")


def main() -> None:
    """Print the figures."""
    _plain_study(1)
    ours, yardstick = in_turn(_plain_study, _other_study, without_units)
    print(
        f"six lines without units              {ours:7.2f} ms  {ours / yardstick:6.3f} times without checks"
    )
    for text, plain in LINES:
        ours, yardstick = in_turn(_defining(text, "a0 = 1 m"), _defining(plain, "a0 = 1"))
        print(f"{text[:36]:36} {ours:7.2f} ms  {ours / yardstick:6.2f} times plain numbers")
    for title, equations in (
        ("30 equations in a chain, with units", CHAIN), ("30 linear equations", LINEAR),
        ("30 equations, ten of them cubic", CUBICS),
    ):  # fmt: skip
        solve = _solving(equations)
        solve(0)
        print(f"{title:36} {median_ms(solve, 5):7.1f} ms")
    _sets_as_lines()


if __name__ == "__main__":
    main()

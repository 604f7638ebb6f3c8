"""School equations without ends: all solutions, or those of one shortest period."""

from __future__ import annotations

import math
import random
from functools import partial

from axis_path.core import Study
from tests.core.guard.ordinary import SHIFTS
from tests.core.guard.truths import Case, Truth, Verdict, compare, is_close, weak, wrong

_LN2 = math.log(2)
#: Equations, and all that solves them: X is x less a place, K a whole number k.
_SOLVED = (
    ("e^(X) = 0", lambda k: ()), ("log(X) = K", lambda k: (10**k,)), ("ln(X) = -K", lambda k: (math.exp(-k),)),
    ("e^(2(X)) = Ke^(X)", lambda k: (math.log(k),)), ("4^(X) - 6*2^(X) + 8 = 0", lambda k: (1, 2)),
    ("3^(X - 1) = 9^(X)", lambda k: (-1,)), ("sqrt(3(X) + 1) - sqrt(X - 1) = 2", lambda k: (1, 5)),
    ("2ln(X) = ln(2(X) + 3)", lambda k: (3,)), ("sqrt(X) = X - K", lambda k: ((2 * k + 1 + math.sqrt(4 * k + 1)) / 2,)),
    ("cbrt(X) = 10K", lambda k: (1000 * k**3,)), ("|X - 2000| = K", lambda k: (2000 - k, 2000 + k)),
    ("e^((X)/1000) = K", lambda k: (1000 * math.log(k),)), ("(X)^3 = K*10^9", lambda k: (1000 * math.cbrt(k),)),
    ("1/(X) = 1/(5000K)", lambda k: (5000 * k,)), ("ln(X) + ln(X + K) = ln(6K^2)", lambda k: (2 * k,)),
    ("sqrt(X + K) = -1", lambda k: ()), ("(X)^4 - (K + 1)(X)^2 + K = 0", lambda k: (-math.sqrt(k), -1, 1, math.sqrt(k))),
    ("2^(X) + 2^(-(X)) = K + 1/K", lambda k: (-math.log2(k), math.log2(k))), ("|X| = -K", lambda k: ()),
    ("1/(X) + 1/(X - K) = 0", lambda k: (k / 2,)), ("(X)^2 + K = 0", lambda k: ()), ("log(X) + log(X + 3K) = 1 + log(K^2/2.5)", lambda k: (k,)),
    ("(X - K)/(X + K) = 1/2", lambda k: (3 * k,)), ("e^(X) = e^(K)", lambda k: (k,)), ("atan(X) = pi/4", lambda k: (1,)),
    ("sqrt(X + sqrt(X)) = sqrt(K^2 + K^4)", lambda k: ((math.sqrt(4 * (k**2 + k**4) + 1) - 1) ** 2 / 4,)),
)  # fmt: skip


def solved(drawn: random.Random) -> Case:
    """Return an equation with a few solutions in all."""
    form, solutions = drawn.choice(_SOLVED)
    abscissa, shift = drawn.choice(SHIFTS)
    k = drawn.choice((2, 3, 7))
    text = form.replace("X", f"(x - ({abscissa}))").replace("K", f"({k})")
    truths = tuple(Truth("solution", solution + shift) for solution in solutions(k))
    return Case(text, "equation", partial(_judge, text, truths))


def _judge(text: str, truths: tuple[Truth, ...]) -> Verdict:
    return compare(Study().solve(text, with_exact=False), truths)


_PI = math.pi
#: Equations that repeat: one solution of each family, and the shortest period, in radians.
_PERIODIC: tuple[tuple[str, tuple[float, ...], float], ...] = (
    ("2sin(Y)^2 = 1", (_PI / 4,), _PI / 2), ("sin(Y) = cos(Y)", (_PI / 4,), _PI), ("tan(Y) = 1", (_PI / 4,), _PI),
    ("sin(Y) = 1/2", (_PI / 6, 5 * _PI / 6), 2 * _PI), ("cos(Y) = 1", (0,), 2 * _PI), ("sin(Y) = 0", (0,), _PI),
    ("cos(Y)^2 = 1", (0,), _PI), ("3sin(Y) + 4cos(Y) = 5", (math.atan2(3, 4),), 2 * _PI), ("sin(2(Y)) = sin(Y)", (0, _PI / 3, _PI, 5 * _PI / 3), 2 * _PI),
    ("sin(Y) cos(Y) = 1/4", (_PI / 12, 5 * _PI / 12), _PI), ("|sin(Y)| = 1", (_PI / 2,), _PI), ("cos(Y)^4 = 1/4", (_PI / 4,), _PI / 2),
    ("tan(Y)^2 = 3", (_PI / 3, 2 * _PI / 3), _PI), ("sin(Y)^2 = sin(Y)", (0, _PI / 2, _PI), 2 * _PI), ("cos(Y) = 2", (), 2 * _PI),
    ("2cos(Y)^2 + cos(Y) = 1", (_PI / 3,), 2 * _PI / 3), ("sin(Y)^4 + cos(Y)^4 = 1", (0,), _PI / 2),
)  # fmt: skip


def periodic(drawn: random.Random) -> Case:
    """Return an equation whose solutions repeat."""
    form, solutions, period = drawn.choice(_PERIODIC)
    times = drawn.choice((1, 1, 2, 3))
    text = form.replace("Y", "x" if times == 1 else f"{times}x")
    families = tuple(sorted(solution / times for solution in solutions))
    return Case(text, "period", partial(_judge_period, text, families, period / times))


def _judge_period(text: str, families: tuple[float, ...], period: float) -> Verdict:
    found = Study().solve(text, with_exact=False)
    items = [item for item in found if item.proved]
    if not found.complete:
        return weak(f"incomplete: {found.note}")
    said = period
    if families:
        words = found.note.partition("any whole multiple of ")[2].partition(" may be added")[0]
        if not words:
            return wrong(f"complete without a period: {found.note}")
        said = float(Study().evaluate(words.replace("π", "pi")).value)
        if not is_close(said, period):
            return wrong(f"repeats every {said}, in truth every {period}")
    left = list(families)
    for item in items:
        # Two places are one family if they are whole periods apart.
        same = [f for f in left if is_close(math.remainder(item.x - f, said), 0.0)]
        if not same:
            return wrong(f"claims {item.text}")
        left.remove(same[0])
    return wrong(f"complete without {left}") if left else weak("")

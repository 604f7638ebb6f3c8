"""Inequalities over an interval and without ends."""

from __future__ import annotations

import math
import random
from functools import partial
from itertools import pairwise

import mpmath

from axis_path.core import Study
from tests.core.guard.ordinary import ORDINARY, SHIFTS, moved
from tests.core.guard.truths import CLOSE, Case, Verdict, is_close, weak, wrong

_Stretches = tuple[tuple[float, float], ...]


def between(drawn: random.Random) -> Case:
    """Return an inequality over an interval: its stretches lie between the zeros of g."""
    g = drawn.choice(ORDINARY)
    inner, shift = moved(g, drawn)
    sign = drawn.choice((">", "<=", "<", ">="))
    form = drawn.choice(("{}", "|{}|({})", "{}/3", "cbrt({})"))
    text = f"{form.replace('{}', f'({inner})')} {sign} 0".replace("T ", "")
    abscissae = [g.low, *g.zeros, g.high]
    truths = tuple(
        (a + shift, b + shift)
        for a, b in pairwise(abscissae)
        if (g.value(mpmath.mpf((a + b) / 2)) > 0) == (sign[0] == ">")
    )
    ends = (repr(g.low + shift), repr(g.high + shift))
    return Case(text, "inequality", partial(_judge, text, ends, truths))


_INF = math.inf
#: Where the forms below hold: X stands for x less a place, K for a positive number k.
_ENDLESS = (
    ("cbrt(X) > K", lambda k: ((k**3, _INF),)),
    ("cbrt(X) <= -K", lambda k: ((-_INF, -(k**3)),)),
    ("1/(X) > 0", lambda k: ((0, _INF),)),
    ("1/(X) < 1/K", lambda k: ((-_INF, 0), (k, _INF))),
    ("e^((X)/1000) > K", lambda k: ((1000 * math.log(k), _INF),)),
    ("e^(-(X)/700) >= K", lambda k: ((-_INF, -700 * math.log(k)),)),
    ("2^(X) < K", lambda k: ((-_INF, math.log2(k)),)),
    ("|X| > 100K", lambda k: ((-_INF, -100 * k), (100 * k, _INF))),
    ("|X| <= 1000K", lambda k: ((-1000 * k, 1000 * k),)),
    ("(X)^3 > K 10^9", lambda k: ((1000 * math.cbrt(k), _INF),)),
    ("(X)^2 < K 10^8", lambda k: ((-1e4 * math.sqrt(k), 1e4 * math.sqrt(k)),)),
    ("sqrt(X) < 40K", lambda k: ((0, 1600 * k * k),)),
    ("sqrt(X) >= 50K", lambda k: ((2500 * k * k, _INF),)),
    ("ln(X) > 2K", lambda k: ((math.exp(2 * k), _INF),)),
    ("ln(X) <= -K", lambda k: ((0, math.exp(-k)),)),
    ("atan((X)/1000) > 1", lambda k: ((1000 * math.tan(1), _INF),)),
    ("tanh((X)/10^4) <= 1/2", lambda k: ((-_INF, 1e4 * math.atanh(0.5)),)),
    ("(X)^2 + K > 0", lambda k: ((-_INF, _INF),)),
    ("e^(X) + K < 0", lambda k: ()),
    ("(X - 5000)(X + 3000K) < 0", lambda k: ((-3000 * k, 5000),)),
    ("K/(X)^2 > 10^(-8)", lambda k: ((-1e4 * math.sqrt(k), 0), (0, 1e4 * math.sqrt(k)))),
    ("(X)/((X)^2 + 1) < 0", lambda k: ((-_INF, 0),)),
    ("-K < X < 2000K", lambda k: ((-k, 2000 * k),)),
    ("X + 10^5 > K (X)", lambda k: ((-_INF, 1e5 / (k - 1)),)),
)  # fmt: skip
#: Far from 0, where a search of the middle would see nothing.
_FAR_SHIFTS = (("2000", 2000.0), ("-12345", -12345.0), ("10^6", 1e6))


def endless(drawn: random.Random) -> Case:
    """Return an inequality without ends."""
    form, truths = drawn.choice(_ENDLESS)
    abscissa, shift = drawn.choice(SHIFTS + _FAR_SHIFTS)
    k = drawn.choice((2, 3, 7))
    text = form.replace("X", f"(x - ({abscissa}))").replace("K", f"({k})")
    moved_truths = tuple((low + shift, high + shift) for low, high in truths(k))
    return Case(text, "inequality", partial(_judge, text, (None, None), moved_truths))


def _judge(text: str, ends: tuple[str | None, str | None], truths: _Stretches) -> Verdict:
    found = Study().solve_inequality(text, None, *ends, with_exact=False)
    stretches = [(s.low.x, s.high.x) for s in found.items]
    if not found.complete:
        return weak(f"incomplete: {found.note}")
    if _agree(stretches, truths):
        return weak("")
    # Single places at which it holds too are listed as stretches without length.
    long = [(low, high) for low, high in stretches if high - low > CLOSE]
    if "=" in text and _agree(long, truths):
        return weak("")
    return wrong(f"complete with {stretches}, true is {truths}")


def _agree(found: list[tuple[float, float]], truths: _Stretches) -> bool:
    return len(found) == len(truths) and all(
        is_close(low, true_low) and is_close(high, true_high)
        for (low, high), (true_low, true_high) in zip(found, truths, strict=True)
    )

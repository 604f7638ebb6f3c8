"""Equations that are true all along a stretch, or everywhere."""

from __future__ import annotations

import math
import random
import re
from functools import partial

from axis_path.core import Study
from tests.core.guard.ordinary import shifted
from tests.core.guard.truths import Case, Verdict, is_close, weak, wrong

_INF = math.inf
#: Equations, with X for x less a place, where they are true all along, and the places of which it
#: must be said that they are left out.
_FORMS: tuple[tuple[str, tuple[float, float], tuple[float, ...]], ...] = (
    ("sqrt((X)^2) = X", (0, _INF), ()), ("sqrt((X)^2) = -(X)", (-_INF, 0), ()),
    ("|X| = X", (0, _INF), ()), ("|X| + X = 0", (-_INF, 0), ()), ("|X|/(X) = 1", (0, _INF), (0,)),
    ("asin(X) + acos(X) = pi/2", (-1, 1), ()), ("max(X, -(X)) = |X|", (-_INF, _INF), ()),
    ("1/(X - 1) + 1/(X + 1) = 2(X)/((X)^2 - 1)", (-_INF, _INF), (-1, 1)),
    ("((X)^2 - 4)/(X - 2) = X + 2", (-_INF, _INF), (2,)), ("(X)/(X) = 1", (-_INF, _INF), (0,)),
    ("sqrt(X)^2 = X", (0, _INF), ()), ("sign(X) = -1", (-_INF, 0), (0,)),
    ("|X - 1| + |X - 3| = 2", (1, 3), ()), ("|X| + |X - 1| = 2(X) - 1", (1, _INF), ()),
    ("max(X, 1) = 1", (-_INF, 1), ()), ("min(X, 2) = X", (-_INF, 2), ()),
    ("(X + 1)^2 = (X)^2 + 2(X) + 1", (-_INF, _INF), ()), ("sqrt(X^2 - 2X + 1) = 1 - X", (-_INF, 1), ()),
    ("|X|(X) = (X)^2", (0, _INF), ()), ("max(X, 0) + min(X, 0) = X", (-_INF, _INF), ()),
)  # fmt: skip


def along(drawn: random.Random) -> Case:
    """Return an equation that is true all along a stretch."""
    form, (low, high), left_out = drawn.choice(_FORMS)
    inner, shift = shifted(drawn)
    text = form.replace("X", inner)
    truth = (low + shift, high + shift)
    return Case(text, "along", partial(_judge, text, truth, tuple(p + shift for p in left_out)))


def _judge(text: str, truth: tuple[float, float], left_out: tuple[float, ...]) -> Verdict:
    found = Study().solve(text, with_exact=False)
    # What is left out of a stretch may be a solution by itself, never one that is not.
    for item in found:
        if item.proved and not truth[0] - 1e-9 <= item.x <= truth[1] + 1e-9:
            return wrong(f"claims a solution at {item.text}")
        if item.proved and any(is_close(item.x, abscissa) for abscissa in left_out):
            return wrong(f"claims a solution at {item.text}, where there is no value")
    if found.complete:
        return wrong(f"complete with {[item.text for item in found]}")
    if not found.along:
        return weak(f"not decided: {found.note}")
    said = _read(found.along)
    if said is None:
        return weak(f"not read: {found.along}")
    low, high, abscissae = said
    if not (_is_near(low, truth[0]) and _is_near(high, truth[1])):
        return wrong(f"{found.along} True from {truth[0]} to {truth[1]}")
    inside = [abscissa for abscissa in left_out if truth[0] < abscissa < truth[1]]
    if len(abscissae) != len(inside) or not all(map(_is_near, abscissae, inside)):
        return wrong(f"{found.along} Left out are {inside}")
    return weak("")


def _is_near(said: float, true: float) -> bool:
    """Check whether a number of four decimals or a fraction stands for a true one."""
    return said == true or abs(said - true) < 6e-5


#: The sentences in which it is said, with their ends.
_SENTENCE = re.compile(
    r"It is true for (?:every )?(?:(?P<low>\S+) (?P<low_sign>[<≤]) )?x"
    r"(?: (?P<sign>[<≤>≥]) (?P<end>\S+?))?(?: except (?P<places>.+?))?\."
)


def _read(sentence: str) -> tuple[float, float, list[float]] | None:
    found = _SENTENCE.fullmatch(sentence)
    if found is None:
        return None
    low, high = -_INF, _INF
    if found["low"]:
        low = _number(found["low"])
    if found["end"] and found["sign"] in "<≤":
        high = _number(found["end"])
    elif found["end"]:
        low = _number(found["end"])
    abscissae = (
        re.split(r", | and ", found["places"].removeprefix("x = ")) if found["places"] else []
    )
    return low, high, [*map(_number, abscissae)]


def _number(text: str) -> float:
    result = Study().evaluate(text.replace("−", "-").replace("√", "sqrt"))
    return float(result.value)

"""Lines to which functions come near far out."""

from __future__ import annotations

import math
import random
from functools import partial

from axis_path.core import Study
from tests.core.guard.ordinary import SHIFTS
from tests.core.guard.truths import Case, Verdict, is_close, weak, wrong

#: Functions far out, with the lines they come near to: slope and height, in order.
_LINES: tuple[tuple[str, tuple[tuple[float, float], ...]], ...] = (
    ("1/(X)", ((0, 0),)), ("2 + 1/(X^2)", ((0, 2),)), ("e^(X)", ((0, 0),)), ("atan(X)", ((0, -math.pi / 2), (0, math.pi / 2))),
    ("(X^2 + 1)/(X)", ((1, 0),)), ("tanh(X) - 1", ((0, -2), (0, 0))), ("floor(X)", ()), ("floor(X)/(X)", ((0, 1),)),
    ("sign(sin(X))", ()), ("max(sin(X), 0)", ()), ("mod(X, 3)/(X)", ((0, 0),)), ("3X - 1", ()), ("|X|", ()),
    ("sin(X)/(X)", ((0, 0),)), ("sqrt(X^2 + 1)", ((-1, 0), (1, 0))), ("(2X^2 - 3)/(X^2 + 1)", ((0, 2),)), ("ln(X^2 + 1)", ()),
    ("X + e^(-X)", ((1, 0),)), ("1/(1 + e^(X))", ((0, 1), (0, 0))), ("cos(X)", ()), ("ceil(X) - X", ()), ("e^(-X^2)", ((0, 0),)),
)  # fmt: skip


def far(drawn: random.Random) -> Case:
    """Return a function of which it is asked to which lines it comes near."""
    form, lines = drawn.choice(_LINES)
    abscissa, shift = drawn.choice(SHIFTS)
    text = f"f(x) = {form.replace('X', f'(x - ({abscissa}))')}"
    moved = tuple((slope, height - slope * shift) for slope, height in lines)
    return Case(text, "asymptotes", partial(_judge, text, moved))


def _judge(text: str, truths: tuple[tuple[float, float], ...]) -> Verdict:
    study = Study()
    study.define(text)
    lines = [line for line in study.asymptotes("f") if line.slope is not None]
    for line in lines:
        is_true = any(
            is_close(line.slope or 0.0, slope) and is_close(line.at, height)
            for slope, height in truths
        )
        if line.proved and not is_true:
            return wrong(f"claims {line.text}")
    is_whole = len(lines) == len(truths) and all(line.proved for line in lines)
    return weak("" if is_whole else f"{len(lines)} of {len(truths)} lines")

"""Asymptotes: the lines to which the graph of a function comes as near as you like.

Vertical ones stand at its poles. Far out, a quotient of polynomials is divided out; any other
function follows the rules of limits, and so does its slope. What no rule settles is followed with
many digits to 2^640, and is then seen, not proved.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import overload

from flint import arb, fmpq, fmpq_poly

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.errors import LimitError, NotHandledError, StoppedError
from axis_path.core.evaluate import Branches, RealFunction
from axis_path.core.locate.algebra.polynomial import as_polynomial
from axis_path.core.locate.finding import Findings, Kind
from axis_path.core.locate.limits.approach import followed_outward
from axis_path.core.locate.limits.limit_rules import (
    UNKNOWN,
    Approach,
    Limit,
    limit_by_rules,
    to_infinity,
)
from axis_path.core.locate.limits.outside import Outside
from axis_path.core.locate.limits.tails import line_far_out
from axis_path.core.locate.search.stopped import located_or_sampled
from axis_path.core.locate.search.verdict import value_text
from axis_path.core.locate.search.zeros import SEARCH_BITS

#: Where a branch is chosen, beyond which it must be proved to hold all the way out.
_FAR = 2.0**40
_OUT = arb(_FAR) * 3 / 2 + arb(1) / 3
_UNDECIDED = (
    "Whether it comes near to a line far out is not decided: there may be breaks without end."
)


class Direction(StrEnum):
    """How an asymptote lies."""

    VERTICAL = "vertical"
    HORIZONTAL = "horizontal"
    OBLIQUE = "oblique"


@dataclass(frozen=True, slots=True)
class Asymptotes(Sequence["Asymptote"]):
    """The asymptotes of a function.

    Attributes:
        note: what is not certain, in words; may be empty.
    """

    items: tuple[Asymptote, ...]
    note: str = ""

    def __len__(self) -> int:
        """Return how many there are."""
        return len(self.items)

    @overload
    def __getitem__(self, index: int) -> Asymptote: ...
    @overload
    def __getitem__(self, index: slice) -> tuple[Asymptote, ...]: ...
    def __getitem__(self, index: int | slice) -> Asymptote | tuple[Asymptote, ...]:
        """Return one, or some."""
        return self.items[index]


@dataclass(frozen=True, slots=True)
class Asymptote:
    """A line.

    Attributes:
        text: its equation, as it may be typed.
        sides: where the graph comes near to it: -1 for x below all bounds, 1 for x above; empty for
            a vertical one.
        slope: of the line, 0 for a horizontal one; None for a vertical one.
        at: where it crosses the y axis; of a vertical one, its x.
        proved: whether that follows from rules.
    """

    direction: Direction
    text: str
    sides: tuple[int, ...]
    slope: float | None
    at: float
    proved: bool


def find_asymptotes(function: RealFunction, breaks: Findings) -> Asymptotes:
    """Return the asymptotes of a function.

    Args:
        function: one whose own domain ends does not go out on that side.
        breaks: of the function, as they were located.

    Raises:
        StoppedError: the search was stopped before there was anything to report.
    """
    asymptotes: Sequence[Asymptote] = [
        Asymptote(Direction.VERTICAL, f"x = {b.exact or b.text}", (), None, b.x, b.proved)
        for b in breaks
        if b.kind is Kind.POLE
    ]
    outward: list[Asymptote] = []
    note = "" if breaks.complete else breaks.note
    try:
        with precision(SEARCH_BITS):
            for side in (-1, 1):
                line = _outward(function, side)
                if isinstance(line, Asymptote):
                    outward.append(line)
                elif line and line not in note:
                    note = f"{note} {line}".strip()
    except StoppedError as err:
        asymptotes, said = located_or_sampled(err, [*asymptotes, *outward], list)
        return Asymptotes(tuple(asymptotes), note or said)
    if len(outward) == 2 and outward[0].text == outward[1].text:
        both = outward[0].proved and outward[1].proved
        one = outward[0]
        outward = [Asymptote(one.direction, one.text, (-1, 1), one.slope, one.at, both)]
    return Asymptotes((*asymptotes, *outward), note)


def _outward(function: RealFunction, side: int) -> Asymptote | str | None:
    """Return the asymptote far out on one side, None if there is none, or what is not decided."""
    if (function.high if side > 0 else function.low) is not None:
        return None
    branches = Branches(function)
    if not Outside(branches, side, _FAR).is_one_branch():
        # One branch is not the function, but what is lost by floor and ceil is bounded.
        return _by_tails(branches, branches.function, side) or _UNDECIDED
    at = Ball((side * _OUT).mid())
    branch = branches.branch(branches.function, at)
    if branch.prove(at).defined is not Defined.YES:
        return None
    if as_polynomial(branch, branch.expression) is not None:
        # It is a line, which comes near to no line but itself, or bends away from all.
        return None
    divided = _divided(branches, branch)
    if divided is not None:
        return _line(divided[1], divided[0], side, proved=True) if divided[2] else None
    try:
        return _of_branch(branches, branch, side)
    except (LimitError, NotHandledError):
        return None


def _of_branch(branches: Branches, branch: RealFunction, side: int) -> Asymptote | None:
    derived = branches.derivative(branch)
    if branches.derivative(derived).expression.is_zero():
        # A line with coefficients that are no fractions.
        return None
    level = _limit(branch, side)
    is_level = level.value is not None and level.approach is Approach.VALUE
    if level.value is not None and is_level and level.proved:
        return _line(ball.from_fraction(0), level.value, side, proved=True)
    asymptotes = _by_tails(branches, branch, side)
    if asymptotes is not None:
        return asymptotes
    if level.value is not None and is_level:
        return _line(ball.from_fraction(0), level.value, side, proved=False)
    slope = _limit(derived, side)
    if slope.value is None or slope.value.sign() == 0:
        return None
    # What is left of the function when the slope is taken off comes to where the line starts.
    rest = followed_outward(branch, side, slope.value)
    return None if rest.value is None else _line(slope.value, rest.value, side, proved=False)


def _by_tails(branches: Branches, function: RealFunction, side: int) -> Asymptote | None:
    line = line_far_out(function if side > 0 else branches.mirrored(function), _FAR)
    if line is None:
        return None
    slope, at = (Ball(rate.value, exact=rate.exact) for rate in line)
    return _line(slope if side > 0 else ball.negative(slope), at, side, proved=True)


def _divided(branches: Branches, branch: RealFunction) -> tuple[Ball, Ball, bool] | None:
    """Divide a quotient of polynomials; None if it is no such quotient.

    Returns:
        What the line has at 0, its slope, and whether it is a line.
    """
    try:
        parts = branches.quotient(branch)
    except LimitError:
        return None
    if parts is None:
        return None
    top, bottom = (as_polynomial(part, part.expression) for part in parts)
    if top is None or bottom is None or bottom.degree() < 0:
        return None
    quotient: fmpq_poly = top // bottom
    if quotient.degree() > 1 or (top % bottom).degree() < 0:
        return ball.from_fraction(0), ball.from_fraction(0), False
    constant, slope = (_exact(quotient[k]) for k in (0, 1))
    return constant, slope, True


def _exact(value: fmpq) -> Ball:
    return Ball(arb(value), exact=value)


def _limit(function: RealFunction, side: int) -> Limit:
    far_out = Ball((side * arb(2) ** 200).mid())
    limit = limit_by_rules(function, to_infinity(side), far_out)
    if limit.approach is Approach.UNKNOWN:
        return followed_outward(function, side)
    if limit.approach is Approach.BOUNDED:
        return UNKNOWN
    return limit


def _line(slope: Ball, at: Ball, side: int, *, proved: bool) -> Asymptote:
    level = value_text(at)
    steep = float(slope.value.mid())
    if slope.sign() == 0:
        return Asymptote(
            Direction.HORIZONTAL, f"y = {level}", (side,), 0.0, float(at.value.mid()), proved
        )
    factor = value_text(slope)
    factor = {"1": "", "−1": "−"}.get(factor, f"({factor}) " if "/" in factor else f"{factor} ")
    sign = at.sign()
    rest = "" if sign == 0 else f" + {level}" if sign == 1 else f" − {level.lstrip('−')}"
    text = f"y = {factor}x{rest}"
    return Asymptote(Direction.OBLIQUE, text, (side,), steep, float(at.value.mid()), proved)

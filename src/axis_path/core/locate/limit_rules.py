"""Limits by the rules for sums, products, quotients and known functions, step by step.

Every step of a branch has its limit from those of its arguments, as far as a rule tells: 1/u grows
beyond all bounds where u comes to 0, exp(u) comes to 0 where u falls below all bounds, and what
comes to 0 times what stays bounded comes to 0. That a divisor keeps its sign beside the place is
known, because its zeros are spots between the branches.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction

from axis_path.core.arithmetic import Ball, ball
from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.evaluate import Op, RealFunction, prove_steps
from axis_path.core.evaluate.graph import Step


class Approach(StrEnum):
    """How a function behaves as it nears a place."""

    VALUE = "value"
    UP = "up"
    DOWN = "down"
    BOUNDED = "bounded"
    UNKNOWN = "unknown"


@dataclass(frozen=True, slots=True)
class Limit:
    """A limit from one side.

    Attributes:
        approach: a finite value; beyond all bounds; no value but bounded; or not known.
        value: the limit if it is finite; for one that is seen and not proved, a ball about it.
        proved: whether this follows from a rule.
        waves: whether something that oscillates takes part, so that the sign beside a limit of 0
            says nothing.
    """

    approach: Approach
    value: Ball | None = None
    proved: bool = False
    waves: bool = False

    @property
    def is_infinite(self) -> bool:
        """Tell whether it goes beyond all bounds."""
        return self.approach in (Approach.UP, Approach.DOWN)


UNKNOWN = Limit(Approach.UNKNOWN)
_BOUNDED = Limit(Approach.BOUNDED, proved=True, waves=True)
_BOUNDED_FUNCTIONS = {"sin", "cos", "tanh", "atan", "erf"}
_HALF = ball.from_fraction(Fraction(1, 2))


def to_infinity(sign: int) -> Limit:
    """Give the limit of what grows beyond all bounds with a sign."""
    return Limit(Approach.UP if sign > 0 else Approach.DOWN, proved=True)


def _to(value: Ball) -> Limit:
    return Limit(Approach.VALUE, value, proved=True)


def limit_by_rules(branch: RealFunction, variable: Limit, beside: Ball) -> Limit:
    """Give the limit of a branch from that of its variable; unknown where no rule tells.

    Args:
        branch: smooth beside the place.
        variable: where the variable goes.
        beside: a number near it, on the side it comes from.
    """
    near_by = prove_steps(branch, beside)
    limits: list[Limit] = []
    for place, (step, apply) in enumerate(near_by.steps):
        given = [limits[argument] for argument in step.arguments]
        if step.op == Op.VARIABLE:
            limits.append(variable)
        elif not given:
            limits.append(_to(near_by.values[place]))
        else:
            signs = [near_by.values[argument].sign() for argument in step.arguments]
            found = _limit(step, apply, given, signs, near_by.values[place].sign())
            waves = found.waves or any(each.waves for each in given)
            limits.append(replace(found, waves=waves))
    return limits[near_by.result]


def _limit(
    step: Step, apply: Callable[..., Ball], given: list[Limit],
    signs: list[int | None], own_sign: int | None,
) -> Limit:  # fmt: skip
    values = [each.value for each in given if each.approach is Approach.VALUE]
    if len(values) == len(given):
        value = apply(*values)
        if value.is_defined and value.continuous and value.value.is_finite():
            return _to(value)
        is_gap = step.op in FUNCTIONS and FUNCTIONS[step.op].has_gaps and not value.is_defined
        if is_gap and not given[0].waves:
            return to_infinity(own_sign) if own_sign else UNKNOWN
    rule = _RULES.get(step.op)
    if rule is not None:
        found = rule(given, signs)
        if found.approach is not Approach.UNKNOWN:
            return found
    if step.op == Op.INTEGER_POWER and isinstance(step.payload, int) and given[0].is_infinite:
        if step.payload > 0:
            return to_infinity(own_sign) if own_sign else UNKNOWN
        return _to(ball.from_fraction(0))
    if step.op == Op.INTEGER_POWER and isinstance(step.payload, int) and step.payload < 0:
        is_pole = _is_zero(given[0]) and not given[0].waves
        return to_infinity(own_sign) if is_pole and own_sign else UNKNOWN
    if step.op == Op.ROOT and isinstance(step.payload, tuple) and given[0].is_infinite:
        if step.payload[0] < 0:
            return _to(ball.from_fraction(0))
        return to_infinity(own_sign) if own_sign else UNKNOWN
    return _BOUNDED if step.op in _BOUNDED_FUNCTIONS else UNKNOWN


def _is_zero(limit: Limit) -> bool:
    value = limit.value
    return value is not None and value.exact is not None and value.exact == 0


def _sign_of(limit: Limit) -> int | None:
    """Give the sign of a limit; None if it is not known."""
    if limit.is_infinite:
        return 1 if limit.approach is Approach.UP else -1
    return limit.value.sign() if limit.value is not None else None


def _is_bounded(limit: Limit) -> bool:
    return limit.approach in (Approach.VALUE, Approach.BOUNDED)


def _turned(limit: Limit) -> Limit:
    if limit.is_infinite:
        return to_infinity(-1 if limit.approach is Approach.UP else 1)
    return _to(ball.negative(limit.value)) if limit.value is not None else limit


def _sum(given: list[Limit], _: list[int | None]) -> Limit:
    a, b = given
    for one, other in ((a, b), (b, a)):
        if one.is_infinite and (_is_bounded(other) or other.approach is one.approach):
            return one
    return _BOUNDED if _is_bounded(a) and _is_bounded(b) else UNKNOWN


def _difference(given: list[Limit], signs: list[int | None]) -> Limit:
    return _sum([given[0], _turned(given[1])], signs)


def _product(given: list[Limit], _: list[int | None]) -> Limit:
    a, b = given
    for one, other in ((a, b), (b, a)):
        if _is_zero(one) and _is_bounded(other):
            return _to(ball.from_fraction(0))
        if one.is_infinite:
            sign = _sign_of(other)
            mine = _sign_of(one)
            return to_infinity(sign * mine) if sign and mine else UNKNOWN
    return _BOUNDED if _is_bounded(a) and _is_bounded(b) else UNKNOWN


def _quotient(given: list[Limit], signs: list[int | None]) -> Limit:
    a, b = given
    if b.is_infinite and _is_bounded(a):
        return _to(ball.from_fraction(0))
    above, below = _sign_of(a), signs[1]
    if _is_zero(b) and not b.waves and above and below:
        return to_infinity(above * below)
    if a.is_infinite and b.value is not None and above and below:
        return to_infinity(above * below)
    return UNKNOWN


def _power(given: list[Limit], _: list[int | None]) -> Limit:
    base, exponent = given
    size = None if base.value is None else ball.subtract(base.value, ball.from_fraction(1)).sign()
    if not exponent.is_infinite or not size or (base.value is None or base.value.sign() != 1):
        return UNKNOWN
    grows = (size > 0) == (exponent.approach is Approach.UP)
    return to_infinity(1) if grows else _to(ball.from_fraction(0))


def _ends(
    down: Ball | int | None, up: Ball | int
) -> Callable[[list[Limit], list[int | None]], Limit]:
    """Make the rule of a function from what it does far out; a sign stands for infinity."""

    def rule(given: list[Limit], _: list[int | None]) -> Limit:
        if not given[0].is_infinite:
            return UNKNOWN
        end = up if given[0].approach is Approach.UP else down
        if end is None:
            return UNKNOWN
        return to_infinity(end) if isinstance(end, int) else _to(end)

    return rule


_ONE, _ZERO = ball.from_fraction(1), ball.from_fraction(0)


def _quarter_turn(given: list[Limit], _: list[int | None]) -> Limit:
    # Made anew, because it has as many digits as are wanted now.
    if not given[0].is_infinite:
        return UNKNOWN
    quarter = ball.multiply(_HALF, ball.pi())
    return _to(quarter if given[0].approach is Approach.UP else ball.negative(quarter))


_RULES: dict[str, Callable[[list[Limit], list[int | None]], Limit]] = {
    Op.ADD: _sum,
    Op.SUBTRACT: _difference,
    Op.NEGATIVE: lambda given, _: _turned(given[0]),
    Op.MULTIPLY: _product,
    Op.DIVIDE: _quotient,
    Op.POWER: _power,
    "exp": _ends(_ZERO, 1),
    "ln": _ends(None, 1),
    "log10": _ends(None, 1),
    "sqrt": _ends(None, 1),
    "atan": _quarter_turn,
    "tanh": _ends(ball.negative(_ONE), _ONE),
    "erf": _ends(ball.negative(_ONE), _ONE),
    "sinh": _ends(-1, 1),
    "asinh": _ends(-1, 1),
    "cosh": _ends(1, 1),
    "acosh": _ends(None, 1),
    "gamma": _ends(None, 1),
    "abs": _ends(1, 1),
}

"""Limits by the rules for sums, products, quotients and known functions, step by step.

Every step of a branch has its limit from those of its arguments, as far as a rule tells: 1/u grows
beyond all bounds where u comes to 0, exp(u) comes to 0 where u falls below all bounds, and what
comes to 0 times what stays bounded comes to 0. That a divisor keeps its sign beside the place is
known, because its zeros are singular points between the branches.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction

from axis_path.core.arithmetic import Ball, Defined, ball, ball_functions
from axis_path.core.evaluate import Known, Op, RealFunction, prove_steps
from axis_path.core.evaluate.graph.graph import Step


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
        is_two_sided: whether it does not depend on the side, as long as the branch does not.
    """

    approach: Approach
    value: Ball | None = None
    proved: bool = False
    waves: bool = False
    is_two_sided: bool = False

    @property
    def is_infinite(self) -> bool:
        """Check whether it goes beyond all bounds."""
        return self.approach in (Approach.UP, Approach.DOWN)


UNKNOWN = Limit(Approach.UNKNOWN)
_BOUNDED = Limit(Approach.BOUNDED, proved=True, waves=True)
_BOUNDED_FUNCTIONS = {"sin", "cos", "tanh", "atan", "erf"}
_HALF = ball.from_fraction(Fraction(1, 2))


def to_infinity(sign: int) -> Limit:
    """Return the limit of what grows beyond all bounds with a sign."""
    return Limit(Approach.UP if sign > 0 else Approach.DOWN, proved=True)


def _to(value: Ball) -> Limit:
    return Limit(Approach.VALUE, value, proved=True)


@dataclass(frozen=True, slots=True)
class _Given:
    """What the rule of one step starts from.

    Attributes:
        limits: of its arguments.
        signs: of its arguments beside the place; those that an operation may divide by, or take the
            logarithm of, keep it up to the place.
        nearby: the balls of its arguments there.
        own_sign: of the step itself there.
    """

    limits: list[Limit]
    signs: list[int | None]
    nearby: list[Ball]
    own_sign: int | None


def limit_by_rules(
    branch: RealFunction, variable: Limit, nearby: Ball, known: Known | None = None
) -> Limit:
    """Return the limit of a branch from that of its variable; unknown where no rule tells.

    Args:
        branch: smooth beside the place.
        variable: where the variable goes.
        nearby: a number on the side it comes from, with no point between where an operation of the
            branch is rough.
        known: which of its steps are exactly zero at the place.
    """
    near_by = prove_steps(branch, nearby)
    limits: list[Limit] = []
    for position, (step, apply) in enumerate(near_by.steps):
        arguments = step.arguments
        if step.op == Op.VARIABLE:
            limits.append(variable)
        elif not arguments:
            limits.append(_to(near_by.values[position]))
        else:
            balls = [near_by.values[argument] for argument in arguments]
            given = _Given(
                [limits[argument] for argument in arguments], [value.sign() for value in balls],
                balls, near_by.values[position].sign(),
            )  # fmt: skip
            level = None
            if known is not None and given.limits[0].value is not None:
                there = Step(step.op, tuple(near_by.indices[a] for a in arguments), step.payload)
                level = known.level(there, given.limits[0].value)
            if level is not None:
                given = replace(given, limits=[_to(level)])
            limit = _limit(step, apply, given)
            if not limit.waves and any(argument.waves for argument in given.limits):
                limit = replace(limit, waves=True)
            limits.append(limit)
        if known is not None and _is_zero_unnoticed(limits[-1], known, near_by.indices[position]):
            limits[-1] = replace(_to(ball.from_fraction(0)), waves=limits[-1].waves)
    return limits[near_by.result]


def _is_zero_unnoticed(limit: Limit, known: Known, step: int) -> bool:
    """Check whether a step whose limit does not show it is known to be zero at the place."""
    if limit.approach not in (Approach.VALUE, Approach.UNKNOWN):
        return False
    if limit.value is not None and limit.value.exact is not None:
        return False
    return known.is_zero(step, limit.value)


def _limit(step: Step, apply: Callable[..., Ball], given: _Given) -> Limit:
    values = [limit.value for limit in given.limits if limit.approach is Approach.VALUE]
    if len(values) == len(given.limits) and not _is_zero_to_the_zero(step, given):
        value = apply(*values)
        if value.is_defined and value.continuous and value.value.is_finite():
            return _to(value)
        gap = _GAPS.get(step.op)
        if gap is not None and values[0] is not None and not value.is_defined:
            if given.limits[0].waves:
                return UNKNOWN
            sign = gap(values[0], given) if value.defined is Defined.NO else None
            return to_infinity(sign) if sign else UNKNOWN
    exponent = _exponent(step)
    if exponent is not None:
        return _fixed_power(given, exponent)
    rule = _RULES.get(step.op)
    if rule is not None:
        outcome = rule(given)
        if outcome.approach is not Approach.UNKNOWN:
            return outcome
    return _BOUNDED if step.op in _BOUNDED_FUNCTIONS else UNKNOWN


def _is_zero_to_the_zero(step: Step, given: _Given) -> bool:
    """Check for b^u where both may come to 0: it counts as 1 at 0, but may have any limit."""
    if step.op != Op.POWER:
        return False
    return all(limit.value is None or not limit.value.excludes_zero() for limit in given.limits)


def _exponent(step: Step) -> Fraction | None:
    if step.op == Op.INTEGER_POWER and isinstance(step.payload, int):
        return Fraction(step.payload)
    if step.op == Op.ROOT and isinstance(step.payload, tuple):
        return Fraction(*step.payload)
    return None


def _fixed_power(given: _Given, exponent: Fraction) -> Limit:
    """Return the limit of u^(p/q), which has the sign of u^p for an odd q."""
    base = given.limits[0]
    if base.is_infinite:
        if exponent < 0:
            return _to(ball.from_fraction(0))
        if base.approach is Approach.DOWN and exponent.denominator % 2 == 0:
            return UNKNOWN
        sign = 1 if base.approach is Approach.UP or exponent.numerator % 2 == 0 else -1
        return to_infinity(sign)
    if exponent < 0 and _is_zero(base) and not base.waves:
        is_even = exponent.numerator % 2 == 0 or exponent.denominator % 2 == 0
        side = 1 if is_even else given.signs[0]
        return to_infinity(side) if side else UNKNOWN
    if exponent > 0 and base.approach is Approach.BOUNDED:
        return _BOUNDED
    return UNKNOWN


def _at_quarter_turn(level: Ball, given: _Given) -> int | None:
    """Return the sign of the tangent beside a pole: that of the cosine, by that of the sine."""
    top, bottom = ball_functions.sine(level).sign(), ball_functions.cosine(given.nearby[0]).sign()
    return top * bottom if top and bottom else None


def _near_whole(level: Ball, given: _Given) -> int | None:
    """Return the sign of digamma beside a pole."""
    side = ball.subtract(given.nearby[0], level).sign()
    return -side if side else None


#: Functions that go beyond all bounds where they have no value: with which sign.
_GAPS: dict[str, Callable[[Ball, _Given], int | None]] = {
    "ln": lambda level, _: -1 if level.sign() == 0 else None,
    "log10": lambda level, _: -1 if level.sign() == 0 else None,
    "atanh": lambda level, _: level.sign(),
    "tan": _at_quarter_turn,
    "gamma": lambda _, given: given.own_sign,
    "digamma": _near_whole,
}


def _is_zero(limit: Limit) -> bool:
    value = limit.value
    return value is not None and value.exact is not None and value.exact == 0


def _sign_of(limit: Limit) -> int | None:
    """Return the sign of a limit; None if it is not known."""
    if limit.is_infinite:
        return 1 if limit.approach is Approach.UP else -1
    return limit.value.sign() if limit.value is not None else None


def _is_bounded(limit: Limit) -> bool:
    return limit.approach in (Approach.VALUE, Approach.BOUNDED)


def _turned(limit: Limit) -> Limit:
    if limit.is_infinite:
        return to_infinity(-1 if limit.approach is Approach.UP else 1)
    return _to(ball.negative(limit.value)) if limit.value is not None else limit


def _sum(given: _Given) -> Limit:
    return _sum_of(*given.limits)


def _sum_of(a: Limit, b: Limit) -> Limit:
    for one, other in ((a, b), (b, a)):
        if one.is_infinite and (_is_bounded(other) or other.approach is one.approach):
            return one
    return _BOUNDED if _is_bounded(a) and _is_bounded(b) else UNKNOWN


def _difference(given: _Given) -> Limit:
    return _sum_of(given.limits[0], _turned(given.limits[1]))


def _product(given: _Given) -> Limit:
    a, b = given.limits
    for one, other in ((a, b), (b, a)):
        if _is_zero(one) and _is_bounded(other):
            return _to(ball.from_fraction(0))
        if one.is_infinite:
            sign = _sign_of(other)
            mine = _sign_of(one)
            return to_infinity(sign * mine) if sign and mine else UNKNOWN
    return _BOUNDED if _is_bounded(a) and _is_bounded(b) else UNKNOWN


def _quotient(given: _Given) -> Limit:
    a, b = given.limits
    if b.is_infinite and _is_bounded(a):
        return _to(ball.from_fraction(0))
    above, below = _sign_of(a), given.signs[1]
    if _is_zero(b) and not b.waves and above and below:
        return to_infinity(above * below)
    if a.is_infinite and b.value is not None and above and below:
        return to_infinity(above * below)
    return UNKNOWN


def _power(given: _Given) -> Limit:
    base, exponent = given.limits
    if _is_zero(base) and not base.waves and given.signs[0] == 1:
        sign = _sign_of(exponent)
        if not sign:
            return UNKNOWN
        return to_infinity(1) if sign < 0 else _to(ball.from_fraction(0))
    size = None if base.value is None else ball.subtract(base.value, ball.from_fraction(1)).sign()
    if not exponent.is_infinite or not size or (base.value is None or base.value.sign() != 1):
        return UNKNOWN
    grows = (size > 0) == (exponent.approach is Approach.UP)
    return to_infinity(1) if grows else _to(ball.from_fraction(0))


def _ends(down: Ball | int | None, up: Ball | int) -> Callable[[_Given], Limit]:
    """Make the rule of a function from what it does far out; a sign stands for infinity."""

    def rule(given: _Given) -> Limit:
        if not given.limits[0].is_infinite:
            return UNKNOWN
        end = up if given.limits[0].approach is Approach.UP else down
        if end is None:
            return UNKNOWN
        return to_infinity(end) if isinstance(end, int) else _to(end)

    return rule


_ONE, _ZERO = ball.from_fraction(1), ball.from_fraction(0)


def _quarter_turn(given: _Given) -> Limit:
    # Made anew, because it has as many digits as are wanted now.
    if not given.limits[0].is_infinite:
        return UNKNOWN
    quarter = ball.multiply(_HALF, ball.pi())
    return _to(quarter if given.limits[0].approach is Approach.UP else ball.negative(quarter))


_RULES: dict[str, Callable[[_Given], Limit]] = {
    Op.ADD: _sum,
    Op.SUBTRACT: _difference,
    Op.NEGATIVE: lambda given: _turned(given.limits[0]),
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

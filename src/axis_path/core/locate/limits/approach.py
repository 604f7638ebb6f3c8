"""What a function comes to as it nears a place from one side.

A branch that goes on smoothly has its own value there; others follow the rules of limits
(``limit_rules.py``). A quotient of two that vanish there has the
quotient of their first derivatives that do not (de l'Hôpital's rule, with every zero before them
proved to be exact); if only its bottom vanishes it grows beyond all bounds. What no rule settles is
followed with many digits at distances from 2^-40 to 2^-640, and is then seen, not proved.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise

from flint import arb

from axis_path.core.arithmetic import Ball, ball, ball_functions, precision
from axis_path.core.arithmetic.conversion import fraction_of
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate.algebra.exact import candidates
from axis_path.core.locate.limits.limit_rules import (
    UNKNOWN,
    Approach,
    Limit,
    limit_by_rules,
    to_infinity,
)
from axis_path.core.locate.limits.local_growth import growth_near
from axis_path.core.locate.limits.monomial import UnknownGrowthError
from axis_path.core.locate.limits.nearing import Approaching

_MOST_ORDER = 8
#: Distances at which a function is followed, as powers of a half, and the digits it takes.
_DISTANCES = (40, 80, 160, 320, 640)
_FOLLOW_BITS = 3_000
#: How near to the place a function is looked at, as powers of a half.
_NEAR = (30, 90)
#: The distances are taken in several rows, so that no wave is met at its crests only.
_FACTORS = (1.0, 1.37, 0.83)
_SAME_LIMIT = arb(10) ** -20
#: A limit is written in exact form if a simple number is as near as this.
_SAME = arb(2) ** -120


def limit_at(nearing: Approaching) -> Limit:
    """Return the limit of a branch as it nears a place."""
    branch, abscissa = nearing.branch, nearing.abscissa
    value = nearing.value(branch)
    if value.is_defined and value.continuous and value.value.is_finite():
        return Limit(Approach.VALUE, value, proved=True, is_two_sided=True)
    variable = Limit(Approach.VALUE, abscissa, proved=True)
    known = nearing.branches.known(abscissa, nearing.zeros)
    by_rules = limit_by_rules(branch, variable, nearing.nearby, known)
    if by_rules.approach not in (Approach.UNKNOWN, Approach.BOUNDED):
        return by_rules
    try:
        parts = nearing.branches.quotient(branch)
        limit = None if parts is None else _of_quotient(nearing, *parts)
    except (LimitError, NotHandledError):
        limit = None
    return (
        limit or _of_power(nearing) or _by_growth(nearing)
        or _followed(branch, abscissa, nearing.side)
    )  # fmt: skip


def _of_power(nearing: Approaching) -> Limit | None:
    """Return the limit of b^u where both move, by that of u ln(b): (1 + x)^(1/x) comes to e."""
    logarithm = nearing.branches.logarithm_of_power(nearing.branch)
    if logarithm is None:
        return None
    limit = limit_at(replace(nearing, branch=logarithm))
    if not limit.proved:
        return None
    if limit.approach is Approach.UP:
        return limit
    if limit.approach is Approach.DOWN:
        return Limit(Approach.VALUE, ball.from_fraction(0), proved=True)
    return (
        None
        if limit.value is None
        else replace(limit, value=ball_functions.exponential(limit.value))
    )


def _by_growth(nearing: Approaching) -> Limit | None:
    """Return the limit of what grows beyond all bounds, or comes to 0, by how it does so."""
    for power in _NEAR:
        wide = _step(nearing.abscissa, power)
        hull = Ball(nearing.abscissa.value.union(nearing.abscissa.value + nearing.side * wide))
        growth_rate = growth_near(nearing, nearing.branch, hull, 1 / wide)
        if growth_rate is None:
            continue
        try:
            trend = growth_rate.monomial.trend()
        except UnknownGrowthError:
            continue
        if trend < 0:
            zero = ball.from_fraction(0)
            return Limit(Approach.VALUE, zero, proved=True, waves=growth_rate.sign is None)
        if trend > 0 and growth_rate.sign is not None:
            return to_infinity(growth_rate.sign)
        number = fraction_of(growth_rate.factor) if trend == 0 else None
        if number is not None:
            return Limit(Approach.VALUE, ball.from_fraction(number), proved=True)
    return None


def _of_quotient(nearing: Approaching, top: RealFunction, bottom: RealFunction) -> Limit | None:
    branches = nearing.branches
    for _ in range(_MOST_ORDER):
        above, below = nearing.value(top), nearing.value(bottom)
        if not (above.is_defined and below.is_defined and above.continuous and below.continuous):
            return None
        if below.excludes_zero():
            quotient = ball.divide(above, below)
            return Limit(Approach.VALUE, quotient, proved=True, is_two_sided=True)
        if above.excludes_zero():
            return _unbounded(nearing)
        if not (_is_zero(above) and _is_zero(below)):
            return None
        top, bottom = branches.derivative(top), branches.derivative(bottom)
    return None


def _is_zero(value: Ball) -> bool:
    return value.exact is not None and value.exact == 0


def _unbounded(nearing: Approaching) -> Limit | None:
    """Check whether a function that grows beyond all bounds is positive or negative then."""
    abscissa = nearing.abscissa
    near_by = (abscissa.value + nearing.side * _step(abscissa, 60)).mid()
    sign = nearing.branch.prove(Ball(near_by)).sign()
    return to_infinity(sign) if sign in (-1, 1) else None


def _step(abscissa: Ball, power: int) -> arb:
    return arb(2) ** -power * max(abs(abscissa.value).upper(), arb(1))


def _followed(branch: RealFunction, abscissa: Ball, side: int) -> Limit:
    if abscissa.exact is None and abscissa.turns is None:
        return UNKNOWN
    with precision(_FOLLOW_BITS):
        centre = abscissa.value if abscissa.turns is None else arb.pi() * arb(abscissa.turns)

        def at(power: int, factor: float) -> Ball:
            return branch.prove(Ball((centre + side * factor * _step(abscissa, power)).mid()))

        return _agreed(at)


def followed_outward(branch: RealFunction, side: int, slope: Ball | None = None) -> Limit:
    """Follow a branch, less a line through 0, far out to one side.

    Args:
        branch: smooth far out.
        side: -1 for x below all bounds, 1 above.
        slope: of the line that is taken off; none by default.
    """
    with precision(_FOLLOW_BITS):

        def at(power: int, factor: float) -> Ball:
            abscissa = Ball((side * (factor * arb(2) ** power + arb(1) / 3)).mid())
            value = branch.prove(abscissa)
            return value if slope is None else ball.subtract(value, ball.multiply(slope, abscissa))

        return _agreed(at)


def _agreed(at: Callable[[int, float], Ball]) -> Limit:
    """Follow a function along several rows of distances; what they do not agree on is unknown."""
    first, *others = (_settled([at(power, s) for power in _DISTANCES]) for s in _FACTORS)
    for other in others:
        if other.approach is not first.approach:
            return UNKNOWN
        if first.value is None or other.value is None:
            continue
        if not bool(abs(first.value.value - other.value.value) < _SAME_LIMIT):
            return UNKNOWN
    return first


def _settled(values: list[Ball]) -> Limit:
    """Return what values come to at distances, each the square of the one before."""
    if not all(value.is_defined and value.value.is_finite() for value in values):
        return UNKNOWN
    middles = [value.value.mid() for value in values]
    changes = [abs(after - before) for before, after in pairwise(middles)]
    # What converges does so at least as fast as a power of the distance.
    if all(c <= arb(2) ** (-power // 4) for c, power in zip(changes, _DISTANCES, strict=False)):
        return Limit(Approach.VALUE, _recognised(middles[-1], changes[-1]))
    grows = all(abs(after) > abs(before) * arb(1.5) for before, after in pairwise(middles))
    if grows and len({value > 0 for value in middles}) == 1:
        return Limit(Approach.UP if middles[-1] > 0 else Approach.DOWN)
    return UNKNOWN


def _recognised(value: arb, change: arb) -> Ball:
    """Return a value that was followed, as the simple number that it seems to be, if any."""
    room = change + _SAME
    around = arb(value.mid(), room.upper())
    for candidate, _ in candidates(around.lower(), around.upper()):
        return candidate
    return Ball(around)

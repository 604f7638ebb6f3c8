"""Integrals of what goes beyond all bounds, or goes on without end: their value, or "diverges".

Far out a function is a monomial times a factor in a known interval (``growth.py``), and the
integral of the monomial is known, or bounded. Beside a place where it has no value the same is done
with u = 1/|x - a|, so that the place is far out. Where top and bottom of a quotient vanish together
the quotient of their derivatives bounds it.
"""

from __future__ import annotations

from dataclasses import dataclass

from flint import arb

from axis_path.core.arithmetic import Ball
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate.cells import float_below
from axis_path.core.locate.limits.growth import growth
from axis_path.core.locate.limits.local_growth import growth_near
from axis_path.core.locate.limits.monomial import ZERO, Monomial, Rate, UnknownGrowthError
from axis_path.core.locate.limits.nearing import Approaching

_MOST_ORDER = 6


@dataclass(frozen=True, slots=True)
class Tail:
    """An integral from an end to infinity.

    Attributes:
        integral: a ball that holds it; None if it diverges.
        sign: of the function out there, where that is known.
    """

    integral: arb | None
    sign: int | None = None


def tail_of(function: RealFunction, far: arb) -> Tail | None:
    """Return the integral of a smooth function from an end above 1 to infinity.

    Called inside ``precision``.

    Args:
        function: smooth beyond the end; its own domain is not looked at.
        far: a ball that holds the end.

    Returns:
        None if neither its size nor that it diverges is known.
    """
    growth_rate = growth(function, float_below(far.lower()))
    return None if growth_rate is None else _tail(growth_rate.monomial, growth_rate.factor, far)


def tail_near(nearing: Approaching, hull: Ball, far: arb) -> Tail | None:
    """Return the integral of a branch over a sliver beside a place where it has no value.

    Args:
        nearing: the branch and the place.
        hull: the sliver.
        far: a ball that holds the inverse of its width.

    Returns:
        None if neither its size nor that it diverges is known.
    """
    growth_rate = growth_near(nearing, nearing.branch, hull, far)
    if growth_rate is None or growth_rate.sign is None:
        return None
    return _tail(growth_rate.monomial.times(Monomial(p=Rate.of(-2))), growth_rate.factor, far)


def _tail(monomial: Monomial, factor: arb, far: arb) -> Tail | None:
    sign = 1 if bool(factor > 0) else -1 if bool(factor < 0) else None
    try:
        size = _integral(monomial, far)
    except UnknownGrowthError:
        return None
    if size is None:
        return None if sign is None else Tail(None, sign)
    return Tail(size * factor, sign) if size.is_finite() and factor.is_finite() else None


def _integral(monomial: Monomial, far: arb) -> arb | None:
    """Return the integral of a monomial from an end to infinity; None if it diverges.

    Raises:
        UnknownGrowthError: that is not known.
    """
    leading = next((rate for _, rate in sorted(monomial.q.items(), reverse=True)), ZERO)
    if leading.sign():
        if leading.sign() > 0:
            return None
        # (ln m)' is at most b x^(k - 1), and so at most b X^(k - 1) for k of 1 and more.
        degree, bound = monomial.steepness(far)
        slope = bound * far ** (degree - 1)
        if not bool(slope < 0):
            raise UnknownGrowthError
        return arb(0).union((monomial.at(far) / -slope).upper())
    above = monomial.p.plus(Rate.of(1))
    if above.sign() > 0 or (above.sign() == 0 and monomial.r.plus(Rate.of(1)).sign() >= 0):
        return None
    if above.sign() == 0:
        # The integral of (ln x)^r/x.
        return -(far.log() ** (monomial.r.value + 1)) / (monomial.r.value + 1)
    exponent = above.value
    if monomial.r.sign() == 0:
        return -(far**exponent) / exponent
    if monomial.r.sign() < 0:
        return arb(0).union((-(far**exponent) / exponent * far.log() ** monomial.r.value).upper())
    # (ln x)^r x^(-c) falls once ln x is above r/c; half of the exponent is spent on it.
    half = -exponent / 2
    if not bool(far.log() > monomial.r.value / half):
        raise UnknownGrowthError
    bound = far.log() ** monomial.r.value * far**-half * far ** (exponent + half) / half
    return arb(0).union(bound.upper())


def bound_near(nearing: Approaching, function: RealFunction, hull: Ball) -> arb | None:
    """Return an interval for a quotient beside a place where top and bottom vanish together.

    By Taylor's theorem top and bottom are their first derivatives that do not vanish, somewhere
    between, times the same power of the distance.

    Args:
        nearing: the place.
        function: a branch, or the slope of one; smooth beside the place.
        hull: all from the place to the end of a sliver.
    """
    branches = nearing.branches
    try:
        parts = branches.quotient(function)
        if parts is None:
            return None
        top, bottom = parts
        for _ in range(_MOST_ORDER):
            below = bottom.prove(hull)
            if not (below.is_defined and below.value.is_finite()):
                return None
            if below.excludes_zero():
                above = top.prove(hull)
                ratio = above.value / below.value
                return ratio if above.is_defined and ratio.is_finite() else None
            values = [nearing.value(function) for function in (top, bottom)]
            if not all(value.exact is not None and value.exact == 0 for value in values):
                return None
            top, bottom = branches.derivative(top), branches.derivative(bottom)
    except (LimitError, NotHandledError):
        pass
    return None

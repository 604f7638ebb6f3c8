"""How a function grows beside a place where it has no value.

With u = 1/|x - a| the place is far out, and what is known of growth there (``growth.py``) holds.
"""

from __future__ import annotations

from flint import arb

from axis_path.core.arithmetic import Ball
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction, prove_steps
from axis_path.core.locate.cells import float_below
from axis_path.core.locate.limits.growth import FarOut, Growth
from axis_path.core.locate.limits.monomial import Polynomial, Rate, UnknownGrowthError
from axis_path.core.locate.limits.nearing import Approaching

_MOST_ORDER = 6


def growth_near(
    nearing: Approaching, function: RealFunction, hull: Ball, far: arb
) -> Growth | None:
    """Return how a function grows beside a place, in u = 1/|x - a|.

    Args:
        nearing: the place.
        function: of its branches, smooth beside it.
        hull: all from the place to where that is known to hold.
        far: a ball that holds the inverse of its width.

    Returns:
        None if it is not known.
    """
    try:
        rate = _of(nearing, function, hull, far)
        if rate is not None and rate.sign is not None:
            return rate
        parts = nearing.branches.quotient(function)
        sides = [_of(nearing, part, hull, far) for part in parts or ()]
    except (LimitError, NotHandledError):
        return None
    if len(sides) != 2 or sides[0] is None or sides[1] is None or sides[1].sign is None:
        return rate
    top, bottom = sides[0], sides[1]
    return Growth(top.monomial.over(bottom.monomial), top.factor / bottom.factor)


def _of(nearing: Approaching, function: RealFunction, hull: Ball, far: arb) -> Growth | None:
    """Return how a function grows beside a place, in u = 1/|x - a|."""
    abscissa, side = nearing.abscissa, Rate.of(nearing.side)
    variable = {-1: side}
    if not abscissa.value.is_zero():
        variable[0] = Rate(abscissa.value, abscissa.exact)
    seeds = _zeros_near(nearing, function, hull)
    try:
        result = FarOut(function, arb(float_below(far.lower())), variable, seeds).result()
    except UnknownGrowthError:
        return None
    return result if result.factor.is_finite() else None


def _zeros_near(nearing: Approaching, function: RealFunction, hull: Ball) -> dict[int, Polynomial]:
    """Return the steps that are exactly zero at the place, as powers of the distance from it.

    By Taylor's theorem a step with n - 1 derivatives that vanish is (x - a)^n/n! times its next
    one, somewhere between.
    """
    branches = nearing.branches
    known = branches.known(nearing.abscissa, nearing.zeros)
    there = prove_steps(function, nearing.abscissa)
    polynomials: dict[int, Polynomial] = {}
    for position, (index, value) in enumerate(zip(there.indices, there.values, strict=True)):
        if not (value.exact == 0 or known.is_zero(index, value)):
            continue
        step = branches.of(index)
        for order in range(1, _MOST_ORDER + 1):
            step = branches.derivative(step)
            if nearing.value(step).excludes_zero():
                slope = step.prove(hull)
                if slope.is_defined and slope.value.is_finite():
                    factor = slope.value * nearing.side**order / arb(order).fac()
                    polynomials[position] = {-order: Rate(factor)}
                break
    return polynomials

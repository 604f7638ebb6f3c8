"""Zeros on the whole line: of polynomials, of periodic functions, and of what has no zeros far out.

A polynomial has all its zeros within Cauchy's bound. A periodic function is searched over one
period, and its zeros are families. For any other function the far ends are excluded, if they can
be, by what it does there: its values keep away from zero, or it rises where it is positive and
falls where it is negative.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

import numpy as np
from flint import arb, fmpq

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.arithmetic.conversion import fraction_of
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Multiple, RealFunction, Workshop, multiple_of_pi, period
from axis_path.core.locate.cells import Interval
from axis_path.core.locate.finding import Findings
from axis_path.core.locate.polynomial import as_polynomial
from axis_path.core.locate.verdict import ZEROS, Words
from axis_path.core.locate.zeros import SEARCH_BITS, find_zeros

#: Where no bound is known, this far to both sides is searched.
FAR = 1_000


@dataclass(frozen=True, slots=True)
class Everywhere:
    """What was found on the whole line.

    Attributes:
        findings: in one period of a periodic function, else all that were found.
        interval: what was searched.
        period: of a periodic function, else None.
        period_text: as it is written, ``2π``.
    """

    findings: Findings
    interval: Interval
    period: Ball | None = None
    period_text: str = ""


def find_everywhere(function: RealFunction, words: Words = ZEROS) -> Everywhere:
    """Locate the zeros of a function without bounds.

    Args:
        function: its own domain is respected.
        words: what they are called in sentences.
    """
    with precision(SEARCH_BITS):
        polynomial = as_polynomial(function, function.expression)
        if polynomial is not None and polynomial.degree() < 0:
            span = Interval(ball.from_fraction(-FAR), ball.from_fraction(FAR))
            note = f"It is {'zero' if words is ZEROS else 'true'} for every {function.variable}."
            always = Findings((), complete=False, note=note, holds_always=True)
            return Everywhere(always, span)
        if polynomial is not None:
            span, _ = reach_of([function])
            return Everywhere(find_zeros(function, span, words=words), span)
        found = period(function.expression.program, function.parameters)
        if found is not None and function.low is None and function.high is None:
            length, text = _length(found)
            span = Interval(ball.from_fraction(0), length, high_closed=False)
            return Everywhere(find_zeros(function, span, words=words), span, length, text)
        span = Interval(ball.from_fraction(-FAR), ball.from_fraction(FAR))
        findings = find_zeros(function, span, words=words)
        open_ends = [side for side in (-1, 1) if not _is_without(function, side)]
        if open_ends:
            beyond = " and ".join(
                f"{'below −' if side < 0 else 'above '}{FAR:,}" for side in open_ends
            )
            note = f"Whether there are more {beyond} is not decided."
            findings = Findings(
                findings.items, complete=False, note=f"{findings.note} {note}".strip()
            )
        return Everywhere(findings, span)


def reach_of(functions: Sequence[RealFunction]) -> tuple[Interval, tuple[bool, bool]]:
    """Give an interval outside of which, below and above, no function changes its sign or breaks.

    Returns:
        The interval, and for both sides whether that is proved.
    """
    with precision(SEARCH_BITS):
        polynomials = [as_polynomial(each, each.expression) for each in functions]
        if all(each is not None for each in polynomials):
            known = [each for each in polynomials if each is not None and each.degree() > 0]
            reach = max(map(_cauchy, known), default=Fraction(1))
            return Interval(ball.from_fraction(-reach), ball.from_fraction(reach)), (True, True)
        span = Interval(ball.from_fraction(-FAR), ball.from_fraction(FAR))
        low, high = (all(_is_without(each, side) for each in functions) for side in (-1, 1))
        return span, (low, high)


def _cauchy(polynomial: object) -> Fraction:
    """Give a bound of all zeros: 1 + max |a_k/a_n| (Cauchy), a little more."""
    top: fmpq = polynomial[polynomial.degree()]  # type: ignore[index, attr-defined]
    ratios = [abs(polynomial[k] / top) for k in range(polynomial.degree())]  # type: ignore[index, attr-defined]
    most = max(ratios, default=fmpq(0))
    return Fraction(int(most.p), int(most.q)) + 2


def _length(found: Multiple) -> tuple[Ball, str]:
    part = fmpq(found.part.numerator, found.part.denominator)
    if found.power == 1:
        return Ball(arb.pi() * arb(part), turns=part), multiple_of_pi(found.part)
    if found.power == 0:
        return ball.from_fraction(found.part), str(found.part)
    value = arb.pi() ** found.power * arb(part)
    return Ball(value), str(fraction_of(value.mid()))


def _is_without(function: RealFunction, side: int) -> bool:
    """Tell whether a function is proved to have no zero beyond the far end on one side."""
    workshop = Workshop(function)
    if not workshop.is_known:
        return False
    end = ball.from_fraction(side * FAR)
    domain_end = function.high if side > 0 else function.low
    if domain_end is not None:
        return bool(abs(domain_end.value.value) <= FAR)
    for edge in workshop.edges:
        bounds = _bounds(edge.function, side)
        if bounds is None or (bounds[0] <= 0 <= bounds[1]):
            return False
    branch = workshop.branch(workshop.function, Ball(end.value * arb(1.5)))
    try:
        for factor in branch.expression.factors(through_pieces=True):
            each = workshop.of(factor.step)
            if not _keeps_away(workshop, each, end, side):
                return False
    except (LimitError, NotHandledError):
        return False
    return True


def _keeps_away(workshop: Workshop, factor: RealFunction, end: Ball, side: int) -> bool:
    polynomial = as_polynomial(factor, factor.expression)
    if polynomial is not None and polynomial.degree() >= 0:
        return polynomial.degree() == 0 or _cauchy(polynomial) < FAR
    derived = factor
    for _ in range(4):
        bounds = _bounds(derived, side)
        if bounds is not None and not bounds[0] <= 0 <= bounds[1]:
            # A derivative keeps its sign; the ones before it must start out with the same.
            return _goes_away(workshop, factor, derived, end, side, 1 if bounds[0] > 0 else -1)
        derived = workshop.derivative(derived)
    return False


def _goes_away(
    workshop: Workshop, factor: RealFunction, derived: RealFunction, end: Ball, side: int, sign: int
) -> bool:
    """Tell whether a function and its derivatives before one that keeps its sign all go its way."""
    each, order = factor, 0
    chain = [factor]
    while each.expression.step != derived.expression.step:
        each = workshop.derivative(each)
        chain.append(each)
    for order, function in enumerate(reversed(chain[:-1]), start=1):
        # To the left every derivative turns the way around once more.
        wanted = sign * (side**order)
        if function.prove(end).sign() != wanted:
            return False
    return True


def _bounds(function: RealFunction, side: int) -> tuple[float, float] | None:
    """Enclose a function beyond the far end; None if it is not known to have values all along."""
    ends = np.array([float(FAR)]), np.array([np.inf])
    low, high = ends if side > 0 else (-ends[1], -ends[0])
    found = function.enclose(low, high)
    if np.isnan(found.low[0]) or np.isnan(found.high[0]):
        return None
    return float(found.low[0]), float(found.high[0])

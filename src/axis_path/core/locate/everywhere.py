"""Zeros on the whole line: of polynomials, of periodic functions, and of what has no zeros far out.

A polynomial has all its zeros within Cauchy's bound. A periodic function is searched over one
period, and its zeros are families. For any other function the far ends are excluded, if they can
be, by what it does there: its values keep away from zero, or it rises where it is positive and
falls where it is negative.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from flint import arb, fmpq

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.arithmetic.conversion import fraction_of, to_fraction
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Branches, Multiple, RealFunction, multiple_of_pi, period
from axis_path.core.locate.algebra.exact import ball_of, written
from axis_path.core.locate.algebra.polynomial import as_polynomial
from axis_path.core.locate.cells import Interval
from axis_path.core.locate.finding import Findings
from axis_path.core.locate.limits.outside import Outside, cauchy_bound
from axis_path.core.locate.search.verdict import ZEROS, Words
from axis_path.core.locate.search.zeros import SEARCH_BITS, find_zeros

#: Where no bound is known, this far to both sides is searched.
FAR = 1_000
#: Ends beyond which a function may be proved to have no zeros; the first that does is taken.
_ENDS = (FAR, 10**6, 10**12, 10**24)


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
            always = Findings((), complete=False, note=note, holds_always=True, along=note)
            return Everywhere(always, span)
        if polynomial is not None:
            span, _ = reach_of([function])
            return Everywhere(find_zeros(function, span, words=words), span)
        repeats = period_of(function)
        if repeats is not None:
            length, text = repeats
            span = Interval(ball.from_fraction(0), length, high_closed=False)
            findings = find_zeros(function, span, words=words)
            if findings.along:
                findings = _along_the_line(function, span, findings, words, text)
            return _with_shortest_period(Everywhere(findings, span, length, text))
        span, is_all = reach_of([function])
        findings = find_zeros(function, span, words=words)
        open_ends = [side for side, sure in zip((-1, 1), is_all, strict=True) if not sure]
        if open_ends:
            beyond = " and ".join(
                f"{'below −' if side < 0 else 'above '}{FAR:,}" for side in open_ends
            )
            note = f"Whether there are more {beyond} is not decided."
            findings = Findings(
                findings.items, complete=False, note=f"{findings.note} {note}".strip()
            )
        return Everywhere(findings, span)


def _along_the_line(
    function: RealFunction, span: Interval, findings: Findings, words: Words, period: str
) -> Findings:
    """Extend findings of one period that hold on intervals to the whole line."""
    endless = replace(span, high_closed=True, low_goes_on=True, high_goes_on=True)
    whole = find_zeros(function, endless, words=words)
    if whole.along == f"{words.holds} for every {function.variable}.":
        return whole
    along = f"{findings.along} This repeats: any whole multiple of {period} may be added."
    return replace(findings, along=along, note=findings.note.replace(findings.along, along))


def reach_of(functions: Sequence[RealFunction]) -> tuple[Interval, tuple[bool, bool]]:
    """Return an interval outside of which, below and above, no function changes its sign or breaks.

    Returns:
        The interval, and for both sides whether that is proved.
    """
    with precision(SEARCH_BITS):
        polynomials = [as_polynomial(function, function.expression) for function in functions]
        if all(polynomial is not None for polynomial in polynomials):
            known = [
                polynomial
                for polynomial in polynomials
                if polynomial is not None and polynomial.degree() > 0
            ]
            reach = max(map(cauchy_bound, known), default=Fraction(1))
            return Interval(ball.from_fraction(-reach), ball.from_fraction(reach)), (True, True)
        low, high = (_end(functions, side) for side in (-1, 1))
        ends = (ball.from_fraction(-low.at), ball.from_fraction(high.at))
        goes_on = (low.is_zero, high.is_zero)
        return Interval(*ends, True, True, *goes_on), (low.is_sure, high.is_sure)


@dataclass(frozen=True, slots=True)
class _End:
    """Where to search no farther on one side.

    Attributes:
        is_sure: whether no function is proved to change its sign or break beyond it.
        is_zero: whether the one function is zero all along beyond it.
    """

    at: int
    is_sure: bool = True
    is_zero: bool = False


def _end(functions: Sequence[RealFunction], side: int) -> _End:
    for end in _ENDS:
        if all(_is_without(function, side, end) for function in functions):
            return _End(end)
        if len(functions) == 1 and _is_zero_beyond(functions[0], side, end):
            return _End(end, is_zero=True)
    return _End(FAR, is_sure=False)


def _is_zero_beyond(function: RealFunction, side: int, end: int) -> bool:
    if (function.high if side > 0 else function.low) is not None:
        return False
    outside = Outside(Branches(function), side, float(end))
    return outside.is_one_branch() and outside.is_zero()


def _with_shortest_period(everywhere: Everywhere) -> Everywhere:
    """Return zeros that repeat within a period of the function with their own, shorter period."""
    period, findings = everywhere.period, everywhere.findings
    if period is None or not findings.complete or len(findings) < 2:
        return everywhere
    parts = [_part_of(ball_of(item.exact, *item.bracket), period) for item in findings]
    known = {part for part in parts if part is not None}
    if len(known) < len(parts):
        return everywhere
    count = len(parts)
    times = next(
        k
        for k in range(count, 0, -1)
        if count % k == 0 and {(part + Fraction(1, k)) % 1 for part in known} == known
    )
    if times == 1:
        return everywhere
    first = tuple(
        item
        for item, part in zip(findings, parts, strict=True)
        if part is not None and part < Fraction(1, times)
    )
    length = ball.divide(period, ball.from_fraction(times))
    text = written(length) or everywhere.period_text
    span = Interval(everywhere.interval.low, length, high_closed=False)
    return Everywhere(replace(findings, items=first), span, length, text)


def _part_of(abscissa: Ball, period: Ball) -> Fraction | None:
    """Return which part of a period a place is; None if it is not known exactly."""
    if abscissa.exact is not None and abscissa.exact == 0:
        return Fraction(0)
    part = ball.divide(abscissa, period).exact
    return None if part is None else to_fraction(part)


def period_of(function: RealFunction) -> tuple[Ball, str] | None:
    """Return the period of a function without ends, as a number and as it is written."""
    if function.low is not None or function.high is not None:
        return None
    length = period(function.expression.program, function.parameters)
    if length is None:
        return None
    with precision(SEARCH_BITS):
        return _length(length)


def _length(multiple: Multiple) -> tuple[Ball, str]:
    part = fmpq(multiple.part.numerator, multiple.part.denominator)
    if multiple.power == 1:
        return Ball(arb.pi() * arb(part), turns=part), multiple_of_pi(multiple.part)
    if multiple.power == 0:
        return ball.from_fraction(multiple.part), str(multiple.part)
    value = arb.pi() ** multiple.power * arb(part)
    return Ball(value), str(fraction_of(value.mid()))


def _is_without(function: RealFunction, side: int, end: int) -> bool:
    """Check whether a function is proved to have no zero, and no break, beyond a far end."""
    domain_end = function.high if side > 0 else function.low
    if domain_end is not None:
        return bool(domain_end.value.value * side <= end)
    branches = Branches(function)
    outside = Outside(branches, side, float(end))
    if not outside.is_one_branch():
        return False
    beyond = ball.from_fraction(side * Fraction(end) * 3 / 2)
    branch = branches.branch(branches.function, beyond)
    if branch.prove(beyond).defined is Defined.NO:
        return True
    try:
        factors = branch.expression.factors(through_pieces=True)
        return all(outside.keeps_away(branches.of(factor.step)) for factor in factors)
    except (LimitError, NotHandledError):
        return False

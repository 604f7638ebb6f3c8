"""Sums, products and integrals with proof, over balls.

An integral is computed by following the integrand into the complex plane, where it is analytic, and
by halving the interval where it is not; the ends of inner domains and pieces are cut first.

Source: Johansson, *Numerical integration in arbitrary-precision ball arithmetic*, 2018.
"""

from __future__ import annotations

from itertools import pairwise

import flint
from flint import acb, arb, fmpq

from axis_path.core.arithmetic import Ball, Defined, analytic, ball
from axis_path.core.errors import LimitError, MathError, NotHandledError
from axis_path.core.evaluate.backends.complex import Complex, is_finite
from axis_path.core.evaluate.backends.summaries import WatchingBackend
from axis_path.core.evaluate.graph.graph import Inner
from axis_path.core.evaluate.graph.program import run_inner
from axis_path.core.language.tree import Summary
from axis_path.core.limits import SUM_TERMS, written_count

_ENDS_REASON = "a sum between ends that are not whole"
_OPEN_REASON = "an integral over a place without a value"
#: How often an integral may evaluate its body for each binary digit, and how deep it is halved.
_EVALUATIONS_PER_BIT, _DEPTH_PER_BIT = 24, 2
#: So many times as often where few bits are wanted.
_MORE = 3
#: An end or a captured value with fewer right bits than this is an interval, not a number.
_POINT_BITS = 40
#: A body that may lack a value is looked at in so many cells; narrower ones do not count.
_CELLS, _NARROWEST = 400, 2.0**-40
#: The panels on which a body that captures an interval is enclosed.
_PANELS = 16


def _too_many(count: int) -> LimitError:
    return LimitError(
        f"A sum of {written_count(count)} terms is too long; {SUM_TERMS.value:,} can be added."
    )


def proving(
    backend: WatchingBackend[Ball],
    inner: Inner,
    low: Ball,
    high: Ball,
    captured: list[Ball],
    wanted_bits: int | None = None,
) -> Ball:
    """Return the ball of a sum, product or integral.

    Args:
        backend: the arithmetic of balls.
        inner: what is added up or integrated.
        low: where to begin.
        high: where to end.
        captured: what the body takes from outside.
        wanted_bits: how many right bits an integral needs; None for as many as can be had.
    """
    for source in (low, high):
        if source.defined is Defined.NO:
            return source
    if inner.summary is Summary.INTEGRAL:
        return _proved_integral(backend, inner, low, high, captured, wanted_bits)
    if low.exact is None or high.exact is None:
        if all(bool(end.value.contains_integer()) for end in (low, high)):
            unknown = ball.made(ball.whole_line(), low, high)
            return ball.limited(unknown, Defined.MAYBE, _ENDS_REASON, continuous=False)
        return ball.undefined(_ENDS_REASON)
    if low.exact.q != 1 or high.exact.q != 1:
        return ball.undefined(_ENDS_REASON)
    first, last = int(low.exact.p), int(high.exact.p)
    if last - first >= SUM_TERMS.value:
        raise _too_many(last - first + 1)
    is_sum = inner.summary is Summary.SUM
    result = ball.from_fraction(0 if is_sum else 1)
    combine = ball.add if is_sum else ball.multiply
    for k in range(first, last + 1):
        result = combine(result, run_inner(inner, backend, captured, ball.from_fraction(k)))
        if result.defined is Defined.NO:
            return result
    return result


def _is_point(value: arb) -> bool:
    return bool(value.is_exact()) or value.rel_accuracy_bits() >= _POINT_BITS


def _proved_integral(
    backend: WatchingBackend[Ball],
    inner: Inner,
    low: Ball,
    high: Ball,
    captured: list[Ball],
    wanted_bits: int | None,
) -> Ball:
    """Integrate between the middles of the ends; what the ends are wide adds its own range."""
    worst = min((low, high, *captured), key=lambda item: item.defined)
    if not (low.value.is_finite() and high.value.is_finite()):
        unknown = ball.made(ball.whole_line(), low, high)
        return ball.limited(unknown, Defined.MAYBE, _OPEN_REASON, continuous=False)
    if low.exact is not None and high.exact is not None and low.exact == high.exact:
        # An integral over no length is 0, wherever its body has a value.
        body = run_inner(inner, backend, captured, low)
        return ball.made(arb(0), body, low, high, exact=fmpq(0))
    turned = bool(high.value < low.value)
    if turned:
        low, high = high, low
    ends = [
        end if end.exact is not None or _is_point(end.value) else Ball(end.value.mid())
        for end in (low, high)
    ]
    checked = _checked(backend, inner, (low.value.lower(), high.value.upper()), captured)
    if checked.defined is Defined.NO:
        return checked
    if any(run_inner(inner, backend, captured, end).defined is Defined.NO for end in ends):
        # No cell beside such an end has a range: halving it would only take time.
        unknown = ball.made(ball.whole_line(), low, high)
        return ball.limited(unknown, Defined.MAYBE, _OPEN_REASON, continuous=False)
    if all(_is_point(end.value) for end in captured):
        value = _on_intervals(backend, inner, ends, captured, wanted_bits)
    else:
        value = _by_range(backend, inner, ends, captured)
    for end, middle, side in ((low, ends[0], -1), (high, ends[1], 1)):
        if value is not None and end is not middle:
            values = run_inner(inner, backend, captured, end)
            value += side * values.value * (end.value - middle.value)
    if value is None or value.is_nan() or not value.is_finite():
        unknown = ball.made(ball.whole_line(), low, high)
        return ball.limited(unknown, Defined.MAYBE, _OPEN_REASON, continuous=False)
    result = Ball(-value if turned else value)
    defined = min(worst.defined, checked.defined)
    return ball.limited(result, defined, worst.reason or checked.reason)


def _checked(
    backend: WatchingBackend[Ball], inner: Inner, ends: tuple[arb, arb], captured: list[Ball]
) -> Ball:
    """Look where the body has a value: on all of the interval, or not at some place inside."""
    low, high = ends
    hull = Ball(low.union(high))
    if bool(low >= high):
        return hull
    waiting, left = [(low, high)], _CELLS
    length = high - low
    while waiting:
        start, stop = waiting.pop()
        left -= 1
        values = run_inner(inner, backend, captured, Ball(start.union(stop)))
        if values.defined is Defined.NO:
            return values
        if values.defined is Defined.YES:
            continue
        middle = ((start + stop) / 2).mid()
        if left < 0 or bool(stop - start < length * _NARROWEST):
            at_middle = run_inner(inner, backend, captured, Ball(middle))
            if at_middle.defined is Defined.NO and not bool(stop - start < length * _NARROWEST):
                return at_middle
            if left < 0:
                return ball.limited(hull, Defined.MAYBE, values.reason or _OPEN_REASON)
            continue
        waiting += [(middle, stop), (start, middle)]
    return hull


def _on_intervals(
    backend: WatchingBackend[Ball],
    inner: Inner,
    ends: list[Ball],
    captured: list[Ball],
    wanted_bits: int | None,
) -> arb | None:
    """Integrate from cut to cut, through the complex plane."""
    hull = Ball(ends[0].value.union(ends[1].value))
    noting = backend.watching(hull)
    run_inner(inner, noting, captured, hull)
    inside = [
        cut
        for cut in noting.ends
        if bool(cut.value > ends[0].value) and bool(cut.value < ends[1].value)
    ]
    inside.sort(key=lambda cut: cut.value.mid())
    knots = [ends[0], *inside, ends[1]]
    total = arb(0)
    for start, stop in pairwise(knots):
        width = stop.value - start.value
        if width.contains(0):
            if not width.is_zero() and len(knots) > 2 and start.value.overlaps(stop.value):
                continue
            if width.is_zero():
                continue
        part = _on_interval(inner, start, stop, captured, wanted_bits)
        if part is None:
            return None
        total += part
    return total


def _on_interval(
    inner: Inner, start: Ball, stop: Ball, captured: list[Ball], wanted_bits: int | None
) -> arb | None:
    middle = Ball(((start.value + stop.value) / 2).mid())
    outside = [acb(end.value) for end in captured]

    raised: list[MathError] = []

    def body(z: acb, flag: bool) -> acb:
        # Nothing may be raised through the library: it is remembered, and the rest left out.
        if raised:
            return analytic.nothing()
        try:
            backend = Complex(analytic=bool(flag), bound=z, abscissa=middle)
            value = run_inner(inner, backend, outside, z)
        except MathError as err:
            raised.append(err)
            return analytic.nothing()
        return value if is_finite(value) else analytic.nothing()

    bits = flint.ctx.prec

    def attempt(aim: int, evaluations: int) -> acb:
        return acb.integral(
            body, acb(start.value), acb(stop.value), rel_tol=arb(2) ** -aim,
            abs_tol=arb(2) ** -aim, eval_limit=evaluations * bits,
            depth_limit=_DEPTH_PER_BIT * bits,
        )  # fmt: skip

    # Few bits are worth more evaluations for each: none would be left over for what is shown.
    integral = attempt(wanted_bits or bits, (_MORE if wanted_bits else 1) * _EVALUATIONS_PER_BIT)
    enough = max(abs(integral.real).upper(), arb(1)) * arb(2) ** -(bits // 2)
    if not raised and wanted_bits is None and not bool(integral.real.rad() < enough):
        # About a kink, a root or a pole that is near the evaluations run out long before all
        # bits are there. Half of them are far more than what is shown.
        integral = attempt(bits // 2, _MORE * _EVALUATIONS_PER_BIT)
    if raised and not isinstance(raised[0], NotHandledError):
        raise raised[0]
    if raised:
        return None
    if not is_finite(integral) or not integral.imag.contains(0):
        return None
    return integral.real


def _by_range(
    backend: WatchingBackend[Ball], inner: Inner, ends: list[Ball], captured: list[Ball]
) -> arb | None:
    """Enclose by the range of the body on equal panels, where what it captures is not a number."""
    width = (ends[1].value - ends[0].value) / _PANELS
    total = arb(0)
    for panel in range(_PANELS):
        start = ends[0].value + width * panel
        values = run_inner(inner, backend, captured, Ball(start.union(start + width)))
        total += values.value * width
    return total

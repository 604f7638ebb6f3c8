"""Breaks of a drawn curve: holes, which become rings, and vertical asymptotes, which get guides.

Both are shown only where the function is proved to have no value: at a simple number, or a simple
multiple of pi, in the gap between two pieces of its curve.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise

import numpy as np
from flint import arb

from axis_path.core.arithmetic import Ball, Defined, precision
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.draw import Curve, Window
from axis_path.core.evaluate import VALUE_BITS, Branches, RealFunction
from axis_path.core.evaluate.graph.graph import Op
from axis_path.core.locate import candidates
from axis_path.core.threads import SharedCache

#: Wider gaps are intervals without values, in px; and more gaps than this are not looked at.
_WIDEST_PX, _MOST = 0.2, 60
#: A curve whose ends differ by less goes on behind a hole, in px.
_SAME_PX = 1.0
#: A curve that has left the window by so many of its heights beside a gap goes on to infinity.
_FAR = 20.0
_CHOOSING = frozenset({Op.PIECES, Op.WITHIN, Op.GUARD})
#: Breaks stay where they are while the window moves: simple places in gaps are stored by the
#: function, and whether it has no value there.
_known: SharedCache[tuple[object, ...], tuple[tuple[float, bool], ...]] = SharedCache(256)


@dataclass(frozen=True, slots=True)
class Breaks:
    """What stands in the gaps of a curve, in axis units.

    Attributes:
        holes: (x, y) of points that are missing in an otherwise unbroken curve.
        poles: the x of vertical asymptotes.
    """

    holes: list[tuple[float, float]]
    poles: list[float]


def breaks_of(function: RealFunction, curve: Curve, window: Window) -> Breaks:
    """Find the holes and poles in the gaps between the pieces of a curve."""
    result = Breaks([], [])
    pieces = sorted(curve.pieces, key=lambda piece: float(piece[0, 0]))
    gaps = np.array([(before[-1], after[0]) for before, after in list(pairwise(pieces))[:_MOST]])
    if not len(gaps):
        return result
    across, down = window.across(gaps[..., 0]), window.down(gaps[..., 1])
    settled = _settled(function)
    height = window.y[1] - window.y[0]
    floor, top = window.y[0] - _FAR * height, window.y[1] + _FAR * height
    for ((low, one), (high, other)), (left, right), ends in zip(
        gaps.tolist(), across.tolist(), down.tolist(), strict=True
    ):
        if not 0 <= right - left <= _WIDEST_PX:
            continue
        abscissa = _undefined_abscissa(function, low, high, settled)
        if abscissa is None:
            continue
        if abs(ends[1] - ends[0]) < _SAME_PX:
            result.holes.append((abscissa, (one + other) / 2))
        elif any(not floor <= y <= top for y in (one, other)):
            result.poles.append(abscissa)
    return result


def _settled(function: RealFunction) -> list[tuple[float, bool]]:
    """Return simple places that were in gaps in earlier states, and whether there is no value now.

    Left out are those of which that is unknown by an enclosure, and does not hold for all sliders.
    """
    abscissae = _abscissae(function)
    if not abscissae or function.without:
        return []
    middles = [(x, True) for x, is_fixed in abscissae.items() if is_fixed]
    xs = np.array([x for x, is_fixed in abscissae.items() if not is_fixed])
    if len(xs):
        values = function.enclose(xs, xs)
        sure = ~(values.partial | values.nowhere)
        middles += [(x, False) for x in xs[sure].tolist()]
    return middles


def _abscissae(function: RealFunction) -> dict[float, bool]:
    """Return the simple places in gaps, and of each whether it has no value for any sliders."""
    spans: dict[float, bool] = function.expression.cached(
        "places in gaps", dict, lambda spans: len(spans) <= _MOST
    )
    return spans


def _is_fixed(function: RealFunction, abscissa: Ball) -> bool:
    """Check whether an operation that depends on no slider lacks a value at a place.

    In a function of pieces the operation may belong to another piece.
    """
    steps = function.expression.program.steps
    return not any(step.op in _CHOOSING for step in steps) and any(
        edge.is_gap
        and not edge.function.expression.program.parameters
        and edge.function.prove(abscissa).sign() == 0
        for edge in Branches(function).edges
    )


def _undefined_abscissa(
    function: RealFunction, low: float, high: float, settled: list[tuple[float, bool]]
) -> float | None:
    """Return a simple number between two floats at which there is proved to be no value."""
    key = function.key()
    for known, is_undefined in (*settled, *_known.get(key, ())):
        if low <= known <= high:
            return known if is_undefined else None
    abscissa = None
    with precision(VALUE_BITS):
        for candidate, _ in candidates(arb(low), arb(high)):
            abscissa = float(np.clip(float(candidate.value.mid()), low, high))
            is_undefined = function.prove_within(candidate).defined is Defined.NO
            if candidate.exact is not None and Fraction(abscissa) == to_fraction(candidate.exact):
                _abscissae(function)[abscissa] = is_undefined and _is_fixed(function, candidate)
            if is_undefined:
                _remember(key, abscissa, is_undefined=True)
                return abscissa
    if abscissa is not None:
        _remember(key, abscissa, is_undefined=False)
    return None


def _remember(key: tuple[object, ...], abscissa: float, *, is_undefined: bool) -> None:
    _known.put(key, (*_known.get(key, ()), (abscissa, is_undefined))[-_MOST:])

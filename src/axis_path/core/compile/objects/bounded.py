"""Results of what is not computed more finely: floats with error bounds."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from fractions import Fraction

from axis_path.core.arithmetic import Ball
from axis_path.core.arithmetic.bounded.pairs import Entries, sides
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar
from axis_path.core.arithmetic.conversion import fraction_of
from axis_path.core.compile.objects.entries import (
    exact_complex,
    floats_of,
    shown_indices,
    shown_shape,
)
from axis_path.core.evaluate import ExactForm, Result, make_complex, make_point
from axis_path.core.evaluate.bounded_result import LazyParts, make_bounded
from axis_path.core.evaluate.decimals import power_of_ten, shown
from axis_path.core.evaluate.objects.scope import Notes
from axis_path.core.evaluate.objects.values import Coordinates, Value
from axis_path.core.evaluate.result import complex_of, make_array
from axis_path.core.limits import EXACT_SIDE

_TEN = 10
_RAISED = str.maketrans("-0123456789", "⁻⁰¹²³⁴⁵⁶⁷⁸⁹")
_TOO_LARGE = (
    f"Exact work goes up to {EXACT_SIDE.value} by {EXACT_SIDE.value} matrices; this one has no "
    "exact form."
)
#: Up to this power of ten a bound is written in plain digits.
_PLAIN_POWER = 4
#: From this condition number on an inverse is called ill-conditioned.
_ILL_CONDITIONED = 1e6


def bounded_result(value: Value, notes: Notes) -> Result:
    """Return the result of a number, a point, a list or a matrix."""
    remark = remark_of(notes)
    if isinstance(value, Ball):
        return replace(make_bounded(value), remark=_joined(_error_of(value), remark))
    if isinstance(value, ComplexBall):
        return replace(_complex(value), remark=_joined(_error_of(value), remark))
    if isinstance(value, Coordinates):
        return make_point(*(bounded_result(part, notes) for part in (value.first, value.second)))
    shape = shown_shape(value.shape)
    places = shown_indices(value.shape, shape)
    results = LazyParts(
        len(places), lambda index: bounded_result(value.entries[places[index]], notes)
    )
    error = "" if value.bounded is None else _error_of_all(value.bounded)
    return make_array(value.shape, shape, floats_of(value), results, None, _joined(error, remark))


def _complex(value: ComplexBall) -> Result:
    if not value.is_defined:
        return make_complex(lambda bits: value.value, lambda: ExactForm(None))
    exact = value.exact or (None, None)
    real, imaginary = (
        make_bounded(Ball(part, exact=known))
        for part, known in zip((value.value.real, value.value.imag), exact, strict=True)
    )
    return complex_of(real, imaginary, exact_complex(value) or (lambda: ExactForm(None)))


def remark_of(notes: Notes, is_exact: Callable[[], bool] | None = None) -> str:
    """Return what is to be said of how a value was computed; empty if nothing is.

    Args:
        notes: of the value.
        is_exact: checks whether it has an exact form, which can take long; asked only if needed.
    """
    if notes.condition < _ILL_CONDITIONED:
        is_worth_saying = notes.is_too_large and not notes.is_bounded
        return _TOO_LARGE if is_worth_saying and not (is_exact and is_exact()) else ""
    return (
        "The matrix is ill-conditioned: a small change of its entries changes the inverse up to "
        f"{_one_digit(Fraction(notes.condition))} times as much."
    )


def _joined(*sentences: str) -> str:
    return " ".join(filter(None, sentences))


def _error_of(value: Scalar) -> str:
    whole = value.value
    radii = (whole.rad(),) if isinstance(value, Ball) else (whole.real.rad(), whole.imag.rad())
    known = [fraction_of(one) for one in radii] if value.exact is None else []
    radius = max((one for one in known if one is not None), default=None)
    if not radius or not value.is_defined:
        return ""
    return f"Computed in floats, accurate to within {_one_digit(radius)}."


def _error_of_all(entries: Entries) -> str:
    rounded = [part for part in sides(entries) if part.exact is None]
    if not rounded:
        return ""
    greatest = max(part.bounds.greatest() for part in rounded)
    if not greatest or math.isinf(greatest):
        return ""
    error = _one_digit(Fraction(greatest))
    what = "both parts of every entry are" if len(rounded) > 1 else "every entry is"
    return f"Too large for exact work. Computed in floats; {what} accurate to within {error}."


def _one_digit(size: Fraction) -> str:
    """Return a positive number rounded up to one digit."""
    power = power_of_ten(size)
    figure = math.ceil(size / Fraction(10) ** power)
    if figure == _TEN:
        figure, power = 1, power + 1
    if abs(power) <= _PLAIN_POWER:
        return shown(figure * Fraction(10) ** power, 2)
    times = "" if figure == 1 else f"{figure}·"
    return f"{times}10{str(power).translate(_RAISED)}"

"""A result of Working as it is shown: large, beside it, and what else can be chosen."""

from __future__ import annotations

from dataclasses import dataclass, replace
from fractions import Fraction

from axis_path.core.compile.objects.entries import shown_shape
from axis_path.core.evaluate import Result, ResultKind
from axis_path.core.evaluate.number_forms import NumberShape, written_in
from axis_path.core.features.working.queries import WorkingResults, WorkValue
from axis_path.core.features.working.section import ComplexShape
from axis_path.core.language.tree import AngleUnit

#: Small sizes and angles are short enough to stand without brackets.
_SUMS = ("+", "-")
#: So much is shown of a list or a matrix that is too long to stand as a text.
_FIRST_ROWS, _FIRST_COLUMNS = 6, 5


@dataclass(frozen=True, slots=True)
class ShownResult:
    """A result in the form that was chosen for its line.

    Attributes:
        large: the text that stands large.
        large_exact: whether it is an exact form, which is typeset.
        beside: the decimal beside an exact form, or the exact form beside anything else; empty if
            it would say the same.
        is_equal: whether what stands large and what stands beside it are the same number.
        shapes: which shapes there are.
        complex_shapes: which there are of a complex number.
        chosen: the shape of what stands large.
    """

    large: str
    large_exact: bool
    beside: str
    is_equal: bool
    shapes: tuple[NumberShape, ...]
    complex_shapes: tuple[ComplexShape, ...] = ()
    chosen: NumberShape = NumberShape.DECIMAL


def first_entries(result: Result, shape: NumberShape, digits: int) -> list[list[str]]:
    """Return the first rows of a list or a matrix, each with its first entries.

    Args:
        result: a list or a matrix.
        shape: how its entries are written; a decimal where that is not possible.
        digits: how many digits decimals have.
    """
    sides = shown_shape(result.value.shape)
    width = sides[1] if len(sides) > 1 else 1
    rows, columns = min(sides[0], _FIRST_ROWS), min(width, _FIRST_COLUMNS)
    return [
        [_entry(result.parts[row * width + column], shape, digits) for column in range(columns)]
        for row in range(rows)
    ]


def _entry(part: Result, shape: NumberShape, digits: int) -> str:
    return written_in(part, shape, digits) or part.decimal(digits) or "undefined"


def shown_result(
    results: WorkingResults, value: WorkValue, result: Result, digits: int, unit: AngleUnit
) -> ShownResult:
    """Return a result as its line shows it.

    Args:
        results: computes sizes and angles of complex numbers.
        value: the line.
        result: what it gave.
        digits: how many digits its decimals have.
        unit: of angles.

    Raises:
        MathError: a size or an angle cannot be computed.
    """
    if result.number is not None:
        plain = shown_result(results, value, result.number, digits, unit)
        large, beside = map(result.with_unit, (plain.large, plain.beside))
        return replace(plain, large=large, beside=beside)
    shapes = {shape: written_in(result, shape, digits) for shape in NumberShape}
    exact, decimal = shapes[NumberShape.EXACT], shapes[NumberShape.DECIMAL]
    present = tuple(shape for shape, text in shapes.items() if text)
    chosen = value.line.shape if shapes.get(value.line.shape) else _first(exact)
    if result.kind is ResultKind.COMPLEX and not result.reason:
        return _complex(results, value, result, chosen, digits, unit)
    large = shapes[chosen]
    beside = decimal if chosen is NumberShape.EXACT else exact
    same = _plain(beside) == _plain(large)
    is_equal = same or _is_equal(large, beside) or _is_number(result, decimal)
    beside = "" if same else beside
    return ShownResult(large, chosen is NumberShape.EXACT, beside, is_equal, present, chosen=chosen)


def _first(exact: str) -> NumberShape:
    return NumberShape.EXACT if exact else NumberShape.DECIMAL


def _plain(text: str) -> str:
    return text.replace("−", "-").replace(" ", "")


def _is_number(result: Result, decimal: str) -> bool:
    """Check whether a decimal is the very number, as beside a product of prime factors."""
    return result.rational is not None and _is_equal(str(result.rational), decimal)


def _is_equal(one: str, other: str) -> bool:
    """Check whether a decimal is the very fraction that stands beside it."""
    try:
        a, b = (Fraction(_plain(text).replace("·10^", "e")) for text in (one, other))
    except (ValueError, ZeroDivisionError):
        return False
    return a == b


def _complex(
    results: WorkingResults, value: WorkValue, result: Result, chosen: NumberShape, digits: int,
    unit: AngleUnit,
) -> ShownResult:  # fmt: skip
    """Write a complex number by its parts, or by its size and its angle."""
    is_exact = chosen is NumberShape.EXACT
    shape = value.line.complex_shape
    other = NumberShape.DECIMAL if is_exact else NumberShape.EXACT
    present = tuple(
        s for s in (NumberShape.EXACT, NumberShape.DECIMAL) if written_in(result, s, digits)
    )
    texts = {}
    if shape is ComplexShape.RECTANGULAR:
        texts = {s: written_in(result, s, digits) for s in present}
    else:
        size, angle = (results.part(value, name) for name in ("abs", "arg"))
        for one in (NumberShape.EXACT, NumberShape.DECIMAL):
            r, phi = (written_in(part.number or part, one, digits) for part in (size, angle))
            if r and phi:
                texts[one] = _by_angle(r, phi, shape, unit)
    large = texts.get(chosen) or texts.get(other) or ""
    shown_exact = bool(texts.get(chosen)) is is_exact
    beside = texts.get(other, "") if texts.get(chosen) else ""
    return ShownResult(
        large, shown_exact and shape is ComplexShape.RECTANGULAR,
        "" if _plain(beside) == _plain(large) else beside, False, present, tuple(ComplexShape),
    )  # fmt: skip


def _by_angle(size: str, angle: str, shape: ComplexShape, unit: AngleUnit) -> str:
    degrees = "°" if unit is AngleUnit.DEGREES else ""
    if shape is ComplexShape.ANGLE:
        return f"{size} ∠ {angle}{degrees}"
    inner = f"({angle})" if any(sign in angle[1:] for sign in _SUMS) else angle
    return f"{size} e^(i {inner}{degrees})"

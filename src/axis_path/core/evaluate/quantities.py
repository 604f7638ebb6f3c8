"""Results with units: a number of a unit, and what is written behind it."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace
from functools import partial

from axis_path.core.catalogue.units import Dimension, UnitProduct
from axis_path.core.evaluate.exact.exact_pool import ExactForm
from axis_path.core.evaluate.result import Result, ResultKind, make_list, make_point


def quantity_of(number: Result, unit: UnitProduct, dimension: Dimension) -> Result:
    """Return a result with its unit; a plain number stays as it is.

    Args:
        number: the value in that unit: a number, or a list or a matrix of them.
        unit: what its numbers are of.
        dimension: what it measures.
    """
    if not unit.parts:
        return number
    kind = ResultKind.QUANTITY if number.kind is ResultKind.NUMBER else number.kind
    return replace(
        number,
        kind=kind,
        unit=unit.symbol,
        dimension=written_dimension(dimension),
        decimals=partial(_decimal, number, unit.printed),
        find_exact=partial(_exact, number, unit.printed),
        parts=tuple(quantity_of(part, unit, dimension) for part in number.parts),
        number=number,
        attach=partial(with_unit, unit=unit.printed),
    )


def point_with_units(
    point: Result, units: Sequence[UnitProduct], dimensions: Sequence[Dimension]
) -> Result:
    """Return a point, or a list of points, whose coordinates are numbers of two units."""
    if point.kind is ResultKind.POINT:
        first, second = (
            quantity_of(*part) for part in zip(point.parts, units, dimensions, strict=True)
        )
        made = make_point(first, second)
    else:
        parts = tuple(point_with_units(part, units, dimensions) for part in point.parts)
        made = make_list(point.value, parts)
    symbols = [unit.symbol for unit in units]
    written = [written_dimension(dimension) for dimension in dimensions]
    return replace(
        made,
        unit=symbols[0] if symbols[0] == symbols[1] else ", ".join(symbols),
        dimension=written[0] if written[0] == written[1] else ", ".join(written),
    )


def written_dimension(dimension: Dimension) -> str:
    """Return a dimension in base units; an angle beside other units is the number 1."""
    other = dimension.without_angle
    return str(dimension if other.is_plain else other)


def _decimal(number: Result, unit: str, digits: int) -> str:
    text = number.decimal(digits)
    return with_unit(text, unit) if text else text


def _exact(number: Result, unit: str) -> ExactForm:
    text = number.exact
    return ExactForm(None if text is None else with_unit(text, unit), number.exact_note)


def with_unit(text: str, unit: str) -> str:
    """Return a number with a unit behind it, in brackets if it is a sum."""
    if not unit:
        return text
    return f"{f'({text})' if _needs_brackets(text) else text} {unit}"


_FRACTION = re.compile(r"[-−]?[0-9]+/[0-9]+")


def _needs_brackets(text: str) -> bool:
    """Check whether a text is a sum, or a quotient other than a fraction, outside of brackets."""
    if _FRACTION.fullmatch(text):
        return False
    depth = 0
    for index, sign in enumerate(text):
        depth += (sign in "([") - (sign in ")]")
        is_sum = sign in "+-−±" and index > 0 and text[index - 1] == " "
        if depth == 0 and (is_sum or sign == "/"):
            return True
    return False

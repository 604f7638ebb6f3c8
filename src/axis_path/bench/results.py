"""Computed values as the Bench shows them: the exact form and the decimal side by side."""

from __future__ import annotations

import time
from collections.abc import Callable
from fractions import Fraction
from functools import partial
from typing import Any

from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import ExactQuery
from axis_path.core import Result, Study
from axis_path.core.deadline import calculation
from axis_path.core.errors import MathError, StoppedError
from axis_path.core.evaluate import ResultKind
from axis_path.core.language import Vocabulary, read_expression, typeset
from axis_path.core.study import VALUED

#: After so long no more exact forms are looked for in one request; the rest comes with the next.
_EXACT_BUDGET_S = 5.0
_SHORT = 60
_ROW_DIGITS = 7
_UNDECIDED = "so many digits could not be determined"
_NOT_LOOKED_FOR = "no exact form was looked for yet"


def result_dict(
    compute: Callable[[], Result], digits: int, *, with_exact: bool = True
) -> dict[str, Any]:
    """Return a result as plain data.

    Raises:
        MathError: there is none, or it takes longer than anybody waits.
    """
    with calculation():
        computed = compute()
        # A quantity is looked at as the number that it is of its unit.
        result = computed if computed.number is None else computed.number
        decimal = result.decimal(digits)
    exact, note = exact_or_note(result) if with_exact else (None, _NOT_LOOKED_FOR)
    is_equal = _is_equal(exact, decimal)
    if is_equal and "." in decimal and "^" not in decimal:
        # Zeros at the end would say that more digits may follow.
        decimal = decimal.rstrip("0").rstrip(".")
    is_same = is_equal and (exact or "").replace("-", "−") == decimal
    is_plain = is_same or _is_plain(result, decimal)
    if computed.number is not None:
        exact = computed.exact if exact else exact
        decimal = computed.with_unit(decimal)
    return {
        "kind": computed.kind.value,
        "decimal": decimal or "undefined",
        "reason": result.reason or ("" if decimal else _UNDECIDED),
        "exact": exact or "",
        "mathml": typeset(read_expression(exact, Vocabulary())) if exact else "",
        # A short decimal that is the number itself needs no second form beside it.
        "is_plain": is_plain,
        "is_equal": is_equal,
        "note": note or result.remark,
    }


def exact_or_note(result: Result) -> tuple[str | None, str]:
    """Return the exact form and a note; it has a time limit of its own."""
    try:
        return result.exact, result.exact_note
    except StoppedError:
        return None, _NOT_LOOKED_FOR


def _is_plain(result: Result, decimal: str) -> bool:
    """Check whether a decimal is the number itself, so that nothing need stand beside it."""
    if result.reason:
        return True
    if result.rational is not None:
        shown = decimal.replace("−", "-").replace("·10^", "e")
        return Fraction(shown) == result.rational
    is_made = result.kind is not ResultKind.NUMBER and result.parts
    return (
        bool(is_made)
        and all(part.rational is not None for part in _leaves(result))
        and ("." not in decimal or _has_short_parts(result, decimal))
    )


def _is_equal(exact: str | None, decimal: str) -> bool:
    """Check whether a decimal is the very fraction that stands beside it."""
    try:
        shown = decimal.replace("−", "-").replace("·10^", "e")
        return exact is not None and Fraction(exact) == Fraction(shown)
    except ValueError:
        return False


def _leaves(result: Result) -> list[Result]:
    """Return the numbers of a point, a list, or a list of points."""
    if not result.parts:
        return [result]
    return [leaf for part in result.parts for leaf in _leaves(part)]


def _has_short_parts(result: Result, decimal: str) -> bool:
    """Check whether every coordinate is a short decimal, which is exact then."""
    return (
        all(
            part.rational is not None and 10**6 % part.rational.denominator == 0
            for part in _leaves(result)
        )
        and len(decimal) < _SHORT
    )


def exact_values(job: Job, query: ExactQuery) -> dict[str, Any]:
    """Return the computed values of a study with their exact forms."""
    request = realise(job, query)
    return {"version": request.version, "exact": exact_dict(request.study, _ROW_DIGITS)}


def exact_dict(study: Study, digits: int) -> dict[str, Any]:
    """Return every computed value of the study with its exact form, by the ids of their lines."""
    began = time.monotonic()
    fields: dict[str, Any] = {}
    for definition in study.definitions():
        works = definition.problem is None and not definition.disabled and definition.name
        if definition.kind in VALUED and definition.value is None and works:
            in_time = time.monotonic() - began < _EXACT_BUDGET_S
            try:
                fields[str(definition.id)] = result_dict(
                    partial(study.value, definition.name or ""), digits, with_exact=in_time
                )
            except MathError:
                # The row itself says what is wrong.
                continue
    return fields

"""Matrices of proved numbers as those of FLINT: fractions if all entries are, else balls."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from flint import acb_mat, arb, arb_mat, fmpq, fmpq_mat

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.arithmetic.ball import Ball, Defined
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar, promoted, simplified
from axis_path.core.errors import ListError

Matrices = Array[Scalar]


def need_values(*arrays: Matrices) -> None:
    """Refuse entries that have no value.

    Raises:
        ListError: there is one; the reason is named.
    """
    for array in arrays:
        for index, entry in enumerate(array.entries):
            if entry.defined is not Defined.YES:
                row, column = divmod(index, array.column_count)
                at = f"[{row + 1}, {column + 1}]" if array.is_matrix else f"[{row + 1}]"
                raise ListError(
                    messages.ENTRY_PLACE_ARRAY_HAS(
                        place=at,
                        array=array.words,
                        reason=entry.reason or messages.UNDECIDED,
                    )
                )


def rationals(a: Matrices) -> fmpq_mat | None:
    """Return a matrix of fractions; None if an entry is not known to be one."""
    entries: list[fmpq] = []
    for entry in a.entries:
        if not isinstance(entry, Ball) or entry.exact is None:
            return None
        entries.append(entry.exact)
    return fmpq_mat(a.row_count, a.column_count, entries)


def is_complex(*arrays: Matrices) -> bool:
    """Check whether any entry is complex."""
    return any(isinstance(entry, ComplexBall) for array in arrays for entry in array.entries)


def balls(a: Matrices, *, as_complex: bool) -> Any:  # noqa: ANN401 - arb_mat or acb_mat
    """Return a matrix of balls."""
    if as_complex:
        values = [promoted(entry).value for entry in a.entries]
        return acb_mat(a.row_count, a.column_count, values)
    return arb_mat(a.row_count, a.column_count, [entry.value for entry in a.entries])


def exact_ball(value: fmpq) -> Ball:
    """Return the ball of a fraction, however long."""
    return Ball(arb(value), exact=value)


def from_matrix(made: Any, *, is_list: bool = False) -> Matrices:  # noqa: ANN401
    """Return a matrix of FLINT as one of ours."""
    convert: Callable[[Any], Scalar]
    if isinstance(made, fmpq_mat):
        convert = exact_ball
    elif isinstance(made, acb_mat):
        convert = _from_complex
    else:
        convert = Ball
    entries = tuple(convert(entry) for entry in made.entries())
    shape = (made.nrows(),) if is_list else (made.nrows(), made.ncols())
    return Array(shape, entries)


def _from_complex(value: Any) -> Scalar:  # noqa: ANN401 - an acb
    return simplified(ComplexBall(value))

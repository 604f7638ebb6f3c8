"""All solutions of a linear system, read off its reduced form."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from axis_path.core.algebra.operations import Rows
from axis_path.core.algebra.reduction import reduce_rows

#: The names of the parameters of a solution that is not the only one.
_PARAMETERS = ("t", "s", "u", "v", "w")


class SolutionKind(StrEnum):
    """How many solutions there are."""

    ONE = "one"
    NONE = "none"
    MANY = "many"


@dataclass(frozen=True, slots=True)
class SolutionSet:
    """All solutions of a system.

    Attributes:
        kind: how many there are.
        free: the unknowns that may be any number, with the names of their parameters.
        values: for each unknown its number, and the factors of the parameters in their order; empty
            if there is no solution.
        contradiction: the row that says 0 = 1, from 0; None if there is none.
    """

    kind: SolutionKind
    free: tuple[tuple[int, str], ...] = ()
    values: tuple[tuple[Fraction, tuple[Fraction, ...]], ...] = ()
    contradiction: int | None = None


def solution_set(rows: Rows, taken: frozenset[str] = frozenset()) -> SolutionSet:
    """Return all solutions of a system given by its augmented matrix.

    Args:
        rows: the coefficients, and last the right side.
        taken: names that no parameter may have.
    """
    count = len(rows[0]) - 1
    form = reduce_rows(rows, count)
    for index, row in enumerate(form.result):
        if not any(row[:count]) and row[count] != 0:
            return SolutionSet(SolutionKind.NONE, contradiction=index)
    columns = [column for column in range(count) if column not in form.pivots]
    names = [name for name in _PARAMETERS if name not in taken]
    names += [f"t_{k}" for k in range(1, count + 1)]
    free = tuple(zip(columns, names, strict=False))
    values = []
    for unknown in range(count):
        if unknown in form.pivots:
            row = form.result[form.pivots.index(unknown)]
            values.append((row[count], tuple(-row[column] for column in columns)))
        else:
            values.append((Fraction(0), tuple(Fraction(column == unknown) for column in columns)))
    kind = SolutionKind.MANY if columns else SolutionKind.ONE
    return SolutionSet(kind, free, tuple(values))

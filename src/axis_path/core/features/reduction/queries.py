"""Row reductions of matrices and of linear systems of a study."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.algebra import (
    Progress,
    RowReduction,
    SolutionSet,
    apply_operation,
    progress_of,
    read_operation,
    reduce_rows,
    solution_set,
)
from axis_path.core.algebra.operations import Operation, Rows
from axis_path.core.arithmetic import Ball
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import LimitError, ListError, ShapeError
from axis_path.core.evaluate import Result, ResultKind
from axis_path.core.features.findings.systems import Systems
from axis_path.core.limits import REDUCED_SIDE


@dataclass(frozen=True, slots=True)
class Reducible:
    """What can be reduced: a matrix, or a linear system as its augmented matrix.

    Attributes:
        rows: of fractions.
        unknowns: of a system; none of a matrix.
    """

    rows: Rows
    unknowns: tuple[str, ...] = ()

    @property
    def pivot_columns(self) -> int | None:
        """Return in how many columns pivots are sought; None for all."""
        return len(self.unknowns) or None


class Reductions:
    """Reduces what a study holds."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot

    def row_reduction(self, text: str) -> RowReduction:
        """Reduce a matrix, or a linear system with a semicolon between its equations, step by step.

        Args:
            text: a name, an expression, or equations.

        Raises:
            MathError: it is no matrix of fractions, or too large to be followed.
        """
        subject = self.subject(text)
        return reduce_rows(subject.rows, subject.pivot_columns)

    def subject(self, text: str) -> Reducible:
        """Return what a text asks to reduce; see ``row_reduction``."""
        parts = [part.strip() for part in text.replace("\n", ";").split(";") if part.strip()]
        if any("=" in part for part in parts):
            return self._system(parts)
        return Reducible(self._matrix(self._snapshot.query(Results).evaluate(text)))

    def solutions(self, subject: Reducible) -> SolutionSet | None:
        """Return all solutions of a system; None for a matrix."""
        if not subject.unknowns:
            return None
        taken = frozenset(subject.unknowns) | frozenset(self._snapshot.names())
        return solution_set(subject.rows, taken)

    def _system(self, texts: Sequence[str]) -> Reducible:
        unknowns, equations = self._snapshot.query(Systems).linear_system(texts)
        rows = tuple(
            tuple(map(_fraction, (*equation.factors, equation.right))) for equation in equations
        )
        _check_size(len(rows), len(unknowns) + 1)
        return Reducible(rows, unknowns)

    def _matrix(self, result: Result) -> Rows:
        if result.kind is not ResultKind.MATRIX:
            raise ShapeError(
                f"A reduction needs a matrix or equations; this is a {result.kind.value}."
            )
        height, width = result.value.shape
        _check_size(height, width)
        numbers = [part.rational for part in result.parts]
        if any(number is None for number in numbers):
            raise ListError(
                "The reduction is shown for matrices of fractions; here an entry is none."
            )
        entries = [number for number in numbers if number is not None]
        return tuple(tuple(entries[k : k + width]) for k in range(0, len(entries), width))


def _check_size(height: int, width: int) -> None:
    if max(height, width) > REDUCED_SIDE.value:
        raise LimitError(
            f"The steps of a reduction are shown for up to {REDUCED_SIDE.value} rows and columns; "
            "`rref` reduces larger matrices without them."
        )


def _fraction(number: Ball) -> Fraction:
    if number.exact is None:
        raise ListError("The reduction is shown for equations of fractions; a factor here is none.")
    return to_fraction(number.exact)


@dataclass(frozen=True, slots=True)
class OwnStep:
    """An operation that the student chose, with what it led to.

    Attributes:
        operation: as it is written in textbooks.
        rows: after it.
        before: how far the matrix was reduced before it.
        after: how far it is now.
    """

    operation: str
    rows: Rows
    before: Progress
    after: Progress

    @property
    def is_nearer(self) -> bool:
        """Check whether the goal is nearer than before."""
        return (self.after.pivots, -self.after.wrong) > (self.before.pivots, -self.before.wrong)


def own_steps(subject: Reducible, operations: Sequence[str]) -> list[OwnStep]:
    """Carry out operations that the student chose, one after the other.

    Raises:
        MathError: one does not read, or cannot be carried out.
    """
    rows, steps = subject.rows, list[OwnStep]()
    before = progress_of(rows, subject.pivot_columns)
    for text in operations:
        operation: Operation = read_operation(text)
        rows = apply_operation(rows, operation)
        after = progress_of(rows, subject.pivot_columns)
        steps.append(OwnStep(operation.text, rows, before, after))
        before = after
    return steps

"""What the interpreter needs of an arithmetic beside its field."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Protocol, TypeVar

from axis_path.core.arithmetic.arrays.array import Array, Field
from axis_path.core.catalogue import FunctionEntry
from axis_path.core.evaluate.objects.large_algebra import LargeAlgebra
from axis_path.core.evaluate.objects.values import Value
from axis_path.core.language.tree import Node, Operator

E = TypeVar("E")


class Algebra(Protocol[E]):
    """An arithmetic of numbers, lists and matrices."""

    @property
    def field(self) -> Field[E]:
        """Return the arithmetic of entries."""

    @property
    def large(self) -> LargeAlgebra | None:
        """Return what computes with many entries at once; None if each is computed by itself."""

    def plain(self, node: Node, bound: Mapping[str, E]) -> Value:
        """Return what an expression is in which no object takes part.

        Args:
            node: the expression.
            bound: what its own variables are.
        """

    def named(self, name: str) -> Value | None:
        """Return the object of the study that has a name; None if there is none."""

    def applied(self, function: str, arguments: Sequence[E]) -> Value:
        """Return what a function of numbers gives; a function of the study or of the catalogue."""

    def operated(self, operator: Operator, a: E, b: E) -> E:
        """Return an operation on two numbers, the power included."""

    def whole(self, number: E) -> int:
        """Return a whole number, such as an index.

        Raises:
            ListError: it is none, or not known beforehand.
        """

    def check_entries(self, count: int) -> None:
        """Refuse a list or a matrix with more entries than it can hold."""

    def product(self, a: Array[E], b: Array[E]) -> Array[E]:
        """Return a matrix product."""

    def inverse(self, a: Array[E]) -> Array[E]:
        """Return the inverse of a matrix."""

    def determinant(self, a: Array[E]) -> E:
        """Return the determinant of a matrix."""

    def function(
        self, entry: FunctionEntry, arguments: Sequence[Value], options: Sequence[str]
    ) -> Value:
        """Return what a function of lists and matrices gives."""

"""A backend made of a table of operations, for numbers that are computed without rounding."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from fractions import Fraction
from typing import Any, Generic, TypeVar

V = TypeVar("V")


class NotExactError(Exception):
    """A number cannot be computed without rounding."""


class TableBackend(Generic[V]):
    """Computes with the operations of a table.

    Args:
        number: makes a number of a fraction.
        operations: by their names; whole powers take their exponent last.
        constants: by their names.

    Raises:
        NotExactError: in every method, for what the table does not have.
    """

    # Programs keep nothing that was bound to it.
    plan_name = ""
    is_fixed = False

    def __init__(
        self,
        number: Callable[[Fraction], V],
        operations: Mapping[str, Callable[..., V]],
        constants: Mapping[str, V],
    ) -> None:
        self.number = number
        self._operations = operations
        self._constants = constants

    def constant(self, name: str) -> V:
        """Return a constant."""
        if name not in self._constants:
            raise NotExactError
        return self._constants[name]

    def operation(self, op: str) -> Callable[..., V]:
        """Return an operation."""
        if op not in self._operations:
            raise NotExactError
        return self._operations[op]

    def within(self, *_: Any) -> V:
        """Refuse domains, pieces and sums."""
        raise NotExactError

    pieces = guard = summarise = within

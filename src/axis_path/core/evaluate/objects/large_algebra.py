"""Operations on lists and matrices with many entries, on all of them at once.

Everything here returns None where it does not serve: the entries are few, have no value somewhere,
or a function is applied to complex ones. Then each is computed by itself.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from typing import Any

import numpy as np

from axis_path.core.arithmetic.arrays import large
from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.bounded import operations
from axis_path.core.arithmetic.bounded.entries import from_common
from axis_path.core.arithmetic.bounded.pairs import Entries, from_scalar, sides
from axis_path.core.arithmetic.complex_ball import ComplexBall
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.evaluate.expression import Expression
from axis_path.core.evaluate.objects.columns import MissingError, evaluated_at_once
from axis_path.core.evaluate.objects.values import Value
from axis_path.core.language.tree import Binary, Call, Name, Node, Operator

#: Lists that are not held yet are computed at once from so many entries on.
MANY_COMPUTED = 5_000
_ENTRYWISE = {
    Operator.ADD: operations.add,
    Operator.SUBTRACT: operations.subtract,
    Operator.MULTIPLY: operations.multiply,
    Operator.ENTRYWISE: operations.multiply,
    Operator.DIVIDE: operations.divide,
}
_BETWEEN_MATRICES = (Operator.ADD, Operator.SUBTRACT, Operator.ENTRYWISE)
_WITH_NUMBER = (Operator.MULTIPLY, Operator.DIVIDE, Operator.ENTRYWISE)
#: Returns an expression of a tree and the names of its inputs; None if it is none.
Compiled = Callable[[Node, tuple[str, ...]], tuple[Expression, Mapping[str, str]] | None]


class LargeAlgebra:
    """Computes with many entries at once.

    Args:
        compiled: compiles a tree in which no object takes part.
        values: of the sliders.
        used: is called when something was computed here.
    """

    def __init__(self, compiled: Compiled, values: Parameters, used: Callable[[], None]) -> None:
        self._compiled = compiled
        self._values = values
        self._used = used

    def operated(self, operator: Operator, a: Value, b: Value) -> Array[Any] | None:
        """Return an operation entry by entry, if the shapes allow it."""
        shape = _common_shape(operator, a, b)
        if shape is None:
            return None
        if operator is Operator.POWER:
            with suppress(MissingError):
                return self._enclosed(_POWER, {"#a": a, "#b": b}, shape)
            return None
        both = _sides(a, b)
        made = None if both is None else _ENTRYWISE[operator](*both)
        if made is None:
            return None
        self._used()
        return large.of_bounded(shape, made)

    def negative(self, a: Array[Any]) -> Array[Any] | None:
        """Return -a."""
        if not large.is_many(a.shape):
            return None
        held = _sides(a)
        return None if held is None else large.of_bounded(a.shape, operations.negative(held[0]))

    def called(self, function: str, arguments: Sequence[Value]) -> Array[Any] | None:
        """Return a function of numbers applied to each entry of lists, and to single numbers."""
        shapes = {value.shape for value in arguments if isinstance(value, Array)}
        if len(shapes) != 1:
            return None
        (shape,) = shapes
        if not large.is_many(shape):
            return None
        names = [f"#{k}" for k in range(len(arguments))]
        call = Call(function, tuple(map(Name, names)))
        with suppress(MissingError):
            return self._enclosed(call, dict(zip(names, arguments, strict=True)), shape)
        return None

    def built(
        self, body: Node, counters: Sequence[tuple[str, range]], bound: Mapping[str, Value]
    ) -> Array[Any] | None:
        """Return a list or a matrix of a term in which no object takes part.

        Args:
            body: the term.
            counters: the one or two variables and what they run over.
            bound: what other variables are.

        Raises:
            MissingError: an entry may have no value.
        """
        shape = tuple(len(span) for _, span in counters)
        if np.prod(shape) < MANY_COMPUTED:
            return None
        grids = np.meshgrid(
            *(np.arange(span.start, span.stop, dtype=np.int64) for _, span in counters),
            indexing="ij",
        )
        inputs = {
            name: large.of_bounded(shape, from_common(grid.ravel()))
            for (name, _), grid in zip(counters, grids, strict=True)
        }
        return self._enclosed(body, {**bound, **inputs}, shape)

    def _enclosed(
        self, node: Node, bound: Mapping[str, Value], shape: tuple[int, ...]
    ) -> Array[Any] | None:
        found = self._compiled(node, tuple(sorted(bound)))
        if found is None:
            return None
        expression, inputs = found
        used = [name for name in bound if inputs[name] in expression.program.inputs]
        held = _sides(*(bound[name] for name in used))
        if held is None:
            return None
        bounded = {inputs[name]: side for name, side in zip(used, held, strict=True)}
        made = self.enclosed(expression, bounded, int(np.prod(shape)))
        return None if made is None else large.of_bounded(shape, made)

    def enclosed(
        self, expression: Expression, inputs: Mapping[str, Entries], count: int
    ) -> Entries | None:
        """Return an expression of many numbers; see ``evaluated_at_once``."""
        made = evaluated_at_once(expression, self._values, inputs, count)
        if made is not None and any(part.exact is None for part in sides(made)):
            self._used()
        return made


_POWER = Binary(Operator.POWER, Name("#a"), Name("#b"))


def _common_shape(operator: Operator, a: Value, b: Value) -> tuple[int, ...] | None:
    """Return the shape of an operation entry by entry on many entries, else None."""
    if isinstance(a, Array) and isinstance(b, Array):
        is_served = not (a.is_matrix or b.is_matrix) or operator in _BETWEEN_MATRICES
        shape = a.shape if a.shape == b.shape and is_served else None
    elif isinstance(a, Array):
        shape = a.shape if not a.is_matrix or operator in _WITH_NUMBER else None
    else:
        is_served = not b.is_matrix or operator in (Operator.MULTIPLY, Operator.ENTRYWISE)
        shape = b.shape if is_served else None
    return shape if shape is not None and large.is_many(shape) else None


def _sides(*values: Value) -> list[Entries] | None:
    """Return arrays and numbers as bounded entries, None if one is something else."""
    made: list[Entries] = []
    for value in values:
        if isinstance(value, Array):
            made.append(large.bounded_form(value))
        elif isinstance(value, Ball | ComplexBall) and value.is_defined:
            side = from_scalar(value)
            if not np.isfinite(side.nearest()).all():
                return None
            made.append(side)
        else:
            return None
    return made

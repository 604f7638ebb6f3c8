"""Values in which lists and matrices take part as wholes, in one position of the sliders."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from fractions import Fraction
from functools import cache
from typing import TypeVar

import numpy as np
from flint import acb

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.arithmetic.arrays.echelon import UndecidedError
from axis_path.core.arithmetic.arrays.flint_matrices import exact_ball
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar, promoted
from axis_path.core.arithmetic.precision import precision
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.evaluator import Evaluator
from axis_path.core.compile.objects.bounded import bounded_result, remark_of
from axis_path.core.compile.objects.entries import (
    exact_complex,
    exact_text,
    floats_of,
    fractions_of,
    shown_indices,
    shown_shape,
)
from axis_path.core.errors import DomainError, ListError, MathError, NotHandledError
from axis_path.core.evaluate import (
    ExactForm,
    Expression,
    Result,
    evaluate_complex,
    make_complex,
    make_point,
    make_result,
)
from axis_path.core.evaluate.decimals import START_BITS
from axis_path.core.evaluate.objects.draws import Draws
from axis_path.core.evaluate.objects.interpreter import Interpreter
from axis_path.core.evaluate.objects.proved_algebra import ProvedAlgebra
from axis_path.core.evaluate.objects.scope import Notes, Scope
from axis_path.core.evaluate.objects.values import Coordinates, Value
from axis_path.core.evaluate.result import make_array, make_truth
from axis_path.core.language.tree import Node

T = TypeVar("T")
#: Gives the expressions that an entry may be: its index, and 0 or 1 for a point's coordinate.
Forms = Callable[[int, int], list[Expression]]
#: An entry is looked for among all of a list of so many.
_MOST_CANDIDATES = 8
#: An expression and a number agree in so many binary digits.
_CHECK_BITS = 256


class NotDecidedError(ListError):
    """More digits do not tell whether a number is 0."""


#: With so many binary digits it is tried to tell whether numbers are equal.
_BITS_TO_DECIDE = (START_BITS, 8 * START_BITS, 32 * START_BITS)


class Objects:
    """Computes objects; what was computed for a name is kept.

    Args:
        analysis: what the names mean.
        values: of the sliders, and of numbers that are computed here.
        seed: of random numbers.
    """

    def __init__(self, analysis: Analysis, values: Parameters, seed: int) -> None:
        self._analysis = analysis
        self._values = values
        self._named: dict[tuple[str, int], tuple[Value, Notes]] = {}
        self._scope = Scope(
            analysis.expressions.cache.graph, analysis.expressions.compile_plain, analysis.lists,
            values, seed, analysis.compiled_parts,
        )  # fmt: skip

    def has_objects(self, node: Node) -> bool:
        """Check whether lists or matrices take part in an expression as wholes."""
        return self._analysis.expressions.has_objects(node)

    def value(self, node: Node, bits: int, owner: str) -> tuple[Value, Notes]:
        """Return a value with so many binary digits, and what is to be said of it.

        Args:
            node: the expression.
            bits: the working precision.
            owner: the definition that the expression is of, by which random numbers are drawn.

        Raises:
            MathError: shapes that do not fit, an index outside, a limit.
            UndecidedError: more digits are needed.
        """
        notes = Notes()

        def named(name: str) -> Value | None:
            found = self._of(name, bits)
            if found is None:
                return None
            notes.add(found[1])
            return found[0]

        algebra = ProvedAlgebra(self._scope, bits, named, Draws(self._scope.seed, owner), notes)
        with precision(bits):
            value = Interpreter(algebra, self._analysis.expressions.search).value(node)
        return value, notes

    def _of(self, name: str, bits: int) -> tuple[Value, Notes] | None:
        key = (name, bits)
        if key not in self._named:
            node = self._analysis.expression_of(name)
            if node is None:
                return None
            self._named[key] = self.value(node, bits, name)
        return self._named[key]

    def result(self, node: Node, owner: str) -> Result:
        """Return the result of an expression.

        Raises:
            MathError: it has no meaning, or a limit is reached.
        """
        try:
            bits, value, notes = self._decided(node, owner)
        except NotDecidedError:
            return self._by_steps(node)
        if not isinstance(value, bool) and (notes.is_bounded or _is_held_as_floats(value)):
            return bounded_result(value, notes)

        @cache
        def at(more: int) -> Value:
            if more == bits:
                return value
            exact = fractions_of(value)
            if exact is not None:
                with precision(max(more, bits)):
                    return exact.map(exact_ball)
            try:
                return self.value(node, max(more, bits), owner)[0]
            except UndecidedError:
                return value

        if isinstance(value, bool):
            return make_truth(value)
        forms = self._forms(node)
        if isinstance(value, Array):
            return _with_remark(self._array(value, at, forms), notes)
        if isinstance(value, Coordinates):
            return make_point(
                self._number(value.first, lambda more: at(more).first, None),
                self._number(value.second, lambda more: at(more).second, None),
            )
        return _with_remark(self._number(value, at, None), notes)

    def _decided(self, node: Node, owner: str) -> tuple[int, Value, Notes]:
        for bits in _BITS_TO_DECIDE:
            try:
                return bits, *self.value(node, bits, owner)
            except UndecidedError:
                continue
        raise NotDecidedError("It could not be decided whether a number in it is 0.")

    def _by_steps(self, node: Node) -> Result:
        """Return a result whose zeros are decided by exact forms, as of roots that cancel.

        Raises:
            MathError: it has no meaning, or some could not be decided.
        """
        try:
            made = self._analysis.expressions.compile_object(node, decides=True)
        except NotHandledError:
            raise NotDecidedError("It could not be decided whether a number in it is 0.") from None

        def number(step: int) -> Result:
            return self._evaluator.number(Expression(self._scope.graph, step))

        if not isinstance(made, Array):
            return number(made)
        parts = tuple(map(number, made.entries))
        values = np.array([part.value for part in parts]).reshape(made.shape)
        return make_array(made.shape, made.shape, values, parts, None)

    def _forms(self, node: Node) -> Forms:
        """Return what gives the expressions that a number may be, for its exact form.

        The entry at the same index comes first; eigenvalues may stand in another order.
        """

        @cache
        def steps() -> Value | None:
            try:
                return self._analysis.expressions.compile_object(node, decides=True)
            except MathError:
                return None

        def forms(index: int, coordinate: int) -> list[Expression]:
            made = steps()
            if not isinstance(made, Array) or index >= len(made.entries):
                return []
            others = made.entries if len(made.entries) <= _MOST_CANDIDATES else ()
            found: list[Expression] = []
            for entry in (made.entries[index], *others):
                step = entry
                if isinstance(entry, Coordinates):
                    step = entry.second if coordinate else entry.first
                found.append(Expression(self._scope.graph, step))
            return found

        return forms

    def fraction(self, name: str) -> Fraction:
        """Return a number of the study that is computed from lists or matrices.

        Raises:
            DomainError: it has no value, or is no fraction.
        """
        node = self._analysis.expression_of(name)
        try:
            result = None if node is None else self.result(node, name)
        except MathError as err:
            raise DomainError(f"`{name}` has no value: {err.message}") from err
        number = None if result is None else result.rational
        if number is None:
            raise DomainError(
                f"`{name}` is computed from a list or a matrix and is no fraction; such a number "
                "cannot be used in a function that is plotted."
            )
        return number

    @property
    def _evaluator(self) -> Evaluator:
        return Evaluator(self._analysis.lists, self._values, self._analysis)

    def _array(
        self, value: Array[Value], at: Callable[[int], Value],
        forms: Forms,
    ) -> Result:  # fmt: skip
        shown = shown_shape(value.shape)

        def entry(index: int) -> Result:
            inner = value.entries[index]
            if isinstance(inner, Coordinates):
                return make_point(
                    self._number(
                        inner.first, lambda more: at(more).entries[index].first,
                        lambda: forms(index, 0),
                    ),
                    self._number(
                        inner.second, lambda more: at(more).entries[index].second,
                        lambda: forms(index, 1),
                    ),
                )  # fmt: skip
            return self._number(
                inner, lambda more: at(more).entries[index], lambda: forms(index, 0)
            )

        parts = tuple(map(entry, shown_indices(value.shape, shown)))
        return make_array(value.shape, shown, floats_of(value), parts, exact_text(value))

    def _number(
        self, value: Scalar, at: Callable[[int], Scalar],
        candidates: Callable[[], list[Expression]] | None,
    ) -> Result:  # fmt: skip
        def look() -> ExactForm:
            for expression in [] if candidates is None else candidates():
                if self._is_same(expression, at):
                    return self._evaluator.exact_form(expression)
            return ExactForm(None)

        if isinstance(value, ComplexBall):
            return make_complex(lambda bits: _complex(at(bits)), exact_complex(value) or look)
        return make_result(lambda bits: _real(at(bits)), look, is_exact_sought=True)

    def _is_same(self, expression: Expression, at: Callable[[int], Scalar]) -> bool:
        """Check whether an expression and a number agree in many digits."""
        try:
            claimed = evaluate_complex(expression, self._values, bits=_CHECK_BITS)
        except MathError:
            return False
        value = at(_CHECK_BITS)
        with precision(_CHECK_BITS):
            return value.defined is Defined.YES and bool(claimed.overlaps(_complex(value)))


def _with_remark(result: Result, notes: Notes) -> Result:
    return replace(result, remark=remark_of(notes, lambda: result.exact is not None))


def _is_held_as_floats(value: Value) -> bool:
    return isinstance(value, Array) and value.bounded is not None


def _real(value: Scalar) -> Ball:
    if isinstance(value, Ball):
        return value
    return Ball(value.value.real, defined=value.defined, reason=value.reason)


def _complex(value: Scalar) -> acb:
    return promoted(value).value

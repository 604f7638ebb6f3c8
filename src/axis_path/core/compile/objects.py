"""Values in which lists and matrices take part as wholes, in one position of the sliders."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from fractions import Fraction
from functools import cache
from typing import TypeVar

import numpy as np
from flint import acb, fmpq

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.arithmetic.arrays.elimination import UndecidedError
from axis_path.core.arithmetic.arrays.flint_matrices import exact_ball
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar, promoted
from axis_path.core.arithmetic.precision import precision
from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.evaluator import Evaluator
from axis_path.core.errors import DomainError, ListError, MathError
from axis_path.core.evaluate import (
    ExactForm,
    Expression,
    Result,
    make_complex,
    make_point,
    make_result,
)
from axis_path.core.evaluate.decimals import START_BITS
from axis_path.core.evaluate.objects.draws import Draws
from axis_path.core.evaluate.objects.interpreter import Interpreter
from axis_path.core.evaluate.objects.proved_algebra import ProvedAlgebra, Scope
from axis_path.core.evaluate.objects.values import Coordinates, Value
from axis_path.core.evaluate.result import known_form, make_array, make_truth
from axis_path.core.language.tree import Node

T = TypeVar("T")
#: With so many binary digits it is tried to tell whether numbers are equal.
_BITS_TO_DECIDE = (START_BITS, 8 * START_BITS, 32 * START_BITS)
#: So many entries of a list or a matrix are results with digits and forms of their own.
_MOST_PARTS = 400
_SHOWN_SIDE = 20


class Objects:
    """Computes objects; what was computed for a name is kept.

    Args:
        analysis: what the names mean.
        values: of the sliders, and of numbers that are computed here.
        seed: of random numbers.
    """

    def __init__(self, analysis: Analysis, values: Mapping[str, Fraction], seed: int) -> None:
        self._analysis = analysis
        self._values = values
        self._named: dict[tuple[str, int], Value] = {}
        self._scope = Scope(
            analysis.expressions.cache.graph, analysis.expressions.compile_plain, analysis.lists,
            values, seed, analysis.compiled_parts,
        )  # fmt: skip

    def has_objects(self, node: Node) -> bool:
        """Check whether lists or matrices take part in an expression as wholes."""
        return self._analysis.expressions.has_objects(node)

    def value(self, node: Node, bits: int, owner: str) -> Value:
        """Return a value with so many binary digits.

        Args:
            node: the expression.
            bits: the working precision.
            owner: the definition that the expression is of, by which random numbers are drawn.

        Raises:
            MathError: shapes that do not fit, an index outside, a limit.
            UndecidedError: more digits are needed.
        """
        draws = Draws(self._scope.seed, owner)
        algebra = ProvedAlgebra(self._scope, bits, lambda name: self._of(name, bits), draws)
        with precision(bits):
            return Interpreter(algebra, self._analysis.expressions.search).value(node)

    def _of(self, name: str, bits: int) -> Value | None:
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
        bits, value = self._decided(node, owner)

        @cache
        def at(more: int) -> Value:
            if more == bits:
                return value
            exact = _fractions(value)
            if exact is not None:
                with precision(max(more, bits)):
                    return exact.map(exact_ball)
            try:
                return self.value(node, max(more, bits), owner)
            except UndecidedError:
                return value

        if isinstance(value, bool):
            return make_truth(value)
        forms = self._forms(node)
        if isinstance(value, Array):
            return self._array(value, at, forms)
        if isinstance(value, Coordinates):
            return make_point(
                self._number(value.first, lambda more: at(more).first, None),
                self._number(value.second, lambda more: at(more).second, None),
            )
        return self._number(value, at, None)

    def _decided(self, node: Node, owner: str) -> tuple[int, Value]:
        for bits in _BITS_TO_DECIDE:
            try:
                return bits, self.value(node, bits, owner)
            except UndecidedError:
                continue
        raise ListError("It could not be decided whether a number in it is 0.")

    def _forms(self, node: Node) -> Callable[[int], Expression | None]:
        """Return what gives an entry as an expression, for its exact form; None without one."""

        @cache
        def steps() -> Value | None:
            try:
                return self._analysis.expressions.compile_object(node)
            except MathError:
                return None

        def form(index: int) -> Expression | None:
            made = steps()
            if not isinstance(made, Array) or not isinstance(made.entries[index], int):
                return None
            return Expression(self._scope.graph, made.entries[index])

        return form

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
        forms: Callable[[int], Expression | None],
    ) -> Result:  # fmt: skip
        shown = _shown_shape(value.shape)

        def entry(index: int) -> Result:
            inner = value.entries[index]
            if isinstance(inner, Coordinates):
                return make_point(
                    self._number(inner.first, lambda more: at(more).entries[index].first, None),
                    self._number(inner.second, lambda more: at(more).entries[index].second, None),
                )
            return self._number(inner, lambda more: at(more).entries[index], lambda: forms(index))

        parts = tuple(map(entry, _indices(value.shape, shown)))
        return make_array(value.shape, shown, _floats(value), parts, _exact_text(value))

    def _number(
        self, value: Scalar, at: Callable[[int], Scalar],
        form: Callable[[], Expression | None] | None,
    ) -> Result:  # fmt: skip
        def look() -> ExactForm:
            expression = None if form is None else form()
            if expression is None:
                return ExactForm(None)
            return self._evaluator.exact_form(expression)

        if isinstance(value, ComplexBall):
            return make_complex(lambda bits: _complex(at(bits)), _exact_complex(value) or look)
        return make_result(lambda bits: _real(at(bits)), look, is_exact_sought=True)


def _real(value: Scalar) -> Ball:
    if isinstance(value, Ball):
        return value
    return Ball(value.value.real, defined=value.defined, reason=value.reason)


def _complex(value: Scalar) -> acb:
    return promoted(value).value


def _exact_complex(value: ComplexBall) -> Callable[[], ExactForm] | None:
    """Return the exact form of a complex number of fractions."""
    if value.exact is None:
        return None
    real, imaginary = value.exact
    size = "" if abs(imaginary) == 1 else str(abs(imaginary)) if imaginary.q == 1 else ""
    unit = f"{size}i"
    if not size and abs(imaginary) != 1:
        top = "" if abs(imaginary.p) == 1 else str(abs(imaginary.p))
        unit = f"{top}i/{imaginary.q}"
    sign = "-" if imaginary < 0 else "+"
    alone = f"-{unit}" if sign == "-" else unit
    text = alone if real == 0 else f"{real} {sign} {unit}"
    return lambda: ExactForm(text)


def _shown_shape(shape: tuple[int, ...]) -> tuple[int, ...]:
    """Return the shape of the entries that have digits and forms of their own."""
    if math.prod(shape) <= _MOST_PARTS:
        return shape
    return tuple(min(side, _SHOWN_SIDE) for side in shape)


def _indices(shape: tuple[int, ...], shown: tuple[int, ...]) -> list[int]:
    """Return where the first entries stand among all."""
    if len(shape) == 1:
        return list(range(shown[0]))
    return [row * shape[1] + column for row in range(shown[0]) for column in range(shown[1])]


def _floats(value: Array[Value]) -> np.ndarray:
    """Return the entries as an array of floats, or of complex numbers, or of points (n, 2)."""
    if isinstance(value.entries[0], Coordinates):
        pairs = [(_float(e.first), _float(e.second)) for e in value.entries]
        return np.array(pairs)
    numbers = [_float(entry) for entry in value.entries]
    return np.array(numbers).reshape(value.shape)


def _float(value: Scalar) -> float | complex:
    if value.defined is not Defined.YES:
        return float("nan")
    if isinstance(value, ComplexBall):
        return complex(float(value.value.real.mid()), float(value.value.imag.mid()))
    return 0.0 if value.value.contains(0) else float(value.value.mid())


def _fractions(value: Value) -> Array[fmpq] | None:
    """Return a list or a matrix of which all entries are known fractions, as those; else None."""
    if not isinstance(value, Array):
        return None
    found = [entry.exact for entry in value.entries if isinstance(entry, Ball)]
    exact = tuple(number for number in found if number is not None)
    return Array(value.shape, exact) if len(exact) == len(value.entries) else None


def _exact_text(value: Array[Value]) -> str | None:
    """Return all entries as a text of our language, if each is known to be a fraction."""
    texts: list[str] = []
    for entry in value.entries:
        form = known_form(entry) if isinstance(entry, Ball) and entry.is_defined else None
        if form is None:
            return None
        texts.append(form)
    if not value.is_matrix:
        return f"[{', '.join(texts)}]"
    width = value.column_count
    rows = [texts[k : k + width] for k in range(0, len(texts), width)]
    return "[" + ", ".join(f"[{', '.join(row)}]" for row in rows) + "]"

"""Lists and matrices of proved numbers, in one position of the sliders and at one precision."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from fractions import Fraction
from functools import reduce

from flint import acb, arb, fmpq

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.arithmetic.arrays import combine, elimination, large
from axis_path.core.arithmetic.arrays.array import Array, check_same_length, check_size, need_square
from axis_path.core.arithmetic.arrays.flint_matrices import (
    balls,
    from_matrix,
    is_complex,
    rationals,
)
from axis_path.core.arithmetic.arrays.large import is_many, of_bounded
from axis_path.core.arithmetic.arrays.scalars import SCALARS, Scalars
from axis_path.core.arithmetic.bounded.entries import from_common
from axis_path.core.arithmetic.bounded.pairs import Entries
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar, promoted, simplified
from axis_path.core.arithmetic.conversion import fraction_of
from axis_path.core.arithmetic.precision import precision
from axis_path.core.arithmetic.real_number import ball_of, fractions_only
from axis_path.core.catalogue import FunctionEntry
from axis_path.core.errors import ListError, NotHandledError
from axis_path.core.evaluate.backends.complex import Complex, is_finite
from axis_path.core.evaluate.backends.gaussian import GAUSSIAN, Gaussian
from axis_path.core.evaluate.backends.table import NotExactError
from axis_path.core.evaluate.constants import evaluate_constant
from axis_path.core.evaluate.expression import Expression
from axis_path.core.evaluate.graph.graph import Op
from axis_path.core.evaluate.graph.program import run
from axis_path.core.evaluate.graph.shapes import SECOND, ListSource, Shaped
from axis_path.core.evaluate.lists import Elements, inputs_of, spaced_elements
from axis_path.core.evaluate.objects.columns import MissingError
from axis_path.core.evaluate.objects.draws import SIZE, Draws
from axis_path.core.evaluate.objects.large_algebra import MANY_COMPUTED, LargeAlgebra
from axis_path.core.evaluate.objects.needs import check_needs
from axis_path.core.evaluate.objects.scope import Notes, Scope
from axis_path.core.evaluate.objects.values import Coordinates, Value
from axis_path.core.language.tree import Binary, Call, Name, Node, Operator
from axis_path.core.limits import EXACT_SIDE

#: Products of so many multiplications are left to FLINT as a whole.
_FEW = 64
_NO_VALUE = "no value there"


class ProvedAlgebra:
    """Computes with proved numbers; see ``Algebra``.

    Args:
        scope: the study.
        bits: the working precision.
        named: gives the object of the study that has a name.
        draws: gives random numbers.
        notes: takes down what is to be said of the value.
    """

    def __init__(
        self,
        scope: Scope,
        bits: int,
        named: Callable[[str], Value | None],
        draws: Draws,
        notes: Notes,
    ) -> None:
        self._scope = scope
        self._bits = bits
        self.named = named
        self._draws = draws
        self.notes = notes
        self._large = LargeAlgebra(self._compiled_inputs, scope.values, self._note_bounded)

    @property
    def field(self) -> Scalars:
        """Return the arithmetic of entries."""
        return SCALARS

    @property
    def large(self) -> LargeAlgebra:
        """Return what computes with many entries at once."""
        return self._large

    def _note_size(self, *values: Value) -> None:
        for value in values:
            if isinstance(value, Array) and value.is_matrix:
                self.notes.is_too_large |= max(value.shape) > EXACT_SIDE.value

    def _note_bounded(self) -> None:
        self.notes.is_bounded = True

    # Plain expressions

    def plain(self, node: Node, bound: Mapping[str, Value]) -> Value:
        """Return what an expression is in which no object takes part."""
        scalars: dict[str, Scalar] = {}
        for name, value in bound.items():
            if isinstance(value, Coordinates):
                raise NotHandledError("A point has no place here.")
            if isinstance(value, Ball | ComplexBall):
                scalars[name] = value
        shaped = self._compiled(node, tuple(sorted(scalars)))
        used = {_input(name): value for name, value in scalars.items()}
        if not shaped.lists:
            return self._number_or_point(shaped, used)
        if used:
            return self._written_out(shaped, used)
        at = Expression(self._scope.graph, shaped.first)
        sources = inputs_of(shaped, self._scope.lists, at, self._scope.values)
        count = next(iter(sources.values())).count
        if count >= MANY_COMPUTED and shaped.second is None:
            at_once = self._listed(Expression(self._scope.graph, shaped.first), sources, count)
            if at_once is not None:
                return at_once
        entries = []
        for index in range(count):
            elements = {name: source.exact(index, self._bits) for name, source in sources.items()}
            entries.append(self._number_or_point(shaped, elements))
        return Array((count,), tuple(entries))

    def _written_out(self, shaped: Shaped, used: Mapping[str, Scalar]) -> Value:
        """Return a value that runs over lists whose elements depend on variables such as ``k``."""
        columns = {name: self._elements(self._scope.lists[name], used) for name in shaped.lists}
        count = check_same_length(len(items) for items in columns.values())
        entries = []
        for index in range(count):
            elements = {
                name + suffix: element
                for name, items in columns.items()
                for suffix, element in zip(("", SECOND), items[index], strict=False)
            }
            entries.append(self._number_or_point(shaped, {**used, **elements}))
        return Array((count,), tuple(entries))

    def _elements(self, source: ListSource, used: Mapping[str, Scalar]) -> list[tuple[Scalar, ...]]:
        if source.start is None or source.stop is None:
            return [tuple(self._number(step, used) for step in item) for item in source.items]
        ends = {
            name: self._number(step, used)
            for name in ("start", "stop", "step", "count")
            if (step := getattr(source, name)) is not None
        }
        return [(number,) for number in spaced_elements(ends, self._bits)]

    def _listed(
        self, expression: Expression, sources: Mapping[str, Elements], count: int
    ) -> Array[Scalar] | None:
        bounded = {name: source.bounded() for name, source in sources.items()}
        known = {name: entries for name, entries in bounded.items() if entries is not None}
        if len(known) < len(bounded):
            return None
        same = next((n for n in known if expression.step == self._input_step(n)), None)
        made: Entries | None = None
        with suppress(MissingError):
            made = known[same] if same else self._large.enclosed(expression, known, count)
        return None if made is None else of_bounded((count,), made)

    def _input_step(self, name: str) -> int:
        return self._scope.graph.add(Op.INPUT, payload=name)

    def _compiled_inputs(
        self, node: Node, names: tuple[str, ...]
    ) -> tuple[Expression, Mapping[str, str]] | None:
        shaped = self._compiled(node, names)
        if shaped.lists or shaped.second is not None:
            return None
        expression = Expression(self._scope.graph, shaped.first)
        return expression, {name: _input(name) for name in names}

    def _compiled(self, node: Node, names: tuple[str, ...]) -> Shaped:
        key = (id(node), names)
        cached = self._scope.compiled.get(key)
        if cached is None:
            graph = self._scope.graph
            variables = {name: Shaped(graph.add(Op.INPUT, payload=_input(name))) for name in names}
            cached = self._scope.compiled[key] = (node, self._scope.compile_plain(node, variables))
        return cached[1]

    def _number_or_point(self, shaped: Shaped, used: Mapping[str, Scalar]) -> Value:
        first = self._number(shaped.first, used)
        return (
            first
            if shaped.second is None
            else Coordinates(first, self._number(shaped.second, used))
        )

    def _number(self, step: int, used: Mapping[str, Scalar]) -> Scalar:
        expression = Expression(self._scope.graph, step)
        program = expression.program
        inputs = {name: value for name, value in used.items() if name in program.inputs}
        reals = {name: value for name, value in inputs.items() if isinstance(value, Ball)}
        if len(reals) == len(inputs) and not program.is_complex:
            return evaluate_constant(expression, self._scope.values, bits=self._bits, inputs=reals)
        return self._complex(expression, inputs)

    def _complex(self, expression: Expression, inputs: Mapping[str, Scalar]) -> Scalar:
        for value in inputs.values():
            if value.defined is not Defined.YES:
                return value
        exact = self._gaussian(expression, inputs)
        backend = Complex()
        with precision(self._bits):
            if exact is not None:
                return simplified(exact)
            used = {
                name: acb(ball_of(self._scope.values[name]).value)
                for name in expression.program.parameters
            }
            used |= {name: promoted(value).value for name, value in inputs.items()}
            value = run(expression.program, backend, backend.number(Fraction(0)), used)[0]
        if not is_finite(value):
            return ComplexBall(value, None, Defined.NO, _NO_VALUE)
        return simplified(_known(value))

    def _gaussian(self, expression: Expression, inputs: Mapping[str, Scalar]) -> ComplexBall | None:
        """Return a number whose parts are fractions, else None; used inside ``precision``."""
        known = fractions_only(self._scope.values, expression.program.parameters)
        if known is None:
            return None
        try:
            used = {name: GAUSSIAN.number(value) for name, value in known.items()}
            used |= {name: _as_gaussian(value) for name, value in inputs.items()}
            made = run(expression.program, GAUSSIAN, GAUSSIAN.number(Fraction(0)), used)[0]
        except NotExactError:
            return None
        with precision(self._bits):
            return ComplexBall(acb(arb(made.re), arb(made.im)), (made.re, made.im))

    def applied(self, function: str, arguments: Sequence[Scalar]) -> Value:
        """Return what a function of numbers gives."""
        names = tuple(f"#{k}" for k in range(len(arguments)))
        call = _call(function, names)
        return self.plain(call, dict(zip(names, arguments, strict=True)))

    def operated(self, operator: Operator, a: Scalar, b: Scalar) -> Scalar:
        """Return an operation on two numbers."""
        match operator:
            case Operator.ADD:
                return SCALARS.add(a, b)
            case Operator.SUBTRACT:
                return SCALARS.subtract(a, b)
            case Operator.DIVIDE:
                return SCALARS.divide(a, b)
            case Operator.POWER:
                return self._power(a, b)
            case _:
                return SCALARS.multiply(a, b)

    def _power(self, a: Scalar, b: Scalar) -> Scalar:
        names = {"#a": a, "#b": b}
        exponent = b.exact if isinstance(b, Ball) else None
        if exponent is not None and exponent.q == 1 and abs(exponent) <= 64:
            base = a
            if exponent < 0:
                base = SCALARS.divide(SCALARS.number(1), a)
            if isinstance(base, ComplexBall):
                return reduce(SCALARS.multiply, [base] * abs(int(exponent.p)), SCALARS.number(1))
        value = self.plain(_POWER, names)
        if isinstance(value, Ball | ComplexBall):
            return value
        raise TypeError("a power of numbers is a number")

    def check_entries(self, count: int) -> None:
        """Accept as many as a list or a matrix may have."""

    def whole(self, number: Scalar) -> int:
        """Return a whole number.

        Raises:
            ListError: it is none.
        """
        if isinstance(number, Ball) and number.is_defined and number.exact is not None:
            if number.exact.q == 1:
                return int(number.exact.p)
            raise ListError(f"An index or a size is a whole number; this is {number.exact}.")
        if number.defined is not Defined.YES:
            raise ListError(f"An index or a size has no value: {number.reason or 'not decided'}.")
        raise ListError("An index or a size is a whole number.")

    # Matrices

    def product(self, a: Array[Scalar], b: Array[Scalar]) -> Array[Scalar]:
        """Return a matrix product."""
        is_outer = not a.is_matrix and b.is_matrix
        fits = (a.is_matrix or is_outer) and a.column_count == b.row_count
        size = (a.row_count, b.column_count)
        if fits and any(map(is_many, (a.shape, b.shape, size))):
            self.notes.is_bounded = True
            return large.product(a, b)
        all_defined = all(
            entry.defined is Defined.YES for array in (a, b) for entry in array.entries
        )
        if not fits or not all_defined or len(a.entries) * b.column_count < _FEW:
            return combine.product(a, b, SCALARS)
        one, other = rationals(a), rationals(b)
        if one is not None and other is not None:
            return from_matrix(one * other, is_list=not b.is_matrix)
        as_complex = is_complex(a, b)
        made = balls(a, as_complex=as_complex) * balls(b, as_complex=as_complex)
        return from_matrix(made, is_list=not b.is_matrix)

    def inverse(self, a: Array[Scalar]) -> Array[Scalar]:
        """Return the inverse of a matrix."""
        if a.is_matrix and is_many(a.shape):
            need_square(a, "The inverse")
            made, condition = large.inverse(a)
            self.notes.add(Notes(condition, is_bounded=True))
            return made
        self._note_size(a)
        made = elimination.inverse(a)
        self.notes.add(Notes(elimination.condition(a, made)))
        return made

    def determinant(self, a: Array[Scalar]) -> Scalar:
        """Return the determinant of a matrix."""
        if not is_many(a.shape):
            self._note_size(a)
            return elimination.determinant(a)
        self.notes.is_bounded = True
        return large.determinant(a)

    def function(
        self, entry: FunctionEntry, arguments: Sequence[Value], options: Sequence[str]
    ) -> Value:
        """Return what a function of lists and matrices gives."""
        checked = check_needs(entry, arguments, self)
        if entry.name == "random":
            return self._random(checked)
        if entry.name == "identity" and is_many((checked[0], checked[0])):
            return large.identity(checked[0])
        arrays = entry.arrays
        assert arrays is not None  # noqa: S101 - only such are asked for
        if arrays.large is not None and any(
            isinstance(value, Array) and arrays.takes_large(value.shape) for value in checked
        ):
            self.notes.is_bounded = True
            return arrays.large(*checked, *options)
        if arrays.proving is not None:
            self._note_size(*checked)
            return arrays.proving(*checked)
        assert arrays.in_field is not None  # noqa: S101 - one of the two is there
        return arrays.in_field(SCALARS, *checked, *options)

    def _random(self, shape: Sequence[int]) -> Value:
        check_size(*shape)
        count = 1
        for side in shape:
            count *= side
        if shape and is_many(tuple(shape)):
            return of_bounded(tuple(shape), from_common(self._draws.next_numerators(count), SIZE))
        numbers = tuple(SCALARS.number(value) for value in self._draws.next(count))
        return Array(tuple(shape), numbers) if shape else numbers[0]


_POWER = Binary(Operator.POWER, Name("#a"), Name("#b"))
_CALLS: dict[tuple[str, tuple[str, ...]], Call] = {}


def _call(function: str, names: tuple[str, ...]) -> Call:
    """Return the tree of a call; the same one each time, so that it is compiled once."""
    return _CALLS.setdefault((function, names), Call(function, tuple(map(Name, names))))


def _as_gaussian(value: Scalar) -> Gaussian:
    if value.exact is None:
        raise NotExactError
    if isinstance(value, Ball):
        return Gaussian(value.exact, fmpq(0))
    return Gaussian(*value.exact)


def _input(name: str) -> str:
    return f"bound {name}"


def _known(value: acb) -> ComplexBall:
    """Return a complex ball, exact if it is a point."""
    real, imaginary = fraction_of(value.real), fraction_of(value.imag)
    if real is None or imaginary is None:
        return ComplexBall(value)
    exact = tuple(fmpq(part.numerator, part.denominator) for part in (real, imaginary))
    return ComplexBall(value, (exact[0], exact[1]))

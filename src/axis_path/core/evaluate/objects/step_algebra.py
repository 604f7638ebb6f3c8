"""Lists and matrices of steps of a graph: for functions that are plotted, and for exact forms.

Everything has a fixed size here. What is larger, or must look at numbers that only the sliders
decide, is refused; ``ProvedAlgebra`` computes it as a value.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from fractions import Fraction

from flint import fmpq

from axis_path.core.arithmetic.arrays import combine, elimination, field_elimination
from axis_path.core.arithmetic.arrays.array import Array, check_same_length, need_square
from axis_path.core.arithmetic.arrays.echelon import UndecidedError
from axis_path.core.arithmetic.arrays.flint_matrices import Matrices, exact_ball
from axis_path.core.arithmetic.arrays.scalars import SCALARS
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.arithmetic.precision import precision
from axis_path.core.catalogue import FunctionEntry
from axis_path.core.errors import ListError, NotHandledError
from axis_path.core.evaluate.function import VALUE_BITS
from axis_path.core.evaluate.graph.graph import IMAGINARY, Graph, Op
from axis_path.core.evaluate.graph.shapes import SECOND, ListSource, Shaped
from axis_path.core.evaluate.objects.needs import check_needs
from axis_path.core.evaluate.objects.values import Coordinates, Value
from axis_path.core.evaluate.objects.zero_test import is_zero
from axis_path.core.language.tree import Call, Name, Node, Operator

#: Lists and matrices of more entries are not written out in a graph,
_MOST_ENTRIES = 3_600
#: and determinants of more rows are not expanded, unless all entries are fractions.
_MOST_ROWS = 4
_TOO_LARGE = "This is too large for a function that is plotted; define it as a value of its own."
#: Compiles a plain expression with steps for its own variables.
Compile = Callable[[Node, dict[str, Shaped]], Shaped]


class StepField:
    """Steps of a graph as an arithmetic of entries."""

    def __init__(self, graph: Graph) -> None:
        self._graph = graph
        #: Whether it is decided if a constant is 0, which may take long.
        self.decides = False

    def is_zero(self, a: int) -> bool:
        """Check whether a step is 0; see ``zero_test``."""
        known = self.known(a)
        if known is not None:
            return known == 0
        if not self.decides:
            raise NotHandledError("Whether a number is 0 is decided for values only.")
        return is_zero(self._graph, a)

    def number(self, value: Fraction | int) -> int:
        """Return an exact number."""
        return self._graph.number(Fraction(value))

    def add(self, a: int, b: int) -> int:
        """Return a + b."""
        return self._graph.plus(a, b)

    def subtract(self, a: int, b: int) -> int:
        """Return a - b."""
        return self._graph.minus(a, b)

    def multiply(self, a: int, b: int) -> int:
        """Return a b."""
        return self._graph.times(a, b)

    def divide(self, a: int, b: int) -> int:
        """Return a / b."""
        return self._graph.over(a, b)

    def negative(self, a: int) -> int:
        """Return -a."""
        return self._graph.negative(a)

    def square_root(self, a: int) -> int:
        """Return the square root."""
        return self._graph.to_the(a, self.number(Fraction(1, 2)))

    def squared_size(self, a: int) -> int:
        """Return |a|^2, which is a^2 for real numbers."""
        if self._is_complex(a):
            return self._graph.to_the(self._graph.call("abs", (a,)), self.number(2))
        return self._graph.to_the(a, self.number(2))

    def imaginary_unit(self) -> int:
        """Return i."""
        return self._graph.add(Op.CONSTANT, payload=IMAGINARY)

    def call(self, name: str, *arguments: int) -> int:
        """Return a function of the catalogue that is an operation of its own."""
        return self._graph.call(name, arguments)

    def known(self, a: int) -> Fraction | None:
        """Return a number that is written in the graph, None for anything else."""
        payload = self._graph.steps[a].payload
        return payload if isinstance(payload, Fraction) else None

    def _is_complex(self, a: int) -> bool:
        steps = (self._graph.steps[index] for index in self._graph.reachable(a))
        return any(step.op == Op.CONSTANT and step.payload == IMAGINARY for step in steps)


class StepAlgebra:
    """Computes with steps; see ``Algebra``.

    Args:
        graph: in which the steps are put.
        compile_plain: compiles an expression in which no object takes part.
        lists: where the elements of lists come from, by the names of their inputs.
    """

    def __init__(
        self, graph: Graph, compile_plain: Compile, lists: Mapping[str, ListSource],
        named: Callable[[str], Value | None],
    ) -> None:  # fmt: skip
        self._field = StepField(graph)
        self._graph = graph
        self._compile = compile_plain
        self._lists = lists
        self.named = named

    @property
    def field(self) -> StepField:
        """Return the arithmetic of entries."""
        return self._field

    @property
    def large(self) -> None:
        """Return None: each entry is a step by itself."""
        return None

    def plain(self, node: Node, bound: Mapping[str, Value]) -> Value:
        """Return what an expression is in which no object takes part."""
        variables = {}
        for name, value in bound.items():
            if isinstance(value, Coordinates):
                variables[name] = Shaped(value.first, value.second)
            elif isinstance(value, int):
                variables[name] = Shaped(value)
        return self.written_out(self._compile(node, variables))

    def applied(self, function: str, arguments: Sequence[int]) -> Value:
        """Return what a function of numbers gives."""
        names = [f"#{k}" for k in range(len(arguments))]
        call = Call(function, tuple(map(Name, names)))
        return self.plain(call, dict(zip(names, arguments, strict=True)))

    def operated(self, operator: Operator, a: int, b: int) -> int:
        """Return an operation on two numbers."""
        match operator:
            case Operator.ADD:
                return self.field.add(a, b)
            case Operator.SUBTRACT:
                return self.field.subtract(a, b)
            case Operator.DIVIDE:
                return self.field.divide(a, b)
            case Operator.POWER:
                return self._graph.to_the(a, b)
            case _:
                return self.field.multiply(a, b)

    def whole(self, number: int) -> int:
        """Return a whole number that is written in the graph.

        Raises:
            ListError: it is no whole number. NotHandledError: it depends on something.
        """
        known = self.field.known(number)
        if known is None:
            raise NotHandledError(
                "An index or a size that depends on a slider or a variable has no place here."
            )
        if known.denominator != 1:
            raise ListError(f"An index or a size is a whole number; this is {known}.")
        return int(known)

    def check_entries(self, count: int) -> None:
        """Refuse more entries than a graph should hold."""
        _check_entries(count)

    def product(self, a: Array[int], b: Array[int]) -> Array[int]:
        """Return a matrix product."""
        _check_entries(a.row_count * b.column_count)
        exact = self._fractions(a, b)
        if exact is not None:
            with precision(VALUE_BITS):
                return self._from(combine.product(exact[0], exact[1], SCALARS))
        _check_entries(a.row_count * b.column_count * a.column_count)
        return combine.product(a, b, self.field)

    def inverse(self, a: Array[int]) -> Array[int]:
        """Return the inverse of a matrix."""
        need_square(a, "The inverse")
        _check_entries(len(a.entries))
        exact = self._fractions(a)
        if exact is not None:
            with precision(VALUE_BITS):
                return self._from(elimination.inverse(exact[0]))
        if a.shape[0] > _MOST_ROWS:
            raise NotHandledError(_TOO_LARGE)
        if not self.field.decides:
            return combine.inverse_by_minors(a, self.field)
        return field_elimination.inverse(
            self.field, a, combine.determinant_by_minors(a, self.field)
        )

    def determinant(self, a: Array[int]) -> int:
        """Return the determinant of a matrix."""
        need_square(a, "The determinant")
        _check_entries(len(a.entries))
        exact = self._fractions(a)
        if exact is not None:
            with precision(VALUE_BITS):
                return self._step(elimination.determinant(exact[0]))
        if a.shape[0] > _MOST_ROWS:
            raise NotHandledError(_TOO_LARGE)
        return combine.determinant_by_minors(a, self.field)

    def function(
        self, entry: FunctionEntry, arguments: Sequence[Value], options: Sequence[str]
    ) -> Value:
        """Return what a function of lists and matrices gives."""
        arrays = entry.arrays
        assert arrays is not None  # noqa: S101 - only such are asked for
        if entry.name == "det" and isinstance(arguments[0], Array):
            return self.determinant(arguments[0])
        if entry.name == "random":
            raise NotHandledError(
                "What is plotted has one value at each place: draw the number first, as in "
                "`a = random()`, and use `a`."
            )
        checked = check_needs(entry, arguments, self)
        for argument in checked:
            if isinstance(argument, Array):
                self.check_entries(len(argument.entries))
        proving = arrays.proving
        if proving is not None:
            exact = self._exact_arguments(checked)
            if exact is not None:
                with precision(VALUE_BITS), suppress(UndecidedError):
                    value = proving(*exact)
                    if _is_exact(value):
                        return self._value(value)
        if arrays.in_field is None:
            raise NotHandledError(
                f"`{entry.name}` looks at the numbers themselves; define it as a value of its own."
            )
        return arrays.in_field(self.field, *checked, *options)

    # Between steps and numbers

    def _fractions(self, *arrays: Array[int]) -> list[Matrices] | None:
        made = [self._exact(array) for array in arrays]
        return None if any(one is None for one in made) else made  # type: ignore[return-value]

    def _exact_arguments(self, arguments: Sequence[Value]) -> list[Value] | None:
        made: list[Value] = []
        for argument in arguments:
            exact = self._exact(argument)
            if exact is None:
                return None
            made.append(exact)
        return made

    def _exact(self, value: Value) -> Value | None:
        """Return a value of steps as one of exact numbers, None if a step is none."""
        if isinstance(value, bool | Coordinates):
            return None
        entries = value.entries if isinstance(value, Array) else (value,)
        numbers = [
            self.field.known(entry) for entry in entries if not isinstance(entry, Coordinates)
        ]
        if len(numbers) < len(entries) or any(number is None for number in numbers):
            return None
        made = tuple(
            exact_ball(fmpq(number.numerator, number.denominator))
            for number in numbers
            if number is not None
        )
        return Array(value.shape, made) if isinstance(value, Array) else made[0]

    def _step(self, number: object) -> int:
        if not isinstance(number, Ball) or number.exact is None:
            raise NotHandledError(_TOO_LARGE)
        return self.field.number(to_fraction(number.exact))

    def _from(self, array: Matrices) -> Array[int]:
        return array.map(self._step)

    def _value(self, value: Value) -> Value:
        if isinstance(value, bool):
            return value
        return self._from(value) if isinstance(value, Array) else self._step(value)

    def written_out(self, shaped: Shaped) -> Value:
        """Return a value of the graph with its lists written out, entry by entry.

        Raises:
            NotHandledError: a list is too long, or its length depends on something.
        """
        if not shaped.lists:
            return self._at(shaped, {})
        sources = {name: self._entries(self._lists[name]) for name in sorted(shaped.lists)}
        count = check_same_length(len(entries) for entries in sources.values())
        entries = []
        for index in range(count):
            inputs = {}
            for name, items in sources.items():
                for suffix, step in zip(("", SECOND), items[index], strict=False):
                    inputs[name + suffix] = step
            entries.append(self._at(shaped, inputs))
        return Array((len(entries),), tuple(entries))

    def _at(self, shaped: Shaped, inputs: Mapping[str, int]) -> Value:
        steps = []
        for step in (shaped.first, shaped.second):
            made = step
            for name, new in inputs.items():
                if made is not None:
                    old = self._graph.add(Op.INPUT, payload=name)
                    made = self._graph.substitute(made, old, new)
            steps.append(made)
        first, second = steps
        if first is None:
            raise TypeError("a value has a first coordinate")
        return first if second is None else Coordinates(first, second)

    def _entries(self, source: ListSource) -> list[tuple[int, ...]]:
        if source.start is None or source.stop is None:
            _check_entries(len(source.items))
            return list(source.items)
        ends = {
            name: self.field.known(step)
            for name in ("start", "stop", "step", "count")
            if (step := getattr(source, name)) is not None
        }
        if any(number is None for number in ends.values()):
            raise NotHandledError(_TOO_LARGE)
        known = {name: number for name, number in ends.items() if number is not None}
        start, stop = known["start"], known["stop"]
        if "step" in known:
            step = known["step"]
            if step == 0 or (stop - start) / step < 0:
                raise ListError("The step of a list leads away from its end, or is 0.")
            count = int((stop - start) / step) + 1
        else:
            if known["count"].denominator != 1 or known["count"] < 2:
                raise ListError("A list in points needs a whole number of them, at least 2.")
            count = int(known["count"])
            step = (stop - start) / (count - 1)
        _check_entries(count)
        return [(self.field.number(start + k * step),) for k in range(count)]


def _is_exact(value: Value) -> bool:
    if isinstance(value, bool):
        return True
    entries = value.entries if isinstance(value, Array) else (value,)
    return all(isinstance(entry, Ball) and entry.exact is not None for entry in entries)


def _check_entries(count: int) -> None:
    if count > _MOST_ENTRIES:
        raise NotHandledError(_TOO_LARGE)

"""Compute trees in which lists and matrices take part, in any arithmetic.

A part of the tree without such objects is left to the arithmetic as a whole, which computes it as
everywhere else; what is left are the few operations that make and take apart objects.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import reduce
from typing import Any, Generic, TypeVar

from axis_path.core.arithmetic.arrays import parts
from axis_path.core.arithmetic.arrays.array import Array, check_same_length, matrix, vector
from axis_path.core.arithmetic.arrays.combine import transposed
from axis_path.core.catalogue import FUNCTIONS, FunctionEntry
from axis_path.core.deadline import check
from axis_path.core.errors import (
    ArgumentCountError,
    LimitError,
    MathError,
    NotHandledError,
    ShapeError,
    no_value,
)
from axis_path.core.evaluate.objects.algebra import Algebra
from axis_path.core.evaluate.objects.building import built, built_at_once, counted
from axis_path.core.evaluate.objects.object_search import ObjectSearch
from axis_path.core.evaluate.objects.operations import need_index, need_number, operate
from axis_path.core.evaluate.objects.values import Coordinates, Value, words
from axis_path.core.language.tree import (
    TRANSPOSE,
    Angle,
    At,
    Binary,
    Built,
    Call,
    Index,
    Items,
    Last,
    Name,
    Negative,
    Node,
    Operator,
    Over,
    Pair,
    Percent,
    Pieces,
    Replaced,
    Subscript,
    Summary,
    Transposed,
)
from axis_path.core.limits import SUM_TERMS

E = TypeVar("E")
_LAST = "#last"


class Interpreter(Generic[E]):
    """Computes trees.

    Args:
        algebra: the arithmetic.
        search: tells in which trees objects take part.
    """

    def __init__(self, algebra: Algebra[E], search: ObjectSearch) -> None:
        self._algebra = algebra
        self._search = search

    def value(self, node: Node, bound: Mapping[str, Value] | None = None) -> Value:
        """Return the value of an expression.

        Args:
            node: the tree.
            bound: what its own variables are.

        Raises:
            MathError: shapes that do not fit, an index outside, a limit; its position is that of
                the part in which it lies.
        """
        bound = bound or {}
        try:
            return self._value(node, bound)
        except MathError as err:
            if err.position == (0, 0):
                err.position = node.span
            raise

    def _value(self, node: Node, bound: Mapping[str, Value]) -> Value:
        check()
        if not self._search.has_objects(node, bound):
            return self._algebra.plain(node, bound)
        match node:
            case Name():
                return self._name(node, bound)
            case Negative(operand):
                return self._negative(self.value(operand, bound))
            case Percent(operand):
                hundred = self._algebra.field.number(100)
                return operate(Operator.DIVIDE, self.value(operand, bound), hundred, self._algebra)
            case Binary(operator, left, right):
                a, b = self.value(left, bound), self.value(right, bound)
                return operate(operator, a, b, self._algebra)
            case Call():
                return self._call(node, bound)
            case Angle():
                return self._angle(node, bound)
            case Over() if node.summary is not Summary.INTEGRAL:
                return self._over(node, bound)
            case _:
                return self._object(node, bound)

    def _object(self, node: Node, bound: Mapping[str, Value]) -> Value:
        """Return what makes an object, or takes one apart."""
        match node:
            case Pair(first, second):
                a, b = (need_number(self.value(part, bound)) for part in (first, second))
                return Coordinates(a, b)
            case Items(items):
                return self._items([self.value(item, bound) for item in items])
            case Index():
                return self._index(node, bound)
            case Replaced(operand, subscripts, value):
                array = self._array(self.value(operand, bound))
                chosen = self._chosen(array, subscripts, bound)
                return parts.replaced(array, chosen, self.value(value, bound))
            case Transposed():
                return self._transposed(node, bound)
            case Built():
                return self._built(node, bound)
            case Last():
                if _LAST not in bound:
                    raise ShapeError("`last` is an index; it stands within square brackets.")
                return bound[_LAST]
            case _:
                raise NotHandledError(
                    "Lists and matrices have no place in a derivative, an integral or a function "
                    "in pieces; define what is taken from them as a value of its own.",
                    position=node.span,
                )

    def _name(self, node: Name, bound: Mapping[str, Value]) -> Value:
        name = node.name
        if name in bound:
            return bound[name]
        try:
            value = self._algebra.named(name)
        except MathError as err:
            # It lies in another line: here the name is what cannot be computed.
            err.position = node.span
            raise
        if value is None:
            raise no_value(name, node.span)
        return value

    def _elsewhere(self, node: Node, bound: Mapping[str, Value]) -> Value:
        """Return the value of a tree of another line; its errors have no position in this one."""
        try:
            return self.value(node, bound)
        except MathError as err:
            err.position = (0, 0)
            raise

    def _negative(self, value: Value) -> Value:
        if isinstance(value, Array):
            large = self._algebra.large
            return (large and large.negative(value)) or value.map(self._negative)
        if isinstance(value, Coordinates):
            return value.map(self._algebra.field.negative)
        return self._algebra.field.negative(need_number(value))

    def _angle(self, node: Angle, bound: Mapping[str, Value]) -> Value:
        inner = self.value(node.operand, bound)

        def one(entry: Any) -> Value:  # noqa: ANN401
            number = need_number(entry, "An angle is a number")
            return self._algebra.plain(Angle(Name("#angle"), node.unit), {"#angle": number})

        return inner.map(one) if isinstance(inner, Array) else one(inner)

    def _items(self, items: list[Value]) -> Value:
        lists = [item for item in items if isinstance(item, Array)]
        if not lists:
            kinds = {isinstance(item, Coordinates) for item in items}
            if len(kinds) > 1 or any(isinstance(item, bool) for item in items):
                raise ShapeError("A list holds numbers only, or points only.")
            return vector(items)
        if len(lists) < len(items):
            raise ShapeError(
                "A list holds numbers, or lists that are the rows of a matrix, not both."
            )
        wrong = next((item for item in lists if item.is_matrix), None)
        if wrong is not None:
            raise ShapeError(f"The rows of a matrix are lists; this is {wrong.words}.")
        if any(isinstance(entry, Coordinates) for item in lists for entry in item.entries):
            raise ShapeError("A matrix holds numbers, no points.")
        return matrix([item.entries for item in lists])

    # Parts

    def _array(self, value: Value) -> Array[Any]:
        if not isinstance(value, Array):
            raise ShapeError(
                f"Entries can be replaced in a list or a matrix; this is {words(value)}."
            )
        return value

    def _index(self, node: Index, bound: Mapping[str, Value]) -> Value:
        value = self.value(node.operand, bound)
        if not isinstance(value, Array):
            # A number before a list multiplies it, with a space between them or without.
            return operate(Operator.MULTIPLY, value, self._as_list(node, bound), self._algebra)
        return parts.part(value, self._chosen(value, node.subscripts, bound))

    def _as_list(self, node: Index, bound: Mapping[str, Value]) -> Value:
        items = [part.index for part in node.subscripts if isinstance(part, At)]
        if len(items) < len(node.subscripts):
            raise ShapeError("Only a list or a matrix has entries.")
        return self._items([self.value(item, bound) for item in items])

    def _chosen(
        self, array: Array[Any], subscripts: tuple[Subscript, ...], bound: Mapping[str, Value]
    ) -> list[parts.Chosen]:
        sides = array.shape if len(array.shape) == len(subscripts) else (0,) * len(subscripts)
        return [
            self._one_chosen(part, side, bound)
            for part, side in zip(subscripts, sides, strict=True)
        ]

    def _one_chosen(self, part: Subscript, side: int, bound: Mapping[str, Value]) -> parts.Chosen:
        inner = {**bound, _LAST: self._algebra.field.number(side)}
        if isinstance(part, At):
            return need_index(self.value(part.index, inner), self._algebra) - 1
        if part.low is None or part.high is None:
            return range(side)
        low, high = (
            need_index(self.value(end, inner), self._algebra) for end in (part.low, part.high)
        )
        return range(low - 1, high)

    def _transposed(self, node: Transposed, bound: Mapping[str, Value]) -> Value:
        value = self.value(node.operand, bound)
        if isinstance(value, Array):
            return transposed(value)
        if node.power is None:
            raise no_value(TRANSPOSE, node.span)
        return operate(Operator.POWER, value, self.value(node.power, bound), self._algebra)

    def _built(self, node: Built, bound: Mapping[str, Value]) -> Value:
        ranges = counted(node, bound, self.value, self._algebra)
        if not self._search.has_objects(node.body, bound):
            at_once = built_at_once(node, ranges, bound, self.value, self._algebra)
            if at_once is not None:
                return at_once
        made = built(node, ranges, bound, self.value, self._algebra)
        return self._items(made) if isinstance(made, list) else made

    def _over(self, node: Over, bound: Mapping[str, Value]) -> Value:
        """Return a sum or a product over a variable, term by term."""
        low, high = (
            need_index(self.value(end, bound), self._algebra) for end in (node.low, node.high)
        )
        field = self._algebra.field
        if low > high:
            return field.number(0 if node.summary is Summary.SUM else 1)
        if high - low >= SUM_TERMS.value:
            raise LimitError(f"A sum of more than {SUM_TERMS.value:,} terms is too long.")
        terms = [
            self.value(node.body, {**bound, node.variable: field.number(k)})
            for k in range(low, high + 1)
        ]
        operator = Operator.ADD if node.summary is Summary.SUM else Operator.MULTIPLY
        return reduce(lambda a, b: operate(operator, a, b, self._algebra), terms)

    # Functions

    def _call(self, node: Call, bound: Mapping[str, Value]) -> Value:
        entry = FUNCTIONS.get(node.function)
        options = node.options
        arguments = [self.value(argument, bound) for argument in node.arguments]
        if entry is not None and entry.arrays is not None:
            is_counted = entry.arrays.counts is None
            if entry.arrays.takes_count(len(arguments)):
                # max(L) is a function of a list; max(2) lacks a number.
                if is_counted or not isinstance(arguments[0], Array):
                    check_count(node, entry, len(arguments))
                return self._algebra.function(entry, arguments, options)
        if options:
            raise ShapeError(f"`{node.function}` takes `{options[0]}` with a list only.")
        if any(isinstance(argument, bool) for argument in arguments):
            raise ShapeError(f"`{node.function}` takes numbers, no statements.")
        matrices = [value for value in arguments if isinstance(value, Array) and value.is_matrix]
        body = self._search.function(node.function)
        if body is not None and (matrices or self._search.kinds.takes_arrays(node.function)):
            return self._own(node, body, arguments)
        if not matrices:
            return self._for_each(node, arguments)
        if node.function == "abs" and len(arguments) == 1:
            return self._algebra.determinant(matrices[0])
        raise ShapeError(
            f"`{node.function}` is a function of numbers and lists; for each entry of a matrix "
            f"write `matrix({node.function}(A[i, j]), i, 1, rows(A), j, 1, columns(A))`."
        )

    def _for_each(self, node: Call, arguments: list[Value]) -> Value:
        """Apply a function of numbers to each entry of lists."""
        lists = [value for value in arguments if isinstance(value, Array)]
        if not lists:
            return self._apply_once(node, arguments)
        count = check_same_length(len(other.entries) for other in lists)
        large = self._algebra.large
        at_once = large and large.called(node.function, arguments)
        if at_once is not None:
            return at_once
        return vector(
            [
                self._apply_once(
                    node,
                    [
                        value.entries[k] if isinstance(value, Array) else value
                        for value in arguments
                    ],
                )
                for k in range(count)
            ]
        )

    def _apply_once(self, node: Call, arguments: list[Value]) -> Value:
        numbers: list[E] = []
        for argument in arguments:
            if isinstance(argument, Coordinates):
                numbers += [argument.first, argument.second]
            else:
                numbers.append(argument)
        body = self._search.function(node.function)
        if body is not None and self._search.has_objects(body.expression, {}):
            return self._own(node, body, numbers)
        return self._algebra.applied(node.function, numbers)

    def _own(self, node: Call, body: Any, arguments: Sequence[Value]) -> Value:  # noqa: ANN401
        if len(body.variables) != len(arguments):
            raise ArgumentCountError(
                f"`{node.function}` needs {len(body.variables)} values and was given "
                f"{len(arguments)}."
            )
        if isinstance(body.expression, Pieces) or not all(d.is_whole for d in body.domains):
            raise NotHandledError(
                f"`{node.function}` takes parts of lists or matrices and has a domain; that is not "
                "handled."
            )
        return self._elsewhere(body.expression, dict(zip(body.variables, arguments, strict=True)))


def check_count(node: Call, entry: FunctionEntry, count: int) -> None:
    """Refuse too many or too few arguments.

    Raises:
        ArgumentCountError: they do not fit.
    """
    if not entry.accepts(count):
        least = sum(not argument.is_optional for argument in entry.arguments)
        expected = least if count < least else len(entry.arguments)
        raise ArgumentCountError(
            f"`{node.function}` needs {expected} value{'' if expected == 1 else 's'} "
            f"and was given {count}.",
            position=node.span,
        )

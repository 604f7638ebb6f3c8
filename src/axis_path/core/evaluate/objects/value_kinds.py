"""What kind of value an expression has, found out from its tree alone.

Sizes are not known here, only whether it is a number, a point, a list or a matrix: that never
changes with the sliders.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.catalogue.entry import FunctionEntry, ValueKind
from axis_path.core.evaluate.graph.shapes import Surroundings, UserFunction
from axis_path.core.language.tree import (
    Angle,
    At,
    Binary,
    Built,
    Call,
    Derivative,
    Index,
    Items,
    Name,
    Negative,
    Node,
    Operator,
    Pair,
    Percent,
    Range,
    Replaced,
    Subscript,
    Transposed,
)
from axis_path.core.language.walk import names_in, walk

NUMBER, POINT, LIST, MATRIX = ValueKind.NUMBER, ValueKind.POINT, ValueKind.LIST, ValueKind.MATRIX
Kinds = Mapping[str, ValueKind]
_NOTHING: Kinds = {}
#: What an argument needs that a number cannot be.
_NEEDS_ARRAY = frozenset({"any array", "any list", "array", "list", "matrix"})
#: Functions of the study within one another.
_DEEPEST = 60


class ValueKinds:
    """Finds out kinds among the names of a study.

    Args:
        around: what names mean.
    """

    def __init__(self, around: Surroundings) -> None:
        self._around = around
        self._known: dict[object, ValueKind] = {}
        self._operations: dict[object, bool] = {}
        self._depth = 0

    def kind(self, node: Node, bound: Kinds = _NOTHING) -> ValueKind:
        """Return the kind of an expression; a number where it cannot be told.

        Args:
            node: the tree.
            bound: the kinds of its own variables.
        """
        match node:
            case Name(name):
                return self._name(name, bound)
            case Negative(operand) | Percent(operand) | Angle(operand) | Replaced(operand):
                return self.kind(operand, bound)
            case Pair(first, second):
                parts = (self.kind(part, bound) for part in (first, second))
                return LIST if LIST in parts else POINT
            case Items(items):
                is_matrix = bool(items) and self.kind(items[0], bound) in (LIST, MATRIX)
                return MATRIX if is_matrix else LIST
            case Range():
                return LIST
            case Index(operand, subscripts):
                made = self._index(self.kind(operand, bound), subscripts)
                return POINT if made is NUMBER and self._holds_points(operand) else made
            case Transposed(operand):
                return MATRIX if self.kind(operand, bound) in (LIST, MATRIX) else NUMBER
            case Built(body, counters):
                return self._built(body, [counter.variable for counter in counters], bound)
            case Binary(operator, left, right):
                return _joined(operator, self.kind(left, bound), self.kind(right, bound))
            case Call():
                return self._call(node, bound)
            case Derivative(_, _, argument):
                return LIST if self.kind(argument, bound) is LIST else NUMBER
            case _:
                return NUMBER

    def _name(self, name: str, bound: Kinds) -> ValueKind:
        if name in bound:
            return bound[name]
        if name in CONSTANTS:
            return NUMBER
        mark = self._around.mark(name)
        if mark not in self._known:
            meaning = self._around.value(name)
            if meaning is None or isinstance(meaning, bool):
                return NUMBER
            self._known[mark] = NUMBER
            self._known[mark] = self.kind(meaning)
        return self._known[mark]

    def _index(self, operand: ValueKind, subscripts: tuple[Subscript, ...]) -> ValueKind:
        singles = sum(isinstance(part, At) for part in subscripts)
        if operand is MATRIX:
            return (MATRIX, LIST, NUMBER)[min(singles, 2)]
        if operand is LIST:
            return NUMBER if singles else LIST
        return LIST

    def _holds_points(self, node: Node) -> bool:
        """Check whether a list is one of points."""
        match node:
            case Name(name):
                meaning = self._around.value(name)
                if meaning is None or isinstance(meaning, bool):
                    return False
                return self._holds_points(meaning)
            case Items(items):
                return bool(items) and self.kind(items[0]) is POINT
            case Negative(operand) | Index(operand) | Replaced(operand):
                return self._holds_points(operand)
            case Binary(_, left, right):
                return self._holds_points(left) or self._holds_points(right)
            case _:
                return False

    def _built(self, body: Node, variables: list[str], bound: Kinds) -> ValueKind:
        if len(variables) > 1:
            return MATRIX
        inner = self.kind(body, {**bound, variables[0]: NUMBER})
        return MATRIX if inner is LIST else LIST

    def is_operation(self, node: Node, names: frozenset[str]) -> bool:
        """Check whether a function is one of lists or matrices, or one whose value is a matrix.

        Args:
            node: its expression.
            names: its variables.
        """
        numbers = dict.fromkeys(names, NUMBER)
        if self.kind(node, numbers) is MATRIX:
            return True
        return any(self._takes_array(part, numbers) for part in walk(node))

    def _takes_array(self, node: Node, numbers: Kinds) -> bool:
        """Check whether a list or a matrix must stand where the variables are numbers."""
        match node:
            case Index(operand) | Transposed(operand):
                wanted = [operand]
            case Call(function, arguments):
                wanted = [arguments[k] for k in self._places_of_arrays(function, len(arguments))]
            case _:
                return False
        return any(
            not names_in(part).isdisjoint(numbers) and self.kind(part, numbers) is NUMBER
            for part in wanted
        )

    def _places_of_arrays(self, function: str, count: int) -> Iterable[int]:
        """Return which arguments of a function must be lists or matrices."""
        entry = FUNCTIONS.get(function)
        if entry is not None:
            arrays = entry.arrays
            # Those that have numbers as arguments too, such as max, rather lack one.
            if arrays is None or arrays.counts is not None or not arrays.takes_count(count):
                return ()
            needs = [*arrays.needs, *arrays.needs[-1:] * count][:count]
            return [place for place, need in enumerate(needs) if need in _NEEDS_ARRAY]
        return range(count) if self.takes_arrays(function) else ()

    def takes_arrays(self, function: str) -> bool:
        """Check whether a function of the study is one of lists or matrices."""
        own = self._around.function(function)
        if own is None:
            return False
        mark = (function, self._around.mark(function))
        if mark not in self._operations:
            if self._depth > _DEEPEST:
                return False
            # It may call itself, which is refused elsewhere.
            self._operations[mark] = False
            self._depth += 1
            try:
                names = frozenset(own.variables)
                self._operations[mark] = self.is_operation(own.expression, names)
            finally:
                self._depth -= 1
        return self._operations[mark]

    def _call(self, node: Call, bound: Kinds) -> ValueKind:
        entry = FUNCTIONS.get(node.function)
        kinds = [self.kind(argument, bound) for argument in node.arguments]
        if entry is not None:
            return _of_entry(entry, kinds)
        own = self._around.function(node.function)
        if own is None or len(own.variables) != len(kinds):
            return LIST if LIST in kinds else NUMBER
        # A function of numbers is applied to each entry of a list.
        if MATRIX in kinds or (LIST in kinds and self.takes_arrays(node.function)):
            return self._of_function(node.function, own, tuple(kinds))
        one = self._of_function(node.function, own, (NUMBER,) * len(kinds))
        return LIST if LIST in kinds else one

    def _of_function(
        self, function: str, own: UserFunction, kinds: tuple[ValueKind, ...]
    ) -> ValueKind:
        """Return the kind of a function of the study, given those of its arguments.

        It is stored: functions that call one another twice would take forever else.
        """
        mark = (function, self._around.mark(function), kinds)
        if mark not in self._known:
            if self._depth > _DEEPEST:
                return NUMBER
            self._depth += 1
            try:
                bound = dict(zip(own.variables, kinds, strict=True))
                self._known[mark] = self.kind(own.expression, bound)
            finally:
                self._depth -= 1
        return self._known[mark]


def _joined(operator: Operator, a: ValueKind, b: ValueKind) -> ValueKind:
    if MATRIX in (a, b):
        return LIST if operator is Operator.MULTIPLY and b is LIST else MATRIX
    if LIST in (a, b):
        return LIST
    return POINT if POINT in (a, b) else NUMBER


def _of_entry(entry: FunctionEntry, kinds: list[ValueKind]) -> ValueKind:
    if entry.arrays is not None and entry.arrays.takes_count(len(kinds)):
        return entry.arrays.kind(kinds)
    if MATRIX in kinds:
        return NUMBER
    if LIST in kinds:
        return LIST
    return POINT if entry.components is not None else NUMBER

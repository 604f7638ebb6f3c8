"""In which trees lists and matrices take part as wholes.

A list that is only computed with entry by entry is no object in this sense: the graph runs over its
entries, however many they are.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping

from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.catalogue.entry import ValueKind
from axis_path.core.evaluate.graph.graph import IMAGINARY
from axis_path.core.evaluate.graph.shapes import Surroundings, UserFunction
from axis_path.core.evaluate.objects.value_kinds import Kinds, ValueKinds
from axis_path.core.evaluate.objects.values import Value
from axis_path.core.language.tree import (
    Built,
    Call,
    Derivative,
    Index,
    Items,
    Last,
    Name,
    Node,
    Over,
    Range,
    Replaced,
    Transposed,
)
from axis_path.core.language.walk import children, free_uses

_ARRAYS = (ValueKind.LIST, ValueKind.MATRIX)
_NO_KINDS: Kinds = {}
#: So many trees are remembered.
_MOST_CACHED = 20_000


class ObjectSearch:
    """Looks through trees, among the names of a study.

    Args:
        around: what names mean.
    """

    def __init__(self, around: Surroundings) -> None:
        self._around = around
        self.kinds = ValueKinds(around)
        self._names: dict[object, bool] = {}
        self._functions: dict[object, bool] = {}
        self._complex: dict[object, bool] = {}
        # By the identity of a tree, which is held so that no other can come to have it.
        self._trees: dict[int, tuple[Node, bool]] = {}

    def function(self, name: str) -> UserFunction | None:
        """Return a function of the study."""
        return self._around.function(name)

    def has_objects(self, node: Node, bound: Mapping[str, Value] | None = None) -> bool:
        """Check whether objects take part anywhere in an expression.

        Args:
            node: the tree.
            bound: what its own variables are; arrays among them are objects.
        """
        if not bound:
            cached = self._trees.get(id(node))
            if cached is None or cached[0] is not node:
                if len(self._trees) > _MOST_CACHED:
                    self._trees.clear()
                cached = self._trees[id(node)] = (node, self._holds(node, (), frozenset()))
            return cached[1]
        arrays = {name for name, value in bound.items() if isinstance(value, Array | bool)}
        return self._holds(node, arrays, frozenset(bound))

    def _holds(self, node: Node, arrays: Collection[str], own: frozenset[str]) -> bool:
        waiting = [(node, own)]
        is_complex = has_list = False
        while waiting:
            current, hidden = waiting.pop()
            if self._is_itself(current, arrays, hidden):
                return True
            if isinstance(current, Name) and current.name not in hidden:
                is_complex |= self._is_complex(current.name)
                has_list |= self.kinds.kind(current) is ValueKind.LIST
            has_list |= isinstance(current, Items | Range)
            if isinstance(current, Over):
                hidden = hidden | {current.variable}
            waiting += [(part, hidden) for part in children(current)]
        # The graph runs over lists of real numbers only.
        return is_complex and has_list

    def _is_itself(self, node: Node, arrays: Collection[str], hidden: frozenset[str]) -> bool:
        """Check whether a node is an object by itself, or takes one apart."""
        match node:
            case Index() | Replaced() | Transposed() | Built() | Last():
                return True
            case Name(name):
                return name in arrays or (name not in hidden and self._is_object(name))
            case Items(items):
                return any(self.kinds.kind(item) in _ARRAYS for item in items)
            case Call(function, arguments):
                return self._is_object_call(function, len(arguments))
            case Derivative(function):
                return self._has_object_body(function)
            case _:
                return False

    def _is_complex(self, name: str) -> bool:
        """Check whether a name is i, or a value in which i takes part."""
        meaning = self._around.value(name)
        if meaning is None or isinstance(meaning, bool):
            return meaning is None and name == IMAGINARY
        mark = self._around.mark(name)
        if mark not in self._complex:
            self._complex[mark] = False
            names = (use.name for use in free_uses(meaning) if isinstance(use, Name))
            self._complex[mark] = any(map(self._is_complex, names))
        return self._complex[mark]

    def _is_object_call(self, function: str, count: int) -> bool:
        entry = FUNCTIONS.get(function)
        if entry is None:
            return self._has_object_body(function)
        return entry.arrays is not None and entry.arrays.takes_count(count)

    def _has_object_body(self, function: str) -> bool:
        own = self._around.function(function)
        if own is None:
            return False
        mark = ("function", function, self._around.mark(function))
        if mark not in self._functions:
            self._functions[mark] = False
            self._functions[mark] = self._holds(own.expression, (), frozenset(own.variables))
        return self._functions[mark]

    def _is_object(self, name: str) -> bool:
        mark = self._around.mark(name)
        if mark not in self._names:
            meaning = self._around.value(name)
            if meaning is None or isinstance(meaning, bool):
                return False
            self._names[mark] = False
            self._names[mark] = self._holds(meaning, (), frozenset())
        return self._names[mark]

    def concerns(self, node: Node, bound: Kinds = _NO_KINDS) -> bool:
        """Check whether an expression itself makes or takes apart an object.

        Args:
            node: the tree.
            bound: the kinds of its own variables.
        """
        match node:
            case Index() | Replaced() | Transposed() | Built() | Last():
                return True
            case Call(function, arguments):
                entry = FUNCTIONS.get(function)
                if entry is not None and entry.arrays is not None:
                    if entry.arrays.takes_count(len(arguments)):
                        return True
                elif self._has_object_body(function):
                    return True
            case Items(items):
                return any(self.kinds.kind(item, bound) in _ARRAYS for item in items)
            case Name(name):
                return (
                    name not in bound and self._is_object(name) and self.kinds.kind(node) in _ARRAYS
                )
            case _:
                pass
        return any(
            self.kinds.kind(part, bound) in _ARRAYS and self._holds(part, (), frozenset(bound))
            for part in children(node)
        )

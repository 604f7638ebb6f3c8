"""The compiler for a study's own lines: with derivatives and functions made of others."""

from __future__ import annotations

from functools import cache

from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.catalogue import FUNCTIONS, ValueKind
from axis_path.core.errors import ArgumentCountError, NotHandledError, ShapeError
from axis_path.core.evaluate.graph.compile import Compiler
from axis_path.core.evaluate.graph.derive import derive
from axis_path.core.evaluate.graph.graph import Graph, Op
from axis_path.core.evaluate.graph.shapes import Shaped, Surroundings, UserFunction
from axis_path.core.evaluate.objects.interpreter import Interpreter
from axis_path.core.evaluate.objects.object_search import ObjectSearch
from axis_path.core.evaluate.objects.step_algebra import StepAlgebra
from axis_path.core.evaluate.objects.values import Coordinates, Value, words
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.tree import AngleUnit, Call, Derivative, Name, Node
from axis_path.core.threads import lazy_property

_ARGUMENTS = ("u", "v", "w")
#: A fourth derivative of more steps costs more than it saves.
_MOST_FOURTH = 400


def _no_function(_name: str) -> UserFunction | None:
    return None


def _no_value(_name: str) -> Node | bool | None:
    return None


_RADIANS = Surroundings(AngleUnit.RADIANS, _no_function, _no_value)


@cache
def _read(text: str) -> Node:
    return read_expression(text, Vocabulary(variables=frozenset(_ARGUMENTS)))


class FullCompiler(Compiler):
    """Compiles everything the language has."""

    def __init__(self, graph: Graph, surroundings: Surroundings) -> None:
        super().__init__(graph, surroundings)
        self.search = ObjectSearch(surroundings)
        self._objects: dict[object, Value] = {}

    # Lists and matrices as wholes

    def _concerns_objects(self, node: Node, variables: dict[str, Shaped]) -> bool:
        if not self.search.has_objects(node):
            return False
        kinds = {
            name: ValueKind.NUMBER if value.second is None else ValueKind.POINT
            for name, value in variables.items()
        }
        return self.search.concerns(node, kinds)

    def _object(self, node: Node, variables: dict[str, Shaped]) -> Shaped:
        bound = {
            name: value.first if value.second is None else Coordinates(value.first, value.second)
            for name, value in variables.items()
        }
        value = self._interpreter.value(node, bound)
        if isinstance(value, Array | bool):
            raise ShapeError(
                f"A number is wanted here; this is {words(value)}.", position=node.span
            )
        lists = frozenset[str]().union(*(value.lists for value in variables.values()))
        if isinstance(value, Coordinates):
            return Shaped(value.first, value.second, lists)
        return Shaped(value, None, lists)

    def _meaning(self, name: str, meaning: Node) -> Shaped:
        try:
            return self.compile_value(meaning, {})
        except NotHandledError:
            if (
                not self.search.has_objects(meaning)
                or self.search.kinds.kind(meaning) is not ValueKind.NUMBER
            ):
                raise
            # It is computed from its lists and matrices, and read by its name like a slider.
            return Shaped(self.graph.add(Op.PARAMETER, payload=name))

    @lazy_property
    def _algebra(self) -> StepAlgebra:
        return StepAlgebra(self.graph, self.compile_value, self.lists, self._named)

    @lazy_property
    def _interpreter(self) -> Interpreter[int]:
        return Interpreter(self._algebra, self.search)

    def _named(self, name: str) -> Value | None:
        meaning = self._around.value(name)
        if meaning is None or isinstance(meaning, bool):
            return None
        mark = self._around.mark(name)
        if mark not in self._objects:
            self._objects[mark] = self._interpreter.value(meaning)
        return self._objects[mark]

    def compile_object(self, node: Node, *, decides: bool = False) -> Value:
        """Return a value whose entries are steps: a number, a point, a list or a matrix.

        Args:
            node: the expression.
            decides: whether it is decided if a constant is 0, which may take long.

        Raises:
            NotHandledError: it is too large, or must look at numbers that the sliders decide.
            MathError: it has no meaning.
        """
        self._algebra.field.decides = decides
        try:
            return self._interpreter.value(node)
        finally:
            self._algebra.field.decides = False

    def _expanded(self, text: str, arguments: tuple[int, ...]) -> int:
        # The catalogue's own texts measure angles in radians, whatever the study does.
        inner = FullCompiler(self.graph, _RADIANS)
        return inner.compile(_read(text), dict(zip(_ARGUMENTS, arguments, strict=False)))

    def compile_plain(self, node: Node) -> int:
        """Return the step of an expression of numbers alone, with angles in radians."""
        return FullCompiler(self.graph, _RADIANS).compile(node, {})

    def _fourth(self, body: int, bound: int) -> int | None:
        """Return the fourth derivative of an integral's body, unless it is unknown or too long."""
        before = len(self.graph.steps)
        derived = body
        for _ in range(4):
            if len(self.graph.steps) - before > _MOST_FOURTH:
                return None
            try:
                derived = derive(self.graph, derived, bound)
            except NotHandledError:
                return None
        return derived

    def _derivative(self, node: Derivative, variables: dict[str, Shaped]) -> Shaped:
        shaped = self._number(node.argument, variables)
        key = ("derivative", node.function, self._around.mark(node.function), node.order)
        bound = self.graph.add(Op.INPUT, payload=f"#{node.function}'")
        if key not in self._calls:
            self._calls[key] = self._derived(node, bound)
        cached = self._calls[key]
        steps = [
            None if step is None else self.graph.substitute(step, bound, shaped.first)
            for step in (cached.first, cached.second)
        ]
        return Shaped(steps[0] or 0, steps[1], shaped.lists)

    def _derived(self, node: Derivative, bound: int) -> Shaped:
        self._check_derivable(node)
        name = Name("#input")
        body = self.compile_value(Call(node.function, (name,)), {"#input": Shaped(bound)})
        if body.lists:
            raise ShapeError("A function of lists has no derivative.", position=node.span)
        steps = []
        for step in (body.first, body.second):
            derived = step
            for _ in range(node.order):
                if derived is None:
                    break
                # A rule may have a value where its function has none: ln has the slope 1/x.
                slope = derive(self.graph, derived, bound)
                derived = self.graph.add(Op.GUARD, (slope, derived))
            steps.append(derived)
        return Shaped(steps[0] or 0, steps[1])

    def _check_derivable(self, node: Derivative) -> None:
        own = self._around.function(node.function)
        if own is not None:
            count = len(own.variables)
        elif node.function in FUNCTIONS:
            count = sum(not argument.is_optional for argument in FUNCTIONS[node.function].arguments)
        else:
            count = 1
        if count != 1:
            raise ArgumentCountError(
                f"`{node.function}` has {count} variables; the ′ is for functions of one.",
                position=node.span,
            )

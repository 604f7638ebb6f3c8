"""The compiler for a study's own lines: with derivatives and functions made of others."""

from __future__ import annotations

from functools import cache

from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.errors import ArgumentCountError, NotHandledError, ShapeError
from axis_path.core.evaluate.graph.compile import Compiler
from axis_path.core.evaluate.graph.derive import derive
from axis_path.core.evaluate.graph.graph import Op
from axis_path.core.evaluate.graph.shapes import Shaped, Surroundings, UserFunction
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.tree import AngleUnit, Call, Derivative, Name, Node

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

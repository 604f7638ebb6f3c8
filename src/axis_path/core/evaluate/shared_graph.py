"""A shared graph, on which expressions of several functions are put together.

What is located between two curves is a zero of an expression made of both: ``f(x) - g(x)``, or
``F(x(t), y(t))`` for an equation ``F = 0`` and a path. Such expressions are needed for one search,
so they grow on a graph of their own.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from axis_path.core.evaluate.expression import Expression
from axis_path.core.evaluate.graph.graph import Graph, Op
from axis_path.core.threads import COMPUTING


class SharedGraph:
    """A graph that takes in expressions of other graphs."""

    def __init__(self) -> None:
        self.graph = Graph()
        self._other: Expression | None = None
        self.variable = self.graph.add(Op.VARIABLE)
        self._expressions: dict[int, Expression] = {}

    @classmethod
    def of(cls, one: Expression, other: Expression) -> SharedGraph:
        """Return the graph that two expressions share; it is stored with the first."""
        return one.cached(
            ("shared graph", id(other)), lambda: cls._with(other), lambda s: s._other is other
        )

    @classmethod
    def _with(cls, other: Expression) -> SharedGraph:
        made = cls()
        # Held, so that no other expression can come to have its identity.
        made._other = other
        return made

    def take(
        self,
        expression: Expression,
        variable: int | None = None,
        inputs: Mapping[str, int] = MappingProxyType({}),
    ) -> int:
        """Take an expression in, and give its step.

        Args:
            expression: of any graph.
            variable: the step that stands in the place of its variable; the graph's own by default.
            inputs: steps that stand in the places of named inputs.
        """
        program = expression.program
        made: list[int] = []
        for step in program.steps:
            if step.op == Op.VARIABLE and variable is not None:
                made.append(variable)
            elif step.op == Op.INPUT and step.payload in inputs:
                made.append(inputs[str(step.payload)])
            else:
                made.append(self.graph.rebuild(step, tuple(made[k] for k in step.arguments)))
        return made[program.results[0]]

    def input(self, name: str) -> int:
        """Return a further variable, known by a name."""
        return self.graph.add(Op.INPUT, payload=name)

    def expression(self, step: int) -> Expression:
        """Return a step as an expression, always the same one."""
        with COMPUTING:
            if step not in self._expressions:
                self._expressions[step] = Expression(self.graph, step)
            return self._expressions[step]

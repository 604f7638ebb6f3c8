"""From trees to the graph: names looked up, angles made radians, functions put in."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from axis_path.core.catalogue import CONSTANTS, DEGREE, FUNCTIONS, AngleRole
from axis_path.core.errors import ArgumentCountError, LimitError, NoValueError
from axis_path.core.evaluate.graph import Fence, Graph, Op
from axis_path.core.language.tree import (
    Angle,
    AngleUnit,
    Binary,
    Call,
    Domain,
    Name,
    Negative,
    Node,
    Number,
    Operator,
)
from axis_path.core.limits import NESTED_DEFINITIONS


@dataclass(frozen=True, slots=True)
class UserFunction:
    """A function of the study as a compiler needs it."""

    name: str
    variable: str
    expression: Node
    domain: Domain


@dataclass(frozen=True, slots=True)
class Surroundings:
    """What names mean outside an expression.

    Attributes:
        unit: the unit of angles of the study.
        function: gives a function of the study, or None.
        parameter: gives the expression of a computed parameter, True for a slider, or None.
    """

    unit: AngleUnit
    function: Callable[[str], UserFunction | None]
    parameter: Callable[[str], Node | bool | None]


class Compiler:
    """Puts trees into one graph; what a function gives for an argument is put in once."""

    def __init__(self, graph: Graph, surroundings: Surroundings) -> None:
        self.graph = graph
        self._around = surroundings
        self._calls: dict[tuple[str, int], int] = {}
        self._parameters: dict[str, int] = {}
        self._depth = 0

    def compile(self, node: Node, variables: dict[str, int]) -> int:
        """Give the step of an expression.

        Args:
            node: the tree.
            variables: the steps that stand for its own variables.

        Raises:
            NoValueError: a letter has no value; ArgumentCountError: a call has the wrong number.
            LimitError: the graph grows too large, or definitions stand too deep in one another.
        """
        self._depth += 1
        try:
            if self._depth > NESTED_DEFINITIONS.value:
                raise LimitError("The definitions use one another too many times over.")
            return self._compile(node, variables)
        finally:
            self._depth -= 1

    def _compile(self, node: Node, variables: dict[str, int]) -> int:
        match node:
            case Number(value):
                return self.graph.number(value)
            case Name():
                return self._name(node, variables)
            case Negative(operand):
                return self.graph.negative(self.compile(operand, variables))
            case Angle(operand, unit):
                return self._angle(self.compile(operand, variables), unit)
            case Binary(operator, left, right):
                a, b = self.compile(left, variables), self.compile(right, variables)
                return self._binary(operator, a, b)
            case Call():
                return self._call(node, variables)

    def _binary(self, operator: Operator, a: int, b: int) -> int:
        graph = self.graph
        match operator:
            case Operator.ADD:
                return graph.plus(a, b)
            case Operator.SUBTRACT:
                return graph.minus(a, b)
            case Operator.MULTIPLY:
                return graph.times(a, b)
            case Operator.DIVIDE:
                return graph.over(a, b)
            case Operator.POWER:
                return graph.to_the(a, b)

    def _degree(self) -> int:
        return self.graph.add(Op.CONSTANT, payload=DEGREE)

    def _angle(self, operand: int, unit: AngleUnit) -> int:
        if unit is self._around.unit:
            return operand
        if unit is AngleUnit.DEGREES:
            return self.graph.times(operand, self._degree())
        return self.graph.over(operand, self._degree())

    def _name(self, node: Name, variables: dict[str, int]) -> int:
        name = node.name
        if name in variables:
            return variables[name]
        if name in CONSTANTS:
            return self.graph.add(Op.CONSTANT, payload=name)
        if name in self._parameters:
            return self._parameters[name]
        meaning = self._around.parameter(name)
        if meaning is None:
            raise NoValueError(
                f"`{name}` has no value yet: make it a slider?",
                position=node.span,
                letters=(name,),
            )
        if isinstance(meaning, bool):
            step = self.graph.add(Op.PARAMETER, payload=name)
        else:
            step = self.compile(meaning, {})
        self._parameters[name] = step
        return step

    def _call(self, node: Call, variables: dict[str, int]) -> int:
        arguments = tuple(self.compile(each, variables) for each in node.arguments)
        entry = FUNCTIONS.get(node.function)
        expected = len(entry.arguments) if entry is not None else 1
        if len(arguments) != expected:
            raise ArgumentCountError(
                f"`{node.function}` needs {expected} value{'s' if expected > 1 else ''} "
                f"and was given {len(arguments)}.",
                position=node.span,
            )
        if entry is None:
            return self._own(node, arguments[0])
        in_degrees = self._around.unit is AngleUnit.DEGREES
        if in_degrees and entry.angle is AngleRole.TAKES:
            arguments = tuple(self.graph.times(each, self._degree()) for each in arguments)
        result = self.graph.call(entry.name, arguments)
        if in_degrees and entry.angle is AngleRole.RETURNS:
            return self.graph.over(result, self._degree())
        return result

    def _own(self, node: Call, argument: int) -> int:
        key = (node.function, argument)
        if key not in self._calls:
            function = self._around.function(node.function)
            if function is None:
                raise NoValueError(f"`{node.function}` is not defined here.", position=node.span)
            variables = {function.variable: argument}
            body = self.compile(function.expression, variables)
            reason = f"outside the domain of {function.name}"
            self._calls[key] = self.within(body, argument, function.domain, reason)
        return self._calls[key]

    def within(self, body: int, subject: int, domain: Domain, reason: str) -> int:
        """Give ``body`` where ``subject`` lies in the domain; the reason is for elsewhere."""
        ends = [end for end in (domain.low, domain.high) if end is not None]
        if not ends and not domain.without:
            return body
        bounds = [self.compile(end.value, {}) for end in ends]
        bounds += [self.compile(value, {}) for value in domain.without]
        fence = Fence(
            low=domain.low.closed if domain.low is not None else None,
            high=domain.high.closed if domain.high is not None else None,
            without=len(domain.without),
            reason=reason,
        )
        return self.graph.add(Op.WITHIN, (body, subject, *bounds), fence)

"""The reductions of the grammar: each makes a node, or a part of a body."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from typing import Any

import lark

from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.errors import (
    ArgumentCountError,
    GrammarError,
)
from axis_path.core.language import messages
from axis_path.core.language.parsing.applied import (
    NamedFunction,
    RaisedFunction,
    apply_function,
    raised_number,
    span_across,
    span_of,
)
from axis_path.core.language.parsing.body import Body, Branch, Condition
from axis_path.core.language.parsing.quantities import (
    converted,
    is_mixed,
    is_temperature,
    measured,
    measured_quotient,
)
from axis_path.core.language.scanning.tokens import PRIME_SIGN
from axis_path.core.language.tree import (
    INFINITY,
    TRANSPOSE,
    Angle,
    AngleUnit,
    At,
    Binary,
    Call,
    Derivative,
    Index,
    Items,
    Last,
    Name,
    Negative,
    Node,
    Number,
    Operator,
    Pair,
    Part,
    Percent,
    Physical,
    Range,
    Replaced,
    Subscript,
    Transposed,
)

_OPERATORS = {
    "ADD": Operator.ADD, "SUBTRACT": Operator.SUBTRACT, "TIMES": Operator.MULTIPLY,
    "TIMES_APPLY": Operator.MULTIPLY, "DIVIDE": Operator.DIVIDE,
    "DIVIDE_APPLY": Operator.DIVIDE, "POWER": Operator.POWER, "ENTRYWISE": Operator.ENTRYWISE,
}  # fmt: skip


class _TreeBuilder(lark.Transformer[lark.Token, Any]):
    """One method for each form of the grammar; each makes one node."""

    def unrestricted(self, parts: list[Any]) -> Body:
        return Body((Branch(parts[0], (), span_of(parts[0])),))

    def restricted(self, parts: list[Any]) -> Body:
        return Body((self.piece(parts),))

    def piece(self, parts: list[Any]) -> Branch:
        return Branch(parts[0], tuple(parts[2]), (span_of(parts[0])[0], parts[2][-1].span[1]))

    def otherwise(self, parts: list[Any]) -> Branch:
        return Branch(parts[0], None, span_across(parts))

    def pieces(self, parts: list[Any]) -> list[Branch]:
        first = parts[0] if isinstance(parts[0], list) else [parts[0]]
        return [*first, parts[2]]

    def in_pieces(self, parts: list[Any]) -> Body:
        return Body(tuple(parts[0]))

    def compared(self, parts: list[Any]) -> Body:
        return Body((), self.one_sided(parts))

    def by_step(self, parts: list[Any]) -> Node:
        return Range(parts[1], parts[3], step=parts[5], span=span_across(parts))

    def by_count(self, parts: list[Any]) -> Node:
        return Range(parts[1], parts[3], count=parts[5], span=span_across(parts))

    def conditions(self, parts: list[Any]) -> list[Condition]:
        return [parts[0]] if len(parts) == 1 else [*parts[0], parts[2]]

    def one_sided(self, parts: list[Any]) -> Condition:
        return Condition(tuple(parts[::2]), tuple(parts[1::2]), span_across([parts[0], parts[-1]]))

    two_sided = one_sided

    def comparison(self, parts: list[Any]) -> str:
        return str(parts[0])

    def binary(self, parts: list[Any]) -> Node:
        left, sign, right = parts
        if sign.type == "DIVIDE":
            quotient = measured_quotient(left, right, span_across(parts))
            if quotient is not None:
                return quotient
        return Binary(_OPERATORS[sign.type], left, right, span_across(parts))

    def juxtaposed(self, parts: list[Any]) -> Node:
        if is_mixed(parts[0], parts[1]):
            more = (*parts[0].more, parts[1])
            mixed: Node = replace(parts[0], more=more, span=span_across(parts))
            return mixed
        return Binary(Operator.MULTIPLY, parts[0], parts[1], span_across(parts))

    def negative(self, parts: list[Any]) -> Node:
        operand = parts[1]
        if is_temperature(operand):
            # -5 °C is five degrees below zero, not the opposite of 278.15 K.
            below = Negative(operand.operand, span_across(parts))
            quantity: Node = replace(operand, operand=below, span=span_across(parts))
            return quantity
        return Negative(parts[1], span_across(parts))

    def positive(self, parts: list[Any]) -> Node:
        node: Node = replace(parts[1], span=span_across(parts))
        return node

    def superscript(self, parts: list[Any]) -> Node:
        exponent = raised_number(parts[1])
        return Binary(Operator.POWER, parts[0], exponent, span_across(parts))

    def degrees(self, parts: list[Any]) -> Node:
        return Angle(parts[0], AngleUnit.DEGREES, span_across(parts))

    def radians(self, parts: list[Any]) -> Node:
        return Angle(parts[0], AngleUnit.RADIANS, span_across(parts))

    def quantity(self, parts: list[Any]) -> Node:
        return measured(parts[0], str(parts[1]), span_across(parts))

    def converted(self, parts: list[Any]) -> Node:
        return converted(parts[0], str(parts[1]).strip(), span_across(parts))

    def physical(self, parts: list[Any]) -> Node:
        return Physical(str(parts[0]), span_of(parts[0]))

    def transposed(self, parts: list[Any]) -> Node:
        end = span_of(parts[1])[1]
        power = Name(TRANSPOSE, (end - len(TRANSPOSE), end)) if str(parts[1]) else None
        return Transposed(parts[0], power, span_across(parts))

    def percent(self, parts: list[Any]) -> Node:
        return Percent(parts[0], span_across(parts))

    def index(self, parts: list[Any]) -> Node:
        return Index(parts[0], tuple(parts[2]), span_across(parts))

    def subscripts(self, parts: list[Any]) -> list[Subscript]:
        return [parts[0]] if len(parts) == 1 else [*parts[0], parts[2]]

    def at(self, parts: list[Any]) -> Subscript:
        return At(parts[0])

    def part(self, parts: list[Any]) -> Subscript:
        return Part(parts[0], parts[2])

    def every(self, parts: list[Any]) -> Subscript:
        return Part()

    def last(self, parts: list[Any]) -> Node:
        return Last(span_of(parts[0]))

    def change(self, parts: list[Any]) -> tuple[tuple[Subscript, ...], Node]:
        return tuple(parts[1]), parts[4]

    def replaced(self, parts: list[Any]) -> Node:
        subscripts, value = parts[2]
        return Replaced(parts[0], subscripts, value, (span_of(parts[0])[0], value.span[1]))

    def empty_call(self, parts: list[Any]) -> Node:
        entry = FUNCTIONS.get(str(parts[0]))
        if entry is None or not entry.accepts(0):
            raise GrammarError(messages.BRACKETS_EMPTY, position=span_of(parts[2]))
        return apply_function(parts[0], (), span_across(parts))

    def number(self, parts: list[Any]) -> Node:
        return Number(Fraction(str(parts[0])), str(parts[0]), span_of(parts[0]))

    def name(self, parts: list[Any]) -> Node:
        return Name(str(parts[0]), span_of(parts[0]))

    def infinity(self, parts: list[Any]) -> Node:
        return Name(INFINITY, span_of(parts[0]))

    def bracketed(self, parts: list[Any]) -> Node:
        node: Node = replace(parts[1], span=span_across(parts))
        return node

    def pair(self, parts: list[Any]) -> Node:
        return Pair(parts[1], parts[3], span_across(parts))

    def items(self, parts: list[Any]) -> list[Node]:
        return [parts[0]] if len(parts) == 1 else [*parts[0], parts[2]]

    def written_list(self, parts: list[Any]) -> Node:
        return Items(tuple(parts[1]), span_across(parts))

    def factorial(self, parts: list[Any]) -> Node:
        return Call("factorial", (parts[0],), span_across(parts))

    def function(self, parts: list[Any]) -> NamedFunction:
        return NamedFunction(str(parts[0]), span_of(parts[0]))

    def derived(self, parts: list[Any]) -> Node:
        function, order = str(parts[0]).rstrip(PRIME_SIGN), str(parts[0]).count(PRIME_SIGN)
        if len(parts[2]) != 1:
            raise ArgumentCountError(
                messages.DERIVATIVE_TAKES_ONE_VALUE(count=len(parts[2])),
                position=span_across(parts),
            )
        return Derivative(function, order, parts[2][0], span_across(parts))

    def absolute(self, parts: list[Any]) -> Node:
        return Call("abs", (parts[1],), span_across(parts))

    def arguments(self, parts: list[Any]) -> list[Node]:
        return [parts[0]] if len(parts) == 1 else [*parts[0], parts[2]]

    def raised(self, parts: list[Any]) -> RaisedFunction:
        function, last = str(parts[0]), parts[-1]
        if len(parts) == 2:
            exponent: Node = raised_number(last)
        elif len(parts) == 5:
            exponent = parts[3]
        elif last.type == "NAME":
            exponent = Name(str(last), span_of(last))
        else:
            exponent = Number(Fraction(str(last)), str(last), span_of(last))
            exponent = Negative(exponent, span_across(parts[2:])) if len(parts) == 4 else exponent
        return RaisedFunction(function, exponent, span_across(parts))

    def call(self, parts: list[Any]) -> Node:
        return apply_function(parts[0], tuple(parts[2]), span_across(parts))

    def applied(self, parts: list[Any]) -> Node:
        return apply_function(parts[0], (parts[1],), span_across(parts))


def make_tree_builder() -> lark.Transformer[lark.Token, Any]:
    """Return what makes nodes of the reductions."""
    return _TreeBuilder()

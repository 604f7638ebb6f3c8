"""Nodes of functions that are applied: calls, powers of functions, sums, built lists."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Any

import lark

from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.errors import (
    ArgumentCountError,
    GrammarError,
    NotHandledError,
    UnknownNameError,
)
from axis_path.core.language import messages
from axis_path.core.language.scanning.tokens import LOG_OF
from axis_path.core.language.tree import (
    INFINITY,
    Binary,
    Built,
    Call,
    Counter,
    Name,
    Negative,
    Node,
    Number,
    Operator,
    Over,
    Span,
    Summary,
)
from axis_path.core.language.vocabulary import (
    BUILDER_EXAMPLES,
    BUILDERS,
    SUMMARIES,
)


@dataclass(frozen=True, slots=True)
class NamedFunction:
    """A function that is named without being applied: ``integral(f, 0, 2)``."""

    name: str
    span: Span


@dataclass(frozen=True, slots=True)
class RaisedFunction:
    """A function with a power, before its argument is read: ``sin^2``."""

    function: str
    exponent: Node
    span: Span


def span_of(part: Any) -> Span:  # noqa: ANN401 - a lark token or a node
    """Return where a part stands in the text."""
    if isinstance(part, lark.Token):
        return (part.start_pos or 0, part.end_pos or 0)
    span: Span = part.span
    return span


def span_across(parts: list[Any]) -> Span:
    """Return where several parts stand, from the first to the last."""
    return (span_of(parts[0])[0], span_of(parts[-1])[1])


def make_call(function: str, arguments: tuple[Node, ...], span: Span) -> Node:
    """Return a call; an option such as ``population`` is no argument of it."""
    entry = FUNCTIONS.get(function)
    last = arguments[-1] if arguments else None
    if entry is not None and isinstance(last, Name) and last.name in entry.options:
        return Call(function, arguments[:-1], span, (last.name,))
    return Call(function, arguments, span)


def raised_number(token: lark.Token) -> Node:
    """Read the figures of a raised number, such as ``²`` or ``⁻¹``."""
    value = Number(Fraction(str(token).lstrip("-")), str(token).lstrip("-"), span_of(token))
    return Negative(value, span_of(token)) if str(token).startswith("-") else value


def apply_function(
    head: lark.Token | RaisedFunction, arguments: tuple[Any, ...], span: Span
) -> Node:
    """Return what a function gives for its arguments; with a power, what that gives.

    Raises:
        MathError: a sum or a built list has other parts.
    """
    function = str(head) if isinstance(head, lark.Token) else head.function
    if function.startswith(LOG_OF):
        arguments = (*arguments, _base(function.removeprefix(LOG_OF), span_of(head)))
        if len(arguments) != 2:
            raise ArgumentCountError(messages.LOGARITHM_BASE_TAKES_ONE, position=span)
        if isinstance(head, lark.Token):
            return Call("log", arguments, span)
        return Binary(Operator.POWER, Call("log", arguments, span), head.exponent, span)
    if function in BUILDERS and isinstance(head, lark.Token):
        return _built(function, arguments, span)
    if function in SUMMARIES and len(arguments) == 1 and function != Summary.INTEGRAL:
        # The sum of a list, which brings no variable of its own.
        call = Call(function, arguments, span)
        return (
            call
            if isinstance(head, lark.Token)
            else Binary(Operator.POWER, call, head.exponent, span)
        )
    if function in SUMMARIES:
        if not isinstance(head, lark.Token):
            raise GrammarError(
                messages.WRITE_POWER_FUNCTION_OUTSIDE(function=function), position=span
            )
        return _summary(function, arguments, span)
    if any(isinstance(argument, NamedFunction) for argument in arguments):
        raise GrammarError(messages.FUNCTION_NEEDS_VALUE_AFTER, position=span)
    if isinstance(head, lark.Token):
        return make_call(function, arguments, span)
    if head.exponent == Negative(Number(Fraction(1))):
        entry = FUNCTIONS.get(head.function)
        if entry is not None and entry.inverse is not None:
            return Call(entry.inverse, arguments, span)
        raise NotHandledError(
            messages.INVERSE_FUNCTION_HAS_NO(function=head.function),
            position=head.span,
        )
    return Binary(Operator.POWER, Call(head.function, arguments, span), head.exponent, span)


def _built(name: str, arguments: tuple[Any, ...], span: Span) -> Node:
    """Read ``list(k^2, k, 1, 10)`` and ``matrix(i + j, i, 1, 2, j, 1, 3)``."""
    commas, _ = BUILDERS[name]
    example = BUILDER_EXAMPLES[name]
    if len(arguments) != commas + 1 or any(isinstance(given, NamedFunction) for given in arguments):
        raise ArgumentCountError(
            messages.NAME_NEEDS_EXPRESSION_RANGE(name=name, example=example),
            position=span,
        )
    body, *rest = arguments
    counters = []
    for variable, low, high in zip(rest[::3], rest[1::3], rest[2::3], strict=True):
        if not isinstance(variable, Name) or variable.name in (INFINITY, *CONSTANTS):
            raise GrammarError(
                messages.SECOND_PART_NAME_MUST(name=name, example=example),
                position=variable.span,
            )
        counters.append(Counter(variable.name, low, high))
    if len({counter.variable for counter in counters}) < len(counters):
        raise GrammarError(messages.ROWS_COLUMNS_NEED_DIFFERENT, position=span)
    return Built(body, tuple(counters), span)


def _base(text: str, span: Span) -> Node:
    return Number(Fraction(text), text, span) if text.isdigit() else Name(text, span)


def _summary(name: str, arguments: tuple[Any, ...], span: Span) -> Node:
    """Read ``sum(k^2, k, 1, 10)``; an integral may name its function: ``integral(f, 0, 2)``."""
    example = SUMMARIES[name]
    summary = Summary(name)
    if len(arguments) == 3 and summary is Summary.INTEGRAL:
        function, low, high = arguments
        if isinstance(function, NamedFunction) and not isinstance(low, NamedFunction):
            body = Call(function.name, (Name("x", function.span),), function.span)
            return Over(summary, body, "x", low, high, span)
        if isinstance(function, Name):
            raise UnknownNameError(
                messages.NAME_NOT_FUNCTION_HERE(name=function.name, example=example),
                position=function.span,
            )
    if len(arguments) != 4 or any(isinstance(argument, NamedFunction) for argument in arguments):
        raise ArgumentCountError(
            messages.NAME_NEEDS_EXPRESSION_VARIABLE(name=name, example=example),
            position=span,
        )
    body, variable, low, high = arguments
    if not isinstance(variable, Name) or variable.name in CONSTANTS or variable.name == INFINITY:
        raise GrammarError(
            messages.SECOND_PART_NAME_MUST(name=name, example=example),
            position=variable.span,
        )
    return Over(summary, body, variable.name, low, high, span)

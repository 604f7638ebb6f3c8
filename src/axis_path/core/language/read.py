"""Read a text into a tree: tokens through the lark grammar, nodes built as it goes.

The parser is a table machine (LALR) and the nodes are made by its reductions, so that a deeply
nested text cannot exhaust Python's stack.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction
from pathlib import Path
from typing import Any

import lark
from lark.lexer import Lexer

from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.errors import (
    ArgumentCountError,
    GrammarError,
    LimitError,
    MathError,
    NotHandledError,
    UnknownNameError,
)
from axis_path.core.language.complain import explain
from axis_path.core.language.scanning.scan import scan
from axis_path.core.language.scanning.tokens import LOG_OF, PRIME_SIGN, Token
from axis_path.core.language.tree import (
    INFINITY,
    TRANSPOSE,
    Angle,
    AngleUnit,
    At,
    Binary,
    Built,
    Call,
    Counter,
    Derivative,
    Index,
    Items,
    Last,
    Name,
    Negative,
    Node,
    Number,
    Operator,
    Over,
    Pair,
    Part,
    Percent,
    Range,
    Replaced,
    Span,
    Subscript,
    Summary,
    Transposed,
    children,
)
from axis_path.core.language.vocabulary import (
    BUILDER_EXAMPLES,
    BUILDERS,
    SUMMARIES,
    Vocabulary,
)
from axis_path.core.limits import TREE_DEPTH


@dataclass(frozen=True, slots=True)
class Condition:
    """A comparison as it was typed: n terms and the n - 1 signs between them."""

    terms: tuple[Node, ...]
    signs: tuple[str, ...]
    span: Span


@dataclass(frozen=True, slots=True)
class Branch:
    """An expression with the conditions after ``for``; None for ``otherwise``."""

    expression: Node
    conditions: tuple[Condition, ...] | None
    span: Span


@dataclass(frozen=True, slots=True)
class Body:
    """What follows the head of a line.

    Attributes:
        branches: one, without conditions for all numbers, or the pieces of a function.
        compared: the comparison that the body is, if it is an equation or an inequality; there
            are no branches then.
    """

    branches: tuple[Branch, ...]
    compared: Condition | None = None


@dataclass(frozen=True, slots=True)
class _Function:
    """A function that is named without being applied: ``integral(f, 0, 2)``."""

    name: str
    span: Span


@dataclass(frozen=True, slots=True)
class _Raised:
    function: str
    exponent: Node
    span: Span


_OPERATORS = {
    "ADD": Operator.ADD, "SUBTRACT": Operator.SUBTRACT, "TIMES": Operator.MULTIPLY,
    "TIMES_APPLY": Operator.MULTIPLY, "DIVIDE": Operator.DIVIDE,
    "DIVIDE_APPLY": Operator.DIVIDE, "POWER": Operator.POWER, "ENTRYWISE": Operator.ENTRYWISE,
}  # fmt: skip


class _TokenStream(Lexer):
    """Hands our tokens to lark."""

    def __init__(self, lexer_conf: Any) -> None:  # noqa: ANN401 - lark's own interface
        pass

    def lex(self, data: list[Token]) -> Iterator[lark.Token]:  # type: ignore[override]
        for token in data:
            yield lark.Token(token.kind.value, token.text, start_pos=token.start, end_pos=token.end)


def _span(part: Any) -> Span:  # noqa: ANN401 - a lark token or a node
    if isinstance(part, lark.Token):
        return (part.start_pos or 0, part.end_pos or 0)
    span: Span = part.span
    return span


def _across(parts: list[Any]) -> Span:
    return (_span(parts[0])[0], _span(parts[-1])[1])


class _Build(lark.Transformer[lark.Token, Any]):
    """One method for each form of the grammar; each makes one node."""

    def unrestricted(self, parts: list[Any]) -> Body:
        return Body((Branch(parts[0], (), _span(parts[0])),))

    def restricted(self, parts: list[Any]) -> Body:
        return Body((self.piece(parts),))

    def piece(self, parts: list[Any]) -> Branch:
        return Branch(parts[0], tuple(parts[2]), (_span(parts[0])[0], parts[2][-1].span[1]))

    def otherwise(self, parts: list[Any]) -> Branch:
        return Branch(parts[0], None, _across(parts))

    def pieces(self, parts: list[Any]) -> list[Branch]:
        first = parts[0] if isinstance(parts[0], list) else [parts[0]]
        return [*first, parts[2]]

    def in_pieces(self, parts: list[Any]) -> Body:
        return Body(tuple(parts[0]))

    def compared(self, parts: list[Any]) -> Body:
        return Body((), self.one_sided(parts))

    def by_step(self, parts: list[Any]) -> Node:
        return Range(parts[1], parts[3], step=parts[5], span=_across(parts))

    def by_count(self, parts: list[Any]) -> Node:
        return Range(parts[1], parts[3], count=parts[5], span=_across(parts))

    def conditions(self, parts: list[Any]) -> list[Condition]:
        return [parts[0]] if len(parts) == 1 else [*parts[0], parts[2]]

    def one_sided(self, parts: list[Any]) -> Condition:
        return Condition(tuple(parts[::2]), tuple(parts[1::2]), _across([parts[0], parts[-1]]))

    two_sided = one_sided

    def comparison(self, parts: list[Any]) -> str:
        return str(parts[0])

    def binary(self, parts: list[Any]) -> Node:
        left, sign, right = parts
        return Binary(_OPERATORS[sign.type], left, right, _across(parts))

    def juxtaposed(self, parts: list[Any]) -> Node:
        return Binary(Operator.MULTIPLY, parts[0], parts[1], _across(parts))

    def negative(self, parts: list[Any]) -> Node:
        return Negative(parts[1], _across(parts))

    def positive(self, parts: list[Any]) -> Node:
        node: Node = replace(parts[1], span=_across(parts))
        return node

    def superscript(self, parts: list[Any]) -> Node:
        exponent = _whole(parts[1])
        return Binary(Operator.POWER, parts[0], exponent, _across(parts))

    def degrees(self, parts: list[Any]) -> Node:
        return Angle(parts[0], AngleUnit.DEGREES, _across(parts))

    def radians(self, parts: list[Any]) -> Node:
        return Angle(parts[0], AngleUnit.RADIANS, _across(parts))

    def transposed(self, parts: list[Any]) -> Node:
        end = _span(parts[1])[1]
        power = Name(TRANSPOSE, (end - len(TRANSPOSE), end)) if str(parts[1]) else None
        return Transposed(parts[0], power, _across(parts))

    def percent(self, parts: list[Any]) -> Node:
        return Percent(parts[0], _across(parts))

    def index(self, parts: list[Any]) -> Node:
        return Index(parts[0], tuple(parts[2]), _across(parts))

    def subscripts(self, parts: list[Any]) -> list[Subscript]:
        return [parts[0]] if len(parts) == 1 else [*parts[0], parts[2]]

    def at(self, parts: list[Any]) -> Subscript:
        return At(parts[0])

    def part(self, parts: list[Any]) -> Subscript:
        return Part(parts[0], parts[2])

    def every(self, parts: list[Any]) -> Subscript:
        return Part()

    def last(self, parts: list[Any]) -> Node:
        return Last(_span(parts[0]))

    def change(self, parts: list[Any]) -> tuple[tuple[Subscript, ...], Node]:
        return tuple(parts[1]), parts[4]

    def replaced(self, parts: list[Any]) -> Node:
        subscripts, value = parts[2]
        return Replaced(parts[0], subscripts, value, (_span(parts[0])[0], value.span[1]))

    def empty_call(self, parts: list[Any]) -> Node:
        entry = FUNCTIONS.get(str(parts[0]))
        if entry is None or not entry.accepts(0):
            raise GrammarError("The brackets are empty.", position=_span(parts[2]))
        return _apply(parts[0], (), _across(parts))

    def number(self, parts: list[Any]) -> Node:
        return Number(Fraction(str(parts[0])), str(parts[0]), _span(parts[0]))

    def name(self, parts: list[Any]) -> Node:
        return Name(str(parts[0]), _span(parts[0]))

    def infinity(self, parts: list[Any]) -> Node:
        return Name(INFINITY, _span(parts[0]))

    def bracketed(self, parts: list[Any]) -> Node:
        node: Node = replace(parts[1], span=_across(parts))
        return node

    def pair(self, parts: list[Any]) -> Node:
        return Pair(parts[1], parts[3], _across(parts))

    def items(self, parts: list[Any]) -> list[Node]:
        return [parts[0]] if len(parts) == 1 else [*parts[0], parts[2]]

    def written_list(self, parts: list[Any]) -> Node:
        return Items(tuple(parts[1]), _across(parts))

    def factorial(self, parts: list[Any]) -> Node:
        return Call("factorial", (parts[0],), _across(parts))

    def function(self, parts: list[Any]) -> _Function:
        return _Function(str(parts[0]), _span(parts[0]))

    def derived(self, parts: list[Any]) -> Node:
        function, order = str(parts[0]).rstrip(PRIME_SIGN), str(parts[0]).count(PRIME_SIGN)
        if len(parts[2]) != 1:
            raise ArgumentCountError(
                f"A derivative is taken at one place and was given {len(parts[2])}.",
                position=_across(parts),
            )
        return Derivative(function, order, parts[2][0], _across(parts))

    def absolute(self, parts: list[Any]) -> Node:
        return Call("abs", (parts[1],), _across(parts))

    def arguments(self, parts: list[Any]) -> list[Node]:
        return [parts[0]] if len(parts) == 1 else [*parts[0], parts[2]]

    def raised(self, parts: list[Any]) -> _Raised:
        function, last = str(parts[0]), parts[-1]
        if len(parts) == 2:
            exponent: Node = _whole(last)
        elif len(parts) == 5:
            exponent = parts[3]
        elif last.type == "NAME":
            exponent = Name(str(last), _span(last))
        else:
            exponent = Number(Fraction(str(last)), str(last), _span(last))
            exponent = Negative(exponent, _across(parts[2:])) if len(parts) == 4 else exponent
        return _Raised(function, exponent, _across(parts))

    def call(self, parts: list[Any]) -> Node:
        return _apply(parts[0], tuple(parts[2]), _across(parts))

    def applied(self, parts: list[Any]) -> Node:
        return _apply(parts[0], (parts[1],), _across(parts))


def _call(function: str, arguments: tuple[Node, ...], span: Span) -> Node:
    entry = FUNCTIONS.get(function)
    last = arguments[-1] if arguments else None
    if entry is not None and isinstance(last, Name) and last.name in entry.options:
        return Call(function, arguments[:-1], span, (last.name,))
    return Call(function, arguments, span)


def _whole(token: lark.Token) -> Node:
    """Read the figures of a raised number, such as ``²`` or ``⁻¹``."""
    value = Number(Fraction(str(token).lstrip("-")), str(token).lstrip("-"), _span(token))
    return Negative(value, _span(token)) if str(token).startswith("-") else value


def _apply(head: lark.Token | _Raised, arguments: tuple[Any, ...], span: Span) -> Node:
    function = str(head) if isinstance(head, lark.Token) else head.function
    if function.startswith(LOG_OF):
        arguments = (*arguments, _base(function.removeprefix(LOG_OF), _span(head)))
        if len(arguments) != 2:
            raise ArgumentCountError("A logarithm with a base takes one value.", position=span)
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
            raise GrammarError(f"Write the power of `{function}` outside.", position=span)
        return _summary(function, arguments, span)
    if any(isinstance(argument, _Function) for argument in arguments):
        raise GrammarError("A function needs a value after it, as in `f(2)`.", position=span)
    if isinstance(head, lark.Token):
        return _call(function, arguments, span)
    if head.exponent == Negative(Number(Fraction(1))):
        entry = FUNCTIONS.get(head.function)
        if entry is not None and entry.inverse is not None:
            return Call(entry.inverse, arguments, span)
        raise NotHandledError(
            f"The inverse of `{head.function}` has no name here; write the power outside.",
            position=head.span,
        )
    return Binary(Operator.POWER, Call(head.function, arguments, span), head.exponent, span)


def _built(name: str, arguments: tuple[Any, ...], span: Span) -> Node:
    """Read ``list(k^2, k, 1, 10)`` and ``matrix(i + j, i, 1, 2, j, 1, 3)``."""
    commas, _ = BUILDERS[name]
    example = BUILDER_EXAMPLES[name]
    if len(arguments) != commas + 1 or any(isinstance(given, _Function) for given in arguments):
        raise ArgumentCountError(
            f"`{name}` needs a term, and for each variable from where to where it runs, as in "
            f"`{example}`.",
            position=span,
        )
    body, *rest = arguments
    counters = []
    for variable, low, high in zip(rest[::3], rest[1::3], rest[2::3], strict=True):
        if not isinstance(variable, Name) or variable.name in (INFINITY, *CONSTANTS):
            raise GrammarError(
                f"Second in `{name}` stands its own variable, a letter, as in `{example}`.",
                position=variable.span,
            )
        counters.append(Counter(variable.name, low, high))
    if len({counter.variable for counter in counters}) < len(counters):
        raise GrammarError("Rows and columns need different variables.", position=span)
    return Built(body, tuple(counters), span)


def _base(text: str, span: Span) -> Node:
    return Number(Fraction(text), text, span) if text.isdigit() else Name(text, span)


def _summary(name: str, arguments: tuple[Any, ...], span: Span) -> Node:
    """Read ``sum(k^2, k, 1, 10)``; an integral may name its function: ``integral(f, 0, 2)``."""
    example = SUMMARIES[name]
    summary = Summary(name)
    if len(arguments) == 3 and summary is Summary.INTEGRAL:
        function, low, high = arguments
        if isinstance(function, _Function) and not isinstance(low, _Function):
            body = Call(function.name, (Name("x", function.span),), function.span)
            return Over(summary, body, "x", low, high, span)
        if isinstance(function, Name):
            raise UnknownNameError(
                f"`{function.name}` is no function here; an integral of an expression names its "
                f"variable, as in `{example}`.",
                position=function.span,
            )
    if len(arguments) != 4 or any(isinstance(argument, _Function) for argument in arguments):
        raise ArgumentCountError(
            f"`{name}` needs an expression, its variable, and from where to where, "
            f"as in `{example}`.",
            position=span,
        )
    body, variable, low, high = arguments
    if not isinstance(variable, Name) or variable.name in CONSTANTS or variable.name == INFINITY:
        raise GrammarError(
            f"Second in `{name}` stands its own variable, a letter, as in `{example}`.",
            position=variable.span,
        )
    return Over(summary, body, variable.name, low, high, span)


_HERE = Path(__file__).parent
_PARSER = lark.Lark(
    (_HERE / "grammar.lark").read_text(),
    # Its tables take half a second to make; they are stored where Python keeps what it compiles.
    cache=str(_HERE / "__pycache__" / "grammar.lalr"),
    start="body",
    parser="lalr",
    lexer=_TokenStream,
    transformer=_Build(),
)


def read_body(text: str, vocabulary: Vocabulary, *, start: int = 0) -> Body:
    """Read an expression with its conditions.

    Args:
        text: the whole line; positions of nodes and errors count from its start.
        vocabulary: the names that may be used.
        start: where the body begins in the text.

    Raises:
        MathError: the text does not read; its position says where.
    """
    tokens = scan(text, vocabulary, start=start)
    if not tokens:
        at = len(text.rstrip())
        raise GrammarError("Nothing is written here yet.", position=(at, at))
    try:
        body: Body = _PARSER.parse(tokens)  # type: ignore[assignment]
    except lark.exceptions.UnexpectedToken as err:
        raise explain(tokens, err.token) from err
    except lark.exceptions.VisitError as err:
        if isinstance(err.orig_exc, MathError):
            raise err.orig_exc from err
        raise
    compared = () if body.compared is None else (body.compared,)
    limits = (limit for branch in body.branches for limit in branch.conditions or ())
    terms = [term for condition in (*compared, *limits) for term in condition.terms]
    for node in (*terms, *(branch.expression for branch in body.branches)):
        _check_depth(node)
    return body


def read_expression(text: str, vocabulary: Vocabulary) -> Node:
    """Read an expression that stands alone, without conditions.

    Raises:
        MathError: the text does not read, or has conditions.
    """
    body = read_body(text, vocabulary)
    if body.compared is not None:
        raise GrammarError(
            "This is an equation or an inequality; a value is wanted here.",
            position=body.compared.span,
        )
    branch = body.branches[0]
    if branch.conditions or len(body.branches) > 1:
        raise GrammarError("A domain has no place here.", position=branch.span)
    return branch.expression


def _check_depth(top: Node) -> None:
    waiting = [(top, 1)]
    while waiting:
        node, depth = waiting.pop()
        if depth > TREE_DEPTH.value:
            raise LimitError(
                f"More than {TREE_DEPTH.value} operations are inside one another.",
                position=node.span,
            )
        waiting.extend((child, depth + 1) for child in children(node))


__all__ = ["Body", "Branch", "Condition", "read_body", "read_expression"]

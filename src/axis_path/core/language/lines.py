"""Tell what a line is: a function, a parameter or a note, and read its parts."""

from __future__ import annotations

import re
from dataclasses import dataclass

from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.errors import (
    DomainError,
    GrammarError,
    LimitError,
    NameTakenError,
    NotHandledError,
)
from axis_path.core.language.read import INFINITY, Condition, read_body
from axis_path.core.language.tree import (
    Bound,
    Domain,
    Name,
    Negative,
    Node,
    Span,
    names_in,
    walk,
)
from axis_path.core.language.vocabulary import NAME_PATTERN, WORDS, Vocabulary, spelled
from axis_path.core.limits import LINE_LENGTH

_NAME = NAME_PATTERN.pattern
_FUNCTION_HEAD = re.compile(rf"\s*({_NAME})\s*\(\s*({_NAME}(?:\s*,\s*{_NAME})*)\s*\)\s*=(?!=)")
_VALUE_HEAD = re.compile(rf"\s*({_NAME})\s*=(?!=)")
_LABEL = re.compile(rf"\s*{_NAME}\s*:")
_FOR = re.compile(r"(?<![A-Za-z0-9_])for(?![A-Za-z0-9_])")


@dataclass(frozen=True, slots=True)
class NoteLine:
    """A line of plain text."""

    text: str


@dataclass(frozen=True, slots=True)
class ParameterLine:
    """``a = 2.5`` or ``b = 2a``.

    Attributes:
        name_span: where the name stands in the text.
    """

    name: str
    expression: Node
    name_span: Span


@dataclass(frozen=True, slots=True)
class FunctionLine:
    """A function of one variable.

    Attributes:
        name: None for a line without a head, which the study will name.
        domain_start: where ``for`` stands in the text, or the end of the text.
    """

    name: str | None
    variable: str
    expression: Node
    domain: Domain
    name_span: Span
    domain_start: int


Line = NoteLine | ParameterLine | FunctionLine


def head_name(text: str) -> str | None:
    """Give the name that a line would define, read from its head alone."""
    function = _FUNCTION_HEAD.match(text)
    if function:
        return spelled(function[1])
    value = _VALUE_HEAD.match(text)
    return spelled(value[1]) if value and value[1] not in ("x", "y") else None


def is_function_head(text: str) -> bool:
    """Tell whether a line begins as the definition of a named function does."""
    return _FUNCTION_HEAD.match(text) is not None


def domain_start(text: str) -> int:
    """Give the place of the word ``for`` in a line, or the end of what is written."""
    found = _FOR.search(text)
    return found.start() if found else len(text.rstrip())


def read_line(text: str, vocabulary: Vocabulary) -> Line:
    """Read one line.

    Args:
        text: what was typed.
        vocabulary: the functions and parameters of the study, without this line's variables.

    Raises:
        MathError: it does not read; NotHandledError for kinds that are not handled yet.
    """
    if len(text) > LINE_LENGTH.value:
        raise LimitError(
            f"The line has {len(text):,} characters; {LINE_LENGTH.value:,} can be read.",
            position=(LINE_LENGTH.value, len(text)),
        )
    if text.lstrip().startswith("#"):
        return NoteLine(text.lstrip()[1:].strip())
    label = _LABEL.match(text)
    if label:
        raise NotHandledError(
            "Axis Path does not read names for equations yet; the line is kept as it is.",
            position=label.span(),
        )
    function = _FUNCTION_HEAD.match(text)
    if function:
        return _read_function(text, function, vocabulary)
    value = _VALUE_HEAD.match(text)
    if value and value[1] == "y":
        return _read_unnamed(text, value.end(), vocabulary)
    if value and value[1] != "x":
        return _read_parameter(text, value, vocabulary)
    return _read_unnamed(text, 0, vocabulary)


def _check_name(name: str, span: Span) -> None:
    if name in FUNCTIONS or name in CONSTANTS or name in WORDS:
        raise NameTakenError(
            f"`{name}` belongs to the language; choose another name.", position=span
        )


def _read_function(text: str, head: re.Match[str], vocabulary: Vocabulary) -> FunctionLine:
    name, span = spelled(head[1]), head.span(1)
    _check_name(name, span)
    if "," in head[2]:
        raise NotHandledError(
            "Axis Path does not draw functions of several variables yet; "
            "the line is kept as it is.",
            position=head.span(2),
        )
    variable = spelled(head[2])
    _check_name(variable, head.span(2))
    if variable == name:
        raise NameTakenError(
            f"`{name}` cannot be the function and its variable at once.", position=head.span(2)
        )
    if variable == "theta":
        raise NotHandledError(
            "Axis Path does not draw curves by an angle yet; the line is kept as it is.",
            position=head.span(2),
        )
    return _function(text, name, variable, span, head.end(), vocabulary)


def _read_unnamed(text: str, start: int, vocabulary: Vocabulary) -> FunctionLine:
    return _function(text, None, "x", (start, start), start, vocabulary)


def _function(
    text: str, name: str | None, variable: str, span: Span, start: int, vocabulary: Vocabulary
) -> FunctionLine:  # fmt: skip
    inner = Vocabulary(vocabulary.functions, vocabulary.values, vocabulary.variables | {variable})
    body = read_body(text, inner, start=start)
    _forbid_infinity(body.expression)
    domain = _domain(body.conditions, variable)
    return FunctionLine(name, variable, body.expression, domain, span, domain_start(text))


def _read_parameter(text: str, head: re.Match[str], vocabulary: Vocabulary) -> ParameterLine:
    name, span = spelled(head[1]), head.span(1)
    _check_name(name, span)
    body = read_body(text, vocabulary, start=head.end())
    if body.conditions:
        raise GrammarError(
            "A parameter is one number; it has no domain.", position=body.conditions[0].span
        )
    _forbid_infinity(body.expression)
    return ParameterLine(name, body.expression, span)


def _forbid_infinity(expression: Node) -> None:
    for node in walk(expression):
        if isinstance(node, Name) and node.name == INFINITY:
            raise GrammarError("∞ can only be the end of a domain.", position=node.span)


def _is_infinite(node: Node) -> bool:
    inner = node.operand if isinstance(node, Negative) else node
    return isinstance(inner, Name) and inner.name == INFINITY


def _domain(conditions: tuple[Condition, ...], variable: str) -> Domain:
    low: Bound | None = None
    high: Bound | None = None
    without: list[Node] = []
    for condition in conditions:
        for sign, value in _pairs(condition, variable):
            if sign == "!=":
                without.append(value)
            elif sign == "=":
                raise DomainError("A domain needs one of <, ≤, >, ≥ or ≠.", position=condition.span)
            elif sign in ("<", "<="):
                if high is not None:
                    raise _twice("upper", condition)
                high = Bound(value, closed=sign == "<=")
            else:
                if low is not None:
                    raise _twice("lower", condition)
                low = Bound(value, closed=sign == ">=")
    return Domain(_finite(low), _finite(high), tuple(without))


def _finite(bound: Bound | None) -> Bound | None:
    return None if bound is None or _is_infinite(bound.value) else bound


def _twice(which: str, condition: Condition) -> DomainError:
    return DomainError(
        f"The domain has two {which} ends; keep the one that is meant.", position=condition.span
    )


_MIRRORED = {"<": ">", "<=": ">=", ">": "<", ">=": "<=", "!=": "!=", "=": "="}


def _pairs(condition: Condition, variable: str) -> list[tuple[str, Node]]:
    """Give a condition as comparisons of the variable, on the left, with a value."""
    terms, signs = condition.terms, condition.signs
    middle = terms[1] if len(terms) == 3 else terms[0]
    if len(terms) == 2 and not _is_variable(middle, variable):
        pairs = [(_MIRRORED[signs[0]], terms[0])]
        middle = terms[1]
    elif len(terms) == 2:
        pairs = [(signs[0], terms[1])]
    else:
        if signs[0][0] != signs[1][0] or signs[0][0] in "!=":
            raise DomainError(
                "Both signs of a domain point the same way, as in `0 <= x < 3`.",
                position=condition.span,
            )
        pairs = [(_MIRRORED[signs[0]], terms[0]), (signs[1], terms[2])]
    values = [value for _, value in pairs]
    if not _is_variable(middle, variable) or any(variable in names_in(v) for v in values):
        raise DomainError(
            f"The domain must say between which values `{variable}` lies.",
            position=condition.span,
        )
    return pairs


def _is_variable(node: Node, variable: str) -> bool:
    return isinstance(node, Name) and node.name == variable

"""Find out what a line is: a function, a value, a relation or a note, and read its parts."""

from __future__ import annotations

import re

from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.errors import DomainError, GrammarError, LimitError, NameTakenError, Repair
from axis_path.core.language import messages
from axis_path.core.language.domains import read_domain, read_domains
from axis_path.core.language.line_types import (
    FunctionLine,
    Line,
    NoteLine,
    RelationLine,
    SetLine,
    ValueLine,
)
from axis_path.core.language.read import Body, Condition, read_body
from axis_path.core.language.sets.reading import read_equations
from axis_path.core.language.sets.split import EquationText, label_of_set, split_set
from axis_path.core.language.tree import (
    INFINITY,
    Domain,
    Items,
    Name,
    Node,
    Over,
    Pair,
    Piece,
    Pieces,
    Range,
    Span,
    Summary,
)
from axis_path.core.language.vocabulary import NAME_PATTERN, WORDS, Vocabulary, spelled
from axis_path.core.language.walk import is_infinite, names_in, walk
from axis_path.core.limits import LINE_LENGTH, SET_EQUATIONS

_NAME = NAME_PATTERN.pattern
_FUNCTION_HEAD = re.compile(rf"\s*({_NAME})\s*\(\s*({_NAME}(?:\s*,\s*{_NAME})*)\s*\)\s*:?=(?!=)")
_VALUE_HEAD = re.compile(rf"\s*({_NAME})\s*:?=(?!=)")
_LABEL = re.compile(rf"\s*({_NAME})\s*:(?!=)")
#: A point as it is written in some countries: A(2|3).
_POINT = re.compile(rf"\s*({_NAME})\s*\(([^|()]+)\|([^|()]+)\)\s*")
#: Letters of the plane that stand together are a product.
_PLANE_PRODUCT = re.compile(r"[xyz]{2,3}")
_DIFFERENTIAL = re.compile(r"(?<![A-Za-z0-9_])d/d[a-z](?![A-Za-z0-9_])")
_FOR = re.compile(r"(?<![A-Za-z0-9_])for(?![A-Za-z0-9_])")


def head_name(text: str) -> str | None:
    """Return the name that a line would define, read from its head alone."""
    label = _LABEL.match(text)
    if label:
        return spelled(label[1])
    if split_set(text):
        return None
    function = _FUNCTION_HEAD.match(text)
    if function and not _is_equation(function):
        return spelled(function[1])
    value = _VALUE_HEAD.match(text)
    if value is None or value[1] in ("x", "y") or _PLANE_PRODUCT.fullmatch(value[1]):
        return None
    return spelled(value[1])


def is_function_head(text: str) -> bool:
    """Check whether a line begins as the definition of a named function does."""
    head = _FUNCTION_HEAD.match(text)
    return head is not None and not _is_equation(head)


def domain_start(text: str) -> int:
    """Return the place of the word ``for`` in a line, or the end of what is written."""
    match = _FOR.search(text)
    return match.start() if match else len(text.rstrip())


def read_line(text: str, vocabulary: Vocabulary) -> Line:
    """Read one line.

    Args:
        text: what was typed.
        vocabulary: the functions and values of the study, without this line's variables.

    Raises:
        MathError: it does not read.
    """
    if len(text) > LINE_LENGTH.value:
        raise LimitError(
            messages.LINE_HAS_LENGTH_CHARACTERS(length=len(text), most=LINE_LENGTH.value),
            position=(LINE_LENGTH.value, len(text)),
        )
    if text.lstrip().startswith("#"):
        return NoteLine(text.lstrip()[1:].strip())
    equations = split_set(text)
    if equations:
        return _read_set(text, equations, vocabulary)
    quotient = _DIFFERENTIAL.search(text)
    if quotient:
        raise GrammarError(
            messages.WRITE_DERIVATIVE_PRIME_AFTER,
            position=quotient.span(),
        )
    label = _LABEL.match(text)
    if label:
        return _read_labelled(text, label, vocabulary)
    point = _POINT.fullmatch(text)
    if point:
        written = f"{point[1]} = ({point[2].strip()}, {point[3].strip()})"
        raise GrammarError(
            messages.WRITE_POINT_COMMA,
            position=(0, len(text)),
            repair=Repair((0, len(text)), written, messages.USE_WRITTEN(written=written)),
        )
    function = _FUNCTION_HEAD.match(text)
    if function and not _is_equation(function):
        return _read_function(text, function, vocabulary)
    value = _VALUE_HEAD.match(text)
    if value and value[1] == "y":
        return _read_y(text, value, vocabulary)
    if value and value[1] != "x" and not _PLANE_PRODUCT.fullmatch(value[1]):
        return _read_value(text, value, vocabulary)
    return _read_unnamed(text, vocabulary)


def _read_set(text: str, equations: tuple[EquationText, ...], vocabulary: Vocabulary) -> SetLine:
    label = label_of_set(text)
    name = None if label is None else spelled(label)
    if name is not None:
        _check_name(name, (text.index(name[:1]), text.index(":")))
    if len(equations) > SET_EQUATIONS.value:
        raise LimitError(messages.SET_CAN_HAVE_UP(most=SET_EQUATIONS.value))
    readings = read_equations(equations, vocabulary)
    known = vocabulary.values | vocabulary.functions
    own = tuple(one for one in readings.names if one not in known)
    return SetLine(name, readings.in_order(), own, (0, 0))


def _is_equation(head: re.Match[str]) -> bool:
    """Check whether what begins as a definition is an equation in x and y, as sin(x) = y."""
    rest = head.string[head.start(2) :]
    return spelled(head[1]) in FUNCTIONS and "x" in rest and "y" in rest


def _check_name(name: str, span: Span) -> None:
    if name in FUNCTIONS or name in CONSTANTS or name in WORDS:
        raise NameTakenError(messages.NAME_ALREADY_HAS_MEANING(name=name), position=span)


def _read_function(text: str, head: re.Match[str], vocabulary: Vocabulary) -> FunctionLine:
    name, span = spelled(head[1]), head.span(1)
    _check_name(name, span)
    variables = tuple(spelled(part.strip()) for part in head[2].split(","))
    for variable in variables:
        _check_name(variable, head.span(2))
        if variable == name:
            raise NameTakenError(
                messages.NAME_CANNOT_BOTH_FUNCTION(name=name),
                position=head.span(2),
            )
    if len(set(variables)) < len(variables):
        raise NameTakenError(messages.TWO_VARIABLES_HAVE_SAME, position=head.span(2))
    body = read_body(text, vocabulary.and_variables(*variables), start=head.end())
    return _function(text, name, variables, span, body)


def _function(
    text: str, name: str | None, variables: tuple[str, ...], span: Span, body: Body
) -> FunctionLine:
    if body.compared is not None:
        raise GrammarError(
            messages.FUNCTION_HAS_ONE_VALUE,
            position=body.compared.span,
        )
    whole = tuple(Domain() for _ in variables)
    branch = body.branches[0]
    if len(body.branches) > 1 or branch.conditions is None:
        expression: Node = _pieces(body, variables)
        _forbid_infinity(expression)
        return FunctionLine(name, variables, expression, whole, span, len(text.rstrip()))
    _forbid_infinity(branch.expression)
    domains = read_domains(branch.conditions, variables) if branch.conditions else whole
    return FunctionLine(
        name, variables, branch.expression, domains, span, domain_start(text)
    )  # fmt: skip


def _pieces(body: Body, variables: tuple[str, ...]) -> Pieces:
    span = (body.branches[0].span[0], body.branches[-1].span[1])
    if len(variables) > 1:
        raise DomainError(messages.ONLY_FUNCTION_ONE_VARIABLE, position=span)
    pieces = []
    for index, branch in enumerate(body.branches):
        if branch.conditions is None:
            if index < len(body.branches) - 1:
                raise DomainError(messages.OTHERWISE_MUST_BE_LAST, position=branch.span)
            pieces.append(Piece(branch.expression, None))
        else:
            domain = read_domain(branch.conditions, variables[0])
            pieces.append(Piece(branch.expression, domain))
    return Pieces(variables[0], tuple(pieces), span)


def _read_y(text: str, head: re.Match[str], vocabulary: Vocabulary) -> Line:
    """Read ``y = …``: a function of x, or a relation if y stands on the right too."""
    body = read_body(text, vocabulary.and_variables("x", "y"), start=head.end())
    if body.compared is None and not any(
        "y" in names_in(branch.expression) for branch in body.branches
    ):
        start = head.start(1)
        return _function(text, None, ("x",), (start, start), body)
    return _read_unnamed(text, vocabulary)


def _read_unnamed(text: str, vocabulary: Vocabulary) -> Line:
    """Read a line without a head: a function of x, a point, a list, or a relation in x and y."""
    if "y" in text and "y" not in vocabulary.variables:
        body = read_body(text, vocabulary.and_variables("x", "y"))
    else:
        body = read_body(text, vocabulary.and_variables("x"))
    if body.compared is not None:
        return _relation(None, body.compared, (0, 0))
    start = len(text) - len(text.lstrip())
    only = body.branches[0]
    if len(body.branches) == 1 and isinstance(only.expression, Pair | Items | Range):
        return _value(None, (start, start), body)
    for branch in body.branches:
        _forbid_y(branch.expression)
    return _function(text, None, ("x",), (start, start), body)


def _forbid_y(expression: Node) -> None:
    for node in walk(expression):
        if isinstance(node, Name) and node.name == "y":
            raise GrammarError(
                messages.NOT_A_FUNCTION_OF_X,
                position=node.span,
                repair=Repair((0, 0), "f(x, y) = ", messages.WRITE_F_OF_X_AND_Y),
            )


def _read_labelled(text: str, label: re.Match[str], vocabulary: Vocabulary) -> RelationLine:
    name, span = spelled(label[1]), label.span(1)
    _check_name(name, span)
    body = read_body(text, vocabulary.and_variables("x", "y"), start=label.end())
    if body.compared is None:
        raise GrammarError(
            messages.COLON_NAMES_EQUATION_INEQUALITY(name=label[1]),
            position=(label.start(1), label.end()),
            repair=Repair((label.end() - 1, label.end()), " =", messages.WRITE_NAME(name=label[1])),
        )
    return _relation(name, body.compared, span)


def _relation(name: str | None, compared: Condition, span: Span) -> RelationLine:
    if "!=" in compared.signs:
        raise GrammarError(messages.EQUATION_HAS_NO_DRAWABLE, position=compared.span)
    if len(compared.signs) == 2:
        first, second = compared.signs
        if first[0] != second[0]:
            raise GrammarError(
                messages.BOTH_SIGNS_MUST_POINT,
                position=compared.span,
            )
        if first == "=":
            raise GrammarError(messages.EQUATION_HAS_ONLY_ONE, position=compared.span)
    for term in compared.terms:
        _forbid_infinity(term)
    if not any({"x", "y"} & names_in(term) for term in compared.terms):
        raise GrammarError(messages.DRAW_EQUATION_INEQUALITY_USE, position=compared.span)
    return RelationLine(name, compared.terms, compared.signs, span)


def _read_value(text: str, head: re.Match[str], vocabulary: Vocabulary) -> Line:
    name, span = spelled(head[1]), head.span(1)
    try:
        body = read_body(text, vocabulary, start=head.end())
    except GrammarError:
        if not _has_plane_letters(text[head.end() :]):
            raise
        return _read_unnamed(text, vocabulary)
    if body.compared is None and not _has_plane_names(body, vocabulary):
        _check_name(name, span)
        return _value(name, span, body)
    return _read_unnamed(text, vocabulary)


def _has_plane_letters(text: str) -> bool:
    return "x" in text or "y" in text


def _has_plane_names(body: Body, vocabulary: Vocabulary) -> bool:
    """Check whether x or y stands in an expression, so that ``r = x + y`` is an equation."""
    used = frozenset[str]().union(*(names_in(branch.expression) for branch in body.branches))
    return bool(({"x", "y"} & used) - vocabulary.values)


def _value(name: str | None, span: Span, body: Body) -> ValueLine:
    branch = body.branches[0]
    if len(body.branches) > 1 or branch.conditions != ():
        raise GrammarError(
            messages.VALUE_HAS_NO_DOMAIN,
            position=branch.span,
        )
    _forbid_infinity(branch.expression, but_for_integrals=True)
    return ValueLine(name, branch.expression, span)


def _forbid_infinity(expression: Node, *, but_for_integrals: bool = False) -> None:
    """Refuse ∞ in an expression.

    Args:
        expression: what is looked through.
        but_for_integrals: whether an integral in it may go on without end.
    """
    ends: set[int] = set()
    for node in walk(expression):
        if isinstance(node, Over) and node.summary is Summary.INTEGRAL:
            ends |= {
                id(part) for end in (node.low, node.high) if is_infinite(end) for part in walk(end)
            }
        if not isinstance(node, Name) or node.name != INFINITY:
            continue
        if id(node) not in ends:
            raise GrammarError(messages.INFINITY_CAN_ONLY_BE_AN_END, position=node.span)
        if not but_for_integrals:
            raise GrammarError(
                messages.YOU_CANNOT_USE_INTEGRAL,
                position=node.span,
            )

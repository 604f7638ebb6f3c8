"""Read a text into a tree: tokens through the lark grammar, nodes built as it goes.

The parser is a table machine (LALR) and the nodes are made by its reductions, so that a deeply
nested text cannot exhaust Python's stack.
"""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import lark
from lark.lexer import Lexer

from axis_path.core.errors import (
    GrammarError,
    LimitError,
    MathError,
)
from axis_path.core.language import messages
from axis_path.core.language.complain import explain
from axis_path.core.language.parsing.body import Body, Branch, Condition
from axis_path.core.language.parsing.tree_builder import make_tree_builder
from axis_path.core.language.scanning.scan import scan
from axis_path.core.language.scanning.tokens import Token
from axis_path.core.language.tree import Node
from axis_path.core.language.vocabulary import (
    Vocabulary,
)
from axis_path.core.language.walk import children
from axis_path.core.limits import TREE_DEPTH


class _TokenStream(Lexer):
    """Hands our tokens to lark."""

    def __init__(self, lexer_conf: Any) -> None:  # noqa: ANN401 - lark's own interface
        pass

    def lex(self, data: list[Token]) -> Iterator[lark.Token]:  # type: ignore[override]
        for token in data:
            yield lark.Token(token.kind.value, token.text, start_pos=token.start, end_pos=token.end)


_HERE = Path(__file__).parent
_PARSER = lark.Lark(
    (_HERE / "grammar.lark").read_text(),
    # Its tables take half a second to make; they are stored where Python keeps what it compiles.
    cache=str(_HERE / "__pycache__" / "grammar.lalr"),
    start="body",
    parser="lalr",
    lexer=_TokenStream,
    transformer=make_tree_builder(),
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
        raise GrammarError(messages.WRITE_SOMETHING_HERE_FIRST, position=(at, at))
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
            messages.VALUE_NEEDED_NOT_EQUATION,
            position=body.compared.span,
        )
    branch = body.branches[0]
    if branch.conditions or len(body.branches) > 1:
        raise GrammarError(messages.DOMAIN_DOES_NOT_FIT, position=branch.span)
    return branch.expression


def _check_depth(top: Node) -> None:
    waiting = [(top, 1)]
    while waiting:
        node, depth = waiting.pop()
        if depth > TREE_DEPTH.value:
            raise LimitError(
                messages.MORE_THAN_MOST_OPERATIONS(most=TREE_DEPTH.value),
                position=node.span,
            )
        waiting.extend((child, depth + 1) for child in children(node))


__all__ = ["Body", "Branch", "Condition", "read_body", "read_expression"]

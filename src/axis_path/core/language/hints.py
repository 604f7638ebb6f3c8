"""Explain how a line is read where it could be meant otherwise: sin x/x and sin x/2."""

from __future__ import annotations

from axis_path.core.errors import MathError
from axis_path.core.language import messages
from axis_path.core.language.scanning.scan import scan
from axis_path.core.language.scanning.tokens import Kind, Token
from axis_path.core.language.vocabulary import Vocabulary

_OPENS = frozenset({Kind.OPEN, Kind.OPEN_CALL, Kind.OPEN_LIST, Kind.OPEN_INDEX, Kind.LEFT_BAR})
_CLOSES = frozenset({Kind.CLOSE, Kind.CLOSE_LIST, Kind.CLOSE_INDEX, Kind.RIGHT_BAR})
#: What may stand in an argument without brackets, before a division.
_IN_ARGUMENT = frozenset(
    {Kind.NUMBER, Kind.NAME, Kind.TIMES, Kind.SUPERSCRIPT, Kind.POWER, Kind.DEGREE, Kind.RADIANS}
)


def hint_of(text: str, vocabulary: Vocabulary) -> str:
    """Return how a division behind a function without brackets is read; empty if there is none.

    Args:
        text: a line, as it is typed.
        vocabulary: the names that it may use.
    """
    try:
        tokens = scan(text, vocabulary)
    except MathError:
        return ""
    for index, token in enumerate(tokens):
        if token.kind is not Kind.APPLY:
            continue
        hint = _division_after(tokens, index)
        if hint is not None:
            return _sentence(text, token, tokens, index, hint)
    return ""


def _division_after(tokens: list[Token], index: int) -> int | None:
    """Return where the argument of a function meets its first division."""
    depth = 0
    for k in range(index + 1, len(tokens)):
        kind = tokens[k].kind
        if depth == 0 and kind in (Kind.DIVIDE, Kind.DIVIDE_APPLY):
            return k
        depth += (kind in _OPENS) - (kind in _CLOSES)
        if depth < 0 or (depth == 0 and kind not in _IN_ARGUMENT | _CLOSES):
            return None
    return None


def _sentence(text: str, function: Token, tokens: list[Token], index: int, division: int) -> str:
    name = text[function.start : function.end]
    inside = text[tokens[index + 1].start : tokens[division - 1].end]
    if division + 1 >= len(tokens):
        return ""
    below = text[tokens[division + 1].start : tokens[division + 1].end]
    whole, parted = f"{name}({inside}/{below})", f"{name}({inside})/{below}"
    if tokens[division].kind is Kind.DIVIDE:
        return messages.READ_WHOLE_IF_YOU(whole=whole, parted=parted)
    if tokens[division + 1].kind is not Kind.NAME:
        return messages.DIVISION_OUTSIDE_NAME_INSIDE(name=name, inside=inside)
    return messages.READ_PARTED_IF_YOU(parted=parted, whole=whole)

"""Cut a line into tokens; what a grammar cannot know, the scanner decides by the names known.

That is: which run of letters is a function, which bar opens and which closes, whether a function's
argument stands in brackets, and whether a product sign ends the argument of an open function.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from enum import StrEnum

from axis_path.core.errors import GrammarError, LimitError, NotHandledError
from axis_path.core.language.vocabulary import NAME_PATTERN, Piece, Vocabulary
from axis_path.core.limits import LINE_LENGTH, NESTING, NUMBER_EXPONENT


class Kind(StrEnum):
    """The tokens of the grammar."""

    NUMBER = "NUMBER"
    NAME = "NAME"
    INFINITY = "INFINITY"
    CALL = "CALL"
    APPLY = "APPLY"
    RADICAL = "RADICAL"
    RAISED = "RAISED"
    ADD = "ADD"
    SUBTRACT = "SUBTRACT"
    TIMES = "TIMES"
    TIMES_APPLY = "TIMES_APPLY"
    DIVIDE = "DIVIDE"
    DIVIDE_APPLY = "DIVIDE_APPLY"
    POWER = "POWER"
    SUPERSCRIPT = "SUPERSCRIPT"
    OPEN = "OPEN"
    OPEN_CALL = "OPEN_CALL"
    CLOSE = "CLOSE"
    LEFT_BAR = "LEFT_BAR"
    RIGHT_BAR = "RIGHT_BAR"
    COMMA = "COMMA"
    DEGREE = "DEGREE"
    RADIANS = "RADIANS"
    LESS = "LESS"
    MORE = "MORE"
    EQUAL = "EQUAL"
    UNEQUAL = "UNEQUAL"
    FOR = "FOR"
    AND = "AND"


@dataclass(frozen=True, slots=True)
class Token:
    """One token; ``text`` holds what the grammar needs, ``raw`` what was typed."""

    kind: Kind
    text: str
    start: int
    end: int
    raw: str = ""


_SUPERSCRIPTS = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻", "0123456789-")
_SIGNS = {
    "+": Kind.ADD, "-": Kind.SUBTRACT, "−": Kind.SUBTRACT, "–": Kind.SUBTRACT,
    "*": Kind.TIMES, "×": Kind.TIMES, "·": Kind.TIMES, "⋅": Kind.TIMES,
    "/": Kind.DIVIDE, "÷": Kind.DIVIDE, "^": Kind.POWER, "(": Kind.OPEN, ")": Kind.CLOSE,
    ",": Kind.COMMA, "°": Kind.DEGREE, "=": Kind.EQUAL,
    "<": Kind.LESS, "<=": Kind.LESS, "≤": Kind.LESS, ">": Kind.MORE, ">=": Kind.MORE,
    "≥": Kind.MORE, "!=": Kind.UNEQUAL, "≠": Kind.UNEQUAL,
}  # fmt: skip
_TYPED = {"≤": "<=", "≥": ">=", "≠": "!="}
_NUMBER = re.compile(r"(?:[0-9]+(?:\.[0-9]*)?|\.[0-9]+)(?:[eE][+-]?[0-9]+)?")
_SUPERSCRIPT = re.compile(r"⁻?[⁰¹²³⁴⁵⁶⁷⁸⁹]+")
_SIGN = re.compile(r"<=|>=|!=|[-+−–*×·⋅/÷^(),°=<>≤≥≠]")
_SPACE = re.compile(r"\s+")
#: Signs of the language that this version does not read yet, with what they are for.
_NOT_YET = {
    "'": "derivatives written with ′",
    "′": "derivatives written with ′",
    "!": "factorials",
    "[": "lists",
    "]": "lists",
    ";": "functions in pieces",
    ":": "names for equations",
}
_ENDS_VALUE = {
    Kind.NUMBER, Kind.NAME, Kind.INFINITY, Kind.CLOSE, Kind.RIGHT_BAR, Kind.SUPERSCRIPT,
    Kind.DEGREE, Kind.RADIANS,
}  # fmt: skip


def scan(text: str, vocabulary: Vocabulary, *, start: int = 0) -> list[Token]:
    """Cut ``text`` from ``start`` on into tokens; positions count from the start of the text.

    Raises:
        MathError: a sign or a name that is not known, a limit, or brackets that do not pair.
    """
    if len(text) > LINE_LENGTH.value:
        raise LimitError(
            f"The line has {len(text):,} characters; {LINE_LENGTH.value:,} can be read.",
            position=(LINE_LENGTH.value, len(text)),
        )
    tokens = list(_raw_tokens(text, start, vocabulary))
    tokens = _decide_bars(tokens)
    _check_brackets(tokens)
    return _decide_functions(tokens, vocabulary)


def _raw_tokens(text: str, at: int, vocabulary: Vocabulary) -> list[Token]:
    tokens: list[Token] = []
    while at < len(text):
        space = _SPACE.match(text, at)
        if space:
            at = space.end()
            continue
        found = _next_tokens(text, at, vocabulary)
        if tokens and tokens[-1].kind is found[0].kind is Kind.NUMBER:
            raise GrammarError(
                "Two numbers stand side by side; a sign is missing between them.",
                position=(tokens[-1].start, found[0].end),
            )
        tokens.extend(found)
        at = found[-1].end
    return tokens


def _next_tokens(text: str, at: int, vocabulary: Vocabulary) -> list[Token]:
    name = NAME_PATTERN.match(text, at)
    if name:
        return _name_tokens(name[0], at, vocabulary)
    number = _NUMBER.match(text, at)
    if number:
        return [_number_token(number[0], at)]
    superscript = _SUPERSCRIPT.match(text, at)
    if superscript:
        power = superscript[0].translate(_SUPERSCRIPTS)
        return [Token(Kind.SUPERSCRIPT, power, at, superscript.end(), superscript[0])]
    if text[at] == "√":
        return [Token(Kind.NAME, "sqrt", at, at + 1, "√")]
    if text[at] == "∞":
        return [Token(Kind.INFINITY, "inf", at, at + 1)]
    if text[at] == "|":
        return [Token(Kind.LEFT_BAR, "|", at, at + 1)]
    sign = _SIGN.match(text, at)
    if sign:
        raw = sign[0]
        return [Token(_SIGNS[raw], _TYPED.get(raw, raw), at, sign.end(), raw)]
    raise _bad_sign(text, at)


def _bad_sign(text: str, at: int) -> GrammarError | NotHandledError:
    sign = text[at]
    position = (at, at + 1)
    if sign in _NOT_YET:
        words = _NOT_YET[sign]
        return NotHandledError(
            f"Axis Path does not read {words} yet; the line is kept as it is.", position=position
        )
    return GrammarError(f"The sign `{sign}` has no meaning here.", position=position)


def _name_tokens(run: str, at: int, vocabulary: Vocabulary) -> list[Token]:
    if run in ("for", "and"):
        return [Token(Kind.FOR if run == "for" else Kind.AND, run, at, at + len(run))]
    return [_piece_token(piece, run, at) for piece in vocabulary.cut(run, at)]


def _piece_token(piece: Piece, run: str, at: int) -> Token:
    kind = Kind.NAME
    if piece.name.isdigit():
        kind = Kind.NUMBER
    elif piece.name == "inf":
        kind = Kind.INFINITY
    elif piece.name == "rad":
        kind = Kind.RADIANS
    return Token(kind, piece.name, piece.start, piece.end, run[piece.start - at : piece.end - at])


def _number_token(raw: str, at: int) -> Token:
    exponent = re.search(r"[eE]([+-]?[0-9]+)$", raw)
    if exponent and (len(exponent[1]) > 6 or abs(int(exponent[1])) > NUMBER_EXPONENT.value):
        raise LimitError(
            f"The power of ten goes past {NUMBER_EXPONENT.value:,}.",
            position=(at, at + len(raw)),
        )
    return Token(Kind.NUMBER, raw, at, at + len(raw), raw)


def _decide_bars(tokens: list[Token]) -> list[Token]:
    """Tell opening bars from closing ones: a bar closes if it follows a value inside open bars."""
    decided: list[Token] = []
    open_bars = [0]
    for token in tokens:
        if token.kind is Kind.LEFT_BAR:
            after_value = bool(decided) and decided[-1].kind in _ENDS_VALUE
            if after_value and open_bars[-1]:
                open_bars[-1] -= 1
                token = Token(Kind.RIGHT_BAR, "|", token.start, token.end)
            else:
                open_bars[-1] += 1
        elif token.kind is Kind.OPEN:
            open_bars.append(0)
        elif token.kind is Kind.CLOSE and len(open_bars) > 1:
            open_bars.pop()
        decided.append(token)
    return decided


_PARTNER = {Kind.CLOSE: Kind.OPEN, Kind.RIGHT_BAR: Kind.LEFT_BAR}


def _check_brackets(tokens: list[Token]) -> None:
    waiting: list[Token] = []
    for token in tokens:
        if token.kind in (Kind.OPEN, Kind.LEFT_BAR):
            waiting.append(token)
            if len(waiting) > NESTING.value:
                raise LimitError(
                    f"More than {NESTING.value} brackets are inside one another.",
                    position=(token.start, token.end),
                )
        elif token.kind in _PARTNER:
            if not waiting or waiting[-1].kind is not _PARTNER[token.kind]:
                what = "bracket" if token.kind is Kind.CLOSE else "bar"
                raise GrammarError(
                    f"This closing {what} has no opening {what} before it.",
                    position=(token.start, token.end),
                )
            waiting.pop()
    if waiting:
        what = "bracket" if waiting[-1].kind is Kind.OPEN else "bar"
        raise GrammarError(
            f"A closing {what} is missing.", position=(waiting[-1].start, waiting[-1].end)
        )


def _decide_functions(tokens: list[Token], vocabulary: Vocabulary) -> list[Token]:
    """Tell how a function meets its argument, and products that end an open argument."""
    decided: list[Token] = []
    for index, token in enumerate(tokens):
        after = tokens[index + 1] if index + 1 < len(tokens) else None
        kind = token.kind
        if kind is Kind.NAME and vocabulary.is_function(token.text):
            kind = _how_applied(token, after)
        elif (
            kind in (Kind.TIMES, Kind.DIVIDE)
            and after is not None
            and after.kind is Kind.NAME
            and after.raw != "√"
            and vocabulary.is_function(after.text)
        ):
            kind = Kind.TIMES_APPLY if kind is Kind.TIMES else Kind.DIVIDE_APPLY
        elif kind is Kind.OPEN and _closes_power_of_function(decided):
            kind = Kind.OPEN_CALL
        decided.append(Token(kind, token.text, token.start, token.end, token.raw))
    return decided


def _closes_power_of_function(before: list[Token]) -> bool:
    """Tell whether a bracket holds the argument of a function such as ``sin^2`` before it."""
    kinds = [token.kind for token in before[-4:]]
    return (
        kinds[-2:] == [Kind.RAISED, Kind.SUPERSCRIPT]
        or kinds[-3:]
        in ([Kind.RAISED, Kind.POWER, Kind.NUMBER], [Kind.RAISED, Kind.POWER, Kind.NAME])
        or kinds == [Kind.RAISED, Kind.POWER, Kind.SUBTRACT, Kind.NUMBER]
    )


def _how_applied(token: Token, after: Token | None) -> Kind:
    if after is None or after.kind in (
        Kind.ADD, Kind.TIMES, Kind.DIVIDE, Kind.CLOSE, Kind.COMMA, Kind.EQUAL, Kind.LESS,
        Kind.MORE, Kind.FOR, Kind.RIGHT_BAR, Kind.DEGREE,
    ):  # fmt: skip
        raise GrammarError(
            f"`{token.text}` needs a value after it, as in `{token.text}(2)`.",
            position=(token.start, token.end),
        )
    if after.kind is Kind.OPEN:
        return Kind.CALL
    if token.raw == "√":
        return Kind.RADICAL
    return Kind.RAISED if after.kind in (Kind.POWER, Kind.SUPERSCRIPT) else Kind.APPLY

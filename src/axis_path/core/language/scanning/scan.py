"""Cut a line into tokens; what a grammar cannot know, the scanner decides by the names known.

That is: which run of letters is a function, which bar opens and which closes, whether a function's
argument stands in brackets, and whether a product sign ends the argument of an open function.
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import replace

from axis_path.core.errors import (
    GrammarError,
    LimitError,
    Repair,
)
from axis_path.core.language import messages
from axis_path.core.language.scanning.calls import PAIRINGS, PARTNER, decide_functions
from axis_path.core.language.scanning.tokens import LOG_OF, Kind, Token
from axis_path.core.language.scanning.units import may_begin_unit, unit_token
from axis_path.core.language.vocabulary import (
    NAME_PATTERN,
    Piece,
    Vocabulary,
    spelled,
)
from axis_path.core.limits import LINE_LENGTH, NESTING, NUMBER_EXPONENT

_SUPERSCRIPTS = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻", "0123456789-")
_SIGNS = {
    "+": Kind.ADD, "-": Kind.SUBTRACT, "−": Kind.SUBTRACT, "–": Kind.SUBTRACT,
    "*": Kind.TIMES, "**": Kind.POWER, "×": Kind.TIMES, "·": Kind.TIMES, "⋅": Kind.TIMES,
    "/": Kind.DIVIDE, "÷": Kind.DIVIDE, "^": Kind.POWER, "(": Kind.OPEN, ")": Kind.CLOSE,
    ",": Kind.COMMA, "°": Kind.DEGREE, "=": Kind.EQUAL,
    "<": Kind.LESS, "<=": Kind.LESS, "≤": Kind.LESS, ">": Kind.MORE, ">=": Kind.MORE,
    "≥": Kind.MORE, "!=": Kind.UNEQUAL, "≠": Kind.UNEQUAL, "!": Kind.FACTORIAL,
    "[": Kind.OPEN_LIST, "]": Kind.CLOSE_LIST, ";": Kind.NEXT_PIECE, "%": Kind.PERCENT,
    "∘": Kind.ENTRYWISE,
}  # fmt: skip
_TYPED = {"≤": "<=", "≥": ">=", "≠": "!="}
_NUMBER = re.compile(r"(?:[0-9]+(?:\.[0-9]*)?|\.[0-9]+)(?:[eE][+-]?[0-9]+)?")
_SUPERSCRIPT = re.compile(r"⁻?[⁰¹²³⁴⁵⁶⁷⁸⁹]+")
_SIGN = re.compile(r"<=|>=|!=|\*\*|[-+−–*×·⋅/÷^(),°=<>≤≥≠!\[\];%∘]")
_SPACE = re.compile(r"\s+")
_PRIMES = re.compile(r"['′″]+")
_WORDS = {
    "for": Kind.FOR, "and": Kind.AND, "otherwise": Kind.OTHERWISE, "from": Kind.FROM,
    "to": Kind.TO, "step": Kind.STEP, "in": Kind.IN, "points": Kind.POINTS,
}  # fmt: skip
_ENDS_VALUE = {
    Kind.NUMBER, Kind.NAME, Kind.INFINITY, Kind.CLOSE, Kind.RIGHT_BAR, Kind.SUPERSCRIPT,
    Kind.DEGREE, Kind.RADIANS, Kind.FACTORIAL, Kind.CLOSE_LIST, Kind.PERCENT, Kind.LAST,
    Kind.CLOSE_INDEX, Kind.UNIT, Kind.PHYSICAL,
}  # fmt: skip
#: What a square bracket directly behind it picks entries of.
_INDEXED = {Kind.NAME, Kind.CLOSE, Kind.CLOSE_LIST, Kind.CLOSE_INDEX}
_INDEX_WORDS = {"last": Kind.LAST, "all": Kind.ALL}
_WITH = re.compile(r"with(?=\s*\[)")
_RANGE_IN_BRACKETS = re.compile(r"\[\s*from\b")


def scan(text: str, vocabulary: Vocabulary, *, start: int = 0) -> list[Token]:
    """Cut ``text`` from ``start`` on into tokens; positions count from the start of the text.

    Raises:
        MathError: a sign or a name that is not known, a limit, or brackets that do not pair.
    """
    if len(text) > LINE_LENGTH.value:
        raise LimitError(
            messages.LINE_HAS_LENGTH_CHARACTERS(length=len(text), most=LINE_LENGTH.value),
            position=(LINE_LENGTH.value, len(text)),
        )
    tokens = list(_raw_tokens(text, start, vocabulary))
    tokens = _decide_bars(tokens)
    _check_brackets(tokens)
    return decide_functions(tokens, vocabulary)


def _raw_tokens(text: str, at: int, vocabulary: Vocabulary) -> list[Token]:
    tokens: list[Token] = []
    # The square brackets that are open: whether each picks entries.
    brackets: list[bool] = []
    while at < len(text):
        space = _SPACE.match(text, at)
        if space:
            at = space.end()
            continue
        scanned = _index_word(text, at) if brackets and brackets[-1] else []
        if tokens and not scanned and may_begin_unit(text[at]):
            scanned = unit_token(text, at, tokens, vocabulary)
        scanned = scanned or _next_tokens(text, at, vocabulary)
        if tokens and tokens[-1].kind is scanned[0].kind is Kind.NUMBER:
            raise GrammarError(
                messages.TWO_NUMBERS_SIDE_BY_SIDE,
                position=(tokens[-1].start, scanned[0].end),
                repair=Repair(
                    (tokens[-1].end, scanned[0].start), " * ", messages.PUT_TIMES_BETWEEN_THEM
                ),
            )
        if tokens and tokens[-1].kind is Kind.PERCENT and scanned[0].kind is Kind.NUMBER:
            raise GrammarError(
                messages.PERCENT_MEANS_HUNDREDTHS,
                position=(tokens[-1].start, scanned[0].end),
            )
        if scanned[0].kind is Kind.OPEN_LIST:
            brackets.append(_picks_entries(tokens, text, at, vocabulary))
            if brackets[-1]:
                scanned = [replace(scanned[0], kind=Kind.OPEN_INDEX)]
        elif scanned[0].kind is Kind.CLOSE_LIST and brackets and brackets.pop():
            scanned = [replace(scanned[0], kind=Kind.CLOSE_INDEX)]
        tokens.extend(scanned)
        at = scanned[-1].end
    return tokens


def _picks_entries(before: list[Token], text: str, at: int, vocabulary: Vocabulary) -> bool:
    """Check whether a square bracket stands directly behind what it picks entries of."""
    if not before:
        return False
    last = before[-1]
    if last.kind is Kind.WITH or (last.kind is Kind.AND and _is_after_with(before)):
        return True
    if last.end != at or last.kind not in _INDEXED or _RANGE_IN_BRACKETS.match(text, at):
        return False
    return last.kind is not Kind.NAME or not vocabulary.is_function(last.text)


def _is_after_with(before: list[Token]) -> bool:
    """Check whether ``and`` joins changes of a list or a matrix, not conditions."""
    kinds = [token.kind for token in before if token.kind in (Kind.WITH, Kind.FOR)]
    return bool(kinds) and kinds[-1] is Kind.WITH


def _index_word(text: str, at: int) -> list[Token]:
    """Read the words that have a meaning within an index only."""
    name = NAME_PATTERN.match(text, at)
    kind = _INDEX_WORDS.get(name[0]) if name else None
    return [] if name is None or kind is None else [Token(kind, name[0], at, name.end(), name[0])]


def _next_tokens(text: str, at: int, vocabulary: Vocabulary) -> list[Token]:
    printed = _printed_function(text, at)
    if printed:
        return printed
    if _WITH.match(text, at):
        return [Token(Kind.WITH, "with", at, at + 4, "with")]
    name = NAME_PATTERN.match(text, at)
    if name:
        if not name[0].isascii() and not vocabulary.is_known(spelled(name[0])):
            _refuse_alike(text, name[0], at)
        return _name_tokens(name[0], at, vocabulary)
    number = _NUMBER.match(text, at)
    if number:
        return [_number_token(number[0], at)]
    superscript = _SUPERSCRIPT.match(text, at)
    if superscript:
        power = superscript[0].translate(_SUPERSCRIPTS)
        return [Token(Kind.SUPERSCRIPT, power, at, superscript.end(), superscript[0])]
    if text[at] == "∞":
        return [Token(Kind.INFINITY, "inf", at, at + 1)]
    primes = _PRIMES.match(text, at)
    if primes:
        order = sum(2 if sign == "″" else 1 for sign in primes[0])
        return [Token(Kind.PRIME, str(order), at, primes.end(), primes[0])]
    if text[at] == "|":
        return [Token(Kind.LEFT_BAR, "|", at, at + 1)]
    sign = _SIGN.match(text, at)
    if sign:
        raw = sign[0]
        return [Token(_SIGNS[raw], _TYPED.get(raw, raw), at, sign.end(), raw)]
    raise _bad_sign(text, at)


#: The bars of whole parts open a call; the others close it.
_WHOLE_BARS = {"⌊": "floor", "⌈": "ceil"}
_ROOTS = {"√": "sqrt", "∛": "cbrt", "³√": "cbrt"}
_SUBSCRIPTS = str.maketrans("₀₁₂₃₄₅₆₇₈₉", "0123456789")
_LOG_OF_BASE = re.compile(r"log(?:_?([0-9]+)|_([A-Za-z]))")
_LOG_WITH_SUBSCRIPT = re.compile(r"log([₀₁₂₃₄₅₆₇₈₉]+)")


def _printed_function(text: str, at: int) -> list[Token]:
    """Read roots, whole parts and logarithms as they are printed; nothing for anything else."""
    log = _LOG_WITH_SUBSCRIPT.match(text, at)
    if log:
        base = log[1].translate(_SUBSCRIPTS)
        return [Token(Kind.NAME, f"{LOG_OF}{base}", at, log.end(), log[0])]
    for sign, function in _ROOTS.items():
        if text.startswith(sign, at):
            # Whatever root it is, it takes what follows it as √ does.
            return [Token(Kind.NAME, function, at, at + len(sign), "√")]
    if text[at] in _WHOLE_BARS:
        name = Token(Kind.NAME, _WHOLE_BARS[text[at]], at, at + 1, text[at])
        return [name, Token(Kind.OPEN, "(", at, at + 1, text[at])]
    if text[at] in "⌋⌉":
        return [Token(Kind.CLOSE, ")", at, at + 1, text[at])]
    return []


#: Signs of print that are words here.
_WRITTEN = {
    "∫": "`integral(x^2, x, 0, 2)`",
    "∑": "`sum(k^2, k, 1, 10)`",
    "Σ": "`sum(k^2, k, 1, 10)`",
    "∏": "`product(k, k, 1, 5)`",
    "Π": "`product(k, k, 1, 5)`",
    "{": messages.PIECES_ONE_AFTER_OTHER,
    "∈": messages.COMPARISON_SIGNS,
}

#: Letters of other scripts that look like those of ours, or mean the same.
_ALIKE = dict(
    zip(
        "асеорхуіјѕԁһкмтвнАВСЕНІЈКМОРЅТХУΑΒΕΖΗΙΚΜΝΟΡΤΥΧοϲ",
        "aceopxyijsdhkmtbhABCEHIJKMOPSTXYABEZHIKMNOPTYXoc",
        strict=True,
    )
)


def _bad_sign(text: str, at: int) -> GrammarError:
    sign = text[at]
    position = (at, at + 1)
    if sign in _WRITTEN:
        return GrammarError(
            messages.INSTEAD_SIGN_WRITE_WRITTEN(sign=sign, written=_WRITTEN[sign]),
            position=position,
        )
    if unicodedata.category(sign) == "No" and "⁄" in unicodedata.normalize("NFKC", sign):
        written = f"({unicodedata.normalize('NFKC', sign).replace('⁄', '/')})"
        return GrammarError(
            messages.WRITE_FRACTION_SIGN_SLASH(sign=sign), position=position, suggestion=written
        )
    plain = _plain(sign)
    if plain != sign and plain.isascii() and plain.strip():
        return GrammarError(
            messages.SIGN_OF_ANOTHER_ALPHABET(sign=sign, plain=plain),
            position=position,
            suggestion=plain,
        )
    shown = f"`{sign}`" if sign.isprintable() else f"U+{ord(sign):04X}"
    return GrammarError(messages.SIGN_CANNOT_BE_USED(sign=shown), position=position)


def _plain(sign: str) -> str:
    """Return the letter of ours that a sign looks like, or the sign itself."""
    return _ALIKE.get(sign) or unicodedata.normalize("NFKC", sign)


def _refuse_alike(text: str, run: str, at: int) -> None:
    """Refuse a letter of another script or font that is probably meant to be one of ours.

    A word that is all of another script is a name like any other.

    Raises:
        GrammarError: it stands alone or among letters of ours, or is one of ours in another font.
    """
    is_mixed = len(run) == 1 or any(sign.isascii() for sign in run)
    for offset, sign in enumerate(run):
        is_other_font = unicodedata.normalize("NFKC", sign).isascii()
        if not sign.isascii() and (is_other_font or (is_mixed and sign in _ALIKE)):
            raise _bad_sign(text, at + offset)


def _name_tokens(run: str, at: int, vocabulary: Vocabulary) -> list[Token]:
    based = _LOG_OF_BASE.fullmatch(run)
    if based and not vocabulary.is_known(run):
        base = based[1] or based[2]
        return [Token(Kind.NAME, f"{LOG_OF}{base}", at, at + len(run), run)]
    if run == "if":
        raise GrammarError(
            messages.WRITE_FOR_INSTEAD_OF_IF,
            position=(at, at + 2),
            suggestion="for",
        )
    if run in _WORDS:
        return [Token(_WORDS[run], run, at, at + len(run))]
    return [_piece_token(piece, run, at, vocabulary) for piece in vocabulary.cut(run, at)]


def _piece_token(piece: Piece, run: str, at: int, vocabulary: Vocabulary) -> Token:
    kind = Kind.PHYSICAL if vocabulary.is_physical(piece.name) else Kind.NAME
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
            messages.POWER_TEN_BEYOND_MOST(most=NUMBER_EXPONENT.value),
            position=(at, at + len(raw)),
        )
    return Token(Kind.NUMBER, raw, at, at + len(raw), raw)


def _decide_bars(tokens: list[Token]) -> list[Token]:
    """Mark bars as opening or closing: one closes if it follows a value inside open bars."""
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
        elif token.kind in (Kind.OPEN, Kind.OPEN_LIST, Kind.OPEN_INDEX):
            open_bars.append(0)
        elif token.kind in (Kind.CLOSE, Kind.CLOSE_LIST, Kind.CLOSE_INDEX) and len(open_bars) > 1:
            open_bars.pop()
        decided.append(token)
    return decided


def _check_brackets(tokens: list[Token]) -> None:
    waiting: list[Token] = []
    end = 0
    for token in tokens:
        if token.kind in PAIRINGS:
            waiting.append(token)
            if len(waiting) > NESTING.value:
                raise LimitError(
                    messages.MORE_THAN_MOST_BRACKETS(most=NESTING.value),
                    position=(token.start, token.end),
                )
        elif token.kind in PARTNER:
            if not waiting or waiting[-1].kind is not PARTNER[token.kind]:
                pairing = PAIRINGS[PARTNER[token.kind]]
                raise GrammarError(
                    pairing.not_opened,
                    position=(token.start, token.end),
                    repair=Repair((token.start, token.end), "", pairing.remove),
                )
            waiting.pop()
        elif token.kind in (Kind.FOR, Kind.NEXT_PIECE) and waiting:
            raise _not_closed(waiting[-1], end)
        end = token.end
    if waiting:
        raise _not_closed(waiting[-1], tokens[-1].end)


def _not_closed(opening: Token, at: int) -> GrammarError:
    """Make the error of a bracket that is still open at a place, where it can be closed."""
    pairing = PAIRINGS[opening.kind]
    return GrammarError(
        pairing.not_closed,
        position=(opening.start, opening.end),
        repair=Repair((at, at), pairing.closing, pairing.close),
    )

"""Cut a line into tokens; what a grammar cannot know, the scanner decides by the names known.

That is: which run of letters is a function, which bar opens and which closes, whether a function's
argument stands in brackets, and whether a product sign ends the argument of an open function.
"""

from __future__ import annotations

import re
import unicodedata

from axis_path.core.errors import (
    GrammarError,
    LimitError,
    MathError,
    Repair,
    UnknownNameError,
)
from axis_path.core.language.tokens import LOG_OF, PRIME_SIGN, Kind, Token
from axis_path.core.language.vocabulary import (
    NAME_PATTERN,
    SUMMARIES,
    Piece,
    Vocabulary,
    spelled,
)
from axis_path.core.limits import DERIVATIVE_ORDER, LINE_LENGTH, NESTING, NUMBER_EXPONENT

_SUPERSCRIPTS = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻", "0123456789-")
_SIGNS = {
    "+": Kind.ADD, "-": Kind.SUBTRACT, "−": Kind.SUBTRACT, "–": Kind.SUBTRACT,
    "*": Kind.TIMES, "**": Kind.POWER, "×": Kind.TIMES, "·": Kind.TIMES, "⋅": Kind.TIMES,
    "/": Kind.DIVIDE, "÷": Kind.DIVIDE, "^": Kind.POWER, "(": Kind.OPEN, ")": Kind.CLOSE,
    ",": Kind.COMMA, "°": Kind.DEGREE, "=": Kind.EQUAL,
    "<": Kind.LESS, "<=": Kind.LESS, "≤": Kind.LESS, ">": Kind.MORE, ">=": Kind.MORE,
    "≥": Kind.MORE, "!=": Kind.UNEQUAL, "≠": Kind.UNEQUAL, "!": Kind.FACTORIAL,
    "[": Kind.OPEN_LIST, "]": Kind.CLOSE_LIST, ";": Kind.NEXT_PIECE,
}  # fmt: skip
_TYPED = {"≤": "<=", "≥": ">=", "≠": "!="}
_NUMBER = re.compile(r"(?:[0-9]+(?:\.[0-9]*)?|\.[0-9]+)(?:[eE][+-]?[0-9]+)?")
_SUPERSCRIPT = re.compile(r"⁻?[⁰¹²³⁴⁵⁶⁷⁸⁹]+")
_SIGN = re.compile(r"<=|>=|!=|\*\*|[-+−–*×·⋅/÷^(),°=<>≤≥≠!\[\];]")
_SPACE = re.compile(r"\s+")
_PRIMES = re.compile(r"['′″]+")
_WORDS = {
    "for": Kind.FOR, "and": Kind.AND, "otherwise": Kind.OTHERWISE, "from": Kind.FROM,
    "to": Kind.TO, "step": Kind.STEP, "in": Kind.IN, "points": Kind.POINTS,
}  # fmt: skip
_ENDS_VALUE = {
    Kind.NUMBER, Kind.NAME, Kind.INFINITY, Kind.CLOSE, Kind.RIGHT_BAR, Kind.SUPERSCRIPT,
    Kind.DEGREE, Kind.RADIANS, Kind.FACTORIAL, Kind.CLOSE_LIST,
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
                repair=Repair((tokens[-1].end, found[0].start), " * ", "Put × between them"),
            )
        tokens.extend(found)
        at = found[-1].end
    return tokens


def _next_tokens(text: str, at: int, vocabulary: Vocabulary) -> list[Token]:
    printed = _printed_function(text, at)
    if printed:
        return printed
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
    "{": "pieces one after the other, as in `x for x < 0; 5 otherwise`, or a list in `[1, 2]`",
    "∘": "one function in the other, as in `f(g(x))`",
    "%": "a division by 100",
    "∈": "signs, as in `for 0 <= x <= 2`",
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
        return GrammarError(f"For {sign} write {_WRITTEN[sign]}.", position=position)
    if unicodedata.category(sign) == "No" and "⁄" in unicodedata.normalize("NFKC", sign):
        written = f"({unicodedata.normalize('NFKC', sign).replace('⁄', '/')})"
        return GrammarError(
            f"Write the fraction {sign} with a stroke.", position=position, suggestion=written
        )
    plain = _plain(sign)
    if plain != sign and plain.isascii() and plain.strip():
        return GrammarError(
            f"This `{sign}` comes from another script or font; it only looks like `{plain}`.",
            position=position,
            suggestion=plain,
        )
    shown = f"`{sign}`" if sign.isprintable() else f"U+{ord(sign):04X}"
    return GrammarError(f"The sign {shown} has no meaning here.", position=position)


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
    for place, sign in enumerate(run):
        is_other_font = unicodedata.normalize("NFKC", sign).isascii()
        if not sign.isascii() and (is_other_font or (is_mixed and sign in _ALIKE)):
            raise _bad_sign(text, at + place)


def _name_tokens(run: str, at: int, vocabulary: Vocabulary) -> list[Token]:
    based = _LOG_OF_BASE.fullmatch(run)
    if based and not vocabulary.is_known(run):
        base = based[1] or based[2]
        return [Token(Kind.NAME, f"{LOG_OF}{base}", at, at + len(run), run)]
    if run == "if":
        raise GrammarError(
            "A domain follows the word `for`, as in `x^2 for x > 0`.",
            position=(at, at + 2),
            suggestion="for",
        )
    if run in _WORDS:
        return [Token(_WORDS[run], run, at, at + len(run))]
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
        elif token.kind in (Kind.OPEN, Kind.OPEN_LIST):
            open_bars.append(0)
        elif token.kind in (Kind.CLOSE, Kind.CLOSE_LIST) and len(open_bars) > 1:
            open_bars.pop()
        decided.append(token)
    return decided


#: Those of a body with its variable and two ends.
_COMMAS_OF_SUMMARY = 3
_PARTNER = {
    Kind.CLOSE: Kind.OPEN, Kind.RIGHT_BAR: Kind.LEFT_BAR, Kind.CLOSE_LIST: Kind.OPEN_LIST,
}  # fmt: skip
_CALLED = {
    Kind.OPEN: ("bracket", ")"), Kind.LEFT_BAR: ("bar", "|"),
    Kind.OPEN_LIST: ("square bracket", "]"),
}  # fmt: skip


def _check_brackets(tokens: list[Token]) -> None:
    waiting: list[Token] = []
    end = 0
    for token in tokens:
        if token.kind in _CALLED:
            waiting.append(token)
            if len(waiting) > NESTING.value:
                raise LimitError(
                    f"More than {NESTING.value} brackets are inside one another.",
                    position=(token.start, token.end),
                )
        elif token.kind in _PARTNER:
            if not waiting or waiting[-1].kind is not _PARTNER[token.kind]:
                what = _CALLED[_PARTNER[token.kind]][0]
                raise GrammarError(
                    f"This closing {what} has no opening {what} before it.",
                    position=(token.start, token.end),
                    repair=Repair((token.start, token.end), "", f"Take the {what} away"),
                )
            waiting.pop()
        elif token.kind in (Kind.FOR, Kind.NEXT_PIECE) and waiting:
            raise _not_closed(waiting[-1], end)
        end = token.end
    if waiting:
        raise _not_closed(waiting[-1], tokens[-1].end)


def _not_closed(opening: Token, at: int) -> GrammarError:
    """Make the error of a bracket that is still open at a place, where it can be closed."""
    what, sign = _CALLED[opening.kind]
    return GrammarError(
        f"A closing {what} is missing.",
        position=(opening.start, opening.end),
        repair=Repair((at, at), sign, f"Close the {what}"),
    )


def _decide_functions(tokens: list[Token], vocabulary: Vocabulary) -> list[Token]:
    """Mark how a function meets its argument, and products that end an open argument."""
    decided: list[Token] = []
    bound = _bound_places(tokens)
    for index, token in enumerate(tokens):
        after = tokens[index + 1] if index + 1 < len(tokens) else None
        kind, text = token.kind, token.text
        if kind is Kind.PRIME:
            if decided and decided[-1].kind is Kind.DERIVED:
                continue
            raise _no_function(decided[-1] if decided else None, token)
        if kind is Kind.NAME and _is_function(text, vocabulary) and index not in bound:
            if after is not None and after.kind is Kind.PRIME:
                kind, text = Kind.DERIVED, _derived(token, after, tokens[index + 2 : index + 3])
            elif _is_first_of_summary(decided) and after is not None and after.kind is Kind.COMMA:
                kind = Kind.FUNCTION
            else:
                kind = _how_applied(token, after)
        elif kind is Kind.DIVIDE and after is not None and after.kind is not Kind.NUMBER:
            # sin x/x is (sin x)/x, and sin pi/6 is sin(pi/6).
            kind = Kind.DIVIDE_APPLY
        elif (
            kind is Kind.TIMES
            and after is not None
            and after.kind is Kind.NAME
            and after.raw != "√"
            and _is_function(after.text, vocabulary)
            and index + 1 not in bound
        ):
            kind = Kind.TIMES_APPLY
        elif kind is Kind.OPEN and _closes_power_of_function(decided):
            kind = Kind.OPEN_CALL
        decided.append(Token(kind, text, token.start, token.end, token.raw))
    return decided


def _is_function(name: str, vocabulary: Vocabulary) -> bool:
    return vocabulary.is_function(name) or name.startswith(LOG_OF)


def _bound_places(tokens: list[Token]) -> set[int]:
    """Return the tokens that stand for the variable of a sum, product or integral around them.

    In ``sum(m^2, m, 1, 9)`` an ``m`` is the variable, even where a function has that name.
    """
    bound: set[int] = set()
    waiting: list[tuple[int, list[int]]] = []
    for index, token in enumerate(tokens):
        if token.kind in _CALLED:
            waiting.append((index, []))
        elif token.kind in _PARTNER:
            opening, commas = waiting.pop()
            if len(commas) == _COMMAS_OF_SUMMARY and tokens[opening - 1].text in SUMMARIES:
                name = tokens[commas[0] + 1]
                if name.kind is Kind.NAME and commas[1] == commas[0] + 2:
                    within = range(opening, commas[1])
                    bound.update(k for k in within if tokens[k].text == name.text)
        elif token.kind is Kind.COMMA and waiting:
            waiting[-1][1].append(index)
    return bound


def _no_function(before: Token | None, prime: Token) -> MathError:
    """Make the error of a ′ that stands behind no function; another line may still define one."""
    if before is None or before.kind is not Kind.NAME:
        return GrammarError(
            "A ′ stands after the name of a function, as in `f'(2)`.",
            position=(prime.start, prime.end),
        )
    return UnknownNameError(
        f"`{before.raw}` is no function here, so it has no derivative.",
        position=(before.start, prime.end),
    )


def _derived(function: Token, prime: Token, after: list[Token]) -> str:
    if not after or after[0].kind is not Kind.OPEN:
        name = f"{function.raw}{prime.raw}"
        raise GrammarError(
            f"`{name}` needs its place in brackets, as in `{name}(2)`.",
            position=(function.start, prime.end),
            repair=Repair((prime.end, prime.end), "(x)", f"Write {name}(x)"),
        )
    if int(prime.text) > DERIVATIVE_ORDER.value:
        raise LimitError(
            f"A derivative of order {prime.text} is too high: at most {DERIVATIVE_ORDER.value}.",
            position=(prime.start, prime.end),
        )
    return f"{function.text}{PRIME_SIGN * int(prime.text)}"


def _is_first_of_summary(before: list[Token]) -> bool:
    return (
        len(before) >= 2
        and before[-1].kind is Kind.OPEN
        and before[-2].kind is Kind.CALL
        and before[-2].text in SUMMARIES
    )


def _closes_power_of_function(before: list[Token]) -> bool:
    """Check whether a bracket holds the argument of a function such as ``sin^2`` before it."""
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
        Kind.MORE, Kind.UNEQUAL, Kind.FOR, Kind.RIGHT_BAR, Kind.DEGREE, Kind.FACTORIAL,
        Kind.NEXT_PIECE, Kind.OTHERWISE, Kind.CLOSE_LIST,
    ):  # fmt: skip
        raise GrammarError(
            f"`{token.text}` needs a value after it, as in `{token.text}(2)`.",
            position=(token.start, token.end),
        )
    if after.kind is Kind.OPEN:
        return Kind.CALL
    if token.text in SUMMARIES:
        raise GrammarError(
            f"`{token.text}` needs brackets, as in `{SUMMARIES[token.text]}`.",
            position=(token.start, token.end),
        )
    if token.raw == "√":
        return Kind.RADICAL
    return Kind.RAISED if after.kind in (Kind.POWER, Kind.SUPERSCRIPT) else Kind.APPLY

"""Which names are called as functions: open arguments, powers of functions, derivatives."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.errors import (
    GrammarError,
    LimitError,
    MathError,
    Repair,
    UnknownNameError,
)
from axis_path.core.language import messages
from axis_path.core.language.scanning.tokens import LOG_OF, PRIME_SIGN, Kind, Token
from axis_path.core.language.tree import TRANSPOSE
from axis_path.core.language.vocabulary import (
    BUILDERS,
    SUMMARIES,
    Vocabulary,
)
from axis_path.core.limits import DERIVATIVE_ORDER

PARTNER = {
    Kind.CLOSE: Kind.OPEN, Kind.RIGHT_BAR: Kind.LEFT_BAR, Kind.CLOSE_LIST: Kind.OPEN_LIST,
    Kind.CLOSE_INDEX: Kind.OPEN_INDEX,
}  # fmt: skip


#: Which functions bring variables of their own, by their commas, and behind which comma each is.
_BOUND = {
    **{(name, 3): (0,) for name in SUMMARIES},
    **{(name, commas): behind for name, (commas, behind) in BUILDERS.items()},
}


@dataclass(frozen=True, slots=True)
class Pairing:
    """What is said of a bracket or a bar that does not pair.

    Attributes:
        closing: what closes it.
        not_opened: the closing one stands alone.
        remove: a button that removes it.
        not_closed: the opening one stands alone.
        close: a button that closes it.
    """

    closing: str
    not_opened: str
    remove: str
    not_closed: str
    close: str


_BRACKET = Pairing(
    ")", messages.BRACKET_NOT_OPENED, messages.REMOVE_BRACKET,
    messages.BRACKET_NOT_CLOSED, messages.CLOSE_BRACKET,
)  # fmt: skip
_SQUARE_BRACKET = Pairing(
    "]", messages.SQUARE_BRACKET_NOT_OPENED, messages.REMOVE_SQUARE_BRACKET,
    messages.SQUARE_BRACKET_NOT_CLOSED, messages.CLOSE_SQUARE_BRACKET,
)  # fmt: skip
_BAR = Pairing(
    "|", messages.BAR_NOT_OPENED, messages.REMOVE_BAR,
    messages.BAR_NOT_CLOSED, messages.CLOSE_BAR,
)  # fmt: skip
PAIRINGS = {
    Kind.OPEN: _BRACKET, Kind.LEFT_BAR: _BAR,
    Kind.OPEN_LIST: _SQUARE_BRACKET, Kind.OPEN_INDEX: _SQUARE_BRACKET,
}  # fmt: skip


def decide_functions(tokens: list[Token], vocabulary: Vocabulary) -> list[Token]:
    """Mark how a function meets its argument, and products that end an open argument."""
    decided: list[Token] = []
    bound = _bound_indices(tokens)
    for index, token in enumerate(tokens):
        after = tokens[index + 1] if index + 1 < len(tokens) else None
        kind, text = token.kind, token.text
        if decided and decided[-1].kind is Kind.TRANSPOSE and decided[-1].end == token.end:
            continue
        if kind is Kind.POWER and _transposes(decided, after, vocabulary):
            # A value of that name may be meant too; what stands before it decides.
            known = TRANSPOSE if vocabulary.is_value(TRANSPOSE) else ""
            end = tokens[index + 1].end
            decided.append(Token(Kind.TRANSPOSE, known, token.start, end, token.raw))
            continue
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


def _transposes(before: list[Token], after: Token | None, vocabulary: Vocabulary) -> bool:
    """Check whether a power has the bare name T as its exponent."""
    if after is None or after.kind is not Kind.NAME or after.text != TRANSPOSE:
        return False
    is_value = not vocabulary.is_function(TRANSPOSE)
    return is_value and bool(before) and before[-1].kind is not Kind.RAISED


def _is_function(name: str, vocabulary: Vocabulary) -> bool:
    return vocabulary.is_function(name) or name.startswith(LOG_OF)


def _bound_indices(tokens: list[Token]) -> set[int]:
    """Return the tokens that stand for the variable of a sum, product or integral around them.

    In ``sum(m^2, m, 1, 9)`` an ``m`` is the variable, even where a function has that name.
    """
    bound: set[int] = set()
    waiting: list[tuple[int, list[int]]] = []
    for index, token in enumerate(tokens):
        if token.kind in PAIRINGS:
            waiting.append((index, []))
        elif token.kind in PARTNER:
            opening, commas = waiting.pop()
            head = tokens[opening - 1].text if opening else ""
            for behind in _BOUND.get((head, len(commas)), ()):
                name = tokens[commas[behind] + 1]
                if name.kind is Kind.NAME and commas[behind + 1] == commas[behind] + 2:
                    within = [*range(opening, commas[0]), commas[behind] + 1]
                    bound.update(k for k in within if tokens[k].text == name.text)
        elif token.kind is Kind.COMMA and waiting:
            waiting[-1][1].append(index)
    return bound


def _no_function(before: Token | None, prime: Token) -> MathError:
    """Make the error of a ′ that stands behind no function; another line may still define one."""
    if before is None or before.kind is not Kind.NAME:
        return GrammarError(
            messages.WRITE_PRIME_AFTER_NAME,
            position=(prime.start, prime.end),
        )
    return UnknownNameError(
        messages.NAME_NOT_FUNCTION_HERE_SO(name=before.raw),
        position=(before.start, prime.end),
    )


def _derived(function: Token, prime: Token, after: list[Token]) -> str:
    if not after or after[0].kind is not Kind.OPEN:
        name = f"{function.raw}{prime.raw}"
        raise GrammarError(
            messages.NAME_NEEDS_VALUE_BRACKETS(name=name),
            position=(function.start, prime.end),
            repair=Repair((prime.end, prime.end), "(x)", messages.WRITE_NAME_OF_X(name=name)),
        )
    if int(prime.text) > DERIVATIVE_ORDER.value:
        raise LimitError(
            messages.DERIVATIVE_ORDER_TOO_HIGH(order=prime.text, most=DERIVATIVE_ORDER.value),
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
        Kind.NEXT_PIECE, Kind.OTHERWISE, Kind.CLOSE_LIST, Kind.CLOSE_INDEX, Kind.PERCENT,
        Kind.ENTRYWISE, Kind.WITH,
    ):  # fmt: skip
        if after is not None and after.kind is Kind.ENTRYWISE:
            raise GrammarError(
                messages.RING_MULTIPLIES_ENTRIES,
                position=(after.start, after.end),
            )
        raise GrammarError(
            messages.NAME_NEEDS_VALUE_AFTER(name=token.text),
            position=(token.start, token.end),
        )
    if after.kind is Kind.OPEN:
        return Kind.CALL
    if token.text in SUMMARIES:
        raise GrammarError(
            messages.NAME_NEEDS_BRACKETS_EXAMPLE(name=token.text, example=SUMMARIES[token.text]),
            position=(token.start, token.end),
        )
    if token.raw == "√":
        return Kind.RADICAL
    return Kind.RAISED if after.kind in (Kind.POWER, Kind.SUPERSCRIPT) else Kind.APPLY

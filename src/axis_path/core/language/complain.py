"""Explain in plain words why a row of tokens does not read.

``COMPLAINTS`` is a table: what is wrong, how to recognise it, and texts that show it. The test of
the language walks the same table.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import lark

from axis_path.core.errors import GrammarError, MathError
from axis_path.core.language import messages
from axis_path.core.language.scanning.tokens import Kind, Token
from axis_path.core.wording import Text

_OPERATIONS = {
    Kind.ADD, Kind.SUBTRACT, Kind.TIMES, Kind.TIMES_APPLY, Kind.DIVIDE, Kind.DIVIDE_APPLY,
    Kind.POWER, Kind.ENTRYWISE,
}  # fmt: skip
_OPENING = {Kind.OPEN, Kind.OPEN_CALL, Kind.OPEN_LIST, Kind.OPEN_INDEX, Kind.LEFT_BAR}
_CLOSING = {Kind.CLOSE, Kind.CLOSE_LIST, Kind.CLOSE_INDEX, Kind.RIGHT_BAR}
_RANGE_WORDS = {Kind.TO, Kind.STEP, Kind.IN, Kind.POINTS, Kind.COMMA}
_COMPARISONS = {Kind.LESS, Kind.MORE, Kind.EQUAL, Kind.UNEQUAL}


@dataclass(frozen=True, slots=True)
class StopPoint:
    """Where reading stopped: the token before, the token that does not fit, all before it."""

    before: Token | None
    bad: Token | None
    earlier: tuple[Token, ...]

    @property
    def is_after_for(self) -> bool:
        """Check whether the place lies in the domain."""
        return any(token.kind is Kind.FOR for token in self.earlier)


@dataclass(frozen=True, slots=True)
class Complaint:
    """One message; ``{before}`` and ``{bad}`` in it are the signs around the place."""

    message: Text
    fits: Callable[[StopPoint], bool]
    examples: tuple[str, ...]
    error: type[MathError] = GrammarError


def _is(token: Token | None, kinds: set[Kind]) -> bool:
    return token is not None and token.kind in kinds


def _is_open(stop: StopPoint) -> bool:
    """Check whether the place lies within brackets."""
    opened = sum(token.kind in _OPENING for token in stop.earlier)
    return opened > sum(token.kind in _CLOSING for token in stop.earlier)


COMPLAINTS = (
    Complaint(
        messages.WRITE_LIST_EQUAL_STEPS,
        lambda stop: (
            any(token.kind is Kind.FROM for token in stop.earlier)
            and (stop.bad is None or _is(stop.bad, _CLOSING | _RANGE_WORDS))
        ),
        ("from 1 to 4", "from 1", "[from 1 to 4]", "from 1 to 4 in 3"),
    ),
    Complaint(
        messages.OTHERWISE_COMES_LAST,
        lambda stop: _is(stop.bad, {Kind.OTHERWISE}) or _is(stop.before, {Kind.OTHERWISE}),
        ("otherwise", "x for x > 0 otherwise"),
    ),
    Complaint(
        messages.EACH_PIECE_NEEDS_DOMAIN,
        lambda stop: _is(stop.bad, {Kind.NEXT_PIECE}) or _is(stop.before, {Kind.NEXT_PIECE}),
        ("x; 5 otherwise", "x for x < 0;"),
    ),
    Complaint(
        messages.SOMETHING_MISSING_BEFORE_COMMA,
        lambda stop: _is(stop.bad, {Kind.COMMA}) and _is(stop.before, _OPENING | {Kind.COMMA}),
        ("[1,, 2]", "(, 2)", "max(, 1)"),
    ),
    Complaint(
        messages.POINT_HAS_TWO_COORDINATES,
        lambda stop: _is(stop.bad, {Kind.COMMA}) and not stop.is_after_for and _is_open(stop),
        ("(2, 3, 4)", "2 + (1, 2, 3)"),
    ),
    Complaint(
        messages.UNEXPECTED_COMMA_WRITE_POINT,
        lambda stop: _is(stop.bad, {Kind.COMMA}) and not stop.is_after_for,
        ("2, 3", "x^2, 0 < x < 2"),
    ),
    Complaint(
        messages.WRITE_DOMAIN,
        lambda stop: _is(stop.bad, {Kind.IN}) and stop.is_after_for,
        ("x^2 for x in [0, 2]",),
    ),
    Complaint(
        messages.FUNCTION_POWER_NEEDS_VALUE,
        lambda stop: (
            (stop.bad is None or _is(stop.bad, {Kind.CLOSE, Kind.RIGHT_BAR}))
            and any(token.kind is Kind.RAISED for token in stop.earlier[-4:])
        ),
        ("sin^2", "(sin^2)", "2 pi tide^2"),
    ),
    Complaint(
        messages.DOMAIN_NEEDS_ONE,
        lambda stop: (
            (stop.bad is None or _is(stop.bad, {Kind.COMMA, Kind.AND, Kind.FOR}))
            and stop.is_after_for
            and not _is(stop.before, _OPERATIONS | _COMPARISONS | {Kind.FOR})
        ),
        ("x^2 for x", "x^2 for x, x > 2"),
    ),
    Complaint(
        messages.WRITE_DOMAIN_AFTER,
        lambda stop: _is(stop.before, {Kind.FOR}),
        ("x^2 for", "x^2 for <"),
    ),
    Complaint(
        messages.YOU_CANNOT_COMPARE_INSIDE,
        lambda stop: (
            _is(stop.bad, _COMPARISONS)
            and not stop.is_after_for
            and _is_open(stop)
            and not _is(stop.before, _OPERATIONS | _COMPARISONS)
        ),
        ("sin(x = 2)", "2 (x < 1)"),
    ),
    Complaint(
        messages.BRACKETS_EMPTY,
        lambda stop: (
            (_is(stop.before, {Kind.OPEN, Kind.OPEN_CALL}) and _is(stop.bad, {Kind.CLOSE}))
            or (_is(stop.before, {Kind.OPEN_LIST}) and _is(stop.bad, {Kind.CLOSE_LIST}))
            or (_is(stop.before, {Kind.OPEN_INDEX}) and _is(stop.bad, {Kind.CLOSE_INDEX}))
        ),
        ("2()", "sin()", "[]"),
    ),
    Complaint(
        messages.SOMETHING_MISSING_AFTER,
        lambda stop: _is(stop.before, _OPERATIONS | _COMPARISONS | {Kind.COMMA, Kind.AND}),
        ("x +", "2 * / 3", "max(1,)", "x^", "x for x <"),
    ),
    Complaint(
        messages.SOMETHING_MISSING_BEFORE,
        lambda stop: (
            _is(
                stop.bad,
                _OPERATIONS
                | {Kind.SUPERSCRIPT, Kind.DEGREE, Kind.RADIANS, Kind.FACTORIAL, Kind.PERCENT},
            )
            or _is(stop.bad, {Kind.FOR, Kind.COMMA, Kind.AND})
        ),
        ("* 2", "(/ 3)", "² + 1", "for x > 0"),
    ),
    Complaint(
        messages.SOMETHING_MISSING_AT_END,
        lambda stop: stop.bad is None or _is(stop.bad, {Kind.CLOSE, Kind.RIGHT_BAR}),
        (),
    ),
    Complaint(messages.DOES_NOT_FIT, lambda stop: True, ("x for x > 0 > 1 > 2",)),
)


def explain(tokens: list[Token], culprit: lark.Token) -> MathError:
    """Make the error for a token that the grammar does not accept.

    Args:
        tokens: all tokens of the text, at least one.
        culprit: lark's token; its type is ``$END`` when the text ended too early.
    """
    if culprit.type == "$END":
        stop = StopPoint(tokens[-1], None, tuple(tokens))
        position = (tokens[-1].start, tokens[-1].end)
    else:
        index = next(k for k, token in enumerate(tokens) if token.start == culprit.start_pos)
        stop = StopPoint(tokens[index - 1] if index else None, tokens[index], tuple(tokens[:index]))
        position = (tokens[index].start, tokens[index].end)
    complaint = next(complaint for complaint in COMPLAINTS if complaint.fits(stop))
    if "{before}" in complaint.message and stop.before is not None:
        position = (stop.before.start, stop.before.end)
    message = complaint.message(before=_shown(stop.before), bad=_shown(stop.bad))
    return complaint.error(message, position=position)


def _shown(token: Token | None) -> str:
    return "" if token is None else token.raw or token.text

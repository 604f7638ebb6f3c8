"""The row operations of a textbook: exchange two rows, multiply one, add a multiple of another."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.algebra import messages
from axis_path.core.errors import GrammarError, ListError

Rows = tuple[tuple[Fraction, ...], ...]

_ARROW = r"\s*(?:<-|←|:=|=)\s*"
_FRACTION = r"(?:\d+(?:\.\d+)?(?:\s*/\s*\d+)?|\(\s*-?\s*\d+(?:\.\d+)?(?:\s*/\s*\d+)?\s*\))"
_EXCHANGE = re.compile(r"R\s*(\d+)\s*(?:<->|↔|<=>)\s*R\s*(\d+)", re.IGNORECASE)
_TARGET = re.compile(rf"R\s*(\d+){_ARROW}(.+)", re.IGNORECASE)
_TERM = re.compile(
    rf"(?P<sign>[+\-−]?)\s*(?P<factor>{_FRACTION})?\s*[*·]?\s*R\s*(?P<row>\d+)"
    rf"(?:\s*/\s*(?P<divisor>\d+))?\s*",
    re.IGNORECASE,
)
_EXAMPLES = messages.OR


@dataclass(frozen=True, slots=True)
class Operation:
    """One row operation; rows count from 0.

    Attributes:
        row: the row that changes.
        other: the row that it is exchanged with, or of which a multiple is added; None if the row
            is only multiplied.
        factor: by what the row is multiplied, or the multiple of the other that is added; None for
            an exchange.
    """

    row: int
    other: int | None
    factor: Fraction | None

    @property
    def text(self) -> str:
        """Return it in the notation of textbooks."""
        target = f"R{self.row + 1}"
        if self.factor is None:
            return f"{target} <-> R{(self.other or 0) + 1}"
        if self.other is None:
            return f"{target} <- {_times(self.factor)}{target}"
        sign = "-" if self.factor < 0 else "+"
        return f"{target} <- {target} {sign} {_times(abs(self.factor))}R{self.other + 1}"


def _times(factor: Fraction) -> str:
    if factor == 1:
        return ""
    return "-" if factor == -1 else f"{factor} "


def apply_operation(rows: Rows, operation: Operation) -> Rows:
    """Return the rows after an operation.

    Raises:
        ListError: a row does not exist, or the operation could not be undone.
    """
    made = [list(row) for row in rows]
    for index in (operation.row, operation.other):
        if index is not None and not 0 <= index < len(rows):
            raise ListError(messages.THERE_NO_ROW_ROW(row=index + 1, count=len(rows)))
    row, other, factor = operation.row, operation.other, operation.factor
    if factor is None and other is not None:
        if row == other:
            raise ListError(messages.SWAP_ROW_ANOTHER_ROW)
        made[row], made[other] = made[other], made[row]
    elif other is None and factor is not None:
        if factor == 0:
            raise ListError(messages.MULTIPLYING_ROW_BY_WOULD)
        made[row] = [factor * entry for entry in made[row]]
    elif other is not None and factor is not None:
        if row == other:
            raise ListError(messages.ADD_MULTIPLE_ANOTHER_ROW)
        made[row] = [a + factor * b for a, b in zip(made[row], made[other], strict=True)]
    return tuple(map(tuple, made))


def read_operation(text: str) -> Operation:
    """Read a row operation as it is written in textbooks.

    Raises:
        GrammarError: it is none.
    """
    exchange = _EXCHANGE.fullmatch(text.strip())
    if exchange:
        return Operation(int(exchange[1]) - 1, int(exchange[2]) - 1, None)
    target = _TARGET.fullmatch(text.strip())
    if target is None:
        raise _unread(text)
    row, terms = int(target[1]) - 1, _terms(target[2], text)
    own = sum((factor for index, factor in terms if index == row), Fraction(0))
    others = [(index, factor) for index, factor in terms if index != row]
    if not others:
        return Operation(row, None, own)
    if len(others) == 1 and own == 1:
        return Operation(row, others[0][0], others[0][1])
    raise GrammarError(
        messages.OPERATION_ADDS_MULTIPLE_ONE,
        position=(0, len(text)),
    )


def _terms(written: str, text: str) -> list[tuple[int, Fraction]]:
    terms, at = [], 0
    while at < len(written):
        term = _TERM.match(written, at)
        if term is None or (at and not term["sign"]):
            raise _unread(text)
        factor = Fraction("".join((term["factor"] or "1").strip("() ").split()))
        factor /= int(term["divisor"] or 1) or 1
        terms.append(
            (
                int(term["row"]) - 1,
                -factor if term["sign"] in ("-", "−") and term["sign"] else factor,
            )
        )
        at = term.end()
    return terms


def _unread(text: str) -> GrammarError:
    return GrammarError(
        messages.WRITE_ROW_OPERATION_EXAMPLES(examples=_EXAMPLES), position=(0, len(text))
    )

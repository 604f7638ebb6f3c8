"""Tokens: what they are, and which runs of signs they are made of."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

#: How a derivative is marked in the text of its token.
PRIME_SIGN = "'"


#: Before the base in the text of the token of a logarithm.
LOG_OF = "log_"


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
    FUNCTION = "FUNCTION"
    DERIVED = "DERIVED"
    PRIME = "PRIME"
    FACTORIAL = "FACTORIAL"
    OPEN_LIST = "OPEN_LIST"
    CLOSE_LIST = "CLOSE_LIST"
    NEXT_PIECE = "NEXT_PIECE"
    OTHERWISE = "OTHERWISE"
    FROM = "FROM"
    TO = "TO"
    STEP = "STEP"
    IN = "IN"
    POINTS = "POINTS"
    PERCENT = "PERCENT"
    ENTRYWISE = "ENTRYWISE"
    OPEN_INDEX = "OPEN_INDEX"
    CLOSE_INDEX = "CLOSE_INDEX"
    LAST = "LAST"
    ALL = "ALL"
    WITH = "WITH"
    TRANSPOSE = "TRANSPOSE"
    UNIT = "UNIT"
    CONVERT = "CONVERT"
    PHYSICAL = "PHYSICAL"


@dataclass(frozen=True, slots=True)
class Token:
    """One token; ``text`` holds what the grammar needs, ``raw`` what was typed."""

    kind: Kind
    text: str
    start: int
    end: int
    raw: str = ""

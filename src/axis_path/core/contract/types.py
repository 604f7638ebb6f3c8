"""Types of fields that many structs share, each with its bounds."""

from __future__ import annotations

import sys
from typing import Annotated, Any

from msgspec import Meta

from axis_path.core.limits import LINE_LENGTH, TABLE_DIGITS

#: A larger whole number is none that a page, or the database, could give back.
_LARGEST_INT = 2**53
_LARGEST_FLOAT = sys.float_info.max

#: Of a line, a query, a fit.
Id = Annotated[int, Meta(ge=-_LARGEST_INT, le=_LARGEST_INT)]
Count = Annotated[int, Meta(ge=0, le=_LARGEST_INT)]
#: A number that is neither infinite nor NaN.
Finite = Annotated[float, Meta(ge=-_LARGEST_FLOAT, le=_LARGEST_FLOAT)]
Positive = Annotated[float, Meta(gt=0, le=_LARGEST_FLOAT)]
Pair = tuple[Finite, Finite]
#: What fits into one line of a study.
Line = Annotated[str, Meta(max_length=LINE_LENGTH.value)]
Digits = Annotated[int, Meta(ge=0, le=TABLE_DIGITS.value)]
#: Some fields of a struct by name; ``patched`` validates them.
Changes = dict[str, Any]


def changes_of(kind: type) -> Meta:
    """Return what says of ``Changes`` which struct they are of."""
    return Meta(extra={"changes": kind})

"""A column of numbers as they were typed: exact fractions, with cells that are missing."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from typing import Annotated

import numpy as np
from msgspec import Meta
from numpy.typing import NDArray

from axis_path.core.contract import Line, exact_from_text
from axis_path.core.errors import DataError
from axis_path.core.language import NAME_PATTERN
from axis_path.core.limits import COLUMN_CELLS
from axis_path.core.threads import lazy_property

#: A cell is measured: what is beyond floats is a slip.
_SMALLEST, _LARGEST = Fraction(1, 10**300), Fraction(10**300)


@dataclass(frozen=True)
class Column:
    """A column.

    Attributes:
        name: what it is called.
        cells: its numbers as they were typed; None for a cell without one.
        unit: as it is written beside the name; may be empty.
        formula: what the cells are calculated from, an expression in other columns; empty for
            cells that are typed.
    """

    name: Annotated[str, Meta(pattern=rf"^(?:{NAME_PATTERN.pattern})$(?!\n)")]
    cells: Annotated[tuple[Fraction | None, ...], Meta(max_length=COLUMN_CELLS.value)]
    unit: Line = ""
    formula: Line = ""

    def floats(self) -> NDArray[np.float64]:
        """Return the nearest floats, (n,), NaN where a cell is missing; they cannot be changed."""
        return self._floats

    @lazy_property
    def _floats(self) -> NDArray[np.float64]:
        # A picture with points asks for them in every frame.
        floats = np.array([math.nan if cell is None else float(cell) for cell in self.cells])
        floats.flags.writeable = False
        return floats


def number_of_cell(given: float | Fraction | str | None) -> Fraction | None:
    """Read a cell. A float is the decimal that it is written as, because that is what was measured.

    Raises:
        DataError: it is no number.
    """
    if given is None or (isinstance(given, float) and math.isnan(given)):
        return None
    if isinstance(given, Fraction):
        return given
    text = (repr(given) if isinstance(given, float) else str(given)).strip().replace("−", "-")
    if not text:
        return None
    whole, comma, part = text.partition(",")
    if comma and "." not in text and part[:1].isdecimal() and whole.lstrip("+-").isdecimal():
        # A decimal comma, as it is typed in many countries.
        text = f"{whole}.{part}"
    try:
        value = exact_from_text(text)
    except OverflowError as err:
        raise DataError(f"{err}, for a cell.") from err
    except ValueError as err:
        raise DataError(f"{err}.") from err
    if value and not _SMALLEST <= abs(value) <= _LARGEST:
        raise DataError(f"`{text[:40]}` is too large, or too small, for a cell.")
    return value

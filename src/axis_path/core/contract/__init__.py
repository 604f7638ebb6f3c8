"""One typed contract for all that crosses a border of the core, validated in one place.

Commands, requests and the sections of a study are typed structs. ``read`` makes one from plain data
and says where the data are wrong; ``write`` turns it back into plain data.
"""

from axis_path.core.contract.exact import exact_from_text
from axis_path.core.contract.patch import patched
from axis_path.core.contract.reading import Refused, read
from axis_path.core.contract.texts import one_line
from axis_path.core.contract.types import (
    Changes,
    Count,
    Digits,
    Finite,
    Id,
    Line,
    Pair,
    Positive,
    changes_of,
)
from axis_path.core.contract.writing import write, write_changed

__all__ = [
    "Changes",
    "Count",
    "Digits",
    "Finite",
    "Id",
    "Line",
    "Pair",
    "Positive",
    "Refused",
    "changes_of",
    "exact_from_text",
    "one_line",
    "patched",
    "read",
    "write",
    "write_changed",
]

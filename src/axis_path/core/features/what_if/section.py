"""A what-if table as it is kept in a study."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Line
from axis_path.core.features.lines.renaming import renamed_number
from axis_path.core.language import Vocabulary
from axis_path.core.limits import WHAT_IF_COLUMNS


@dataclass(frozen=True, slots=True)
class WhatIfSpec:
    """What a what-if table is made from, as it was typed.

    Attributes:
        name: whose values the rows are; empty for no table.
        start: its first value, in the unit in which it is shown; ``stop`` the last.
        step: from row to row; not looked at where there is a count.
        count: how many rows from start to stop; empty for a step.
        listed: values of one's own, with commas between; empty for spaced ones.
        columns: what is computed for each value.
        instead: the name of a set whose given value is left out, so that ``name`` can be given.
        is_drawn: whether the columns are drawn on the plane.
    """

    name: Line = ""
    start: Line = "0"
    stop: Line = "10"
    step: Line = "1"
    count: Line = ""
    listed: Line = ""
    columns: Annotated[tuple[Line, ...], Meta(max_length=WHAT_IF_COLUMNS.value)] = ()
    instead: Line = ""
    is_drawn: bool = True


def renamed(section: WhatIfSpec, names: Vocabulary, name: str, new: str) -> WhatIfSpec:
    """Return the table after a name was changed."""

    def other(text: str) -> str:
        return new if text == name else text

    columns = tuple(renamed_number(text, names, name, new) for text in section.columns)
    return replace(
        section, name=other(section.name), instead=other(section.instead), columns=columns
    )

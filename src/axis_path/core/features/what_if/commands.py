"""Commands of the what-if table."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated

from msgspec import UNSET, Meta, UnsetType

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Line, one_line
from axis_path.core.draw import Window
from axis_path.core.errors import TableError
from axis_path.core.features.command import Command, Edited, Handler, given_fields
from axis_path.core.features.what_if.queries import WhatIf
from axis_path.core.features.what_if.section import WhatIfSpec
from axis_path.core.features.what_if.varied import given_in_set
from axis_path.core.limits import WHAT_IF_COLUMNS


class ChangeWhatIf(Command, frozen=True, tag="what_if"):
    """Change the what-if table; what is not given stays, and an empty name removes the table.

    Where a name follows from equations and ``instead`` is empty, the first given value that can
    follow from it does.
    """

    name: str | UnsetType = UNSET
    start: str | UnsetType = UNSET
    stop: str | UnsetType = UNSET
    step: str | UnsetType = UNSET
    count: str | UnsetType = UNSET
    listed: str | UnsetType = UNSET
    columns: Annotated[tuple[Line, ...], Meta(max_length=WHAT_IF_COLUMNS.value)] | UnsetType = UNSET
    instead: str | UnsetType = UNSET
    is_drawn: bool | UnsetType = UNSET


def _what_if(snapshot: Snapshot, command: ChangeWhatIf, _window: Window) -> Edited:
    changes = given_fields(command)
    if "columns" in changes:
        changes["columns"] = tuple(dict.fromkeys(map(one_line, changes["columns"])))
    before = snapshot.section(WhatIfSpec)
    spec = replace(before, **changes)
    if not spec.name:
        return snapshot.with_section(WhatIfSpec()), "Remove the what-if table"
    if not spec.instead:
        spec = replace(spec, instead=next(iter(given_in_set(snapshot, spec.name)), ""))
    table = snapshot.query(WhatIf).table(spec)
    new = [column for column in table.columns if column.text not in before.columns]
    problem = next((column.problem for column in new if column.problem), "")
    if problem:
        raise TableError(problem)
    return snapshot.with_section(spec), "Change the what-if table"


COMMANDS: dict[type[Command], Handler] = {ChangeWhatIf: _what_if}

"""Commands of the what-if table."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated

from msgspec import UNSET, Meta, UnsetType

from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Line, one_line
from axis_path.core.draw import Window
from axis_path.core.errors import MathError, TableError
from axis_path.core.features.command import Command, Edited, Handler, given_fields
from axis_path.core.features.tables.queries import split_list
from axis_path.core.features.what_if.queries import WhatIf
from axis_path.core.features.what_if.section import WhatIfSpec
from axis_path.core.features.what_if.varied import given_in_set, unit_of_name
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


#: The fields that say which values the name has.
_VALUES = ("start", "stop", "step", "count", "listed")


def _what_if(snapshot: Snapshot, command: ChangeWhatIf, _window: Window) -> Edited:
    changes = given_fields(command)
    if "columns" in changes:
        changes["columns"] = tuple(dict.fromkeys(map(one_line, changes["columns"])))
    before = snapshot.section(WhatIfSpec)
    spec = replace(before, **changes)
    if not spec.name:
        return snapshot.with_section(WhatIfSpec()), "Remove the what-if table"
    spec = _spelled_out(snapshot, spec)
    if spec.name != before.name and not changes.keys() & set(_VALUES):
        spec = _with_fitting_values(snapshot, spec)
    if not changes.get("instead"):
        given = given_in_set(snapshot, spec.name)
        if spec.instead not in given:
            spec = replace(spec, instead=next(iter(given), ""))
    table = snapshot.query(WhatIf).table(spec)
    new = [column for column in table.columns if column.text not in before.columns]
    problem = next((column.problem for column in new if column.problem), "")
    if problem:
        raise TableError(problem)
    return snapshot.with_section(spec), "Change the what-if table"


def _spelled_out(snapshot: Snapshot, spec: WhatIfSpec) -> WhatIfSpec:
    """Return the values of the name with their units in full where names hide them."""
    numbers, unit = snapshot.query(Numbers), unit_of_name(snapshot, spec.name)
    start, stop, step = (
        numbers.spelled_out(text, unit) for text in (spec.start, spec.stop, spec.step)
    )
    parts = split_list(spec.listed) if spec.listed.strip() else []
    spelled = [numbers.spelled_out(part, unit) for part in parts]
    listed = spec.listed if spelled == parts else ", ".join(spelled)
    return replace(spec, start=start, stop=stop, step=step, listed=listed)


def _with_fitting_values(snapshot: Snapshot, spec: WhatIfSpec) -> WhatIfSpec:
    """Return the table of another name, with the usual values if the present ones do not fit it."""
    numbers, unit = snapshot.query(Numbers), unit_of_name(snapshot, spec.name)
    try:
        for text in split_list(spec.listed) or [spec.start, spec.stop, spec.step]:
            numbers.number(text, unit)
    except MathError:
        usual = WhatIfSpec()
        return replace(spec, **{field: getattr(usual, field) for field in _VALUES})
    return spec


COMMANDS: dict[type[Command], Handler] = {ChangeWhatIf: _what_if}

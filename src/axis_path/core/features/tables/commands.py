"""Commands of the table of values."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated

from msgspec import UNSET, Meta, UnsetType

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Id
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited, Handler, given_fields
from axis_path.core.features.tables.queries import Tables
from axis_path.core.kinds.states import States
from axis_path.core.limits import TABLE_COLUMNS
from axis_path.core.tabulate import NumberForm, TableColumn, TableSpec


class ChangeTable(Command, frozen=True, tag="table"):
    """Change the table of values; what is not given stays."""

    start: str | UnsetType = UNSET
    stop: str | UnsetType = UNSET
    step: str | UnsetType = UNSET
    count: str | UnsetType = UNSET
    listed: str | UnsetType = UNSET
    digits: Id | UnsetType = UNSET
    form: NumberForm | UnsetType = UNSET
    columns: (
        Annotated[tuple[TableColumn, ...], Meta(max_length=TABLE_COLUMNS.value)] | UnsetType
    ) = UNSET
    over: str | UnsetType = UNSET
    at: str | UnsetType = UNSET


def _table(snapshot: Snapshot, command: ChangeTable, _window: Window) -> Edited:
    spec = replace(snapshot.section(TableSpec), **given_fields(command))
    snapshot.query(Tables).table_abscissae(spec)
    snapshot.query(Tables).check_columns(spec, snapshot.query(States).functions())
    return snapshot.with_section(spec), "Change the table"


COMMANDS: dict[type[Command], Handler] = {ChangeTable: _table}

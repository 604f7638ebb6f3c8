"""Commands of the table of values."""

from __future__ import annotations

from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited
from axis_path.core.features.fields import text_of
from axis_path.core.features.tables.queries import Tables
from axis_path.core.features.tables.section import table_from_dict, table_to_dict
from axis_path.core.kinds.states import States
from axis_path.core.tabulate import TableSpec

_TABLE_FIELDS = (
    "start", "stop", "step", "count", "listed", "digits", "form", "columns", "over", "at",
)  # fmt: skip


def _table(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    kept = table_to_dict(snapshot.section(TableSpec))
    given = {name: command[name] for name in _TABLE_FIELDS if name in command}
    clean = {n: text_of(given, n) if isinstance(v, str) else v for n, v in given.items()}
    spec = table_from_dict(kept | clean)
    snapshot.query(Tables).table_places(spec)
    snapshot.query(Tables).check_columns(spec, snapshot.query(States).functions())
    snapshot = snapshot.with_section(spec)
    return snapshot, "Change the table"


COMMANDS: dict[str, Command] = {
    "table": _table,
}

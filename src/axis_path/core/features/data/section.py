"""The data of a study, changed."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.document.data import Data


def with_data(snapshot: Snapshot, /, **fields: Any) -> Snapshot:  # noqa: ANN401 - fields of the section
    """Return the snapshot with other columns, fits, plots or another filter."""
    return snapshot.with_section(replace(snapshot.section(Data), **fields))

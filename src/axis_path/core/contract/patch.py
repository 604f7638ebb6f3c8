"""Change some fields of a struct, given as plain data; what is not given stays."""

from __future__ import annotations

import dataclasses
from collections.abc import Mapping
from typing import Any, TypeVar

from axis_path.core.contract import messages
from axis_path.core.contract.reading import Refused, read
from axis_path.core.contract.writing import write

T = TypeVar("T")


def patched(present: T, changes: Mapping[str, Any], refused: Refused) -> T:
    """Return a struct with some fields changed.

    Args:
        present: a dataclass.
        changes: its fields by name; those of a struct within it are changed in the same way.
        refused: makes the error of this border.

    Raises:
        Exception: what ``refused`` makes, where a field is unknown or wrong.
    """
    return read(_merged(present, changes, "", refused), type(present), refused)


def _merged(present: Any, changes: Any, path: str, refused: Refused) -> Any:  # noqa: ANN401 - plain data
    if not dataclasses.is_dataclass(present) or not isinstance(changes, Mapping):
        return changes
    names = {field.name for field in dataclasses.fields(present)}
    for name in changes:
        if name not in names:
            raise refused(messages.FIELD_PATH_NAME_UNKNOWN(path=path, name=name), f"{path}{name}")
    return write(present) | {
        name: _merged(getattr(present, name), change, f"{path}{name}.", refused)
        for name, change in changes.items()
    }

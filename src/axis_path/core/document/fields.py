"""Fields of the open study format, read and checked."""

from __future__ import annotations

from typing import Any

from axis_path.core.errors import FormatError

_MISSING = object()
_LARGEST_INT = 2**53


def field_of(given: dict[str, Any], name: str, kind: type, default: object = _MISSING) -> Any:  # noqa: ANN401 - the kind says which
    """Return a field of a study.

    Raises:
        FormatError: it is missing or of the wrong kind.
    """
    value = given.get(name, default)
    is_bad = value is _MISSING or not isinstance(value, kind)
    if kind is int and not is_bad:
        # A number beyond these is none that a page, or the database, could give back.
        is_bad = isinstance(value, bool) or not -_LARGEST_INT <= value <= _LARGEST_INT
    if is_bad:
        raise FormatError(f"The field `{name}` of the study is missing or of the wrong kind.")
    return value

"""Write typed structs as plain data for JSON."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator
from enum import Enum
from fractions import Fraction
from typing import Any

import msgspec

_REQUIRED = object()


def write(value: object) -> Any:  # noqa: ANN401 - plain data of any shape
    """Return a struct as plain data, with all its fields."""
    return _plain(value, _whole)


def write_changed(value: object) -> Any:  # noqa: ANN401 - plain data of any shape
    """Return a struct as plain data; fields that have their default value are left out."""
    return _plain(value, _changed)


def _plain(value: object, fields_of: Any) -> Any:  # noqa: ANN401 - plain data of any shape
    if isinstance(value, Enum):
        return value.value
    if value is None or isinstance(value, str | int | float):
        return value
    if isinstance(value, Fraction):
        return str(value)
    if isinstance(value, dict):
        return {key: _plain(item, fields_of) for key, item in value.items()}
    if isinstance(value, list | tuple):
        return [_plain(item, fields_of) for item in value]
    return {name: _plain(item, fields_of) for name, item in fields_of(value)}


def _whole(value: Any) -> Iterator[tuple[str, object]]:  # noqa: ANN401 - any struct
    for name, _ in _fields_of(value):
        yield name, getattr(value, name)


def _changed(value: Any) -> Iterator[tuple[str, object]]:  # noqa: ANN401 - any struct
    for name, default in _fields_of(value):
        if (given := getattr(value, name)) != default:
            yield name, given


def _fields_of(value: object) -> tuple[tuple[str, object], ...]:
    kind = type(value)
    if kind not in _known:
        _known[kind] = _fields(kind)
    return _known[kind]


#: The fields of structs that were written, so that each is looked at once.
_known: dict[type, tuple[tuple[str, object], ...]] = {}


def _fields(kind: Any) -> tuple[tuple[str, object], ...]:  # noqa: ANN401 - a class
    """Return the names of the fields of a struct with their default values."""
    if issubclass(kind, msgspec.Struct):
        return tuple((field.name, _default(field)) for field in msgspec.structs.fields(kind))
    return tuple((field.name, _default(field)) for field in dataclasses.fields(kind))


def _default(field: Any) -> object:  # noqa: ANN401 - of a dataclass or of msgspec
    if field.default_factory not in (dataclasses.MISSING, msgspec.NODEFAULT):
        return field.default_factory()
    has_default = field.default not in (dataclasses.MISSING, msgspec.NODEFAULT)
    return field.default if has_default else _REQUIRED

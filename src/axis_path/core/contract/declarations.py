"""Write structs as TypeScript declarations, for the browser code to be checked against them."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Any

from msgspec import inspect as types

_INDENT = "  "
_Fields = tuple[types.Field, ...]
#: Types of JSON that are one word in TypeScript.
_PLAIN: dict[type[types.Type], str] = {
    types.AnyType: "unknown",
    types.NoneType: "null",
    types.BoolType: "boolean",
    types.IntType: "number",
    types.FloatType: "number",
    types.StrType: "string",
    types.BytesType: "string",  # in base 64
    types.CustomType: "string",
}


def declare(kinds: Mapping[str, type], interface: str, intro: str, *, is_whole: bool) -> str:
    """Return the declarations of structs, and of all structs within them.

    Args:
        kinds: structs of msgspec, dataclasses or typed dictionaries, by name.
        interface: the name of the interface that lists them.
        intro: a sentence for the top of the file.
        is_whole: whether fields that have a default value are always there.
    """
    writer = _Writer(is_whole=is_whole)
    result = types.multi_type_info(kinds.values())
    listed = [
        f"{_INDENT}{name}: {writer.name(kind)};" for name, kind in zip(kinds, result, strict=True)
    ]
    union = f"export type Any{interface.removesuffix('s')} = {interface}[keyof {interface}];"
    lines = [f"export interface {interface} {{", *listed, "}", "", union]
    return "\n".join([f"// {intro}", "", *writer.lines(), *lines, ""])


class _Writer:
    """Collects the declarations that others refer to, each once."""

    def __init__(self, *, is_whole: bool) -> None:
        self._is_whole = is_whole
        self._declared: dict[str, list[str]] = {}

    def lines(self) -> Iterator[str]:
        """Yield the declarations, by name."""
        for name in sorted(self._declared):
            yield from self._declared[name]
            yield ""

    def name(self, kind: types.Type) -> str:
        """Return a type as TypeScript; structs are declared on the way."""
        match kind:
            case types.Metadata(type=inner, extra=extra):
                return self._changes(extra) if extra and "changes" in extra else self.name(inner)
            case types.LiteralType(values=values):
                return " | ".join(_quoted(value) for value in values)
            case types.EnumType(cls=cls):
                members = " | ".join(_quoted(member.value) for member in cls)
                return self._declare(cls, [f"export type {cls.__name__} = {members};"])
            case types.UnionType(types=members):
                return " | ".join(_unique(self.name(member) for member in members))
            case types.TupleType(item_types=items):
                return f"[{', '.join(map(self.name, items))}]"
            case types.ListType(item_type=item) | types.VarTupleType(item_type=item):
                return f"Array<{self.name(item)}>"
            case types.DictType(key_type=key, value_type=value):
                return f"Partial<Record<{self.name(key)}, {self.name(value)}>>"
            case types.StructType(cls=cls, fields=fields, tag_field=field, tag=tag):
                tagged = [] if tag is None else [f"{field}: {_quoted(tag)};"]
                return self._interface(cls, fields, tagged)
            case types.DataclassType(cls=cls, fields=fields):
                return self._interface(cls, fields, [], is_whole=self._is_whole)
            case types.TypedDictType(cls=cls, fields=fields):
                return self._interface(cls, fields, [])
        return _PLAIN[type(kind)]

    def _changes(self, extra: dict[str, Any]) -> str:
        kind: type = extra["changes"]
        return f"Partial<{self.name(types.type_info(kind))}>"

    def _interface(
        self, cls: type, fields: _Fields, tagged: list[str], *, is_whole: bool = False
    ) -> str:
        name = cls.__name__
        if name in self._declared:
            return name
        # Known by name from now on: an answer may hold others of its kind.
        self._declared[name] = []
        body = [*tagged, *(self._field(field, is_whole=is_whole) for field in fields)]
        return self._declare(
            cls, [f"export interface {name} {{", *(f"{_INDENT}{line}" for line in body), "}"]
        )

    def _field(self, field: types.Field, *, is_whole: bool) -> str:
        mark = "" if field.required or is_whole else "?"
        return f"{field.encode_name}{mark}: {self.name(field.type)};"

    def _declare(self, cls: type, lines: list[str]) -> str:
        words = (cls.__doc__ or "").split("\n\n")[0].split()
        self._declared[cls.__name__] = [f"/** {' '.join(words)} */", *lines]
        return cls.__name__


def _quoted(value: object) -> str:
    return f'"{value}"' if isinstance(value, str) else str(value).lower()


def _unique(names: Iterable[str]) -> list[str]:
    return list(dict.fromkeys(names))

"""Which lines use what a line defines."""

from __future__ import annotations

from collections.abc import Mapping

from axis_path.core.compile.definition import Definition


def users_by_name(
    definitions: list[Definition], end_uses: Mapping[str, frozenset[str]]
) -> dict[str, list[str]]:
    """Return, for every name, the names of the lines that use it."""
    users: dict[str, list[str]] = {}
    for definition in definitions:
        defined = [*filter(None, (definition.name, *definition.defines))]
        for used in definition.uses:
            users.setdefault(used, []).extend(defined)
    for own, names in end_uses.items():
        for used in names:
            users.setdefault(used, []).append(own)
    return users


def users_of(definition: Definition, users: Mapping[str, list[str]]) -> list[str]:
    """Return the names of the lines that use what a line defines."""
    names = (definition.name or "", *definition.defines)
    return list(dict.fromkeys(user for name in names for user in users.get(name, [])))

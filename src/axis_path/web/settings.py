"""Settings from the environment: ``AXIS_PATH_…``, and no others."""

from __future__ import annotations

import os
from collections.abc import Mapping
from dataclasses import MISSING, dataclass, fields

PREFIX = "AXIS_PATH_"
#: The names of this very machine.
OWN_HOSTS = ("127.0.0.1", "localhost", "[::1]")


@dataclass(frozen=True, slots=True)
class Settings:
    """What the application needs to know.

    Attributes:
        database_url: a SQLAlchemy address.
        secret_key: signs sessions and form tokens.
        hosts: the names under which pages are served, separated by commas in the environment.
    """

    database_url: str
    secret_key: str
    hosts: tuple[str, ...] = OWN_HOSTS


def read_settings(environment: Mapping[str, str] = os.environ) -> Settings:
    """Read the settings.

    Raises:
        ValueError: one is missing, or there is one that is not known.
    """
    given = {
        key.removeprefix(PREFIX).lower(): value
        for key, value in environment.items()
        if key.startswith(PREFIX)
    }
    known = {field.name for field in fields(Settings)}
    needed = {field.name for field in fields(Settings) if field.default is MISSING}
    unknown, missing = given.keys() - known, needed - given.keys()
    if unknown or missing:
        raise ValueError(f"settings: unknown {sorted(unknown)}, missing {sorted(missing)}")
    hosts = tuple(host.strip() for host in given.get("hosts", "").split(",") if host.strip())
    return Settings(given["database_url"], given["secret_key"], hosts or OWN_HOSTS)

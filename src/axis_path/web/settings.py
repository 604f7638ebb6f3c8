"""Settings from the environment: ``AXIS_PATH_…``, and no others."""

from __future__ import annotations

import os
from collections.abc import Mapping
from dataclasses import dataclass, fields

PREFIX = "AXIS_PATH_"


@dataclass(frozen=True, slots=True)
class Settings:
    """What the application needs to know.

    Attributes:
        database_url: a SQLAlchemy address.
        secret_key: signs sessions and form tokens.
    """

    database_url: str
    secret_key: str


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
    unknown, missing = given.keys() - known, known - given.keys()
    if unknown or missing:
        raise ValueError(f"settings: unknown {sorted(unknown)}, missing {sorted(missing)}")
    return Settings(**given)

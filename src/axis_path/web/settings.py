"""Settings from the environment: ``AXIS_PATH_…``, and no others."""

from __future__ import annotations

import os
from collections.abc import Mapping

import msgspec

PREFIX = "AXIS_PATH_"
#: The names of this very machine.
OWN_HOSTS = ("127.0.0.1", "localhost", "[::1]")


class Settings(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What the application needs to know.

    Attributes:
        database_url: a SQLAlchemy address.
        secret_key: signs sessions and form tokens.
        hosts: the names under which pages are served, separated by commas in the environment.
        prefetch: whether pages may ask for states that will probably come next.
        catalogues: a folder with further languages, which ``axis_path.wording`` reads.
    """

    database_url: str
    secret_key: str
    hosts: tuple[str, ...] = OWN_HOSTS
    prefetch: bool = True
    catalogues: str = ""


def read_settings(environment: Mapping[str, str] = os.environ) -> Settings:
    """Read the settings.

    Raises:
        ValueError: one is missing, unknown or wrong.
    """
    given: dict[str, object] = {
        key.removeprefix(PREFIX).lower(): value
        for key, value in environment.items()
        if key.startswith(PREFIX)
    }
    hosts = [host.strip() for host in str(given.pop("hosts", "")).split(",") if host.strip()]
    if hosts:
        given["hosts"] = hosts
    try:
        return msgspec.convert(given, Settings, strict=False)
    except msgspec.ValidationError as err:
        raise ValueError(f"settings: {err}") from err

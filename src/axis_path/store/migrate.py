"""Bring a database to the present tables."""

from __future__ import annotations

from pathlib import Path

from sqlalchemy import Engine, inspect, text

_VERSIONS = Path(__file__).parent / "migrations" / "versions"


def is_current(engine: Engine) -> bool:
    """Check whether a database has the newest tables, without loading what migrates."""
    newest = max(path.stem for path in _VERSIONS.glob("20*.py"))
    with engine.connect() as connection:
        if not inspect(connection).has_table("alembic_version"):
            return False
        present = connection.scalar(text("SELECT version_num FROM alembic_version"))
        return str(present) == newest


def migrate(engine: Engine, revision: str = "head") -> None:
    """Run the migrations up to ``revision``."""
    # It is seldom needed, and takes a while to load.
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        if revision == "base":
            command.downgrade(config, revision)
        else:
            command.upgrade(config, revision)

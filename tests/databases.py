"""Fresh PostgreSQL databases, on the server that ``./axispath test`` started."""

import os
import unittest
import uuid
from collections.abc import Callable

from sqlalchemy import Engine, create_engine, text
from sqlalchemy.engine import make_url

from axis_path.store import make_engine
from axis_path.store.migrate import migrate


def fresh_database(at_end: Callable[[Callable[[], None]], object]) -> tuple[str, Engine]:
    """Make a database that is migrated and empty.

    Args:
        at_end: is given what takes the database away again.
    """
    server = os.environ["AXIS_PATH_TEST_DATABASE_URL"]
    name = f"test_{uuid.uuid4().hex}"
    admin = create_engine(server, isolation_level="AUTOCOMMIT")
    with admin.connect() as connection:
        connection.execute(text(f'CREATE DATABASE "{name}"'))
    url = make_url(server).set(database=name).render_as_string(hide_password=False)
    engine = make_engine(url)
    migrate(engine)

    def drop() -> None:
        engine.dispose()
        with admin.connect() as connection:
            connection.execute(text(f'DROP DATABASE "{name}" WITH (FORCE)'))
        admin.dispose()

    at_end(drop)
    return url, engine


class DatabaseTest(unittest.TestCase):
    """Each class has a database of its own."""

    url: str
    engine: Engine

    @classmethod
    def setUpClass(cls) -> None:
        cls.url, cls.engine = fresh_database(cls.addClassCleanup)

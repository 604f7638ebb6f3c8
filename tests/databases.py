"""A fresh PostgreSQL database for each test class, on the server that ``./axispath test`` started."""

import os
import unittest
import uuid

from sqlalchemy import Engine, create_engine, text
from sqlalchemy.engine import make_url

from axis_path.store import make_engine
from axis_path.store.migrate import migrate


class DatabaseTest(unittest.TestCase):
    """Its database is migrated, empty, and gone afterwards."""

    url: str
    engine: Engine

    @classmethod
    def setUpClass(cls) -> None:
        server = os.environ["AXIS_PATH_TEST_DATABASE_URL"]
        name = f"test_{uuid.uuid4().hex}"
        admin = create_engine(server, isolation_level="AUTOCOMMIT")
        with admin.connect() as connection:
            connection.execute(text(f'CREATE DATABASE "{name}"'))
        cls.url = make_url(server).set(database=name).render_as_string(hide_password=False)
        cls.engine = make_engine(cls.url)
        migrate(cls.engine)

        def drop() -> None:
            cls.engine.dispose()
            with admin.connect() as connection:
                connection.execute(text(f'DROP DATABASE "{name}" WITH (FORCE)'))
            admin.dispose()

        cls.addClassCleanup(drop)

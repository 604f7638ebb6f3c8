"""Prepare the database before the server starts: ``python -m axis_path.store.prepare``.

Migrates, and loads the demo when the database is new. One process does it, so that no two workers
race; the address of the database comes from ``AXIS_PATH_DATABASE_URL``.
"""

import os

from axis_path.store.database import make_engine, session_scope
from axis_path.store.migrate import migrate
from axis_path.store.studies import holds_studies


def main() -> None:
    """Prepare the database."""
    engine = make_engine(os.environ["AXIS_PATH_DATABASE_URL"])
    migrate(engine)
    with session_scope(engine) as session:
        if holds_studies(session):
            return
        # The demo loads all of the mathematics: only the first start waits for that.
        from axis_path.store.demo import load_demo

        load_demo(session)


if __name__ == "__main__":
    main()

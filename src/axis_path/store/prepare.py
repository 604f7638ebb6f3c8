"""Prepare the database before the server starts: ``python -m axis_path.store.prepare``.

Migrates, and loads the demo when the database is new. One process does it, so that no two workers
race; the address of the database comes from ``AXIS_PATH_DATABASE_URL``.
"""

import os

from axis_path.store.database import make_engine, session_scope
from axis_path.store.demo import load_demo
from axis_path.store.migrate import migrate


def main() -> None:
    """Prepare the database."""
    engine = make_engine(os.environ["AXIS_PATH_DATABASE_URL"])
    migrate(engine)
    with session_scope(engine) as session:
        load_demo(session)


if __name__ == "__main__":
    main()

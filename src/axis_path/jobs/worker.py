"""The process that does the jobs: ``python -m axis_path.jobs.worker``."""

import os

from axis_path.core.warm import warm_up
from axis_path.jobs.queue import work_off
from axis_path.store import make_engine, session_scope
from axis_path.store.sweeps import give_up_running


def main() -> None:
    """Work until the process is ended."""
    engine = make_engine(os.environ["AXIS_PATH_DATABASE_URL"])
    with session_scope(engine) as session:
        # What a worker was at when it died is not going on.
        give_up_running(session)
    warm_up()
    work_off(engine, stay=True)


if __name__ == "__main__":
    main()

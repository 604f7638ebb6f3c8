"""What one process keeps: the database's engine, and studies that were read before.

It holds nothing that another process could not make again.
"""

from __future__ import annotations

import uuid
from collections import OrderedDict
from collections.abc import Iterator
from contextlib import contextmanager
from threading import Lock

from flask import current_app
from sqlalchemy import Engine
from sqlalchemy.orm import Session

from axis_path.core import Study
from axis_path.jobs import Queue
from axis_path.store import load_version, session_scope

STATE_KEY = "axis_path"
_KEPT_STUDIES = 64


class WebState:
    """The engine and the cache of versions; a version never changes, so it is never stale."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine
        self.queue = Queue(engine)
        self._studies: OrderedDict[int, tuple[uuid.UUID, Study]] = OrderedDict()
        self._lock = Lock()

    def study(self, study_id: uuid.UUID, version: int) -> Study:
        """Give a version of a study, to be copied before it is changed.

        Raises:
            StaleVersionError: there is no such version.
        """
        with self._lock:
            found = self._studies.get(version)
            if found is not None and found[0] == study_id:
                self._studies.move_to_end(version)
                return found[1]
        with session_scope(self.engine) as session:
            study = Study.from_dict(load_version(session, study_id, version))
        self.keep(study_id, version, study)
        return study

    def keep(self, study_id: uuid.UUID, version: int, study: Study) -> None:
        """Keep a version that was just made or read."""
        with self._lock:
            self._studies[version] = (study_id, study)
            while len(self._studies) > _KEPT_STUDIES:
                self._studies.popitem(last=False)


def web_state() -> WebState:
    """Give the state of this process."""
    state: WebState = current_app.extensions[STATE_KEY]
    return state


@contextmanager
def database() -> Iterator[Session]:
    """Open a session for one request; it commits at the end of the block."""
    with session_scope(web_state().engine) as session:
        yield session

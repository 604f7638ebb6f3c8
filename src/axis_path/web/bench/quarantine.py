"""Find the line that ends the worker which computes its study, and turn it off.

A change is committed before its picture is made, so a study may be stored whose picture cannot be
made. Its first lines are computed in workers of their own, more and more of them by bisection: the
first line with which a worker dies is to blame.
"""

from __future__ import annotations

import uuid
from dataclasses import dataclass

import orjson

from axis_path.compute import Limits, WorkerDiedError, never
from axis_path.core.document.migrations import migrated
from axis_path.store import Opened, commit_version, load_version, open_study
from axis_path.web.bench.leasing import query_of, worker_for
from axis_path.web.state import database

#: A worker that has not answered after so long is taken for dead.
_LIMITS = Limits(step_s=1.0, total_s=2.0, grace_s=1.0)
_LABEL = "Turn off a line that could not be computed"
_WINDOW = {"x": [-10.0, 10.0], "y": [-7.0, 7.0], "width": 660, "height": 430}


def turn_off_guilty_line(
    study_id: uuid.UUID, version: int, task: str = "scene", body: bytes = b""
) -> Opened | None:
    """Turn off the line that ends the workers of a version, as a version after it.

    Args:
        study_id: the study.
        version: its present version, whose picture could not be made.
        task: what its workers died of.
        body: what the page had sent for that, without drafts; a plain window by default.

    Returns:
        The study with the new version; None if no line alone is to blame, or the version is no
        longer the present one.
    """
    with database() as session:
        opened = open_study(session, study_id)
        if opened.version != version:
            return None
        document = migrated(load_version(session, study_id, version))
    given = orjson.loads(body) if body else {"window": _WINDOW}
    probe = _Probe(study_id, task, orjson.dumps({**given, "version": version}))
    guilty = _first_guilty(probe, len(document["lines"]))
    if guilty is None:
        return None
    lines = list(document["lines"])
    lines[guilty] = {**lines[guilty], "disabled": True, "halted": True}
    with database() as session:
        return commit_version(session, study_id, version, {**document, "lines": lines}, _LABEL)


@dataclass(frozen=True, slots=True)
class _Probe:
    """A task that is done with the first lines of a study."""

    study_id: uuid.UUID
    task: str
    body: bytes

    def dies(self, lines: int) -> bool:
        """Check whether a worker dies of it with so many lines."""
        context = {"lines": lines, "task": self.task}
        query = query_of(
            self.study_id, "probe", body=self.body, context=context, limits=_LIMITS, gone=never
        )
        try:
            with worker_for(self.study_id, never) as lease:
                lease.ask(query)
        except WorkerDiedError:
            return True
        return False


def _first_guilty(probe: _Probe, count: int) -> int | None:
    """Return the place of the first line with which, and those before it, a worker dies.

    None if a worker lives with all of them, or dies without any.
    """
    if not probe.dies(count):
        return None
    alive, dead = 0, count
    while dead - alive > 1:
        middle = (alive + dead) // 2
        if probe.dies(middle):
            dead = middle
        else:
            alive = middle
    return None if dead == 1 and probe.dies(0) else dead - 1

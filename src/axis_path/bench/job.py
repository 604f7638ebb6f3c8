"""One request of the Bench on its way through a worker process."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

import orjson
from cachetools import LRUCache

from axis_path.core import Study

#: A worker keeps so many versions of studies; a version never changes, so none is ever stale.
_CACHED_STUDIES = 24


class StudyCache:
    """The versions of studies that a process has read, and the one it has just changed."""

    def __init__(self) -> None:
        self._studies: LRUCache[tuple[uuid.UUID, int], Study] = LRUCache(_CACHED_STUDIES)
        #: Changed by the last ``commands`` and not yet committed, so without a version.
        self.changed: Study | None = None

    def get(self, study_id: uuid.UUID, version: int, load: Callable[[int], bytes]) -> Study:
        """Return a version of a study, to be copied before it is changed.

        Args:
            study_id: the study.
            version: the id of the version.
            load: returns the document of a version in the open study format, as JSON.
        """
        key = (study_id, version)
        study = self._studies.get(key)
        if study is None:
            study = Study.from_dict(orjson.loads(load(version)))
            self.put(study_id, version, study)
        return study

    def put(self, study_id: uuid.UUID, version: int, study: Study) -> None:
        """Keep a version."""
        self._studies[study_id, version] = study


@dataclass(frozen=True, slots=True)
class Job:
    """A request with what is needed to answer it.

    Attributes:
        study_id: the study it is about.
        version: the version that is asked about.
        context: what the web process knows and the page did not send: a title, a file.
        load: returns the document of a version as JSON.
        cache: of the process that answers.
    """

    study_id: uuid.UUID
    version: int
    context: dict[str, Any]
    load: Callable[[int], bytes]
    cache: StudyCache = field(default_factory=StudyCache)

    @property
    def study(self) -> Study:
        """Return the study in the version that is asked about."""
        return self.cache.get(self.study_id, self.version, self.load)

"""Studies and their versions."""

from __future__ import annotations

import uuid
from collections.abc import Sequence
from dataclasses import asdict, dataclass
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import ColumnElement, Text, cast, delete, func, or_, select
from sqlalchemy.dialects.postgresql import JSONPATH
from sqlalchemy.orm import Session

from axis_path.store import messages
from axis_path.store.models import StudyRow, StudyVersionRow

#: How many versions of a study are stored for undo.
STORED_VERSIONS = 300
#: So many studies that are not deleted may be stored.
MOST_STUDIES = 5_000
#: A deleted study can be brought back for so long, and as long as it is one of the last ones.
DELETED_FOR, MOST_DELETED = timedelta(days=30), 500


class StudyMissingError(Exception):
    """There is no such study, or it was deleted."""


class StaleVersionError(Exception):
    """The change was made to a version that is not the present one any more."""


class TooManyStudiesError(Exception):
    """No more studies can be stored; the message is for the student."""

    def __init__(self) -> None:
        super().__init__(messages.TOO_MANY_STUDIES(most=MOST_STUDIES))


@dataclass(frozen=True, slots=True)
class Overview:
    """What the list shows of a study.

    Attributes:
        lines: the first lines, each with its ``text``, and as far as they are known its ``mathml``,
            that of its ``domain``, and whether it ``is_note``.
        count: how many lines there are.
    """

    lines: Sequence[dict[str, Any]]
    count: int


@dataclass(frozen=True, slots=True)
class StudySummary:
    """A study as the list shows it."""

    id: uuid.UUID
    title: str
    changed_at: datetime
    overview: Overview


@dataclass(frozen=True, slots=True)
class StudyPage:
    """A page of the list.

    Attributes:
        studies: on this page.
        count: how many there are on all pages.
    """

    studies: list[StudySummary]
    count: int


@dataclass(frozen=True, slots=True)
class Opened:
    """A study with its present version.

    Attributes:
        version: the id of the version.
        document: the study in the open study format.
        undo: what undo would take back; None if there is nothing. ``redo`` likewise.
    """

    id: uuid.UUID
    title: str
    version: int
    document: dict[str, Any]
    view: dict[str, Any]
    undo: str | None
    redo: str | None


def list_studies(
    session: Session, *, search: str = "", offset: int = 0, limit: int = 30
) -> StudyPage:
    """Return a page of the studies that are not deleted, the one changed last first.

    Args:
        session: the session.
        search: words that a title or the first lines contain, all of them; empty for all studies.
        offset: how many are left out before the page.
        limit: how many are on it.
    """
    present = (StudyVersionRow.study_id == StudyRow.id) & (
        StudyVersionRow.number == StudyRow.current
    )
    conditions = [StudyRow.deleted_at.is_(None), *map(_contains, search.split())]
    count = session.scalar(
        select(func.count()).select_from(StudyRow).join(StudyVersionRow, present).where(*conditions)
    )
    rows = session.execute(
        select(StudyRow.id, StudyRow.title, StudyRow.changed_at, StudyVersionRow.overview)
        .join(StudyVersionRow, present)
        .where(*conditions)
        .order_by(StudyRow.changed_at.desc(), StudyRow.title)
        .offset(offset)
        .limit(limit)
    )
    studies = [
        StudySummary(row.id, row.title, row.changed_at, Overview(**row.overview)) for row in rows
    ]
    return StudyPage(studies, count or 0)


def _contains(word: str) -> ColumnElement[bool]:
    lines = func.jsonb_path_query_array(StudyVersionRow.overview, cast("$.lines[*].text", JSONPATH))
    return or_(
        StudyRow.title.icontains(word, autoescape=True),
        cast(lines, Text).icontains(word, autoescape=True),
    )


def holds_studies(session: Session) -> bool:
    """Check whether there ever was a study, thrown away ones too."""
    return bool(session.scalar(select(func.count()).select_from(StudyRow)))


def _as_overview(document: dict[str, Any]) -> Overview:
    """Return the first lines of a document as text."""
    lines = [{"text": line["text"][:120], "mathml": ""} for line in document["lines"][:3]]
    return Overview(lines, len(document["lines"]))


def create_study(
    session: Session,
    title: str,
    document: dict[str, Any],
    view: dict[str, Any] | None = None,
    overview: Overview | None = None,
) -> uuid.UUID:
    """Create a study with its first version and return its id.

    Raises:
        TooManyStudiesError: no more can be stored.
    """
    count = session.scalar(
        select(func.count()).select_from(StudyRow).where(StudyRow.deleted_at.is_(None))
    )
    if (count or 0) >= MOST_STUDIES:
        raise TooManyStudiesError
    row = StudyRow(id=uuid.uuid4(), title=title, current=1, view=view or {})
    session.add(row)
    session.flush()
    shown = asdict(overview or _as_overview(document))
    session.add(
        StudyVersionRow(study_id=row.id, number=1, document=document, overview=shown, label="Begin")
    )
    session.flush()
    return row.id


def _row(session: Session, study_id: uuid.UUID, *, lock: bool = False) -> StudyRow:
    query = select(StudyRow).where(StudyRow.id == study_id, StudyRow.deleted_at.is_(None))
    row = session.scalar(query.with_for_update() if lock else query)
    if row is None:
        raise StudyMissingError
    return row


def _version(session: Session, study_id: uuid.UUID, number: int) -> StudyVersionRow | None:
    return session.scalar(
        select(StudyVersionRow).where(
            StudyVersionRow.study_id == study_id, StudyVersionRow.number == number
        )
    )


def open_study(session: Session, study_id: uuid.UUID) -> Opened:
    """Return a study with its present version.

    Raises:
        StudyMissingError: there is none, or it was deleted.
    """
    return _opened(session, _row(session, study_id))


def _opened(session: Session, row: StudyRow) -> Opened:
    present = _version(session, row.id, row.current)
    if present is None:
        raise StudyMissingError
    has_earlier = _version(session, row.id, row.current - 1) is not None
    later = _version(session, row.id, row.current + 1)
    return Opened(
        row.id, row.title, present.id, present.document, row.view,
        present.label if has_earlier else None, later.label if later else None,
    )  # fmt: skip


def load_version(session: Session, study_id: uuid.UUID, version: int) -> dict[str, Any]:
    """Return the document of one version.

    Raises:
        StaleVersionError: there is no such version (any more).
    """
    row = session.get(StudyVersionRow, version)
    if row is None or row.study_id != study_id:
        raise StaleVersionError
    return row.document


def load_document(session: Session, study_id: uuid.UUID, version: int) -> bytes:
    """Return the document of one version as JSON, as the database has it.

    Raises:
        StaleVersionError: there is no such version (any more).
    """
    text = session.scalar(
        select(cast(StudyVersionRow.document, Text)).where(
            StudyVersionRow.id == version, StudyVersionRow.study_id == study_id
        )
    )
    if text is None:
        raise StaleVersionError
    return str(text).encode()


def commit_version(
    session: Session,
    study_id: uuid.UUID,
    base: int,
    document: dict[str, Any],
    label: str,
    overview: Overview | None = None,
) -> Opened:
    """Add a version after the present one; what could be redone is gone then.

    Args:
        session: the session.
        study_id: the study.
        base: the id of the version that was changed.
        document: the changed study.
        label: what was done.
        overview: what the list shows of it; its first lines as text by default.

    Raises:
        StudyMissingError: there is no such study.
        StaleVersionError: the base is not the present version.
    """
    row = _checked_row(session, study_id, base)
    session.execute(
        delete(StudyVersionRow).where(
            StudyVersionRow.study_id == study_id,
            (StudyVersionRow.number > row.current)
            | (StudyVersionRow.number <= row.current - STORED_VERSIONS),
        )
    )
    row.current += 1
    row.changed_at = func.now()
    session.add(
        StudyVersionRow(
            study_id=study_id, number=row.current, document=document, label=label,
            overview=asdict(overview or _as_overview(document)),
        )
    )  # fmt: skip
    session.flush()
    return _opened(session, row)


def _checked_row(session: Session, study_id: uuid.UUID, base: int) -> StudyRow:
    row = _row(session, study_id, lock=True)
    present = _version(session, study_id, row.current)
    if present is None or present.id != base:
        raise StaleVersionError
    return row


def move_version(session: Session, study_id: uuid.UUID, base: int, by: int) -> Opened:
    """Undo (``by`` -1) or redo (``by`` 1); at the end of the chain nothing changes.

    Raises:
        StudyMissingError: there is no such study.
        StaleVersionError: the base is not the present version.
    """
    row = _checked_row(session, study_id, base)
    if _version(session, study_id, row.current + by) is not None:
        row.current += by
        row.changed_at = func.now()
        session.flush()
    return _opened(session, row)


def rename_study(session: Session, study_id: uuid.UUID, title: str) -> None:
    """Rename a study.

    Raises:
        StudyMissingError: there is no such study.
    """
    row = _row(session, study_id, lock=True)
    row.title = title
    row.changed_at = func.now()


def duplicate_study(session: Session, study_id: uuid.UUID, title: str) -> uuid.UUID:
    """Make a study of its own from the present version of another and give its id.

    Raises:
        StudyMissingError: there is no such study.
    """
    row = _row(session, study_id)
    present = _version(session, study_id, row.current)
    if present is None:
        raise StudyMissingError
    overview = Overview(**present.overview)
    return create_study(session, title, present.document, row.view, overview)


def delete_study(session: Session, study_id: uuid.UUID) -> str:
    """Delete a study so that it can be brought back; give its title.

    Raises:
        StudyMissingError: there is no such study.
    """
    row = _row(session, study_id, lock=True)
    row.deleted_at = func.now()
    session.flush()
    purge_deleted(session)
    return row.title


def purge_deleted(session: Session) -> None:
    """Forget studies that were deleted long ago, or of which there are too many."""
    newest = (
        select(StudyRow.id)
        .where(StudyRow.deleted_at.is_not(None))
        .order_by(StudyRow.deleted_at.desc())
        .limit(MOST_DELETED)
    )
    session.execute(
        delete(StudyRow).where(
            StudyRow.deleted_at.is_not(None),
            or_(StudyRow.deleted_at < func.now() - DELETED_FOR, StudyRow.id.not_in(newest)),
        )
    )


def restore_study(session: Session, study_id: uuid.UUID) -> None:
    """Bring a deleted study back.

    Raises:
        StudyMissingError: there is no such study.
    """
    row = session.get(StudyRow, study_id)
    if row is None:
        raise StudyMissingError
    row.deleted_at = None


def save_view(session: Session, study_id: uuid.UUID, view: dict[str, Any]) -> None:
    """Keep the window and what else is no part of the history.

    Raises:
        StudyMissingError: there is no such study.
    """
    _row(session, study_id, lock=True).view = view

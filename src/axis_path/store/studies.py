"""Studies and their versions."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from axis_path.store.models import StudyRow, StudyVersionRow

#: How many versions of a study are kept for undo.
KEPT_VERSIONS = 300


class StudyMissingError(Exception):
    """There is no such study, or it was deleted."""


class StaleVersionError(Exception):
    """The change was made to a version that is not the present one any more."""


@dataclass(frozen=True, slots=True)
class StudySummary:
    """A study as the list shows it."""

    id: uuid.UUID
    title: str
    changed_at: datetime
    lines: tuple[str, ...]


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


def list_studies(session: Session) -> list[StudySummary]:
    """Give all studies that are not deleted, the one changed last first."""
    rows = session.execute(
        select(StudyRow, StudyVersionRow.document)
        .join(
            StudyVersionRow,
            (StudyVersionRow.study_id == StudyRow.id)
            & (StudyVersionRow.number == StudyRow.current),
        )
        .where(StudyRow.deleted_at.is_(None))
        .order_by(StudyRow.changed_at.desc(), StudyRow.title)
    )
    return [
        StudySummary(
            row.id, row.title, row.changed_at, tuple(line["text"] for line in document["lines"])
        )
        for row, document in rows
    ]


def holds_studies(session: Session) -> bool:
    """Tell whether there ever was a study, thrown away ones too."""
    return bool(session.scalar(select(func.count()).select_from(StudyRow)))


def create_study(
    session: Session, title: str, document: dict[str, Any], view: dict[str, Any] | None = None
) -> uuid.UUID:
    """Make a study with its first version and give its id."""
    row = StudyRow(id=uuid.uuid4(), title=title, current=1, view=view or {})
    session.add(row)
    session.flush()
    session.add(StudyVersionRow(study_id=row.id, number=1, document=document, label="Begin"))
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
    """Give a study with its present version.

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
    """Give the document of one version.

    Raises:
        StaleVersionError: there is no such version (any more).
    """
    row = session.get(StudyVersionRow, version)
    if row is None or row.study_id != study_id:
        raise StaleVersionError
    return row.document


def commit_version(
    session: Session, study_id: uuid.UUID, base: int, document: dict[str, Any], label: str
) -> Opened:
    """Add a version after the present one; what could be redone is gone then.

    Args:
        session: the session.
        study_id: the study.
        base: the id of the version that was changed.
        document: the changed study.
        label: what was done.

    Raises:
        StudyMissingError: there is no such study.
        StaleVersionError: the base is not the present version.
    """
    row = _checked_row(session, study_id, base)
    session.execute(
        delete(StudyVersionRow).where(
            StudyVersionRow.study_id == study_id,
            (StudyVersionRow.number > row.current)
            | (StudyVersionRow.number <= row.current - KEPT_VERSIONS),
        )
    )
    row.current += 1
    row.changed_at = func.now()
    session.add(
        StudyVersionRow(study_id=study_id, number=row.current, document=document, label=label)
    )
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
    """Give a study another title.

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
    opened = open_study(session, study_id)
    return create_study(session, title, opened.document, opened.view)


def delete_study(session: Session, study_id: uuid.UUID) -> str:
    """Delete a study so that it can be brought back; give its title.

    Raises:
        StudyMissingError: there is no such study.
    """
    row = _row(session, study_id, lock=True)
    row.deleted_at = func.now()
    return row.title


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

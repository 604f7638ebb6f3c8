"""What is stored in PostgreSQL, and how versions are made.

A study has a chain of versions; undo and redo move along it. Functions here take a session and
give values; whoever opened the session commits. Read ``models.py``, then ``studies.py``.
"""

from axis_path.store.database import is_disk_full, make_engine, session_scope
from axis_path.store.studies import (
    Opened,
    Overview,
    StaleVersionError,
    StudyMissingError,
    StudyPage,
    StudySummary,
    TooManyStudiesError,
    commit_version,
    create_study,
    delete_study,
    duplicate_study,
    list_studies,
    load_document,
    load_version,
    move_version,
    open_study,
    purge_deleted,
    rename_study,
    restore_study,
    save_view,
)

__all__ = [
    "Opened",
    "Overview",
    "StaleVersionError",
    "StudyMissingError",
    "StudyPage",
    "StudySummary",
    "TooManyStudiesError",
    "commit_version",
    "create_study",
    "delete_study",
    "duplicate_study",
    "is_disk_full",
    "list_studies",
    "load_document",
    "load_version",
    "make_engine",
    "move_version",
    "open_study",
    "purge_deleted",
    "rename_study",
    "restore_study",
    "save_view",
    "session_scope",
]

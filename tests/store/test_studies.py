"""What is stored in PostgreSQL: versions, undo, deletion, and what two windows do at once."""

import uuid
from typing import Any
from unittest import mock

from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import inspect, text
from sqlalchemy.exc import IntegrityError

from axis_path.core import Study
from axis_path.store import (
    StaleVersionError,
    StudyMissingError,
    TooManyStudiesError,
    commit_version,
    create_study,
    delete_study,
    duplicate_study,
    list_studies,
    load_version,
    move_version,
    open_study,
    rename_study,
    restore_study,
    save_view,
    session_scope,
)
from axis_path.store.demo import load_demo
from axis_path.store.migrate import migrate
from axis_path.store.models import Base
from axis_path.store.studies import STORED_VERSIONS
from tests.databases import DatabaseTest


def document(*lines: str) -> dict[str, Any]:
    study = Study()
    for number, line in enumerate(lines, start=1):
        study.write(number, line)
    return study.to_dict()


class StudyStoreTest(DatabaseTest):
    def make(self, *lines: str, title: str = "Tide") -> uuid.UUID:
        with session_scope(self.engine) as session:
            return create_study(session, title, document(*lines))

    def commit(self, study_id: uuid.UUID, label: str, *lines: str) -> Any:
        with session_scope(self.engine) as session:
            base = open_study(session, study_id).version
            return commit_version(session, study_id, base, document(*lines), label)

    def move(self, study_id: uuid.UUID, by: int) -> Any:
        with session_scope(self.engine) as session:
            base = open_study(session, study_id).version
            return move_version(session, study_id, base, by)

    def test_every_version_can_be_undone_and_done_again(self) -> None:
        study_id = self.make()
        for k in range(1, 4):
            self.commit(study_id, f"step {k}", *["x"] * k)
        lines = [len(self.move(study_id, -1).document["lines"]) for _ in range(4)]
        self.assertEqual([2, 1, 0, 0], lines)
        opened = self.move(study_id, 1)
        self.assertEqual(("step 1", "step 2"), (opened.undo, opened.redo))
        self.assertEqual(1, len(opened.document["lines"]))

    def test_a_change_after_an_undo_ends_what_could_be_redone(self) -> None:
        study_id = self.make()
        self.commit(study_id, "one", "x")
        self.commit(study_id, "two", "x", "x")
        self.move(study_id, -1)
        opened = self.commit(study_id, "other", "x^2")
        self.assertEqual(("other", None), (opened.undo, opened.redo))
        self.assertEqual(opened.version, self.move(study_id, 1).version)

    def test_commit_to_a_stale_version_is_refused(self) -> None:
        study_id = self.make()
        with session_scope(self.engine) as session:
            old = open_study(session, study_id).version
        committed = self.commit(study_id, "one", "x")
        for change in (
            lambda session: commit_version(session, study_id, old, document(), "late"),
            lambda session: move_version(session, study_id, old, -1),
        ):
            with self.assertRaises(StaleVersionError), session_scope(self.engine) as session:
                change(session)  # type: ignore[no-untyped-call]
        with session_scope(self.engine) as session:
            self.assertEqual(committed.version, open_study(session, study_id).version)

    def test_old_versions_are_let_go_in_the_end(self) -> None:
        study_id = self.make()
        with session_scope(self.engine) as session:
            opened = open_study(session, study_id)
            for k in range(STORED_VERSIONS + 5):
                opened = commit_version(session, study_id, opened.version, document(), f"{k}")
            count = session.scalar(
                text("SELECT count(*) FROM study_version WHERE study_id = :id"), {"id": study_id}
            )
        self.assertEqual(STORED_VERSIONS + 1, count)

    def test_a_version_of_another_study_is_not_given(self) -> None:
        one, other = self.make("x"), self.make("x^2")
        with session_scope(self.engine) as session:
            version = open_study(session, one).version
            self.assertEqual("x", load_version(session, one, version)["lines"][0]["text"])
            with self.assertRaises(StaleVersionError):
                load_version(session, other, version)
            with self.assertRaises(StaleVersionError):
                load_version(session, one, 10**12)

    def test_a_deleted_study_is_gone_until_it_is_brought_back(self) -> None:
        study_id = self.make("x", title="Gone")
        with session_scope(self.engine) as session:
            self.assertEqual("Gone", delete_study(session, study_id))
        with session_scope(self.engine) as session:
            self.assertNotIn(study_id, [study.id for study in list_studies(session).studies])
            for read in (open_study, delete_study):
                with self.assertRaises(StudyMissingError):
                    read(session, study_id)
            restore_study(session, study_id)
        with session_scope(self.engine) as session:
            self.assertEqual("x", open_study(session, study_id).document["lines"][0]["text"])
            with self.assertRaises(StudyMissingError):
                restore_study(session, uuid.uuid4())

    def test_a_copy_is_a_study_of_its_own(self) -> None:
        study_id = self.make("x")
        with session_scope(self.engine) as session:
            save_view(session, study_id, {"tab": "values"})
            copy = duplicate_study(session, study_id, "Copy")
        self.commit(copy, "change", "x^2")
        with session_scope(self.engine) as session:
            self.assertEqual("x", open_study(session, study_id).document["lines"][0]["text"])
            self.assertEqual({"tab": "values"}, open_study(session, copy).view)

    def test_the_list_shows_the_study_changed_last_first(self) -> None:
        first, second = self.make("f(x) = x", title="First"), self.make("x", title="Second")
        with session_scope(self.engine) as session:
            rename_study(session, first, "Renamed")
        with session_scope(self.engine) as session:
            listed = list_studies(session).studies
        listed = [study for study in listed if study.id in (first, second)]
        self.assertEqual(["Renamed", "Second"], [study.title for study in listed])
        self.assertEqual(1, listed[0].overview.count)
        self.assertEqual(["f(x) = x"], [line["text"] for line in listed[0].overview.lines])

    def test_study_list_pages_and_search(self) -> None:
        for k in range(5):
            self.make(f"wave(x) = {k} sin(x)", title=f"Quay wall {k}")
        self.make("# 100% of the berth", title="Berth_plan")
        with session_scope(self.engine) as session:
            page = list_studies(session, search="quay WALL", offset=2, limit=2)
            self.assertEqual((5, 2), (page.count, len(page.studies)))
            found = {
                word: [study.title for study in list_studies(session, search=word).studies]
                for word in ("wave 3", "100%", "h_p", "mathml", "quay berth")
            }
        self.assertEqual(
            {"wave 3": ["Quay wall 3"], "100%": ["Berth_plan"], "h_p": ["Berth_plan"],
             "mathml": [], "quay berth": []},
            found,
        )  # fmt: skip

    def test_deleted_studies_are_forgotten_in_the_end(self) -> None:
        old, young = self.make(title="Old"), self.make(title="Young")
        with session_scope(self.engine) as session:
            delete_study(session, old)
            session.execute(
                text("UPDATE study SET deleted_at = now() - interval '31 days' WHERE id = :id"),
                {"id": old},
            )
        with session_scope(self.engine) as session:
            delete_study(session, young)
        with session_scope(self.engine) as session:
            with self.assertRaises(StudyMissingError):
                restore_study(session, old)
            restore_study(session, young)

    def test_number_of_studies_is_limited(self) -> None:
        with (
            mock.patch("axis_path.store.studies.MOST_STUDIES", 0),
            self.assertRaises(TooManyStudiesError),
        ):
            self.make()

    def test_an_exception_rolls_the_session_back(self) -> None:
        with self.assertRaises(ZeroDivisionError), session_scope(self.engine) as session:
            create_study(session, "Half", document())
            raise ZeroDivisionError
        with session_scope(self.engine) as session:
            self.assertNotIn("Half", [study.title for study in list_studies(session).studies])

    def test_the_database_itself_refuses_an_empty_title(self) -> None:
        with self.assertRaises(IntegrityError):
            self.make(title="")


class MigrationTest(DatabaseTest):
    def test_migrations_match_models_and_downgrade(self) -> None:
        with self.engine.connect() as connection:
            # The tables of the queue are its own.
            context = MigrationContext.configure(
                connection,
                opts={"include_name": lambda name, *_: not str(name).startswith("procrastinate")},
            )
            self.assertEqual([], compare_metadata(context, Base.metadata))
        migrate(self.engine, "base")
        self.assertEqual(["alembic_version"], inspect(self.engine).get_table_names())
        migrate(self.engine)
        self.assertIn("study", inspect(self.engine).get_table_names())

    def test_the_demo_comes_into_a_new_database_only(self) -> None:
        with session_scope(self.engine) as session:
            self.assertTrue(load_demo(session))
            self.assertFalse(load_demo(session))
            titles = [study.title for study in list_studies(session).studies]
        self.assertEqual(
            [
                "Morning tide",
                "Mooring line",
                "Beam sweep",
                "Wake",
                "Breakwater",
                "Fuel log",
                "Ferry ramp",
                "Lock gate",
            ],
            titles,
        )

"""Features keep what is theirs and undo as one; a new one is a folder, as the documentation says."""

import re
import sys
import unittest
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from importlib import import_module
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest.mock import patch

from axis_path.core import MathError, Study, Window
from axis_path.core.features.feature import Feature
from axis_path.core.features.registry import FEATURES, SECTIONS
from axis_path.core.study import commands
from axis_path.core.study.commands import COMMANDS, apply, union_of
from axis_path.core.study.format import document_from_dict, document_to_dict, file_of
from axis_path.store.demo import DEMO

ROOT = Path(__file__).resolve().parent.parent.parent
WINDOW = Window((-10, 10), (-7, 7), 660, 430)
_STEP = re.compile(r"in `core/features/bookmarks/(\w+)\.py`.*?```python\n(.*?)```", re.S)


@contextmanager
def documented_feature() -> Iterator[Feature]:
    """Write the feature of the documentation into a folder, and register it as is said there."""
    with TemporaryDirectory() as folder, ExitStack() as stack:
        package = Path(folder) / "bookmarks"
        package.mkdir()
        (package / "__init__.py").write_text("")
        steps = _STEP.findall((ROOT / "docs" / "architecture.md").read_text())
        for name, code in steps:
            (package / f"{name}.py").write_text(code)
        stack.enter_context(patch.object(sys, "path", [folder, *sys.path]))
        stack.callback(lambda: [sys.modules.pop(n) for n in list(sys.modules) if "bookmarks" in n])
        feature: Feature = import_module("bookmarks.feature").FEATURE
        sections = (*SECTIONS, feature.section)
        stack.enter_context(patch.dict(commands.COMMANDS, feature.commands))
        stack.enter_context(patch.dict(commands.NAMES, {"bookmark": next(iter(feature.commands))}))
        every = union_of(commands.COMMANDS)
        stack.enter_context(patch("axis_path.core.study.commands.AnyCommand", every))
        for where in ("study.format.SECTIONS", "study.naming_edits.SECTIONS"):
            stack.enter_context(patch(f"axis_path.core.{where}", sections))
        stack.enter_context(patch("axis_path.core.study.format.StudyFile", file_of(sections)))  # type: ignore[arg-type]
        everywhere = (*FEATURES, feature)
        stack.enter_context(patch("axis_path.core.scene.pictures.FEATURES", everywhere))
        yield feature


class FeatureTest(unittest.TestCase):
    def test_every_section_is_read_as_it_was_written(self) -> None:
        for demo in DEMO:
            made = demo()
            document = Study.from_dict(made.document).snapshot.document
            again = document_from_dict(document_to_dict(document))
            for section in SECTIONS:
                with self.subTest(made.title, section=section.kind.__name__):
                    section_before = document.section(section.kind)
                    self.assertEqual(section_before, again.section(section.kind))

    def test_features_have_distinct_names_and_commands(self) -> None:
        names = [feature.name for feature in FEATURES]
        commands = [command for feature in FEATURES for command in feature.commands]
        tags = [command.__struct_config__.tag for command in COMMANDS]
        for many in (names, commands, tags):
            self.assertEqual(len(many), len(set(many)))
        self.assertLess(set(commands), set(COMMANDS))

    def test_documented_feature_works(self) -> None:
        with documented_feature():
            study = Study()
            study.define("a = 2")
            before = study.snapshot
            self.assertEqual(
                "Bookmark a + 1", study.apply({"do": "bookmark", "x": "a + 1"}, WINDOW)
            )
            self.assertEqual([3.0], study.scene(WINDOW).to_dict()["bookmarks"])
            study.rename("a", "b")
            again = Study.from_dict(study.to_dict())
            self.assertEqual(["b + 1"], again.to_dict()["bookmarks"])
            with self.assertRaises(MathError):
                study.apply({"do": "bookmark", "x": "c"}, WINDOW)
            self.assertEqual(again.to_dict(), study.to_dict())
            # The snapshot before is what it was: to go back is to take it.
            self.assertNotIn("bookmarks", Study.from_dict(_fields(before)).to_dict())

    def test_a_draft_is_a_fold_of_commands(self) -> None:
        study = Study()
        study.define("f(x) = a x")
        snapshot = study.snapshot
        for command in (
            {"do": "make_sliders", "names": ["a"]},
            {"do": "set", "id": 2, "value": "3"},
            {"do": "digits", "digits": 5},
        ):
            snapshot = apply(snapshot, command, WINDOW).snapshot
        self.assertEqual({"a": 3}, snapshot.values)
        self.assertEqual({}, study.snapshot.values)


def _fields(snapshot: object) -> dict[str, object]:
    study = Study()
    study.snapshot = snapshot  # type: ignore[assignment]
    return study.to_dict()

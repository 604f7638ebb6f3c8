"""The study format: files of every version open, what is written is read, damage has a path."""

import copy
import json
import random
import unittest
from pathlib import Path
from typing import Any

from axis_path.core import Study
from axis_path.core.document.migrations import migrated
from axis_path.core.document.random_seed import RandomSeed
from axis_path.core.document.shown_units import ShownUnits
from axis_path.core.errors import FormatError
from axis_path.core.features.what_if.section import WhatIfSpec
from axis_path.core.study.format import document_from_dict

#: Files that version 1 wrote: every demo study, and one with all sections.
VERSION_1 = sorted((Path(__file__).parent / "format_1").glob("*.json"))


def contents(path: Path) -> dict[str, Any]:
    found: dict[str, Any] = json.loads(path.read_text())
    return found


def leaves(value: object, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Return the paths of all values of plain data that are not containers."""
    if isinstance(value, dict):
        return [leaf for key, child in value.items() for leaf in leaves(child, (*path, key))]
    if isinstance(value, list):
        return [leaf for key, child in enumerate(value) for leaf in leaves(child, (*path, key))]
    return [path]


def put(value: Any, path: tuple[Any, ...], new: object) -> None:
    for key in path[:-1]:
        value = value[key]
    value[path[-1]] = new


class MigrationTest(unittest.TestCase):
    def test_version_1_keeps_every_value(self) -> None:
        """All texts and numbers of a file of version 1 are in the study that it becomes."""
        self.assertGreater(len(VERSION_1), 6)
        renamed = {"fro": "reverse", "over": "restart", "powers": "scientific"}
        for path in VERSION_1:
            old = contents(path)
            new = migrated(old)
            self.assertEqual(contents(path), old)
            for leaf in leaves(old):
                with self.subTest(path.stem, leaf=leaf):
                    value: Any = old
                    for key in leaf:
                        value = value[key]
                    now: Any = new
                    for key in leaf:
                        now = now["disabled" if key == "aside" else key]
                    if leaf != ("version",):
                        self.assertEqual(renamed.get(value, value), now)

    def test_version_1_opens_and_is_written_as_version_2(self) -> None:
        for path in VERSION_1:
            with self.subTest(path.stem):
                study = Study.from_dict(contents(path))
                written = study.to_dict()
                self.assertEqual(2, written["version"])
                again = Study.from_dict(json.loads(json.dumps(written)))
                self.assertEqual(study.snapshot.document, again.snapshot.document)
                self.assertEqual(written, again.to_dict())
                # Nothing was lost on the way: the defaults alone are left out.
                self.assertEqual(document_from_dict(contents(path)), document_from_dict(written))

    def test_all_sections_are_in_use(self) -> None:
        study = Study.from_dict(contents(Path(__file__).parent / "format_1" / "all_sections.json"))
        for kind, section in study.snapshot.document.sections.items():
            # Version 1 had no random numbers, no units and no what-if table.
            if kind not in (RandomSeed, ShownUnits, WhatIfSpec):
                with self.subTest(kind.__name__):
                    self.assertNotEqual(kind(), section)
        lines = study.snapshot.lines
        self.assertTrue(any(line.disabled for line in lines))
        self.assertIn("restart", [line.slider.play.at_end for line in lines if line.slider])

    def test_other_versions_are_refused(self) -> None:
        for version in (0, 3, "1", True, None, 1.0):
            with self.subTest(version), self.assertRaises(FormatError) as caught:
                Study.from_dict(Study().to_dict() | {"version": version})
            self.assertEqual("version", caught.exception.path)


class DamageTest(unittest.TestCase):
    def test_damage_is_refused_with_its_path(self) -> None:
        whole = Study.from_dict(contents(VERSION_1[0])).to_dict()
        for path, new, shown in (
            (("lines", 1, "text"), 5, "lines[1].text"),
            (("lines", 1, "family", "slider"), "8", "lines[1].family.slider"),
            (("table", "form"), "roman", "table.form"),
            (("columns", 0, "cells", 2), "4,5,6", "columns[0].cells[2]"),
            (("columns", 0, "cells", 2), "1e999999999", "columns[0].cells[2]"),
            (("findings", 0, "what"), "roots", "findings[0].what"),
            (("angle_unit",), "turns", "angle_unit"),
        ):
            damaged = copy.deepcopy(whole)
            put(damaged, path, new)
            with self.subTest(shown, new=new), self.assertRaises(FormatError) as caught:
                Study.from_dict(damaged)
            self.assertEqual(shown, caught.exception.path)
            self.assertTrue(caught.exception.message.endswith("."))

    def test_any_damage_is_refused_or_read(self) -> None:
        """Whatever stands in a field: a study, or the error of the format; never another one."""
        drawn = random.Random(26)  # noqa: S311 - damage, no secret
        strange: Any = (
            None,
            True,
            -1,
            1e308,
            "",
            "x" * 3_000,
            [],
            {},
            [[]],
            {"x": 1},
            "1/0",
            2**70,
        )
        refused = 0
        for path in VERSION_1:
            whole = contents(path)
            for leaf in leaves(whole):
                damaged = copy.deepcopy(whole)
                put(damaged, leaf, drawn.choice(strange))
                with self.subTest(path.stem, leaf=leaf):
                    try:
                        Study.from_dict(damaged)
                    except FormatError as err:
                        refused += 1
                        self.assertTrue(err.message.endswith("."), err.message)
        self.assertGreater(refused, 100)

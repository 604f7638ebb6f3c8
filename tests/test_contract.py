"""What is generated from the typed contract is fresh, and says what studies and pages hold to."""

import json
import re
import unittest
import uuid
from pathlib import Path

import jsonschema
from orjson import dumps

from axis_path.bench import Job, run_task
from axis_path.bench.contract_files import contract_files
from axis_path.core import Study, Window
from axis_path.core.errors import CommandError
from axis_path.core.study.commands import NAMES, read_command
from axis_path.store.demo import DEMO
from tests.contract import check_answer

#: Lines of every kind, drawn well and badly, with all that a row can say.
LINES = (
    "f(x) = 1/x", "g(x) = x^3 - 3x", "h(x) = (x^2 - 1)/(x - 1) for x != 3", "k(x) = q x", "m(x) =",
    "# note", "A = (1, 2)", "L = [(1, 2), (2, 5)]", "c = sqrt(2)", "x^2 + y^2 = 4", "y > x^2",
    "P(t) = (cos t, sin t)", "r(theta) = 1 + cos(theta)", "F(x, y) = x^2 - y", "w(x) = sin(900x)",
    "u(x) = x + 99", "n(x) = ln(x) for x > 0", "fog(", "a = 2", "v(x) = x/a",
)  # fmt: skip
QUESTIONS: tuple[dict[str, object], ...] = (
    {"what": "zeros", "line": 2, "low": "-3", "high": "3"}, {"what": "extrema", "line": 2},
    {"what": "inflections", "line": 2}, {"what": "crossing", "line": 2},
    {"what": "breaks", "line": 1}, {"what": "asymptotes", "line": 1},
    {"what": "intersections", "line": 1, "other": 2}, {"what": "solve", "text": "x^2 = 2"},
    {"what": "solve", "text": "x^2 > 2"}, {"what": "solve", "text": "x + y = 1\nx - y = 3"},
    {"what": "point", "line": 2, "text": "1"}, {"what": "data", "line": 8},
    {"what": "interval", "line": 2, "low": "0", "high": "1"},
)  # fmt: skip
PLANE = Window((-10, 10), (-7, 7), 660, 430)
VIEWPORT = {"x": [-10, 10], "y": [-7, 7], "width": 660, "height": 430}
#: Requests that bring out every field of their answers.
REQUESTS: dict[str, dict[str, object]] = {
    "scene": {"reading": 1.5, "findings": "ledger", "prefetch": [[]], "passed": [[]],
              "box": [[0, 50], [0, 20]], "pointer_y": 1},
    "reading": {"reading": 1.5, "pointer_y": 1},
    "window": {"how": "frame"},
    "preview": {"text": "g(x) = (x"},
    "findings": {"whole": 1},
    "table": {"around": 1},
    "data": {"predict": {"fit": 1, "of": "x", "value": 7}, "box": [[0, 50], [0, 20]]},
    "exact_cells": {"abscissa": "1"},
    "exact": {},
    "working": {"digits": 6},
}  # fmt: skip


def everything() -> Study:
    """Return a study with lines, questions and calculations of every kind."""
    study = Study()
    for number, text in enumerate(LINES, start=1):
        study.write(number, text)
    for question in QUESTIONS:
        study.apply({"do": "find", **question}, PLANE)
    for text in ("1/3", "sqrt(2)", "(1, 2)", "fog("):
        study.apply({"do": "work", "id": None, "text": text}, PLANE)
    study.apply({"do": "label_finding", "query": 1, "labels": [0]}, PLANE)
    study.apply({"do": "check", "line": 2, "count": "5"}, PLANE)
    study.apply({"do": "axes", "axes": {"legend": True, "x": {"labels": "degrees"}}}, PLANE)
    study.apply({"do": "table", "columns": [{"text": "g'(x)"}]}, PLANE)
    return study


ROOT = Path(__file__).resolve().parent.parent
FORMAT_1 = ROOT / "tests" / "core" / "format_1"
SCHEMA = json.loads((ROOT / "docs" / "schema" / "study.json").read_text())


class ContractTest(unittest.TestCase):
    def test_generated_files_are_fresh(self) -> None:
        for name, text in contract_files().items():
            with self.subTest(name):
                self.assertEqual(text, (ROOT / name).read_text(), "run tools/refresh-contract")

    def test_words_on_the_wire_are_single_identifiers(self) -> None:
        """No value of an enumeration is a phrase that one side could spell in another way."""
        texts = [text for name, text in contract_files().items() if name.endswith(".ts")]
        words = {word for text in texts for word in re.findall(r'"([^"\n]*)"', text)}
        self.assertGreater(len(words), 60)
        for word in words - {"", "axis-path-study"}:
            with self.subTest(word):
                self.assertRegex(word, r"^[a-z][a-z0-9_]*$")

    def test_written_studies_fit_the_schema(self) -> None:
        files = [made().document for made in DEMO]
        path = FORMAT_1 / "all_sections.json"
        files.append(Study.from_dict(json.loads(path.read_text())).to_dict())
        for file in files:
            jsonschema.validate(file, SCHEMA)

    def test_the_schema_refuses_what_the_program_refuses(self) -> None:
        whole = Study().to_dict()
        for damage in (
            {"version": 1},
            {"lines": [{"id": 1}]},
            {"lines": [{"id": 1, "text": 5}]},
            {"findings": [{"id": 1, "line": 1, "what": "roots"}]},
            {"axes": {"grid": "round"}},
            {"columns": [{"name": "2b", "cells": []}]},
            {"angle_unit": "turns"},
        ):
            with self.subTest(damage), self.assertRaises(jsonschema.ValidationError):
                jsonschema.validate(whole | damage, SCHEMA)

    def test_answers_have_the_fields_of_their_types(self) -> None:
        files = [everything().to_dict(), *(made().document for made in DEMO[1:4])]
        files.append(json.loads((FORMAT_1 / "all_sections.json").read_text()))
        for number, file in enumerate(files):
            job = Job(uuid.UUID(int=number), 1, {}, lambda _version, file=file: dumps(file))  # type: ignore[misc]
            for name, more in REQUESTS.items():
                with self.subTest(name, file=number):
                    body = {"version": 1, "window": VIEWPORT, **more}
                    check_answer(name, json.loads(dumps(run_task(name, job, dumps(body)))))

    def test_every_command_refuses_an_unknown_field_by_its_path(self) -> None:
        for name, kind in NAMES.items():
            with self.subTest(name), self.assertRaises(CommandError) as caught:
                read_command({"do": name, "wrong": 1})
            missing = [*kind.__struct_fields__, "wrong"]
            self.assertIn(caught.exception.path, missing)

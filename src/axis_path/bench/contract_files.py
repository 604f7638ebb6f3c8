"""The files that are written from the typed contract: the schema of studies, and declarations."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

import msgspec

from axis_path.bench.answers import CommittedAnswer, ErrorAnswer
from axis_path.bench.panel_answers import SweepBegun, SweepProgress
from axis_path.bench.tasks import TASKS
from axis_path.core.contract.declarations import declare
from axis_path.core.study.commands import NAMES
from axis_path.core.study.format import StudyFile

#: Answers that the web process puts together from what a worker said.
OF_THE_WEB: dict[str, Any] = {
    "error": ErrorAnswer,
    "commands": CommittedAnswer,
    "history": CommittedAnswer,
    "sweeps": SweepBegun,
    "sweep_progress": SweepProgress,
}
_NOTE = "Written by tools/refresh-contract from the structs of the server. Do not edit."


def contract_files() -> Mapping[str, str]:
    """Return the content of each file by its path in the project."""
    queries = {name: task.query for name, task in TASKS.items()}
    answers = {name: task.answer for name, task in TASKS.items() if task.answer is not None}
    return {
        "docs/schema/study.json": _schema(),
        "types/study.d.ts": declare(
            {"study": StudyFile}, "Files", f"A study file. {_NOTE}", is_whole=False
        ),
        "types/commands.d.ts": declare(
            NAMES, "Commands", f"Commands by what `do` says. {_NOTE}", is_whole=False
        ),
        "types/requests.d.ts": declare(
            queries, "Requests", f"Requests by their tasks. {_NOTE}", is_whole=False
        ),
        "types/answers.d.ts": declare(
            answers | OF_THE_WEB, "Answers", f"Answers by their tasks. {_NOTE}",
            is_whole=True,
        ),
    }  # fmt: skip


def _schema() -> str:
    schema = msgspec.json.schema(StudyFile, schema_hook=_exact_number)
    head = {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Axis Path study",
        "description": "A study as it is saved; docs/study-format.md explains its fields.",
    }
    whole = json.loads(msgspec.json.encode(head | schema))
    return json.dumps(whole, indent=2, ensure_ascii=False) + "\n"


def _exact_number(_kind: type) -> dict[str, str]:
    """Return the schema of an exact number, which is written as a text."""
    return {"type": "string", "description": "An exact number, such as 2.5 or 11/2."}

"""The Reference as data: it says what the catalogue says, and is the same for every study."""

from __future__ import annotations

from functools import cache
from typing import Any

from flask import Response

from axis_path.core.catalogue import (
    CONSTANTS,
    DEGREE,
    FUNCTIONS,
    SUMMARY_ENTRIES,
    FunctionEntry,
    Group,
    SummaryEntry,
)
from axis_path.core.language import Vocabulary, read_expression, typeset, typeset_signature
from axis_path.web.answers import json_answer

_OPTIONAL = " (may be left out)"


def show() -> Response:
    """Return all entries, group by group."""
    response = json_answer({"groups": [group.value for group in Group], "entries": _entries()})
    response.headers["Cache-Control"] = "private, max-age=3600"
    return response


@cache
def _entries() -> list[dict[str, Any]]:
    called = [_called(entry) for entry in FUNCTIONS.values()]
    summaries = [_called(entry) for entry in SUMMARY_ENTRIES]
    return [*called, *summaries] + [
        {
            "name": entry.name,
            "group": entry.group.value,
            "spellings": list(entry.spellings),
            "signature": typeset_signature(entry.name, ()),
            "arguments": [],
            "meaning": entry.meaning,
            "defined": "",
            "returns": "",
            "example": entry.example,
            "typeset": _example(entry.example),
            "insert": entry.name,
        }
        for name, entry in CONSTANTS.items()
        if name != DEGREE
    ]


def _called(entry: FunctionEntry | SummaryEntry) -> dict[str, Any]:
    names = tuple(argument.name for argument in entry.arguments)
    return {
        "name": entry.name,
        "group": entry.group.value,
        "spellings": list(getattr(entry, "spellings", ())),
        "signature": typeset_signature(entry.name, names),
        "arguments": [
            {
                "name": argument.name,
                "meaning": argument.meaning
                + (" (may be left out)" if argument.is_optional else ""),
            }
            for argument in entry.arguments
        ],
        "meaning": entry.meaning,
        "defined": entry.defined,
        "returns": entry.returns,
        "example": entry.example,
        "typeset": _example(entry.example),
        "insert": f"{entry.name}(",
    }


def _example(text: str) -> str:
    return typeset(read_expression(text, Vocabulary(variables=frozenset({"x"}))))

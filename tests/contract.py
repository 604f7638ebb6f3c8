"""Hold answers to the typed contract, field by field."""

from __future__ import annotations

from typing import Any

from axis_path.bench import TASKS
from axis_path.bench.contract_files import OF_THE_WEB
from axis_path.core.contract import read, write

#: What a page is only told is done.
_ACKNOWLEDGED = ("view",)


def check_answer(name: str, answer: object) -> None:
    """Check that an answer has the fields of its type, all of them and no others.

    Args:
        name: of the task, or ``error``.
        answer: as a page gets it.

    Raises:
        AssertionError: a field is missing, unknown or of another type.
    """
    if name in _ACKNOWLEDGED or name.endswith("/cancel"):
        return
    kind: Any = OF_THE_WEB[name] if name in OF_THE_WEB else TASKS[name].answer
    known = write(read(answer, kind, lambda message, path: AssertionError(f"{path}: {message}")))
    _compare(answer, known, name)


def _compare(answer: Any, known: Any, path: str) -> None:
    """Look for fields that were lost on the way: the type does not know them."""
    if isinstance(answer, dict):
        unknown = answer.keys() - known.keys()
        if unknown:
            raise AssertionError(f"{path} has fields that its type lacks: {sorted(unknown)}")
        for key, item in answer.items():
            _compare(item, known[key], f"{path}.{key}")
    elif isinstance(answer, list):
        for index, (item, other) in enumerate(zip(answer, known, strict=True)):
            _compare(item, other, f"{path}[{index}]")

"""Errors as plain data, for the Bench."""

from __future__ import annotations

from typing import Any

from axis_path.core.errors import MathError


def problem_dict(problem: MathError) -> dict[str, Any]:
    """Return an error as plain data."""
    return {
        "code": problem.code,
        "message": problem.message,
        "path": problem.path,
        "position": list(problem.position),
        "suggestion": problem.suggestion,
        "repair": None
        if problem.repair is None
        else {
            "position": list(problem.repair.position),
            "text": problem.repair.text,
            "label": problem.repair.label,
        },
        "letters": list(problem.letters),
    }

"""Typed equations and inequalities, read with the names of a study."""

from __future__ import annotations

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import EquationError
from axis_path.core.features.findings.equations import (
    LETTERS,
)
from axis_path.core.language import Vocabulary
from axis_path.core.language.parsing.body import Condition as Compared
from axis_path.core.language.read import read_body


def read_compared(
    snapshot: Snapshot, text: str, unknown: str | None
) -> tuple[Compared, Vocabulary]:
    """Return a typed equation or inequality, and the names that it may use.

    Args:
        snapshot: of the study.
        text: as typed.
        unknown: the letter that is sought; None if it is found out.

    Raises:
        MathError: it does not read, or is neither.
    """
    names = snapshot.analysis.names()
    letters = {unknown} if unknown else set()
    known = names.values | names.functions
    letters |= {letter for letter in LETTERS if letter not in known or letter == unknown}
    vocabulary = names.and_variables(*letters)
    body = read_body(text, vocabulary)
    if body.compared is None:
        raise EquationError(
            "This is no equation: write two sides with `=` between them, as in `x^2 = 2`."
        )
    return body.compared, vocabulary

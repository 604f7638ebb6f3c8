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
    snapshot: Snapshot, text: str, unknown: str | None, *, with_units: bool = True
) -> tuple[Compared, Vocabulary]:
    """Return a typed equation or inequality, and the names that it may use.

    Args:
        snapshot: of the study.
        text: as typed.
        unknown: the letter that is sought; None if it is found out.
        with_units: whether letters behind a number, as in ``3 m``, are units first.

    Raises:
        MathError: it does not read, or is neither.
    """
    names = snapshot.analysis.names()
    known = names.values | names.functions | ({unknown} if unknown else set())
    letters = LETTERS - known
    own = {unknown} if unknown else set()
    if with_units:
        vocabulary = names.and_variables(*own).and_letters(letters)
    else:
        vocabulary = names.and_variables(*own, *letters)
    body = read_body(text, vocabulary)
    if body.compared is None:
        raise EquationError(
            "This is no equation: write two sides with `=` between them, as in `x^2 = 2`."
        )
    return body.compared, vocabulary

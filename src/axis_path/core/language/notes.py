"""Notes: plain text in which formulas stand between backticks."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass

from axis_path.core.errors import MathError
from axis_path.core.language.lines import head_name, read_line
from axis_path.core.language.mathml import typeset, typeset_comparison, typeset_line
from axis_path.core.language.read import read_body, read_expression
from axis_path.core.language.vocabulary import Vocabulary

#: What a formula in a note may use without having defined it.
_VARIABLES = ("x", "y", "t", "theta")


@dataclass(frozen=True, slots=True)
class NotePart:
    """A piece of a note.

    Attributes:
        text: as it was typed, without backticks.
        mathml: the same typeset, if it is a formula that reads; else empty.
    """

    text: str
    mathml: str


def note_parts(text: str, vocabulary: Vocabulary) -> tuple[NotePart, ...]:
    """Return the pieces of a note, in their order; a formula that does not read stays as typed.

    Args:
        text: without the sign that begins the note.
        vocabulary: the names that the formulas may use.
    """
    names = vocabulary.and_variables(*_VARIABLES)
    pieces = text.split("`")
    return tuple(
        NotePart(piece, _formula(piece, names) if index % 2 else "")
        for index, piece in enumerate(pieces)
        if piece
    )


def _formula(text: str, names: Vocabulary) -> str:
    """Typeset an expression, an equation or a whole definition; empty if it does not read."""
    readers: tuple[Callable[[str, Vocabulary], str], ...] = (_expression, _comparison, _line)
    for read in readers:
        with suppress(MathError):
            made = read(text, names)
            if made:
                return made
    return ""


def _expression(text: str, names: Vocabulary) -> str:
    return typeset(read_expression(text, names))


def _comparison(text: str, names: Vocabulary) -> str:
    compared = read_body(text, names).compared
    return "" if compared is None else typeset_comparison(compared.terms, compared.signs)


def _line(text: str, names: Vocabulary) -> str:
    return typeset_line(read_line(text, names), head_name(text))

"""Rename a definition wherever it is used."""

from __future__ import annotations

import re
from dataclasses import replace

from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.errors import MathError, NameTakenError
from axis_path.core.language import (
    NAME_PATTERN,
    WORDS,
    Vocabulary,
    line_nodes,
    own_variables,
    read_expression,
    read_line,
    spelled,
)
from axis_path.core.language.walk import free_uses, name_of
from axis_path.core.lines.meaning import Meaning, name_in_head
from axis_path.core.lines.sliders import literal

_PRIMES = "'′″"
_BETWEEN_EQUATIONS = re.compile(r"([;\n])")
_BETWEEN_SIDES = re.compile(r"(<=|>=|!=|[<>=≤≥≠\n])")


def check_new_name(new: str, taken: frozenset[str]) -> None:
    """Refuse a name that no line can have.

    Raises:
        NameTakenError: it is no name, belongs to the language, or to another line.
    """
    if not NAME_PATTERN.fullmatch(new) or new in ("x", "y"):
        raise NameTakenError(f"`{new}` cannot be a name: letters, figures and `_` make one.")
    if new in FUNCTIONS or new in CONSTANTS or new in WORDS:
        raise NameTakenError(f"`{new}` belongs to the language; choose another name.")
    if new in taken:
        raise NameTakenError(f"`{new}` is the name of another line.")


def renamed(text: str, meaning: Meaning, name: str, new: str) -> str:
    """Return the text of a line with one name replaced, where it is used and where it is defined.

    Args:
        text: the line.
        meaning: what it means with the old name.
        name: the old name.
        new: the new name.
    """
    starts = set[int]()
    line = meaning.line
    if line is not None and name in meaning.uses.union(meaning.defines):
        hidden = own_variables(line) - {name}
        starts = {
            _begin(text, use.span[0])
            for node in line_nodes(line)
            for use in free_uses(node, hidden)
            if name_of(use) == name
        }
    if name_in_head(text) == name:
        starts.add(len(text) - len(text.lstrip()))
    return _put(text, starts, name, new)


def renamed_number(text: str, names: Vocabulary, name: str, new: str) -> str:
    """Do the same for a typed number, such as the end of a slider."""
    if literal(text) is not None:
        return text
    try:
        node = read_expression(text, replace(names, values=names.values | {name}))
    except MathError:
        return text
    starts = {_begin(text, use.span[0]) for use in free_uses(node) if name_of(use) == name}
    return _put(text, starts, name, new)


def renamed_text(text: str, names: Vocabulary, name: str, new: str) -> str:
    """Do the same for a line that belongs to no definition, or for several equations.

    What does not read is left as it is, side by side.
    """
    known = replace(names, values=names.values | {name})
    try:
        line = read_line(text, known)
    except MathError:
        parts = _BETWEEN_EQUATIONS.split(text)
        return "".join(
            part if k % 2 else renamed_relation(part, names, name, new)
            for k, part in enumerate(parts)
        )
    hidden = own_variables(line)
    uses = (use for node in line_nodes(line) for use in free_uses(node, hidden))
    starts = {_begin(text, use.span[0]) for use in uses if name_of(use) == name}
    return _put(text, starts, name, new)


def renamed_relation(text: str, names: Vocabulary, name: str, new: str) -> str:
    """Do the same for equations and inequalities, each side for itself, in one line or several.

    Any letter may be an unknown. A side that does not read stays as it is.
    """
    letters = {letter for letter in text if letter.isalpha()} - {name}
    vocabulary = names.and_variables(*sorted(letters))
    sides = _BETWEEN_SIDES.split(text)
    return "".join(
        side if k % 2 or not side.strip() else renamed_number(side, vocabulary, name, new)
        for k, side in enumerate(sides)
    )


def _put(text: str, starts: set[int], name: str, new: str) -> str:
    for start in sorted(starts, reverse=True):
        run = NAME_PATTERN.match(text, start)
        if run is None:
            continue
        stop = next(
            (end for end in range(run.end(), start, -1) if spelled(text[start:end]) == name), None
        )
        if stop is not None:
            text = _replaced(text, start, stop, new)
    return text


def _begin(text: str, at: int) -> int:
    """Return where a name begins whose node may begin with the brackets around it."""
    while text[at] in "( ":
        at += 1
    return at


def _replaced(text: str, start: int, stop: int, new: str) -> str:
    """Put a name in, apart from letters that touch it: in `lw`, `l` becomes `length w`."""
    before = " " if start and (text[start - 1].isalnum() or text[start - 1] == "_") else ""
    if before and text[start - 1].isdigit():
        before = "" if not _is_in_name(text, start) else " "
    after = " " if stop < len(text) and re.match(r"\w", text[stop]) else ""
    return text[:start] + before + new + after + text[stop:]


def _is_in_name(text: str, at: int) -> bool:
    """Check whether the figures before a place belong to a name, as in `f_1a`."""
    while at and (text[at - 1].isalnum() or text[at - 1] == "_"):
        at -= 1
    return text[at].isalpha() or text[at] == "_"


def with_head(text: str, name: str) -> str:
    """Return an unnamed line a name of its own."""
    body = re.sub(r"^\s*y\s*=(?!=)\s*", "", text)
    return f"{name}(x) = {body.strip()}"


def copied_text(text: str, name: str | None, taken: frozenset[str]) -> str:
    """Return the text of a copy of a line: under a free name, if it has one in its head."""
    head = re.match(r"\s*(\w+)", text)
    if name is None or head is None or name_in_head(text) != name:
        return text
    base = re.sub(r"_\d+$", "", head[1])
    free = next(f"{base}_{k}" for k in range(1, len(taken) + 2) if f"{base}_{k}" not in taken)
    return text[: head.start(1)] + free + text[head.end(1) :]

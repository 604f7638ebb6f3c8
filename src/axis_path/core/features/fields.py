"""The fields of a command, each of the kind that is wanted."""

from __future__ import annotations

from typing import Any

from axis_path.core.errors import LimitError, MathError
from axis_path.core.limits import LINE_LENGTH


class CommandError(MathError):
    """A command that cannot be carried out on this study."""

    code = "study.command"


def number_of(command: dict[str, Any], name: str) -> int:
    """Return a whole number of a command.

    Raises:
        CommandError: it is not there.
    """
    value = command.get(name)
    if not isinstance(value, int) or isinstance(value, bool):
        raise CommandError(f"The change lacks its `{name}`.")
    return value


def text_of(command: dict[str, Any], name: str) -> str:
    """Return a text of a command, in one line.

    Raises:
        MathError: it is not there, or cannot be kept.
    """
    value = command.get(name)
    if not isinstance(value, str):
        raise CommandError(f"The change lacks its `{name}`.")
    if len(value) > LINE_LENGTH.value:
        raise LimitError(f"More than {LINE_LENGTH.value:,} characters cannot be kept in a line.")
    if any("\ud800" <= sign <= "\udfff" or sign == "\0" for sign in value):
        raise CommandError("The text holds signs that are no characters.")
    # A line is a line: what was pasted over several lines reads as one.
    return " ".join(value.split())

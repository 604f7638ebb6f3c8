"""Texts as they come from outside."""

from __future__ import annotations

from axis_path.core.errors import CommandError, LimitError
from axis_path.core.limits import LINE_LENGTH


def one_line(text: str) -> str:
    """Return a text in one line: what was pasted over several lines reads as one.

    Raises:
        LimitError: it is too long.
        CommandError: it holds what is not a character.
    """
    if len(text) > LINE_LENGTH.value:
        raise LimitError(f"More than {LINE_LENGTH.value:,} characters cannot be kept in a line.")
    if any("\ud800" <= sign <= "\udfff" or sign == "\0" for sign in text):
        raise CommandError("The text holds signs that are not characters.")
    return " ".join(text.split())

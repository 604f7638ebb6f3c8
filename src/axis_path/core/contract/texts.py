"""Texts as they come from outside."""

from __future__ import annotations

from axis_path.core.contract import messages
from axis_path.core.errors import CommandError, LimitError
from axis_path.core.limits import LINE_LENGTH


def one_line(text: str) -> str:
    """Return a text in one line: what was pasted over several lines reads as one.

    Raises:
        LimitError: it is too long.
        CommandError: it holds what is not a character.
    """
    if len(text) > LINE_LENGTH.value:
        raise LimitError(messages.LINE_CANNOT_HAVE_MORE(most=LINE_LENGTH.value))
    if any("\ud800" <= sign <= "\udfff" or sign == "\0" for sign in text):
        raise CommandError(messages.TEXT_CONTAINS_SIGNS_NOT)
    return " ".join(text.split())

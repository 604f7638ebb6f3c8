"""Who is spoken to right now."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from typing import Any

from axis_path.core.wording import Speaker, Wording
from axis_path.wording.language import DECIMAL_SIGNS, ENGLISH, speaker_for


@dataclass(frozen=True, slots=True)
class Reader:
    """How somebody wants to be spoken to.

    Attributes:
        language: the tag of a language.
        decimal_sign: one of ``DECIMAL_SIGNS``.
    """

    language: str = ENGLISH
    decimal_sign: str = DECIMAL_SIGNS[0]

    @property
    def is_plain(self) -> bool:
        """Check whether everything is said as the core says it."""
        return self == _PLAIN

    def as_context(self) -> dict[str, str]:
        """Return the reader as plain data for another process."""
        return {"language": self.language, "decimal_sign": self.decimal_sign}


_PLAIN = Reader()
_reader: ContextVar[Reader] = ContextVar("reader", default=_PLAIN)


def reader_in(context: Mapping[str, Any]) -> Reader:
    """Return the reader that a web process named in the context of a request."""
    return Reader(**context["reader"]) if "reader" in context else _PLAIN


def current_reader() -> Reader:
    """Return who is spoken to."""
    return _reader.get()


def reader_speaker(reader: Reader | None = None) -> Speaker:
    """Return who speaks to a reader, by default to the present one."""
    given = reader or _reader.get()
    return speaker_for(given.language, given.decimal_sign)


@contextmanager
def speaking(reader: Reader) -> Iterator[None]:
    """Speak to a reader within the block."""
    token = _reader.set(reader)
    try:
        yield
    finally:
        _reader.reset(token)


def say(text: str) -> str:
    """Return a text in the words of the present reader; one that is no wording stays as it is."""
    if _reader.get().is_plain or not isinstance(text, Wording):
        return str(text)
    return text.said(reader_speaker())

"""What is said to the reader: English sentences that can still be translated.

Each is a ``str`` in English, so that the core and its programs use it as one. It remembers how it
was made, and ``spoken`` says it in the words of a ``Speaker``. The constants stand in the module
``messages`` of each package, where ``tools/refresh-catalogue`` collects them.
"""

from __future__ import annotations

from collections.abc import Iterable
from string import Formatter
from typing import Any, Protocol, Self


class Speaker(Protocol):
    """Says things in one language, with one decimal sign."""

    def template(self, one: str, many: str, count: int) -> str:
        """Return the translation of a template.

        Args:
            one: the template in English.
            many: the template of more than one, empty if the number makes no difference.
            count: how many there are, if it makes a difference.
        """
        ...

    def numeral(self, text: str) -> str:
        """Return a number, written with a decimal point, as the reader writes it."""
        ...


class Wording(str):
    """A text for the reader that knows how to be said in another language."""

    __slots__ = ()

    def said(self, speaker: Speaker) -> str:
        """Return the text in the words of a speaker."""
        raise NotImplementedError


class Numeral(Wording):
    """A single number as it is shown, written with a decimal point."""

    __slots__ = ()

    def said(self, speaker: Speaker) -> str:
        """Return the number with the reader's decimal sign."""
        return speaker.numeral(str(self))


class Text(Wording):
    """A sentence or phrase; called with values it returns one with its gaps filled.

    Args:
        template: what it says, with gaps such as ``{name}``.
        many: what it says of more than one, if its value ``count`` makes a difference.
        values: what the gaps hold: words, numbers or other texts.
    """

    __slots__ = ("is_capitalised", "many", "template", "values")

    template: str
    many: str
    values: dict[str, Any]
    is_capitalised: bool

    def __new__(
        cls,
        template: str,
        many: str = "",
        values: dict[str, Any] | None = None,
        is_capitalised: bool = False,
    ) -> Self:
        """Make the English text."""
        given = values or {}
        shown = template if values is None else _chosen(template, many, given).format(**given)
        made = super().__new__(cls, _capitalised(shown) if is_capitalised else shown)
        made.template, made.many, made.values = template, many, given
        made.is_capitalised = is_capitalised
        return made

    def __call__(self, **values: Any) -> Text:  # noqa: ANN401 - words, numbers or texts
        """Return the text with its gaps filled."""
        return Text(self.template, self.many, values, self.is_capitalised)

    def __reduce__(self) -> tuple[type[Text], tuple[Any, ...]]:
        """Return how a copy is made."""
        return Text, (self.template, self.many, self.values or None, self.is_capitalised)

    def capitalize(self) -> Text:
        """Return the text with a capital at its start, and the rest as it is."""
        return Text(self.template, self.many, self.values or None, is_capitalised=True)

    def said(self, speaker: Speaker) -> str:
        """Return the text in the words of a speaker."""
        template = speaker.template(self.template, self.many, _count(self.values))
        shown = _Filler(speaker).vformat(template, (), self.values) if self.values else template
        return _capitalised(shown) if self.is_capitalised else shown


class Joined(Wording):
    """Several texts one after the other."""

    __slots__ = ("parts", "separator")

    parts: tuple[str, ...]
    separator: str

    def __new__(cls, parts: Iterable[str], separator: str = " ") -> Self:
        """Join the texts; empty ones are left out."""
        kept = tuple(part for part in parts if part)
        made = super().__new__(cls, separator.join(kept))
        made.parts, made.separator = kept, separator
        return made

    def __reduce__(self) -> tuple[type[Joined], tuple[Any, ...]]:
        """Return how a copy is made."""
        return Joined, (self.parts, self.separator)

    def said(self, speaker: Speaker) -> str:
        """Return the texts in the words of a speaker."""
        return self.separator.join(spoken(part, speaker) for part in self.parts)


class _Filler(Formatter):
    """Fills the gaps of a template in the words of a speaker."""

    def __init__(self, speaker: Speaker) -> None:
        self._speaker = speaker

    def format_field(self, value: Any, format_spec: str) -> str:  # noqa: ANN401 - as inherited
        """Return a value as it is said; a number with a format is one of the reader's."""
        if format_spec and isinstance(value, int | float):
            return self._speaker.numeral(format(value, format_spec))
        return str(super().format_field(spoken(value, self._speaker), format_spec))


def spoken(value: Any, speaker: Speaker) -> Any:  # noqa: ANN401 - whatever a gap may hold
    """Return a text in the words of a speaker; anything else as it is."""
    return value.said(speaker) if isinstance(value, Wording) else value


def _chosen(template: str, many: str, values: dict[str, Any]) -> str:
    return many if many and _count(values) != 1 else template


def _count(values: dict[str, Any]) -> int:
    return int(values.get("count", 1))


def _capitalised(text: str) -> str:
    return text[:1].upper() + text[1:]

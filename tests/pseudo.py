"""A language that marks what is translated: what stands outside the marks is in no catalogue."""

from __future__ import annotations

import json
import os
import re
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from html.parser import HTMLParser
from pathlib import Path
from unittest import mock

from babel.messages.catalog import Catalog
from babel.messages.mofile import write_mo

from axis_path.wording.language import catalogue_of, languages, speaker_for
from launcher.catalogue import DOMAIN, collect

#: Its tag: that of a real language, which formats numbers with a decimal comma.
TAG = "eo"
OPENING, CLOSING = "⟦", "⟧"
_MARKED = re.compile(r"⟦[^⟦⟧]*⟧")
_WORD = re.compile(r"[^\W\d_]{2,}")
#: Names of programs, formats and formulas are the same in every language.
SAME_EVERYWHERE = re.compile(
    r"Axis Path|PNG|SVG|PDF|CSV|XLSX|UTC|[a-z0-9^()/', .=-]*[(^=/][a-z0-9^()/', .=-]*|2pi|xⁿ|f ′"
)


def marked(text: str) -> str:
    """Return a text as this language says it."""
    return f"{OPENING}{text}{CLOSING}"


def write_pseudo_catalogue(folder: Path) -> None:
    """Write the catalogue of this language, as ``AXIS_PATH_CATALOGUES`` names it."""
    catalogue = Catalog(TAG, fuzzy=False)
    words = {}
    for message in collect():
        forms = [marked(text) for text in (message.one, message.many) if text]
        catalogue.add(message.key, tuple(forms) if message.many else forms[0])
        if message.is_in_browser:
            words[message.one] = forms
    target = folder / TAG / "LC_MESSAGES"
    target.mkdir(parents=True, exist_ok=True)
    with (target / f"{DOMAIN}.mo").open("wb") as file:
        write_mo(file, catalogue)
    (folder / TAG / "browser.json").write_text(json.dumps(words, ensure_ascii=False))


@contextmanager
def pseudo_language() -> Iterator[None]:
    """Add this language to those of the present process."""
    with tempfile.TemporaryDirectory() as name:
        write_pseudo_catalogue(Path(name))
        with mock.patch.dict(os.environ, AXIS_PATH_CATALOGUES=name):
            _forget()
            yield
        _forget()


def _forget() -> None:
    for cached in (languages, catalogue_of, speaker_for):
        cached.cache_clear()


class _Reader(HTMLParser):
    """Collects what a page says, in texts and in attributes."""

    _SAID_BY = ("title", "aria-label", "placeholder", "alt")
    _SILENT = ("script", "style", "code", "svg", "math", "template")
    _VOID = ("input", "link", "meta", "br", "img", "hr")

    def __init__(self) -> None:
        super().__init__()
        self.said: list[str] = []
        #: The elements that are open: whether each keeps its words in all languages.
        self._open: list[bool] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = dict(attrs)
        is_same = given.get("translate") == "no" or ("lang" in given and tag != "html")
        is_silent = is_same or tag in self._SILENT or any(self._open)
        if not is_silent:
            self.said += [given[name] or "" for name in self._SAID_BY if name in given]
        if tag not in self._VOID:
            self._open.append(is_silent)

    def handle_endtag(self, tag: str) -> None:
        if tag not in self._VOID and self._open:
            self._open.pop()

    def handle_data(self, data: str) -> None:
        if not any(self._open):
            self.said.append(data)


def stray_texts(page: str) -> list[str]:
    """Return what a page in this language says in English all the same."""
    reader = _Reader()
    reader.feed(page)
    rest = (_MARKED.sub("", text) for text in reader.said)
    return [text.strip() for text in rest if _WORD.search(SAME_EVERYWHERE.sub("", text))]

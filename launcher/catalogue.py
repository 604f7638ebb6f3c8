"""Collect everything that is said to the reader, and keep the catalogues of all languages."""

from __future__ import annotations

import ast
import io
import json
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from babel.messages.catalog import Catalog
from babel.messages.extract import extract
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po, write_po
from jinja2.ext import babel_extract

ROOT = Path(__file__).resolve().parent.parent
SOURCES = ROOT / "src/axis_path"
CATALOGUES = SOURCES / "wording/catalogues"
DOMAIN = "messages"
_IN_PYTHON = {"Text", "ngettext", "gettext"}
_IN_SCRIPTS: dict[str, Any] = {"say": None, "sayCount": (1, 2)}
#: The date of today would make each file that is written differ from the one before.
_ANY_DATE = datetime(2026, 12, 2, tzinfo=UTC)
_NO_SOURCES = {"dist", "vendor"}


@dataclass(frozen=True, slots=True)
class Message:
    """Something that is said to the reader.

    Attributes:
        one: the English text.
        many: what it says of several; empty if the number makes no difference.
        place: the file it stands in, from the project's root.
    """

    one: str
    many: str
    place: str

    @property
    def key(self) -> str | tuple[str, str]:
        """Return what gettext calls its id."""
        return (self.one, self.many) if self.many else self.one

    @property
    def is_in_browser(self) -> bool:
        """Check whether a script says it."""
        return self.place.endswith(".js")


def collect() -> list[Message]:
    """Return all messages, by their files."""
    messages = []
    for path in sorted(SOURCES.rglob("*")):
        if not _NO_SOURCES & set(path.parts) and path.suffix in _COLLECTORS:
            place = str(path.relative_to(ROOT))
            found = _COLLECTORS[path.suffix](path.read_text())
            messages += [Message(one, many, place) for one, many in found]
    return messages


def _in_python(text: str) -> Iterator[tuple[str, str]]:
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.Call) and getattr(node.func, "id", "") in _IN_PYTHON:
            texts = [
                part.value
                for part in node.args[:2]
                if isinstance(part, ast.Constant) and isinstance(part.value, str)
            ]
            if texts:
                yield texts[0], texts[1] if len(texts) > 1 else ""


def _in_template(text: str) -> Iterator[tuple[str, str]]:
    given = io.BytesIO(text.encode())
    options = {"trimmed": "true", "silent": "false"}
    found: Any = babel_extract(given, ("_", "gettext", "ngettext"), (), options)
    for _line, _function, texts, _comments in found:
        if isinstance(texts, str):
            yield texts, ""
        else:
            yield str(texts[0]), str(texts[1] or "")


def _in_script(text: str) -> Iterator[tuple[str, str]]:
    given = io.BytesIO(text.encode())
    found: Any = extract("javascript", given, keywords=_IN_SCRIPTS)
    for _line, texts, _comments, _context in found:
        if isinstance(texts, str):
            yield texts, ""
        elif texts:
            yield str(texts[0]), str(texts[1])


_COLLECTORS: dict[str, Any] = {".py": _in_python, ".html": _in_template, ".js": _in_script}


def made_files(tag: str, catalogue: Catalog, messages: list[Message]) -> dict[Path, bytes]:
    """Return the files of a language: what people edit and what programs read."""
    folder = CATALOGUES / tag
    po, mo = io.BytesIO(), io.BytesIO()
    write_po(po, catalogue, width=100, omit_header=False, sort_output=True, no_location=True)
    write_mo(mo, catalogue)
    words = {
        message.one: translations(catalogue, message)
        for message in messages
        if message.is_in_browser
    }
    script = json.dumps(words, ensure_ascii=False, indent=0, sort_keys=True) + "\n"
    return {
        folder / "LC_MESSAGES" / f"{DOMAIN}.po": po.getvalue(),
        folder / "LC_MESSAGES" / f"{DOMAIN}.mo": mo.getvalue(),
        folder / "browser.json": script.encode(),
    }


def translations(catalogue: Catalog, message: Message) -> list[str]:
    """Return what a catalogue says for a message: one text, or two; empty where it has none."""
    entry = catalogue.get(message.key)
    given = None if entry is None else entry.string
    return [given or ""] if given is None or isinstance(given, str) else list(given)


def catalogue_of(tag: str, messages: list[Message]) -> Catalog:
    """Return the catalogue of a language with exactly these messages."""
    path = CATALOGUES / tag / "LC_MESSAGES" / f"{DOMAIN}.po"
    old = read_po(io.BytesIO(path.read_bytes())) if path.exists() else Catalog()
    made = Catalog(
        tag, project="Axis Path", copyright_holder="Axis Path",
        creation_date=_ANY_DATE, revision_date=_ANY_DATE, last_translator="", fuzzy=False,
    )  # fmt: skip
    for message in messages:
        known = old.get(message.key)
        string = known.string if known is not None and not known.fuzzy else ""
        made.add(message.key, string or None)
    return made


def languages() -> list[str]:
    """Return the tags of all languages but English."""
    return sorted(path.name for path in CATALOGUES.glob("*") if path.is_dir())

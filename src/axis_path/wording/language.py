"""The languages there are, and a speaker of each."""

from __future__ import annotations

import gettext
import json
import os
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from babel import Locale

from axis_path.core.wording import Speaker

DOMAIN = "messages"
#: One folder for each language, laid out as gettext expects it.
CATALOGUES = Path(__file__).parent / "catalogues"
#: A folder with further languages.
_MORE_CATALOGUES = "AXIS_PATH_CATALOGUES"
ENGLISH = "en"
DECIMAL_SIGNS = (".", ",")
_SWAPPED = str.maketrans(".,", ",.")


@dataclass(frozen=True, slots=True)
class Language:
    """A language in which the reader may be spoken to.

    Attributes:
        tag: as ``de``.
        name: what it is called by those who speak it.
        decimal_sign: what stands before the decimals in it.
    """

    tag: str
    name: str
    decimal_sign: str


@dataclass(frozen=True, slots=True)
class _GettextSpeaker:
    """Says things in the words of a catalogue.

    Attributes:
        catalogue: its translations.
        decimal_sign: what stands before the decimals.
    """

    catalogue: gettext.NullTranslations
    decimal_sign: str

    def template(self, one: str, many: str, count: int) -> str:
        """Return the translation of a template, or the template itself if there is none."""
        if many:
            return self.catalogue.ngettext(one, many, count)
        return self.catalogue.gettext(one) if one else one

    def numeral(self, text: str) -> str:
        """Return a number as the reader writes it."""
        return text.translate(_SWAPPED) if self.decimal_sign == "," else text


def catalogue_folders() -> tuple[Path, ...]:
    """Return the folders in which catalogues stand."""
    more = os.environ.get(_MORE_CATALOGUES)
    return (CATALOGUES, Path(more)) if more else (CATALOGUES,)


@cache
def languages() -> dict[str, Language]:
    """Return the languages there are by their tags, English first."""
    tags = {
        path.parent.parent.name
        for folder in catalogue_folders()
        for path in folder.glob(f"*/LC_MESSAGES/{DOMAIN}.mo")
    }
    return {tag: _language(tag) for tag in (ENGLISH, *sorted(tags - {ENGLISH}))}


def _language(tag: str) -> Language:
    locale = Locale.parse(tag)
    name = locale.get_display_name(locale) or tag
    sign = locale.number_symbols.get("latn", {}).get("decimal", ".")
    return Language(tag, name[:1].upper() + name[1:], "," if sign == "," else ".")


@cache
def speaker_for(tag: str, decimal_sign: str) -> Speaker:
    """Return who speaks a language; what there is no catalogue for is said in English.

    Args:
        tag: of the language.
        decimal_sign: one of ``DECIMAL_SIGNS``.
    """
    return _GettextSpeaker(catalogue_of(tag), decimal_sign)


@cache
def catalogue_of(tag: str) -> gettext.NullTranslations:
    """Return the translations into a language; none for English."""
    for folder in catalogue_folders():
        if tag in languages() and gettext.find(DOMAIN, folder, [tag]):
            return gettext.translation(DOMAIN, folder, [tag])
    return gettext.NullTranslations()


def browser_words(tag: str) -> dict[str, list[str]]:
    """Return what the scripts of the pages say in a language: translations by English texts.

    A text has one translation, or one for one thing and one for several.
    """
    for folder in catalogue_folders():
        path = folder / tag / "browser.json"
        if tag in languages() and path.is_file():
            words: dict[str, list[str]] = json.loads(path.read_text())
            return words
    return {}

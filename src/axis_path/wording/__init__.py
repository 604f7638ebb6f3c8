"""The catalogue of messages: what is said to the reader, in the reader's language."""

from axis_path.wording.language import (
    DECIMAL_SIGNS,
    ENGLISH,
    Language,
    browser_words,
    catalogue_folders,
    languages,
    speaker_for,
)
from axis_path.wording.speaking import (
    Reader,
    current_reader,
    reader_in,
    reader_speaker,
    say,
    speaking,
)

__all__ = [
    "DECIMAL_SIGNS",
    "ENGLISH",
    "Language",
    "Reader",
    "browser_words",
    "catalogue_folders",
    "current_reader",
    "languages",
    "reader_in",
    "reader_speaker",
    "say",
    "speaker_for",
    "speaking",
]

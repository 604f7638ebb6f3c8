"""Who reads the present page, and the words of the catalogue for the templates and scripts."""

from __future__ import annotations

import json
from functools import cache
from typing import Any

from flask import Flask, g, has_request_context, request, session
from flask_babel import Babel

from axis_path.wording import (
    DECIMAL_SIGNS,
    ENGLISH,
    Reader,
    browser_words,
    catalogue_folders,
    languages,
    speaking,
)

LANGUAGE = "language"
DECIMAL_SIGN = "decimal_sign"


def register(app: Flask) -> None:
    """Let templates and errors speak the language of the reader."""
    Babel(
        app,
        default_translation_directories=";".join(map(str, catalogue_folders())),
        locale_selector=lambda: present_reader().language,
    )
    app.before_request(_begin)
    app.teardown_request(_end)
    app.jinja_env.globals.update(
        reader=present_reader, languages=languages, browser_words=browser_words_json
    )


def present_reader() -> Reader:
    """Return who reads: what was chosen, else what the browser asks for."""
    if not has_request_context():
        return Reader()
    known = languages()
    tag = session.get(LANGUAGE)
    if tag not in known:
        tag = request.accept_languages.best_match(list(known)) or ENGLISH
    sign = session.get(DECIMAL_SIGN)
    return Reader(tag, sign if sign in DECIMAL_SIGNS else known[tag].decimal_sign)


def browser_words_json() -> str:
    """Return what the scripts say in the reader's language, as JSON; empty for English."""
    return _words(present_reader().language)


@cache
def _words(tag: str) -> str:
    words = browser_words(tag)
    # A page may hold it: no text in it can end its element.
    return json.dumps(words, ensure_ascii=False).replace("<", "\\u003c") if words else ""


def _begin() -> None:
    g.speaking = speaking(present_reader())
    g.speaking.__enter__()


def _end(_error: BaseException | None) -> None:
    spoken: Any = g.pop("speaking", None)
    if spoken is not None:
        spoken.__exit__(None, None, None)

"""What happens when a reader chooses a language."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import redirect, request, session, url_for
from werkzeug.wrappers import Response

from axis_path.web.reader.reader import DECIMAL_SIGN, LANGUAGE, present_reader
from axis_path.wording import DECIMAL_SIGNS, languages


def choose() -> Response:
    """Keep the language and the decimal sign, and return to the page."""
    tag, sign = request.form.get("language"), request.form.get("decimal_sign")
    before = present_reader()
    # Another language brings its own sign, unless the reader changed the sign too.
    if tag in languages() and tag != before.language and sign == before.decimal_sign:
        session.pop(DECIMAL_SIGN, None)
    elif sign in DECIMAL_SIGNS:
        session[DECIMAL_SIGN] = sign
    if tag in languages():
        session[LANGUAGE] = tag
    session.permanent = True
    return redirect(_page_before())


def _page_before() -> str:
    """Return the address of the page that asked; no other site is led to."""
    came_from = urlsplit(request.form.get("page", ""))
    is_ours = not came_from.netloc and came_from.path.startswith("/") and came_from.path[1:2] != "/"
    return came_from.path if is_ours else url_for("studies.index")

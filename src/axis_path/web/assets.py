"""Static files: addresses that change with their content, and icons for the templates."""

from __future__ import annotations

import hashlib
from functools import cache
from pathlib import Path

from flask import Flask, Response, abort, send_from_directory, url_for
from jinja2 import ChoiceLoader, FileSystemLoader
from markupsafe import Markup

from axis_path.web.compression import accepts_gzip, compress, compressed_file, is_text, put

_STATIC = Path(__file__).parent / "static"
#: The address of a file holds the mark of its content, so it never needs to be asked for again.
_FOREVER = "public, max-age=31536000, immutable"


@cache
def _fingerprint(_modified: tuple[tuple[str, int], ...]) -> str:
    digest = hashlib.sha256()
    for path in sorted(_STATIC.rglob("*")):
        if path.is_file():
            digest.update(path.read_bytes())
    return digest.hexdigest()[:12]


def static_version() -> str:
    """Return a mark of all static files together."""
    return _fingerprint(
        tuple(sorted((str(p), p.stat().st_mtime_ns) for p in _STATIC.rglob("*") if p.is_file()))
    )


@cache
def panel_names() -> tuple[str, ...]:
    """Return the names of the panels at the side: each is a folder with a template."""
    folder = _STATIC / "js/bench/panels"
    names = sorted(path.stem for path in folder.glob("*/*.html") if path.stem == path.parent.name)
    # Findings have marks on the plane: they come first.
    return tuple(sorted(names, key=lambda name: name != "findings"))


@cache
def icon(name: str) -> Markup:
    """Return an icon as inline SVG; it is decoration, the button beside it has a name."""
    svg = (_STATIC / "icons" / f"{name}.svg").read_text()
    svg = svg.replace("<svg ", '<svg aria-hidden="true" focusable="false" ', 1)
    # Our own shipped files, no text from anyone else.
    return Markup(svg)  # noqa: S704


def register_assets(app: Flask) -> None:
    """Serve static files under an address with their version, and compress what is text."""
    version = static_version()
    app.add_url_rule("/assets/<version>/<path:filename>", endpoint="assets", view_func=_send_asset)
    app.jinja_env.globals["icon"] = icon
    app.jinja_env.globals["panel_names"] = panel_names
    # The template of a panel stands with its scripts.
    own = FileSystemLoader(_STATIC / "js")
    app.jinja_loader = ChoiceLoader([app.jinja_loader, own] if app.jinja_loader else [own])
    app.jinja_env.globals["asset"] = lambda filename: url_for(
        "assets", version=version, filename=filename
    )
    app.after_request(compress)


def _send_asset(version: str, filename: str) -> Response:
    # One spelling for each file: another one would be compressed, and kept, once more.
    if filename not in _files() or filename.endswith(".html"):
        abort(404)
    response = send_from_directory(_STATIC, filename, conditional=True)
    response.headers["Cache-Control"] = _FOREVER
    if response.status_code == 200 and is_text(response) and accepts_gzip():
        path = _STATIC / filename
        body = compressed_file(str(path), path.stat().st_mtime_ns)
        # The file that would have been sent is open already.
        response.close()
        response.direct_passthrough = False
        put(response, body)
    return response


@cache
def _files() -> frozenset[str]:
    return frozenset(
        path.relative_to(_STATIC).as_posix() for path in _STATIC.rglob("*") if path.is_file()
    )

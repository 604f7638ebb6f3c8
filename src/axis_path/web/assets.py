"""Static files: addresses that change with their content, and icons for the templates."""

from __future__ import annotations

import gzip
import hashlib
from functools import cache
from pathlib import Path

from flask import Flask, Response, abort, send_from_directory, url_for
from markupsafe import Markup

from axis_path.web import modules
from axis_path.web.compression import accepts_gzip, compress, compressed_file, is_text, put

_STATIC = Path(__file__).parent / "static"
#: The address of a file holds the mark of its content, so it never needs to be asked for again.
_FOREVER = "public, max-age=31536000, immutable"
#: The scripts of pages, which are sent with all that they import.
PAGE_SCRIPTS = ("js/bench/main.js", "js/bench/curves.worker.js", "js/studies/main.js")


@cache
def _fingerprint(_modified: tuple[tuple[str, int], ...]) -> str:
    # Scripts are joined on their way: how that is done is a part of them.
    digest = hashlib.sha256(Path(modules.__file__).read_bytes())
    for path in sorted(_STATIC.rglob("*")):
        if path.is_file():
            digest.update(path.read_bytes())
    return digest.hexdigest()[:12]


def static_version() -> str:
    """Return a mark of all static files together: modules import one another by relative paths."""
    return _fingerprint(
        tuple(sorted((str(p), p.stat().st_mtime_ns) for p in _STATIC.rglob("*") if p.is_file()))
    )


@cache
def icon(name: str) -> Markup:
    """Return an icon as inline SVG; it is decoration, the button beside it has a name."""
    svg = (_STATIC / "icons" / f"{name}.svg").read_text()
    svg = svg.replace("<svg ", '<svg aria-hidden="true" focusable="false" ', 1)
    # Our own shipped files, no text from anyone else.
    return Markup(svg)  # noqa: S704


@cache
def _joined(entry: str) -> bytes:
    """Return a page's script with all modules that it imports."""
    beside = "../" * (entry.count("/") + 1)
    return modules.join_modules(entry, lambda path: (_STATIC / path).read_text(), beside).encode()


@cache
def _compressed_script(entry: str) -> bytes:
    return gzip.compress(_joined(entry), 9)


def register_assets(app: Flask) -> None:
    """Serve static files under an address with their version, and compress what is text."""
    version = static_version()
    app.add_url_rule("/assets/<version>/<path:filename>", endpoint="assets", view_func=_send_asset)
    app.jinja_env.globals["icon"] = icon
    for entry in PAGE_SCRIPTS:
        _joined(entry)
    app.add_url_rule(
        "/assets/<version>/joined/<path:entry>", endpoint="script", view_func=_send_script
    )
    app.jinja_env.globals["script"] = lambda entry: url_for("script", version=version, entry=entry)
    app.jinja_env.globals["asset"] = lambda filename: url_for(
        "assets", version=version, filename=filename
    )
    app.after_request(compress)


def _send_script(version: str, entry: str) -> Response:
    if entry not in PAGE_SCRIPTS:
        abort(404)
    response = Response(_joined(entry), mimetype="text/javascript")
    response.headers["Cache-Control"] = _FOREVER
    if accepts_gzip():
        put(response, _compressed_script(entry))
    return response


def _send_asset(version: str, filename: str) -> Response:
    # One spelling for each file: another one would be compressed, and kept, once more.
    if filename not in _files():
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

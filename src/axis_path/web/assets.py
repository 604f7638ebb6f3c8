"""Static files: addresses that change with their content, and icons for the templates."""

from __future__ import annotations

import gzip
import hashlib
from functools import cache
from pathlib import Path

from flask import Flask, Response, abort, request, send_from_directory, url_for
from markupsafe import Markup

from axis_path.web import modules

_STATIC = Path(__file__).parent / "static"
_COMPRESSED = {"text/css", "text/javascript", "application/javascript", "application/json",
               "text/html", "image/svg+xml"}  # fmt: skip
_PROXY_HEADERS = ("Forwarded", "Via", "X-Forwarded-For", "X-Real-IP")
_SMALLEST_COMPRESSED = 600
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
    app.after_request(_compress)


def _send_script(version: str, entry: str) -> Response:
    if entry not in PAGE_SCRIPTS:
        abort(404)
    is_compressed = "gzip" in request.headers.get("Accept-Encoding", "")
    data = _compressed_script(entry) if is_compressed else _joined(entry)
    response = Response(data, mimetype="text/javascript")
    response.headers["Cache-Control"] = _FOREVER
    response.headers["Vary"] = "Accept-Encoding"
    if is_compressed:
        response.headers["Content-Encoding"] = "gzip"
    return response


def _send_asset(version: str, filename: str) -> Response:
    # One spelling for each file: another one would be compressed, and kept, once more.
    if filename not in _files():
        abort(404)
    response = send_from_directory(_STATIC, filename, conditional=True)
    response.headers["Cache-Control"] = _FOREVER
    return response


@cache
def _files() -> frozenset[str]:
    return frozenset(
        path.relative_to(_STATIC).as_posix() for path in _STATIC.rglob("*") if path.is_file()
    )


@cache
def _compressed_file(path: str, modified: int) -> bytes:
    return gzip.compress(Path(path).read_bytes(), 9)


def _compress(response: Response) -> Response:
    accepts = "gzip" in request.headers.get("Accept-Encoding", "")
    if not accepts or response.status_code != 200 or response.mimetype not in _COMPRESSED:
        return response
    if request.endpoint == "assets":
        path = _STATIC / (request.view_args or {})["filename"]
        body = _compressed_file(str(path), path.stat().st_mtime_ns)
        # The file that would have been sent is open already.
        response.close()
        response.direct_passthrough = False
    else:
        plain = response.get_data()
        if len(plain) < _SMALLEST_COMPRESSED or _is_own_browser():
            # On loopback the time to compress is more than the time to send.
            return response
        body = gzip.compress(plain, 1)
    response.set_data(body)
    response.headers["Content-Encoding"] = "gzip"
    response.headers["Vary"] = "Accept-Encoding"
    return response


def _is_own_browser() -> bool:
    """Check whether a browser on this machine asks, and no proxy on it for somebody else."""
    is_passed_on = any(name in request.headers for name in _PROXY_HEADERS)
    return request.remote_addr == "127.0.0.1" and not is_passed_on

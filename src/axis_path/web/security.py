"""Headers that close what the pages do not need."""

from __future__ import annotations

from flask import Flask
from werkzeug.wrappers import Response

_POLICY = "; ".join(
    (
        "default-src 'none'",
        "script-src 'self'",
        "worker-src 'self'",
        "style-src 'self'",
        "img-src 'self' data:",
        "font-src 'self'",
        "connect-src 'self'",
        "form-action 'self'",
        "base-uri 'none'",
        "frame-ancestors 'none'",
    )
)
_HEADERS = {
    "Content-Security-Policy": _POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(), geolocation=(), microphone=()",
}


def register(app: Flask) -> None:
    """Add the headers to every answer."""

    @app.after_request
    def add_headers(response: Response) -> Response:
        for name, value in _HEADERS.items():
            response.headers.setdefault(name, value)
        if "Cache-Control" not in response.headers:
            response.headers["Cache-Control"] = "no-store"
        return response

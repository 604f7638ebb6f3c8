"""The application factory."""

from __future__ import annotations

from flask import Flask, redirect, url_for
from flask_wtf import CSRFProtect
from werkzeug.wrappers import Response

from axis_path.store import make_engine
from axis_path.web import errors, security
from axis_path.web.assets import register_assets
from axis_path.web.bench import routes as bench
from axis_path.web.bench import wire
from axis_path.web.reference import routes as reference
from axis_path.web.settings import Settings
from axis_path.web.state import STATE_KEY, WebState
from axis_path.web.studies import routes as studies

#: The largest request: a study of 500 full lines is about 1 MB.
_LARGEST_REQUEST = 4 * 1024 * 1024


def create_app(settings: Settings) -> Flask:
    """Make the application."""
    app = Flask(__name__, static_folder=None)
    app.config.update(
        SECRET_KEY=settings.secret_key,
        MAX_CONTENT_LENGTH=_LARGEST_REQUEST,
        SESSION_COOKIE_SAMESITE="Strict",
        SESSION_COOKIE_HTTPONLY=True,
        SOCK_SERVER_OPTIONS=wire.OPTIONS,
        # The token lives as long as the session, so that a page left open overnight still works.
        WTF_CSRF_TIME_LIMIT=None,
    )
    app.extensions[STATE_KEY] = WebState(make_engine(settings.database_url))
    CSRFProtect(app)
    app.register_blueprint(studies.blueprint)
    app.register_blueprint(bench.blueprint)
    app.register_blueprint(reference.blueprint)
    register_assets(app)
    security.register(app)
    errors.register(app)
    app.add_url_rule("/", view_func=_home, endpoint="home")
    app.add_url_rule("/health", view_func=_health, endpoint="health")
    return app


def _home() -> Response:
    return redirect(url_for("studies.index"))


def _health() -> tuple[str, int, dict[str, str]]:
    return "ok\n", 200, {"Content-Type": "text/plain"}

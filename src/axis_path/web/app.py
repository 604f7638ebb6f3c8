"""The application factory."""

from __future__ import annotations

from flask import Flask, redirect, request, url_for
from flask_wtf import CSRFProtect
from markupsafe import Markup, escape
from sqlalchemy import text
from werkzeug.exceptions import SecurityError
from werkzeug.wrappers import Response

from axis_path.compute import Compute, InProcess
from axis_path.store import make_engine
from axis_path.web import errors, security
from axis_path.web.assets import register_assets
from axis_path.web.bench import routes as bench
from axis_path.web.bench import scene_socket
from axis_path.web.bench.prefetch import PrefetchPolicy
from axis_path.web.reader import reader
from axis_path.web.reader import routes as reader_routes
from axis_path.web.reference import routes as reference
from axis_path.web.settings import Settings
from axis_path.web.state import STATE_KEY, WebState, web_state
from axis_path.web.studies import routes as studies

#: The largest request: a study of 500 full lines is about 1 MB.
_LARGEST_REQUEST = 4 * 1024 * 1024
_PLAIN = {"Content-Type": "text/plain"}


def create_app(settings: Settings, compute: Compute | None = None) -> Flask:
    """Make the application.

    Args:
        settings: where the database is, and the like.
        compute: what answers the Bench; by default this very process, without workers.
    """
    app = Flask(__name__, static_folder=None)
    app.config.update(
        SECRET_KEY=settings.secret_key,
        MAX_CONTENT_LENGTH=_LARGEST_REQUEST,
        SESSION_COOKIE_SAMESITE="Strict",
        SESSION_COOKIE_HTTPONLY=True,
        SOCK_SERVER_OPTIONS=scene_socket.OPTIONS,
        # A page of another name that leads here is not ours: it could read with a student's cookie.
        TRUSTED_HOSTS=list(settings.hosts),
        # The token lives as long as the session, so that a page left open overnight still works.
        WTF_CSRF_TIME_LIMIT=None,
    )
    app.extensions[STATE_KEY] = WebState(
        make_engine(settings.database_url),
        compute or InProcess(),
        PrefetchPolicy(is_on=settings.prefetch),
    )
    app.before_request(_check_host)
    CSRFProtect(app)
    app.register_blueprint(studies.blueprint)
    app.register_blueprint(bench.blueprint)
    app.register_blueprint(reference.blueprint)
    app.register_blueprint(reader_routes.blueprint)
    reader.register(app)
    register_assets(app)
    security.register(app)
    errors.register(app)
    app.jinja_env.filters["mathml"] = _mathml
    app.jinja_env.filters["sentence"] = _sentence
    app.add_url_rule("/", view_func=_home, endpoint="home")
    app.add_url_rule("/health", view_func=_health, endpoint="health")
    app.add_url_rule("/ready", view_func=_ready, endpoint="ready")
    return app


def _check_host() -> None:
    """Refuse a request under a name that is not ours.

    Raises:
        SecurityError: it is.
    """
    if not request.host:
        raise SecurityError


def _mathml(made: str) -> Markup:
    # The core made it from a syntax tree and escaped every text in it.
    return Markup(made)  # noqa: S704


def _sentence(text: str) -> Markup:
    """Return a sentence in which names and texts stand between backticks."""
    parts = text.split("`")
    marked = (
        Markup("<code>{}</code>").format(part) if k % 2 else escape(part)
        for k, part in enumerate(parts)
    )
    return Markup("").join(marked)


def _home() -> Response:
    return redirect(url_for("studies.index"))


def _health() -> tuple[str, int, dict[str, str]]:
    """Return 200: the web process answers."""
    return "ok\n", 200, _PLAIN


def _ready() -> tuple[str, int, dict[str, str]]:
    """Return 200 if the database answers, as every page needs it."""
    with web_state().engine.connect() as connection:
        connection.execute(text("SELECT 1"))
    return "ready\n", 200, _PLAIN

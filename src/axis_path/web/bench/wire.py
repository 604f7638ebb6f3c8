"""The wire: one connection on which a page asks for scene after scene.

A request of its own for each costs as much as half of a scene (`docs/decisions/007`). What is
asked and answered is the same as with `scene` and `reading`, which do it for a page without a wire.
"""

from __future__ import annotations

import contextlib
import socket
import threading
import time
import uuid
from collections.abc import Callable
from ipaddress import ip_address
from typing import Any, Final
from urllib.parse import urlsplit

import orjson
from flask import Blueprint, abort, request
from flask_sock import Sock
from simple_websocket import Server
from werkzeug.exceptions import BadRequest

from axis_path.web.answers import read_json
from axis_path.web.bench.answering import answer
from axis_path.web.errors import tell_error

#: Each wire holds a thread of its process; the others are for requests.
MOST_WIRES: Final = 64
#: The code with which a page is told that there is no room for its wire: it asks by requests.
FULL: Final = 4001
#: A wire that nobody uses is given up; the page makes a new one when a hand moves again.
_IDLE_S: Final = 120.0
#: So often it is looked whether the process has to end.
_WAKE_S: Final = 0.5
_LARGEST: Final = 1024 * 1024
#: So many questions may wait to be read.
_MOST_UNREAD: Final = 8
_PARTS: Final = ("scene", "reading")
_stopping = threading.Event()
_room = threading.BoundedSemaphore(MOST_WIRES)


class _Daemon(threading.Thread):
    """A thread that reads; the process does not wait for it."""

    def __init__(self, *, target: Callable[[], None]) -> None:
        super().__init__(target=target, daemon=True)


OPTIONS: Final = {"ping_interval": 25, "max_message_size": _LARGEST, "thread_class": _Daemon}


class _Inbox(list[Any]):
    """What has come in and was not read yet; a page that sends far ahead is cut off.

    A page of ours has one question under way.
    """

    def __init__(self, wire: Server) -> None:
        super().__init__(wire.input_buffer)
        self._wire = wire

    def append(self, message: Any) -> None:  # noqa: ANN401 - text or bytes
        """Take a message in, or end the connection."""
        if len(self) >= _MOST_UNREAD:
            self._wire.connected = False
            with contextlib.suppress(OSError):
                self._wire.sock.shutdown(socket.SHUT_RDWR)
            return
        super().append(message)


def register(blueprint: Blueprint) -> None:
    """Add the wire to the addresses of the Bench."""
    Sock().route("/wire", blueprint)(_serve)
    blueprint.before_request(_check)


def stop() -> None:
    """Let all wires end: the process does."""
    _stopping.set()


def _check() -> None:
    """Refuse a wire to the pages of others, which could otherwise read with a student's cookie.

    What is left of the request says whether messages are deflated: not to a page near by.
    """
    if request.environ.get("HTTP_UPGRADE", "").lower() != "websocket":
        return
    if urlsplit(request.headers.get("Origin", "")).netloc != request.host:
        abort(403)
    if _is_near():
        # Deflating takes longer than all else of the way between two programs of one machine.
        request.environ.pop("HTTP_SEC_WEBSOCKET_EXTENSIONS", None)


def _is_near() -> bool:
    """Tell whether the page is on this very machine, and no proxy speaks for it."""
    is_passed_on = "X-Forwarded-For" in request.headers or "Forwarded" in request.headers
    return not is_passed_on and ip_address(request.remote_addr or "0.0.0.0").is_loopback  # noqa: S104


def _serve(wire: Server, study_id: uuid.UUID) -> None:
    if not _room.acquire(blocking=False):
        wire.close(FULL, "too many pages are open")
        return
    try:
        wire.input_buffer = _Inbox(wire)
        used = time.monotonic()
        while not _stopping.is_set() and time.monotonic() - used < _IDLE_S:
            text = wire.receive(timeout=_WAKE_S)
            if text is not None:
                wire.send(_answered(study_id, text, lambda: not wire.connected))
                used = time.monotonic()
    except OSError:
        # The page has gone while it was answered.
        return
    finally:
        _room.release()


def _answered(study_id: uuid.UUID, text: str | bytes, is_gone: Callable[[], bool]) -> str:
    """Answer a question; an error is one of the answers."""
    try:
        given = read_json(text)
        body = text.encode() if isinstance(text, str) else text
        reply = answer(study_id, _part(given.get("part")), body, is_gone)
        if reply.status == 200:
            return reply.body.decode()
        told, status = orjson.loads(reply.body)["error"], reply.status
    except Exception as error:  # noqa: BLE001 - the page is told
        status, told = tell_error(error)
    return orjson.dumps({"error": told, "status": status}).decode()


def _part(name: object) -> str:
    if not isinstance(name, str) or name not in _PARTS:
        raise BadRequest
    return name

"""The socket: one connection on which a page asks for scene after scene.

A request of its own for each costs as much as half of a scene (`docs/decisions/007`). What is asked
and answered is the same as with `scene` and `reading`, which serve a page without a socket.
"""

from __future__ import annotations

import select
import threading
import time
import uuid
from collections.abc import Callable
from ipaddress import ip_address
from typing import Final
from urllib.parse import urlsplit

import orjson
from flask import Blueprint, abort, request
from flask_sock import Sock
from simple_websocket import ConnectionClosed, Server
from werkzeug.exceptions import BadRequest
from wsproto.events import Ping
from wsproto.utilities import LocalProtocolError

from axis_path.web.answers import read_json
from axis_path.web.bench.answering import answer
from axis_path.web.errors import describe_error

#: Each socket holds a thread of its process; the others are for requests.
MOST_SOCKETS: Final = 64
#: The code with which a socket is refused when there are too many: the page falls back to requests.
FULL: Final = 4001
#: A socket that nobody uses is given up; the page makes a new one when something is dragged again.
_IDLE_S: Final = 120.0
#: So often it is checked whether the process has to end.
_WAKE_MS: Final = 500
#: So often a page is asked whether it is still there. It is given up if it has not answered by the
#: next time, or does not take in an answer for so long.
_PING_S: Final = 25.0
_LARGEST: Final = 1024 * 1024
_BLOCK: Final = 64 * 1024
#: A page of ours has one question under way; one that sends so many ahead is cut off.
_MOST_UNREAD: Final = 8
#: While a page is answered, so many blocks of what it sends are read at a time.
_MOST_BLOCKS: Final = 16
_PARTS: Final = ("scene", "reading")
_stopping = threading.Event()
_room = threading.BoundedSemaphore(MOST_SOCKETS)


class _NoThread:
    """Stands for the thread in which ``simple_websocket`` would read."""

    name = ""

    def __init__(self, *, target: Callable[[], None]) -> None:
        del target

    def start(self) -> None:
        """Do nothing."""


OPTIONS: Final = {"max_message_size": _LARGEST, "thread_class": _NoThread}


class _Reader:
    """Reads a socket in the thread that answers it.

    Passing each question on from a thread that reads would cost a tenth of a frame.

    Args:
        socket: a connection whose handshake is done.
    """

    def __init__(self, socket: Server) -> None:
        self._socket = socket
        socket.sock.settimeout(_PING_S)
        self._poll = select.poll()
        self._poll.register(socket.sock, select.POLLIN)
        self._ping_at = time.monotonic() + _PING_S

    def receive(self, wait_ms: int) -> str | bytes | None:
        """Wait for a question; return None if none comes in time, or the page has gone.

        Raises:
            OSError: the connection is broken.
        """
        if not self._socket.input_buffer:
            self._read(wait_ms)
            self._ping()
        return self._socket.input_buffer.pop(0) if self._socket.input_buffer else None

    def has_gone(self) -> bool:
        """Check whether the page has gone while its question is answered, or sends far ahead."""
        try:
            for _ in range(_MOST_BLOCKS):
                if not (self._socket.connected and self._read(0)):
                    break
        except OSError:
            return True
        return not self._socket.connected

    def _read(self, wait_ms: int) -> bool:
        """Wait for something to be sent, and read it; return whether there was anything."""
        if not self._poll.poll(wait_ms):
            return False
        block = self._socket.sock.recv(_BLOCK)
        is_open = bool(block)
        if is_open:
            self._socket.ws.receive_data(block)
            # What the library's own thread does with what it reads.
            is_open = self._socket._handle_events()
        self._socket.connected = is_open and len(self._socket.input_buffer) <= _MOST_UNREAD
        return True

    def _ping(self) -> None:
        now = time.monotonic()
        if now < self._ping_at:
            return
        if not self._socket.pong_received:
            self._socket.connected = False
            return
        self._socket.pong_received = False
        self._socket.sock.sendall(self._socket.ws.send(Ping()))
        self._ping_at = now + _PING_S


def register(blueprint: Blueprint) -> None:
    """Add the socket to the addresses of the Bench."""
    Sock().route("/socket", blueprint)(_serve)
    blueprint.before_request(_check)


def stop() -> None:
    """Let all sockets end: the process does."""
    _stopping.set()


def _check() -> None:
    """Refuse a socket to the pages of others, which could otherwise read with a student's cookie.

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
    """Check whether the page is on this very machine, and no proxy speaks for it."""
    is_passed_on = "X-Forwarded-For" in request.headers or "Forwarded" in request.headers
    return not is_passed_on and ip_address(request.remote_addr or "0.0.0.0").is_loopback  # noqa: S104


def _serve(socket: Server, study_id: uuid.UUID) -> None:
    if not _room.acquire(blocking=False):
        socket.close(FULL, "too many pages are open")
        return
    try:
        reader = _Reader(socket)
        used = time.monotonic()
        while socket.connected and not _stopping.is_set() and time.monotonic() - used < _IDLE_S:
            text = reader.receive(_WAKE_MS)
            if text is not None:
                socket.send(_answered(study_id, text, reader.has_gone))
                used = time.monotonic()
    except (OSError, ConnectionClosed, LocalProtocolError):
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
        described, status = orjson.loads(reply.body)["error"], reply.status
    except Exception as error:  # noqa: BLE001 - the page gets the error
        status, described = describe_error(error)
    return orjson.dumps({"error": described, "status": status}).decode()


def _part(name: object) -> str:
    if not isinstance(name, str) or name not in _PARTS:
        raise BadRequest
    return name

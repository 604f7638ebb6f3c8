"""Ask a worker for what the Bench wants, and send its answer on as it is."""

from __future__ import annotations

import select
import socket
import uuid
from collections.abc import Callable, Iterator
from contextlib import ExitStack, contextmanager
from typing import Any, Final

import orjson
from flask import Response, request, session

from axis_path.compute import Caller, Lease, Limits, Query, Reply
from axis_path.core.limits import COMMAND_TIME, FILE_TIME
from axis_path.store import load_document
from axis_path.web.errors import RefusedError
from axis_path.web.state import database, web_state
from axis_path.wording import current_reader

USUAL: Final = Limits()
#: What keeps something is carried out to its end, so it may take a little longer.
COMMITTING: Final = Limits(total_s=COMMAND_TIME.value / 1000)
#: The picture of a change that was committed: one that takes longer is asked for apart.
COMMITTED: Final = Limits(step_s=0.8, total_s=1.6)
#: A file is sent while it is made.
FILE: Final = Limits(total_s=FILE_TIME.value / 1000)
_PERSON: Final = "csrf_token"


def person() -> str:
    """Return who asks: one browser; what it holds is no secret to the pool."""
    return str(session.get(_PERSON) or request.remote_addr or "")


def is_gone() -> Callable[[], bool]:
    """Return what tells whether the browser has hung up on the present request."""
    connection = request.environ.get("gunicorn.socket")
    return lambda: is_closed(connection)


def is_closed(connection: object) -> bool:
    """Check whether the other side of a connection has hung up.

    Args:
        connection: the socket of the request; whatever is none is taken as open.
    """
    if not isinstance(connection, socket.socket):
        return False
    try:
        poll = select.poll()
        poll.register(connection, select.POLLIN)
        is_readable = bool(poll.poll(0))
        return is_readable and not connection.recv(1, socket.MSG_PEEK | socket.MSG_DONTWAIT)
    except BlockingIOError:
        return False
    except (OSError, ValueError):
        return True


def document_loader(study_id: uuid.UUID) -> Callable[[int], bytes]:
    """Return what reads a version of a study from the database for a worker that lacks it."""

    def load(version: int) -> bytes:
        with database() as db:
            return load_document(db, study_id, version)

    return load


@contextmanager
def worker_for(study_id: uuid.UUID, gone: Callable[[], bool] | None = None) -> Iterator[Lease]:
    """Lease a worker for the present request."""
    with web_state().compute.lease(Caller(person(), study_id, gone or is_gone())) as lease:
        yield lease


def query_of(
    study_id: uuid.UUID,
    task: str,
    *,
    body: bytes | None = None,
    context: dict[str, Any] | None = None,
    limits: Limits = USUAL,
    gone: Callable[[], bool] | None = None,
) -> Query:
    """Return a question about a study; by default with the body of the present request."""
    sent = request.get_data() if body is None else body
    known = {**(context or {}), "reader": current_reader().as_context()}
    return Query(task, study_id, sent, document_loader(study_id), known, limits, gone or is_gone())


def computed_json(lease: Lease, query: Query) -> dict[str, Any]:
    """Return a worker's answer as plain data.

    Raises:
        RefusedError: the answer is an error.
    """
    reply = lease.ask(query)
    answer: dict[str, Any] = orjson.loads(reply.body)
    if reply.status != 200:
        raise RefusedError(reply.status, answer["error"])
    return answer


def answer_file(study_id: uuid.UUID, task: str, context: dict[str, Any] | None = None) -> Response:
    """Answer the present request with a file, sent while the worker makes it."""
    with ExitStack() as stack:
        caller = Caller(person(), study_id, is_gone(), is_long=True)
        lease = stack.enter_context(web_state().compute.lease(caller))
        reply = lease.ask(query_of(study_id, task, context=context, limits=FILE))
        response = sent(reply)
        if reply.more is not None:
            # The worker is held until the last block was sent, or the browser has hung up.
            response.call_on_close(stack.pop_all().close)
    return response


def sent(reply: Reply) -> Response:
    """Return a worker's answer as a response."""
    if reply.more is not None:
        return Response(_blocks(reply), reply.status, mimetype=reply.media_type)
    return Response(reply.body, reply.status, mimetype=reply.media_type)


def _blocks(reply: Reply) -> Iterator[bytes]:
    yield reply.body
    yield from reply.more or ()

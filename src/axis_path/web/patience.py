"""How long a request may compute, and whether its page still waits for the answer."""

from __future__ import annotations

import select
import socket
import time
from collections.abc import Callable
from functools import wraps
from typing import ParamSpec, TypeVar

from flask import request

from axis_path.core import Patience, waiting

P = ParamSpec("P")
R = TypeVar("R")


def with_patience(view: Callable[P, R]) -> Callable[P, R]:
    """Compute a view that keeps nothing: as long as the limits allow and its page waits."""

    @wraps(view)
    def limited(*args: P.args, **kwargs: P.kwargs) -> R:
        connection = request.environ.get("gunicorn.socket")
        with waiting(Patience(time.monotonic, is_cancelled=lambda: is_closed(connection))):
            return view(*args, **kwargs)

    return limited


def is_closed(connection: object) -> bool:
    """Tell whether the other side of a connection has hung up.

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

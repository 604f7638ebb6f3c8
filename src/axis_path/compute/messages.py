"""What goes between the web and a worker: a head of plain data and a body of bytes.

One message is the head as JSON, a line feed, and the body. An empty message cancels what the worker
is doing.
"""

from __future__ import annotations

from multiprocessing.connection import Connection
from typing import Any

import orjson

#: Nobody waits for the answer any more.
CANCEL = b""


def send(connection: Connection, head: dict[str, Any], body: bytes = b"") -> None:
    """Send a message.

    Raises:
        OSError: the other side has ended.
    """
    connection.send_bytes(orjson.dumps(head) + b"\n" + body)


def split(message: bytes) -> tuple[dict[str, Any], bytes]:
    """Return the head and the body of a message that is not ``CANCEL``."""
    head, _, body = message.partition(b"\n")
    return orjson.loads(head), body

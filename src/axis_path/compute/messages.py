"""What goes between the web and a worker: a head of plain data and a body of bytes.

A message is its length, the head as JSON, a line feed, and the body. An empty message cancels what
the worker is doing. Each message is sent and received at once: every further call that wakes the
other process costs a tenth of a frame.
"""

from __future__ import annotations

import select
import socket
import struct
from typing import Any

import orjson

_LENGTH = struct.Struct("!I")
#: So many bytes are asked for at once; a scene has some 30,000.
_BLOCK = 64 * 1024


class Channel:
    """One end of a pair of sockets.

    Args:
        connection: a connected socket of the kind STREAM, which waits.
    """

    def __init__(self, connection: socket.socket) -> None:
        self._socket = connection
        self._received = b""
        # Made once: one for each message would cost more than the message's way.
        self._poll = select.poll()
        self._poll.register(connection, select.POLLIN)

    def send(self, head: dict[str, Any], body: bytes = b"") -> None:
        """Send a message.

        Raises:
            OSError: the other side has ended.
        """
        text = orjson.dumps(head)
        length = _LENGTH.pack(len(text) + 1 + len(body))
        self._socket.sendall(b"".join((length, text, b"\n", body)))

    def cancel(self) -> None:
        """Cancel what the worker is doing: nobody waits for the answer any more.

        Raises:
            OSError: the other side has ended.
        """
        self._socket.sendall(_LENGTH.pack(0))

    def receive(self) -> tuple[dict[str, Any], bytes] | None:
        """Wait for a message and return its head and body; None if it cancels.

        Raises:
            EOFError: the other side has ended.
            OSError: this side was closed.
        """
        (length,) = _LENGTH.unpack(self._take(_LENGTH.size))
        if not length:
            return None
        head, _, body = self._take(length).partition(b"\n")
        return orjson.loads(head), body

    def poll(self, wait_ms: int = 0) -> bool:
        """Wait until something has arrived or the other side has ended; return whether it has."""
        return bool(self._received) or bool(self._poll.poll(wait_ms))

    def close(self) -> None:
        """Close this side."""
        self._socket.close()

    def _take(self, size: int) -> bytes:
        blocks, missing = [self._received], size - len(self._received)
        while missing > 0:
            block = self._socket.recv(_BLOCK)
            if not block:
                raise EOFError
            blocks.append(block)
            missing -= len(block)
        whole = b"".join(blocks)
        self._received = whole[size:]
        return whole[:size]

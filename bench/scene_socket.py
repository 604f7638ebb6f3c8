"""A light client for the socket of a page: a whole library in twenty threads would be what is measured."""

from __future__ import annotations

import base64
import os
import socket
import struct
import time
import zlib

_TEXT, _CLOSE, _PING, _PONG = 1, 8, 9, 10


class Socket:
    """One connection, as RFC 6455 and RFC 7692 (deflated messages) have it."""

    def __init__(self, base: str, path: str) -> None:
        host, _, port = base.removeprefix("http://").partition(":")
        self._socket = socket.create_connection((host, int(port)))
        self._inflate = zlib.decompressobj(-15)
        key = base64.b64encode(os.urandom(16)).decode()
        self._socket.sendall(
            f"GET {path} HTTP/1.1\r\nHost: {host}:{port}\r\nOrigin: {base}\r\nUpgrade: websocket\r\n"
            f"Connection: Upgrade\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: {key}\r\n"
            "Sec-WebSocket-Extensions: permessage-deflate\r\n\r\n".encode()
        )
        self._buffer = self._socket.makefile("rb")
        while self._buffer.readline() != b"\r\n":
            pass

    def is_open_after(self, seconds: float) -> bool:
        """Check whether the server has not sent us on after some time."""
        time.sleep(seconds)
        self._socket.setblocking(False)
        try:
            self._socket.recv(1, socket.MSG_PEEK)
            return False
        except BlockingIOError:
            return True
        finally:
            self._socket.setblocking(True)

    def ask(self, question: str) -> str:
        """Send a question, and wait for its answer."""
        self._send(_TEXT, question.encode())
        while True:
            first, second = self._buffer.read(2)
            size = second & 127
            if size == 126:
                (size,) = struct.unpack(">H", self._buffer.read(2))
            elif size == 127:
                (size,) = struct.unpack(">Q", self._buffer.read(8))
            data = self._buffer.read(size)
            if first & 15 == _PING:
                self._send(_PONG, data)
            elif first & 15 == _CLOSE:
                raise ConnectionError(data[2:].decode())
            elif first & 64:
                return self._inflate.decompress(data + b"\x00\x00\xff\xff").decode()
            else:
                return data.decode()

    def close(self) -> None:
        """End it."""
        self._socket.close()

    def _send(self, kind: int, data: bytes) -> None:
        size = len(data)
        head = (
            bytes([128 | kind, 128 | size])
            if size < 126
            else struct.pack(">BBH", 128 | kind, 254, size)
        )
        # A mask of zeros leaves the data as they are.
        self._socket.sendall(head + bytes(4) + data)


def socket_of(base: str, path: str) -> Socket:
    """Make a socket, as a page does: a process that has more than another sends it on."""
    while True:
        socket = Socket(base, path)
        if socket.is_open_after(2.0):
            return socket
        socket.close()

"""A way to a server that can be made to hang, or to be cut: what a network does."""

from __future__ import annotations

import contextlib
import socket
import threading


class Proxy:
    """Passes bytes on between whoever connects and a server.

    Args:
        port: the server's, on loopback.
    """

    def __init__(self, port: int) -> None:
        self._port = port
        self._listener = socket.create_server(("127.0.0.1", 0))
        self.port: int = self._listener.getsockname()[1]
        self._goes_on = threading.Event()
        self._goes_on.set()
        threading.Thread(target=self._accept, daemon=True).start()

    def hang(self) -> None:
        """Take everything and pass nothing on."""
        self._goes_on.clear()

    def go_on(self) -> None:
        """Pass on what has waited, and all that comes."""
        self._goes_on.set()

    def close(self) -> None:
        """Take no more connections."""
        self._goes_on.set()
        self._listener.close()

    def _accept(self) -> None:
        with contextlib.suppress(OSError):
            while True:
                ours, _ = self._listener.accept()
                self._goes_on.wait()
                theirs = socket.create_connection(("127.0.0.1", self._port))
                for one, other in ((ours, theirs), (theirs, ours)):
                    threading.Thread(target=self._pass_on, args=(one, other), daemon=True).start()

    def _pass_on(self, one: socket.socket, other: socket.socket) -> None:
        with contextlib.suppress(OSError):
            while data := one.recv(1 << 16):
                self._goes_on.wait()
                other.sendall(data)
        for end in (one, other):
            with contextlib.suppress(OSError):
                end.shutdown(socket.SHUT_RDWR)
            end.close()

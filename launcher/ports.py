"""Free ports on loopback."""

import socket

from launcher.say import LauncherError

HOST = "127.0.0.1"


def any_free_port() -> int:
    """Return a port that is free now."""
    with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as probe:
        probe.bind((HOST, 0))
        port: int = probe.getsockname()[1]
    return port


def listen(wanted: int) -> socket.socket:
    """Open ``wanted``, or the next free port after it, for connections.

    Raises:
        LauncherError: none of the next hundred is free.
    """
    for port in range(wanted, min(wanted + 100, 65_536)):
        listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind((HOST, port))
        except OSError:
            listener.close()
            continue
        listener.listen(1024)
        return listener
    raise LauncherError(f"No port from {wanted} to {wanted + 99} is free.")

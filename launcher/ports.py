"""Free ports on loopback."""

import socket

from launcher.say import LauncherError

HOST = "127.0.0.1"


def is_free(port: int) -> bool:
    """Tell whether a server could listen on a port."""
    with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((HOST, port))
        except OSError:
            return False
    return True


def any_free_port() -> int:
    """Give a port that is free now."""
    with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as probe:
        probe.bind((HOST, 0))
        port: int = probe.getsockname()[1]
    return port


def first_free_port(wanted: int) -> int:
    """Give ``wanted``, or the next free port after it.

    Raises:
        LauncherError: none of the next hundred is free.
    """
    for port in range(wanted, min(wanted + 100, 65_536)):
        if is_free(port):
            return port
    raise LauncherError(f"No port from {wanted} to {wanted + 99} is free.")

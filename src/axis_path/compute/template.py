"""The template process: it has loaded everything once, and forks workers from itself.

Who wants a worker makes a pair of sockets and sends one of them here; the child takes it for its
connection. The template has one thread, and keeps nothing but the process ids of its children.
"""

from __future__ import annotations

import ctypes
import gc
import os
import signal
import socket

from axis_path.compute.forked import run_forked
from axis_path.compute.messages import Channel
from axis_path.compute.worker import serve
from axis_path.core.evaluate import run_exact_work_with

_ORDER = b"worker"
#: How a worker is called in lists of processes.
_NAME, _PR_SET_NAME = b"axis-path-calc", 15
#: A worker says that it is there within this time.
_HELLO_MS = 20_000


class Template:
    """The way to a template process, for whoever wants workers.

    Args:
        channel: a socket of the kind SEQPACKET whose other end ``fork_worker`` reads.
    """

    def __init__(self, channel: socket.socket) -> None:
        self._channel = channel

    def make_worker(self) -> tuple[Channel, int, bool]:
        """Return the channel to a new worker, its process id, and whether it is an early one.

        An early one was forked before the template had loaded all that is needed sooner or later.

        Raises:
            OSError: the template does not answer.
        """
        ours, theirs = socket.socketpair()
        with theirs:
            socket.send_fds(self._channel, [_ORDER], [theirs.fileno()])
        channel = Channel(ours)
        try:
            return channel, *_greeted(channel)
        except BaseException:
            channel.close()
            raise


def _greeted(channel: Channel) -> tuple[int, bool]:
    """Wait until a worker says that it is there, and return its process id and if it is early."""
    hello = channel.receive() if channel.poll(_HELLO_MS) else None
    if hello is None:
        raise TimeoutError("the template process does not answer")
    return int(hello[0]["pid"]), bool(hello[0]["is_early"])


def prepare_to_fork() -> None:
    """Keep what is loaded from being touched, and so copied, by the collector of each child."""
    gc.collect()
    gc.freeze()


def fork_worker(channel: socket.socket, close: list[socket.socket]) -> int | None:
    """Take one order from the channel and fork a worker for it.

    Args:
        channel: our end; must be readable.
        close: sockets of this process that a worker has no business with.

    Returns:
        The worker's process id; None if all other ends of the channel are closed.
    """
    order, descriptors, _, _ = socket.recv_fds(channel, 64, 1)
    if not descriptors:
        return None if not order else 0
    child = os.fork()
    if child:
        os.close(descriptors[0])
        return child
    for resource in (channel, *close):
        resource.close()
    status = 1
    try:
        ctypes.CDLL(None).prctl(_PR_SET_NAME, _NAME)
        _work(descriptors[0])
        status = 0
    finally:
        os._exit(status)


def _work(descriptor: int) -> None:
    signal.set_wakeup_fd(-1)
    signal.signal(signal.SIGCHLD, signal.SIG_DFL)
    run_exact_work_with(run_forked)
    serve(Channel(socket.socket(fileno=descriptor)))

"""The application with all its processes, as ``./axispath start`` runs it, on a database of ours."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

START_S = 60.0


class RunningSite:
    """A site that has been started.

    Args:
        database_url: its database.
        module: what is run: the application, or one with faults.

    Attributes:
        base: its address.
        process: its main process.
    """

    def __init__(self, database_url: str, *, module: str = "axis_path.serving") -> None:
        self._module = module
        self.listener = socket.create_server(("127.0.0.1", 0), backlog=512)
        self.base = f"http://127.0.0.1:{self.listener.getsockname()[1]}"
        self._log = tempfile.TemporaryFile()
        # The interpreter's warnings are the tests' own affair, not the server's.
        inherited = {k: v for k, v in os.environ.items() if not k.startswith("AXIS_PATH_")}
        self._environment = inherited | {
            "AXIS_PATH_DATABASE_URL": database_url,
            "AXIS_PATH_SECRET_KEY": "a secret for tests",
            "OPENBLAS_NUM_THREADS": "1",
        }
        self.start()

    def start(self) -> None:
        """Start the main process, and wait until it answers."""
        descriptor = self.listener.fileno()
        self.process = subprocess.Popen(
            [sys.executable, "-m", self._module, "--listen-fd", str(descriptor)],
            env=self._environment, stdout=self._log, stderr=self._log, pass_fds=[descriptor],
        )  # fmt: skip
        self.wait_until_answering()

    def wait_until_answering(self) -> None:
        """Wait until a page would be answered.

        Raises:
            AssertionError: none is.
        """
        until = time.monotonic() + START_S
        while time.monotonic() < until and self.process.poll() is None:
            try:
                with urllib.request.urlopen(f"{self.base}/ready", timeout=START_S):
                    return
            except OSError:
                time.sleep(0.05)
        raise AssertionError(self.log())

    def log(self) -> str:
        """Return what it has said."""
        self._log.seek(0)
        return self._log.read().decode()

    def processes(self) -> dict[int, int]:
        """Return the processes below the main process, each with its parent."""
        parents = {}
        for path in Path("/proc").glob("[0-9]*/stat"):
            try:
                words = path.read_text().rpartition(")")[2].split()
            except OSError:
                continue
            if words[0] != "Z":
                parents[int(path.parent.name)] = int(words[1])
        found: dict[int, int] = {}
        new = {self.process.pid}
        while new:
            new = {pid for pid, parent in parents.items() if parent in new}
            found |= {pid: parents[pid] for pid in new}
        return found

    def stop(self) -> None:
        """End it in good order."""
        if self.process.poll() is None:
            self.process.send_signal(signal.SIGTERM)
        self.process.wait(timeout=30)
        self.listener.close()
        self._log.close()

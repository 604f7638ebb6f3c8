"""One ``./axispath start`` for each folder: a second one says where the first one answers."""

import fcntl
import os
from pathlib import Path

from launcher.say import LauncherError


class FolderLock:
    """A lock that ends with the process that holds it, however that ends.

    Args:
        path: the file that is locked; it holds the address once it is known.
    """

    def __init__(self, path: Path) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        # No child may inherit it: a database that outlives the launcher would hold it.
        self._descriptor = os.open(path, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o644)
        try:
            fcntl.flock(self._descriptor, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError as err:
            address = os.read(self._descriptor, 200).decode().strip()
            os.close(self._descriptor)
            where = f" at {address}" if address else "; it is still starting"
            raise LauncherError(
                f"It already runs from this folder{where}. "
                "Stop it with Ctrl-C where it was started, or start from another checkout."
            ) from err
        os.ftruncate(self._descriptor, 0)

    def note(self, address: str) -> None:
        """Note where this one answers."""
        os.pwrite(self._descriptor, address.encode(), 0)

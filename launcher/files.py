"""Small files that must be whole or not there: secrets, stamps, marks."""

import os
import secrets
from pathlib import Path


def write_whole(path: Path, text: str, *, mode: int = 0o644) -> None:
    """Write a file so that, whenever the power fails, it holds all of the text or is not there."""
    path.parent.mkdir(parents=True, exist_ok=True)
    beside = path.with_name(f".{path.name}.{os.getpid()}")
    descriptor = os.open(beside, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, mode)
    with os.fdopen(descriptor, "w") as file:
        file.write(text)
        file.flush()
        os.fsync(file.fileno())
    beside.replace(path)
    sync_folder(path.parent)


def sync_folder(folder: Path) -> None:
    """Wait until the names in a folder are on disk."""
    descriptor = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
    try:
        os.fsync(descriptor)
    finally:
        os.close(descriptor)


def read_text(path: Path) -> str:
    """Return what a file holds, without white space around it; empty if it is not there."""
    try:
        return path.read_text().strip()
    except (FileNotFoundError, NotADirectoryError):
        return ""


def secret(path: Path, size: int) -> str:
    """Return a secret, made when it is first needed; only its owner can read the file.

    A file that is empty, as one is after a power failure, counts as none.
    """
    found = read_text(path)
    if not found:
        found = secrets.token_urlsafe(size)
        write_whole(path, found, mode=0o600)
    return found

"""The virtual environment, from the lock files with their hashes."""

import hashlib
import os
import subprocess
from pathlib import Path

from launcher import interpreter
from launcher.paths import PYTHON, REQUIREMENTS, SOURCES, VENV
from launcher.say import LauncherError, step

_STAMP, _COMPILED_STAMP = VENV / "axis-path-installed", VENV / "axis-path-compiled"
_MADE_BY = VENV / "axis-path-made-by"
_CORE = SOURCES / "axis_path" / "core"
#: What compiled code is marked by.
_SIGNS = ("njit", "@compiled")


def make_environment(lock_name: str) -> None:
    """Make ``.venv`` and install a lock file, unless that was done already.

    Args:
        lock_name: ``runtime.lock`` or ``develop.lock``, which holds all of the other too.

    Raises:
        LauncherError: an installation failed.
    """
    locks = {name: _fingerprint(name) for name in ("runtime.lock", "develop.lock")}
    installed = _STAMP.read_text().split() if _STAMP.exists() else []
    if PYTHON.exists() and (locks[lock_name] in installed or locks["develop.lock"] in installed):
        return
    version = interpreter.chosen().version
    if not PYTHON.exists() or not _MADE_BY.exists() or _MADE_BY.read_text() != version:
        with step("Making the virtual environment .venv"):
            _run(interpreter.environment_command(VENV))
        _MADE_BY.write_text(version)
    with step(f"Installing the locked Python packages ({lock_name})"):
        _run(
            [*interpreter.pip_command(), "install", "--disable-pip-version-check", "--quiet",
             "--require-hashes", "-r", str(REQUIREMENTS / lock_name)]
        )  # fmt: skip
    _STAMP.write_text(f"{locks[lock_name]}\n")


def compile_sources() -> None:
    """Compile the arithmetic, unless that was done since it was changed.

    Raises:
        LauncherError: it failed.
    """
    wanted = hashlib.sha256(b"".join(p.read_bytes() for p in _compiled_sources())).hexdigest()
    wanted += _fingerprint("runtime.lock")
    if _COMPILED_STAMP.exists() and _COMPILED_STAMP.read_text() == wanted:
        return
    # What is kept is known by its own file, not by what it was put together from.
    for kept in _CORE.glob("*/__pycache__/*.nb[ic]"):
        kept.unlink()
    with step("Compiling the arithmetic"):
        _run([str(PYTHON), "-m", "axis_path.core.warm"], {"PYTHONPATH": str(SOURCES)})
    _COMPILED_STAMP.write_text(wanted)


def _compiled_sources() -> list[Path]:
    """Give the modules of the core that hold compiled code."""
    sources = sorted(_CORE.rglob("*.py"))
    return [path for path in sources if any(sign in path.read_text() for sign in _SIGNS)]


def _fingerprint(lock_name: str) -> str:
    text = (REQUIREMENTS / lock_name).read_bytes() + interpreter.chosen().version.encode()
    return f"{lock_name}:{hashlib.sha256(text).hexdigest()}"


def _run(command: list[str], more: dict[str, str] | None = None) -> None:
    environment = {k: v for k, v in os.environ.items() if k not in ("PYTHONPATH", "PYTHONHOME")}
    environment |= more or {}
    done = subprocess.run(command, capture_output=True, text=True, check=False, env=environment)
    if done.returncode != 0:
        raise LauncherError(
            f"This command failed: {' '.join(command)}\n{done.stdout[-1500:]}{done.stderr[-3000:]}"
        )

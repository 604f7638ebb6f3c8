"""The virtual environment, from the lock files with their hashes."""

import hashlib
import os
import pwd
import shutil
import subprocess
from dataclasses import dataclass
from pathlib import Path

from launcher import interpreter
from launcher.files import read_text, write_whole
from launcher.paths import PYTHON, REQUIREMENTS, SOURCES, VENV
from launcher.say import LauncherError, step
from launcher.users import as_user, own

_STAMP, _PREPARED_STAMP = VENV / "axis-path-installed", VENV / "axis-path-prepared"
_MADE_BY = VENV / "axis-path-made-by"
_CORE = SOURCES / "axis_path" / "core"
_GRAMMAR = _CORE / "language" / "__pycache__" / "grammar.lalr"
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
        write_whole(_MADE_BY, version)
    with step(f"Installing the locked Python packages ({lock_name})"):
        _run(
            [*interpreter.pip_command(), "install", "--disable-pip-version-check", "--quiet",
             "--require-hashes", "-r", str(REQUIREMENTS / lock_name)]
        )  # fmt: skip
    write_whole(_STAMP, f"{locks[lock_name]}\n")


def prepare_sources() -> None:
    """Let Python keep what it makes of the sources: whoever runs them may not write beside them.

    Raises:
        LauncherError: it failed.
    """
    paths = sorted(SOURCES.rglob("*.py"))
    wanted = _hash(paths) + interpreter.chosen().version + str(SOURCES)
    if read_text(_PREPARED_STAMP) == wanted and _GRAMMAR.exists():
        return
    with step("Preparing the sources"):
        _run([str(PYTHON), "-m", "compileall", "-q", str(SOURCES)])
        # The tables of the grammar are made when it is loaded for the first time.
        _run([str(PYTHON), "-c", "import axis_path.core.language"], {"PYTHONPATH": str(SOURCES)})
    write_whole(_PREPARED_STAMP, wanted)


@dataclass(frozen=True)
class Compiled:
    """What Numba has compiled for one user, in a folder that only this user writes.

    Loading it runs it, so nobody loads what somebody with fewer rights has written.

    Attributes:
        user: who runs it.
    """

    user: str

    @property
    def folder(self) -> Path:
        """Return where it lies."""
        return VENV / f"numba-{self.user}"

    @property
    def environment(self) -> dict[str, str]:
        """Return what a process needs to find it."""
        return {"NUMBA_CACHE_DIR": str(self.folder)}

    @property
    def is_done(self) -> bool:
        """Check whether the present sources are compiled."""
        return read_text(self.folder / "stamp") == _compiled_mark()

    def make_folder(self) -> None:
        """Make the folder, empty, for its user; what is out of date goes."""
        shutil.rmtree(self.folder, ignore_errors=True)
        self.folder.mkdir()
        own(self.folder, self.user)

    def command(self) -> list[str]:
        """Return the command that compiles, as this user."""
        return [*as_user(self.user, at_end="KILL"), str(PYTHON), "-m", "axis_path.core.warm"]

    def note_done(self) -> None:
        """Note that everything is compiled."""
        write_whole(self.folder / "stamp", _compiled_mark())
        own(self.folder / "stamp", self.user)

    def take_from(self, other: "Compiled") -> None:
        """Copy what another user, with more rights, has compiled."""
        shutil.rmtree(self.folder, ignore_errors=True)
        shutil.copytree(other.folder, self.folder)
        for path in [self.folder, *self.folder.rglob("*")]:
            own(path, self.user)


def compile_sources() -> Compiled:
    """Compile the arithmetic for the present user, unless that was done since it was changed.

    Raises:
        LauncherError: it failed.
    """
    compiled = Compiled(pwd.getpwuid(os.geteuid()).pw_name)
    if not compiled.is_done:
        compiled.make_folder()
        with step("Compiling the arithmetic"):
            _run(compiled.command(), {"PYTHONPATH": str(SOURCES), **compiled.environment})
        compiled.note_done()
    return compiled


def _compiled_mark() -> str:
    """Return what changes whenever something has to be compiled anew."""
    sources = sorted(_CORE.rglob("*.py"))
    compiled = [path for path in sources if any(sign in path.read_text() for sign in _SIGNS)]
    return f"{_hash(compiled)}{_fingerprint('runtime.lock')}:{SOURCES}"


def _hash(paths: list[Path]) -> str:
    return hashlib.sha256(b"".join(path.read_bytes() for path in paths)).hexdigest()


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

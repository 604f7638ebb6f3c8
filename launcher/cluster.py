"""A PostgreSQL cluster of our own, on loopback and a free port.

PostgreSQL refuses to run as root, so root runs it as the user ``postgres``. Its files lie in
``var/``; where that user cannot reach them, because a folder above is closed to others, they lie
in ``/var/tmp`` instead.
"""

import contextlib
import hashlib
import os
import pwd
import secrets
import shutil
import signal
import subprocess
import time
from dataclasses import dataclass
from pathlib import Path

from launcher.packages import postgres_programs
from launcher.ports import HOST, any_free_port
from launcher.say import LauncherError, say

_USER = "postgres"
_DATABASE_USER = "axis_path"
_PATIENCE_S = 60.0


@dataclass
class Cluster:
    """A running cluster.

    Attributes:
        url: the address of its database for SQLAlchemy.
    """

    folder: Path
    process: subprocess.Popen[bytes]
    url: str

    def stop(self) -> None:
        """Shut down cleanly: open sessions are ended, everything committed is on disk."""
        if self.process.poll() is None:
            with contextlib.suppress(ProcessLookupError):
                self.process.send_signal(signal.SIGINT)
        try:
            self.process.wait(timeout=_PATIENCE_S)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()


def _as_user() -> list[str]:
    """Give the command that changes to the unprivileged user, nothing if we are no root.

    The server ends with the launcher even if that is killed: nothing is left running unseen.
    """
    if os.geteuid() != 0:
        return ["setpriv", "--pdeathsig", "INT"]
    # The signal must be set after the user was changed, which would clear it.
    return ["setpriv", "--reuid", _USER, "--regid", _USER, "--init-groups",
            "setpriv", "--pdeathsig", "INT"]  # fmt: skip


def _can_reach(folder: Path) -> bool:
    """Tell whether the unprivileged user can go into a folder's parents."""
    if os.geteuid() != 0:
        return True
    done = subprocess.run(
        [*_as_user(), "test", "-x", str(folder)], capture_output=True, check=False
    )
    return done.returncode == 0


def choose_folder(wanted: Path) -> Path:
    """Give the folder for the cluster: the wanted one, or one the server's user can reach."""
    wanted.parent.mkdir(parents=True, exist_ok=True)
    if _can_reach(wanted.parent):
        return wanted
    mark = hashlib.sha256(str(wanted).encode()).hexdigest()[:12]
    other = Path("/var/tmp") / f"axis-path-{mark}" / wanted.name  # noqa: S108 - kept over restarts
    say(f"  The user {_USER} cannot reach {wanted.parent}; the database lies in {other}.")
    other.parent.mkdir(exist_ok=True)
    return other


def start_cluster(wanted: Path) -> Cluster:
    """Start the cluster in a folder, made if it is new.

    A server that still runs there from an earlier start is stopped first. One that was killed
    recovers by itself.

    Raises:
        LauncherError: it does not start; its log is quoted.
    """
    programs = postgres_programs()
    if programs is None:
        raise LauncherError("The PostgreSQL server is not installed.")
    folder = choose_folder(wanted)
    password = _password(folder)
    if not (folder / "PG_VERSION").exists():
        _create(folder, programs, password)
    _stop_left_over(folder)
    port = any_free_port()
    log = (folder.parent / f"{folder.name}.log").open("ab")
    process = subprocess.Popen(
        [*_as_user(), str(programs / "postgres"), "-D", str(folder), "-p", str(port),
         "-c", f"listen_addresses={HOST}", "-c", "unix_socket_directories=",
         "-c", "logging_collector=off"],
        stdout=log, stderr=log, stdin=subprocess.DEVNULL, cwd="/", start_new_session=True,
    )  # fmt: skip
    url = f"postgresql+psycopg://{_DATABASE_USER}:{password}@{HOST}:{port}/postgres"
    cluster = Cluster(folder, process, url)
    _wait_until_ready(cluster, programs, port)
    return cluster


def _password(folder: Path) -> str:
    """Give the password of the database, made with the cluster; only its owner can read it."""
    path = folder.parent / f"{folder.name}.password"
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(24))
    return path.read_text().strip()


def _create(folder: Path, programs: Path, password: str) -> None:
    # What an earlier start left half made has no PG_VERSION: begin again.
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(mode=0o700)
    secret = folder.parent / f"{folder.name}.initial"
    secret.touch(mode=0o600)
    secret.write_text(password)
    if os.geteuid() == 0:
        user = pwd.getpwnam(_USER)
        os.chown(folder, user.pw_uid, user.pw_gid)
        os.chown(secret, user.pw_uid, user.pw_gid)
    try:
        done = subprocess.run(
            [*_as_user(), str(programs / "initdb"), "-D", str(folder), "-U", _DATABASE_USER,
             "-A", "scram-sha-256", f"--pwfile={secret}", "-E", "UTF8", "--locale=C.UTF-8",
             "--no-instructions"],
            capture_output=True, text=True, check=False, cwd="/",
        )  # fmt: skip
        if done.returncode != 0:
            raise LauncherError(f"initdb failed:\n{done.stdout}{done.stderr}")
    finally:
        secret.unlink(missing_ok=True)


def _stop_left_over(folder: Path) -> None:
    """Stop a server that an earlier start left running on this folder.

    Raises:
        LauncherError: it does not end.
    """
    deadline = time.monotonic() + _PATIENCE_S
    was_asked = False
    while time.monotonic() < deadline:
        pid = _server_of(folder)
        if pid is None:
            return
        if not was_asked:
            was_asked = True
            with contextlib.suppress(ProcessLookupError):
                os.kill(pid, signal.SIGINT)
        time.sleep(0.1)
    raise LauncherError(f"An earlier database still runs in {folder}; stop it and try again.")


def _server_of(folder: Path) -> int | None:
    """Give the process of the server that runs in a folder, None if there is none.

    A killed server whose parent never asks for its end stays as a dead entry, which PostgreSQL
    takes for a running one. Once nothing lives in the folder any more, its lock file is removed.
    """
    lock = folder / "postmaster.pid"
    try:
        pid = int(lock.read_text().split()[0])
        state = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0]
        command = Path(f"/proc/{pid}/cmdline").read_bytes()
    except (OSError, ValueError, IndexError):
        return None
    if state == "Z":
        if _lives_in(folder):
            return pid
        lock.unlink(missing_ok=True)
        return None
    return pid if b"postgres" in command and str(folder).encode() in command else None


def _lives_in(folder: Path) -> bool:
    """Tell whether any process has a folder as its own; a server and its helpers have."""
    for path in Path("/proc").glob("[0-9]*/cwd"):
        with contextlib.suppress(OSError):
            if path.readlink() == folder:
                return True
    return False


def _wait_until_ready(cluster: Cluster, programs: Path, port: int) -> None:
    deadline = time.monotonic() + _PATIENCE_S
    ready = [str(programs / "pg_isready"), "-q", "-h", HOST, "-p", str(port)]
    while subprocess.run(ready, check=False).returncode != 0:
        if cluster.process.poll() is not None or time.monotonic() > deadline:
            cluster.stop()
            log = (cluster.folder.parent / f"{cluster.folder.name}.log").read_text()[-2000:]
            raise LauncherError(f"PostgreSQL did not start:\n{log}")
        time.sleep(0.05)

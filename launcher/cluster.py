"""A PostgreSQL server of our own, on loopback and a free port.

PostgreSQL refuses to run as root, so root runs it as the user ``postgres``. What lies on disk is
the business of ``cluster_folder.py``, who may use it that of ``roles.py``.
"""

import contextlib
import hashlib
import os
import signal
import subprocess
import time
from dataclasses import dataclass, field
from pathlib import Path

from launcher import cluster_folder, roles
from launcher.files import read_text, secret, write_whole
from launcher.packages import postgres_programs
from launcher.ports import HOST, any_free_port
from launcher.say import LauncherError, say
from launcher.users import DATABASE_USER, as_user

_START_S, _STOP_S = 60.0, 60.0
#: After a crash the server's own processes need a moment to end.
_RETRY_S = 0.2


@dataclass
class Cluster:
    """A server that runs, or is to run.

    Attributes:
        folder: where its data lies.
        programs: PostgreSQL's.
        port: where it answers; kept when it is started again.
    """

    folder: Path
    programs: Path
    port: int
    _password: str
    _web_password: str
    _process: "subprocess.Popen[bytes] | None" = field(default=None)

    @property
    def url(self) -> str:
        """Return the address of the database for the application."""
        return self._address(roles.WEB_ROLE, self._web_password)

    @property
    def admin_url(self) -> str:
        """Return the address for its superuser: tests make databases of their own."""
        return self._address(cluster_folder.ADMIN, self._password)

    def _address(self, user: str, password: str) -> str:
        return f"postgresql+psycopg://{user}:{password}@{HOST}:{self.port}/postgres"

    @property
    def is_running(self) -> bool:
        """Check whether its process is there."""
        return self._process is not None and self._process.poll() is None

    @property
    def log(self) -> Path:
        """Return the file with what the server says."""
        return self.folder.parent / f"{self.folder.name}.log"

    def launch(self) -> None:
        """Start the server's process, without waiting until it answers."""
        with self.log.open("ab") as log:
            # The server ends with the launcher even if that is killed: nothing is left unseen.
            self._process = subprocess.Popen(
                [*as_user(DATABASE_USER, at_end="INT"), str(self.programs / "postgres"),
                 "-D", str(self.folder), "-p", str(self.port),
                 "-c", f"listen_addresses={HOST}", "-c", "unix_socket_directories=",
                 "-c", "logging_collector=off", "-c", "shared_buffers=32MB",
                 "-c", "max_connections=60", "-c", "max_wal_size=256MB",
                 "-c", "max_logical_replication_workers=0", "-c", "wal_level=minimal",
                 "-c", "max_wal_senders=0"],
                stdout=log, stderr=log, stdin=subprocess.DEVNULL, cwd="/", start_new_session=True,
            )  # fmt: skip

    def wait_until_ready(self) -> None:
        """Wait until the server answers; one that ended is started again.

        Raises:
            LauncherError: it does not answer; its log is quoted.
        """
        until = time.monotonic() + _START_S
        ready = [str(self.programs / "pg_isready"), "-q", "-h", HOST, "-p", str(self.port)]
        ends = 0
        while subprocess.run(ready, check=False).returncode != 0:
            if not self.is_running:
                ends += 1
                if ends * _RETRY_S > _START_S / 4:
                    until = 0.0
                else:
                    time.sleep(_RETRY_S)
                    self.launch()
            if time.monotonic() > until:
                self.stop()
                raise LauncherError(f"PostgreSQL did not start:\n{self.log.read_text()[-2000:]}")
            time.sleep(0.03)

    def complete(self) -> None:
        """Wait until the server answers, and let the application use it.

        Raises:
            LauncherError: it does not answer, or cannot be set up.
        """
        self.wait_until_ready()
        _set_up(self, self._password, self._web_password)

    def stop(self) -> None:
        """Shut down cleanly: open sessions are ended, everything committed is on disk."""
        process = self._process
        if process is None:
            return
        if process.poll() is None:
            with contextlib.suppress(ProcessLookupError):
                process.send_signal(signal.SIGINT)
        try:
            process.wait(timeout=_STOP_S)
        except subprocess.TimeoutExpired:
            process.kill()
            process.wait()


def start_cluster(wanted: Path) -> Cluster:
    """Start a server on a folder, made if it is new, and wait until it answers.

    Raises:
        LauncherError: it does not start; its log is quoted.
    """
    cluster = begin_cluster(wanted)
    cluster.complete()
    return cluster


def begin_cluster(wanted: Path) -> Cluster:
    """Start a server on a folder, made if it is new, without waiting until it answers.

    A server that an earlier start left behind is stopped first. One that was killed recovers by
    itself, and what an earlier start left half made is made anew.

    Raises:
        LauncherError: it does not start; its log is quoted.
    """
    folder = cluster_folder.choose_folder(wanted)
    programs = postgres_programs(cluster_folder.version_of(folder))
    if programs is None:
        raise LauncherError("The PostgreSQL server is not installed.")
    beside = folder.parent / folder.name
    password = secret(beside.with_name(f"{folder.name}.password"), 24)
    web_password = secret(beside.with_name(f"{folder.name}.web-password"), 24)
    cluster_folder.make_ready(folder, programs, password)
    _stop_left_over(folder)
    cluster = Cluster(folder, programs, any_free_port(), password, web_password)
    cluster.launch()
    return cluster


def _set_up(cluster: Cluster, password: str, web_password: str) -> None:
    """Set up the roles, unless that was done with these passwords."""
    done = cluster.folder.parent / f"{cluster.folder.name}.roles"
    mark = f"1 {_mark_of(password)} {_mark_of(web_password)}"
    if read_text(done) == mark:
        return
    if not roles.knows_password(cluster.programs, cluster.port, password):
        say("  The password of the database was lost; it gets a new one.")
        cluster.stop()
        cluster_folder.reset_password(cluster.folder, cluster.programs, password)
        cluster.launch()
        cluster.wait_until_ready()
    roles.set_up_roles(cluster.programs, cluster.port, password, web_password)
    write_whole(done, mark)


def _mark_of(password: str) -> str:
    """Return what tells a password from others, and does not give it away."""
    return hashlib.sha256(password.encode()).hexdigest()[:16]


def _stop_left_over(folder: Path) -> None:
    """Stop a server that an earlier start left running on a folder: its launcher is gone.

    Raises:
        LauncherError: it does not end.
    """
    until = time.monotonic() + _STOP_S
    was_asked = False
    while time.monotonic() < until:
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
    """Return the process of the server that runs on a folder, None if there is none.

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
    """Check whether any process has a folder as its own; a server and its helpers have."""
    for path in Path("/proc").glob("[0-9]*/cwd"):
        with contextlib.suppress(OSError):
            if path.readlink() == folder:
                return True
    return False

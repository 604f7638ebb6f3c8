"""Run the application: the database, the site, and an orderly end; what ends is started again."""

import contextlib
import os
import pwd
import select
import shutil
import signal
import socket
import subprocess
import time
import urllib.error
import urllib.request
from pathlib import Path
from types import FrameType

from launcher.cluster import Cluster, begin_cluster
from launcher.environment import Compiled
from launcher.files import secret
from launcher.lock import FolderLock
from launcher.paths import PYTHON, ROOT, SOURCES, VAR
from launcher.ports import HOST, listen
from launcher.say import LauncherError, say, step
from launcher.users import application_user, as_user, is_root

DEFAULT_PORT = 8765
_START_S, _STOP_S = 60.0, 15.0
#: So often it is looked whether everything still runs.
_LOOK_S = 0.25
#: Logs are put aside when they are this long, and looked at so often.
_LONGEST_LOG, _LOGS_EVERY_S = 10 * 1024 * 1024, 60.0
#: A site that ends again within so long is started again after a pause that doubles.
_STEADY_S, _FIRST_PAUSE_S, _LONGEST_PAUSE_S = 20.0, 0.1, 10.0


class Site:
    """The application's processes.

    Args:
        listener: where it is to answer; open as long as the launcher lives, so that nobody is
            refused while something is started again.
        user: who runs it.
        environment: of its processes.
    """

    def __init__(self, listener: socket.socket, user: str, environment: dict[str, str]) -> None:
        self._listener, self._user, self._environment = listener, user, environment
        self._process: subprocess.Popen[bytes] | None = None
        self._began, self._pause, self._due = 0.0, _FIRST_PAUSE_S, 0.0

    @property
    def log(self) -> Path:
        """Return the file with what the site says."""
        return VAR / "site.log"

    @property
    def is_running(self) -> bool:
        """Check whether its main process is there."""
        return self._process is not None and self._process.poll() is None

    def launch(self, more: dict[str, str]) -> None:
        """Start the main process, without waiting until it answers."""
        descriptor = self._listener.fileno()
        self._began = time.monotonic()
        with self.log.open("ab") as log:
            self._process = subprocess.Popen(
                [*as_user(self._user, at_end="TERM"), str(PYTHON), "-m", "axis_path.serving",
                 "--listen-fd", str(descriptor)],
                env={**self._environment, **more}, cwd=ROOT, stdout=log, stderr=log,
                stdin=subprocess.DEVNULL, start_new_session=True, pass_fds=[descriptor],
            )  # fmt: skip

    def has_web_server(self) -> bool:
        """Check whether the main process has forked its web server: it has loaded everything."""
        if self._process is None:
            return False
        children = Path(f"/proc/{self._process.pid}/task/{self._process.pid}/children")
        with contextlib.suppress(OSError):
            return bool(children.read_text().split())
        return False

    def take_over(self) -> "subprocess.Popen[bytes] | None":
        """Let go of the main process: another one is to take its place."""
        process, self._process = self._process, None
        return process

    def keep_running(self, more: dict[str, str]) -> None:
        """Start the site again if it has ended; at once, unless it ends again and again."""
        now = time.monotonic()
        if self.is_running:
            return
        if self._process is not None:
            _end_group(self._process)
            lived = now - self._began
            self._pause = _FIRST_PAUSE_S if lived > _STEADY_S else self._pause
            say(f"The application ended; it is started again. Its log is {self.log}.")
            self._process, self._due = None, now + self._pause
            self._pause = min(2 * self._pause, _LONGEST_PAUSE_S)
        if now >= self._due:
            self.launch(more)

    def wait_until_answering(self, port: int) -> None:
        """Wait until the application really answers.

        Raises:
            LauncherError: it ended or stayed silent; its log is quoted.
        """
        until = time.monotonic() + _START_S
        while time.monotonic() < until and self.is_running:
            if is_answering(port, timeout_s=_START_S):
                return
            time.sleep(0.05)
        raise LauncherError(f"The application did not start:\n{self.log.read_text()[-3000:]}")

    def stop(self) -> None:
        """Let the site end what it is at."""
        if self._process is not None:
            end(self._process)


def end(process: "subprocess.Popen[bytes]") -> None:
    """End a process in good order, or else at once."""
    if process.poll() is None:
        process.terminate()
    with contextlib.suppress(subprocess.TimeoutExpired):
        process.wait(timeout=_STOP_S)
    _end_group(process)
    process.wait()


def _end_group(process: "subprocess.Popen[bytes]") -> None:
    """End whatever a process has left behind; it leads a group of its own."""
    with contextlib.suppress(ProcessLookupError):
        os.killpg(process.pid, signal.SIGKILL)


def is_answering(port: int, *, timeout_s: float) -> bool:
    """Check whether the application answers at a port, with its database."""
    with (
        contextlib.suppress(urllib.error.URLError, ConnectionError, TimeoutError),
        urllib.request.urlopen(f"http://{HOST}:{port}/ready", timeout=timeout_s) as answer,
    ):
        return bool(answer.status == 200)
    return False


def application_environment(database_url: str, secret_key: str) -> dict[str, str]:
    """Return the environment of the application's processes."""
    kept = {
        k: v
        for k, v in os.environ.items()
        if not k.startswith(("AXIS_PATH_", "PYTHON"))
        or k in ("AXIS_PATH_HOSTS", "AXIS_PATH_PREFETCH", "AXIS_PATH_CATALOGUES")
    }
    return {
        **kept,
        "HOME": "/nonexistent",
        "PYTHONPATH": str(SOURCES),
        "PYTHONUNBUFFERED": "1",
        # Workers are many, and each has one thread.
        "OPENBLAS_NUM_THREADS": "1",
        "OMP_NUM_THREADS": "1",
        # Threads that do not share an arena keep much more memory than they use.
        "MALLOC_ARENA_MAX": "2",
        "AXIS_PATH_DATABASE_URL": database_url,
        "AXIS_PATH_SECRET_KEY": secret_key,
    }


class _Compiling:
    """Compiling in the background, while the interpreter does the same more slowly."""

    def __init__(self, compiled: Compiled, environment: dict[str, str]) -> None:
        self._compiled, self._environment = compiled, environment
        self._process: subprocess.Popen[bytes] | None = None
        self.is_done = compiled.is_done
        own_work = Compiled(pwd.getpwuid(os.geteuid()).pw_name)
        if not self.is_done and is_root() and compiled.user != own_work.user and own_work.is_done:
            compiled.take_from(own_work)
            self.is_done = True

    @property
    def more(self) -> dict[str, str]:
        """Return what a site needs to find what is compiled, or to do without."""
        if self.is_done:
            return self._compiled.environment
        # What overflows is NaN there as here, but the interpreter mentions it each time.
        return {"NUMBA_DISABLE_JIT": "1", "PYTHONWARNINGS": "ignore::RuntimeWarning"}

    def begin(self) -> None:
        """Begin to compile, unless that was done."""
        if self.is_done:
            return
        say("  The arithmetic is compiled in the background; pictures are slower until then.")
        self._compiled.make_folder()
        with (VAR / "compile.log").open("wb") as log:
            self._process = subprocess.Popen(
                ["nice", "-n", "10", *self._compiled.command()],
                env={**self._environment, **self._compiled.environment}, cwd=ROOT, stdout=log,
                stderr=log, stdin=subprocess.DEVNULL, start_new_session=True,
            )  # fmt: skip

    def look(self) -> bool:
        """Check whether it has just been finished."""
        if self._process is None or self._process.poll() is None:
            return False
        is_good, self._process = self._process.returncode == 0, None
        if not is_good:
            say(f"Compiling failed, so pictures stay slower; see {VAR / 'compile.log'}.")
            return False
        self._compiled.note_done()
        self.is_done = True
        return True

    def stop(self) -> None:
        """Cancel it."""
        if self._process is not None:
            end(self._process)


def start(port: int) -> int:
    """Start everything, print the address, stay until Ctrl-C, stop everything."""
    VAR.mkdir(exist_ok=True)
    lock = FolderLock(VAR / "lock")
    user = application_user(SOURCES, PYTHON.resolve().parent, VAR)
    stopping = _Stopping()
    cluster: Cluster | None = None
    site: Site | None = None
    compiling: _Compiling | None = None
    try:
        listener = listen(port)
        chosen = listener.getsockname()[1]
        if chosen != port:
            say(f"  Port {port} is taken; Axis Path uses {chosen}.")
        with step("Starting the database"):
            cluster = begin_cluster(VAR / "postgres")
        environment = application_environment(cluster.url, secret(VAR / "secret-key", 48))
        compiling = _Compiling(Compiled(user), environment)
        site = Site(listener, user, environment)
        with step("Starting the application"):
            # It loads its libraries while the database gets ready.
            site.launch(compiling.more)
            cluster.complete()
            site.wait_until_answering(chosen)
        compiling.begin()
        address = f"http://{HOST}:{chosen}/"
        lock.note(address)
        say(f"Axis Path is at {address}  (Ctrl-C stops it)")
        _stay(cluster, site, compiling)
    except _StopRequestedError:
        return 0
    finally:
        stopping.ignore_more()
        for each in (compiling, site, cluster):
            if each is not None:
                each.stop()
        if cluster is not None:
            say("Stopped; everything is kept.")
    return 0


def _stay(cluster: Cluster, site: Site, compiling: _Compiling) -> None:
    """Start again whatever ends, until a signal comes."""
    logs_due = 0.0
    while True:
        if not cluster.is_running:
            say(f"The database ended; it is started again. Its log is {cluster.log}.")
            cluster.launch()
            cluster.wait_until_ready()
        site.keep_running(compiling.more)
        if compiling.look():
            before = site.take_over()
            site.launch(compiling.more)
            # Both answer for a moment, so that no page has to wait.
            _end_when_replaced(before, site)
            say("The arithmetic is compiled; pictures are drawn at full speed.")
        if time.monotonic() > logs_due:
            logs_due = time.monotonic() + _LOGS_EVERY_S
            for log in (site.log, cluster.log):
                rotate(log)
        select.select([], [], [], _LOOK_S)


def _end_when_replaced(before: "subprocess.Popen[bytes] | None", site: Site) -> None:
    """End a site once the one that replaces it has loaded everything."""
    until = time.monotonic() + _START_S
    while site.is_running and not site.has_web_server() and time.monotonic() < until:
        time.sleep(0.1)
    if before is not None:
        end(before)


def rotate(log: Path) -> None:
    """Put a long log aside; whoever writes it goes on at its beginning."""
    try:
        if log.stat().st_size > _LONGEST_LOG:
            # It is open in other processes, which append: copying is all that can be done.
            shutil.copyfile(log, log.with_name(f"{log.name}.1"))
            os.truncate(log, 0)
    except OSError as err:
        # A full disk must not end what runs.
        say(f"The log {log} could not be put aside: {err.strerror}.")


class _StopRequestedError(Exception):
    """Ctrl-C, or a request to end from outside."""


class _Stopping:
    """Turns the first signal into an exception and lets the orderly end run undisturbed."""

    def __init__(self) -> None:
        for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
            signal.signal(number, self._stop)

    def _stop(self, number: int, frame: FrameType | None) -> None:
        self.ignore_more()
        raise _StopRequestedError

    def ignore_more(self) -> None:
        """From now on a signal changes nothing."""
        for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
            signal.signal(number, signal.SIG_IGN)

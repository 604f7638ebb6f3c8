"""Run the application: database, migrations, web server, and an orderly end."""

import contextlib
import ctypes
import os
import secrets
import signal
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from pathlib import Path
from types import FrameType

from launcher.cluster import Cluster, start_cluster
from launcher.paths import PYTHON, ROOT, SOURCES, VAR
from launcher.ports import HOST, first_free_port
from launcher.say import LauncherError, say, step

DEFAULT_PORT = 8765
_PATIENCE_S = 60.0
_PR_SET_PDEATHSIG = 1


def application_environment(database_url: str, secret_key: str) -> dict[str, str]:
    """Give the environment of the application's processes."""
    kept = {k: v for k, v in os.environ.items() if not k.startswith(("AXIS_PATH_", "PYTHON"))}
    return {
        **kept,
        "PYTHONPATH": str(SOURCES),
        "PYTHONUNBUFFERED": "1",
        "AXIS_PATH_DATABASE_URL": database_url,
        "AXIS_PATH_SECRET_KEY": secret_key,
    }


def prepare_database(environment: dict[str, str]) -> None:
    """Migrate, and load the demo into a new database.

    Raises:
        LauncherError: it failed; what it said is quoted.
    """
    done = subprocess.run(
        [str(PYTHON), "-m", "axis_path.store.prepare"],
        capture_output=True, text=True, check=False, env=environment, cwd=ROOT,
    )  # fmt: skip
    if done.returncode != 0:
        raise LauncherError(f"The database could not be prepared:\n{done.stderr[-3000:]}")


def start(port: int) -> int:
    """Start everything, print the address, stay until Ctrl-C, stop everything."""
    VAR.mkdir(exist_ok=True)
    stopping = _Stopping()
    cluster: Cluster | None = None
    web: subprocess.Popen[bytes] | None = None
    worker: subprocess.Popen[bytes] | None = None
    try:
        is_new = not (VAR / "postgres").exists()
        with step("Creating and starting the database" if is_new else "Starting the database"):
            cluster = start_cluster(VAR / "postgres")
        environment = application_environment(cluster.url, _secret_key())
        with step("Preparing the database"):
            prepare_database(environment)
        chosen = first_free_port(port)
        if chosen != port:
            say(f"  Port {port} is taken; Axis Path uses {chosen}.")
        with step("Starting the web server"):
            web = start_web(environment, chosen, VAR / "web.log")
            worker = start_worker(environment, VAR / "worker.log")
            wait_until_answering(web, chosen, VAR / "web.log")
        say(f"Axis Path is at http://{HOST}:{chosen}/  (Ctrl-C stops it)")
        return _stay(cluster, web, worker)
    except _StopRequestedError:
        return 0
    finally:
        stopping.ignore_more()
        _stop([web, worker], cluster)


def start_web(environment: dict[str, str], port: int, log_path: Path) -> "subprocess.Popen[bytes]":
    """Start gunicorn on loopback; it ends with this process even if that is killed."""
    # Each page that is used holds one; see MOST_WIRES in web/bench/wire.py.
    threads = "48"
    command = [
        str(PYTHON), "-m", "gunicorn", "--bind", f"{HOST}:{port}", "--worker-class", "gthread",
        "--workers", "2", "--threads", threads, "--no-control-socket", "--graceful-timeout", "5",
        "--keep-alive", "30", "--config", "python:axis_path.serving", "axis_path.web.wsgi:app",
    ]  # fmt: skip
    return _process(command, environment, log_path, _end_with_parent)


def start_worker(environment: dict[str, str], log_path: Path) -> "subprocess.Popen[bytes]":
    """Start the process that does what takes longer than a request."""
    return _process(
        [str(PYTHON), "-m", "axis_path.jobs.worker"], environment, log_path, _die_with_parent
    )


def _process(
    command: list[str],
    environment: dict[str, str],
    log_path: Path,
    begin: Callable[[], None],
) -> "subprocess.Popen[bytes]":
    with log_path.open("ab") as log:
        return subprocess.Popen(
            command, env=environment, cwd=ROOT, stdout=log, stderr=log,
            stdin=subprocess.DEVNULL, start_new_session=True, preexec_fn=begin,
        )  # fmt: skip


def _end_with_parent() -> None:
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)


def _die_with_parent() -> None:
    # Without its database a worker would wait for it; what it was at is noted at the next start.
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)


def wait_until_answering(web: "subprocess.Popen[bytes]", port: int, log_path: Path) -> None:
    """Wait until the application really answers.

    Raises:
        LauncherError: it ended or stayed silent; its log is quoted.
    """
    deadline = time.monotonic() + _PATIENCE_S
    while time.monotonic() < deadline and web.poll() is None:
        with (
            contextlib.suppress(urllib.error.URLError, ConnectionError, TimeoutError),
            urllib.request.urlopen(f"http://{HOST}:{port}/health", timeout=5) as answer,
        ):
            if answer.status == 200:
                return
        time.sleep(0.05)
    raise LauncherError(f"The web server did not start:\n{log_path.read_text()[-3000:]}")


def _secret_key() -> str:
    path = VAR / "secret-key"
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(48))
    return path.read_text().strip()


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


def _stay(
    cluster: Cluster, web: "subprocess.Popen[bytes]", worker: "subprocess.Popen[bytes]"
) -> int:
    while True:
        if worker.poll() is not None:
            raise LauncherError(f"The worker ended by itself; see {VAR / 'worker.log'}.")
        if web.poll() is not None:
            raise LauncherError(f"The web server ended by itself; see {VAR / 'web.log'}.")
        if cluster.process.poll() is not None:
            raise LauncherError(f"The database ended by itself; see {cluster.folder}.log.")
        time.sleep(0.3)


def _stop(processes: "list[subprocess.Popen[bytes] | None]", cluster: Cluster | None) -> None:
    """Stop the web server and the worker first, so that the database sees no half-done work."""
    running = [each for each in processes if each is not None]
    for each in running:
        if each.poll() is None:
            each.terminate()
    for each in running:
        try:
            each.wait(timeout=15)
        except subprocess.TimeoutExpired:
            each.kill()
            each.wait()
    if cluster is not None:
        cluster.stop()
        say("Stopped; everything is kept.")

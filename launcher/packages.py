"""Debian packages: what is missing, and how it is installed."""

import os
import shutil
import subprocess
from pathlib import Path

from launcher import interpreter
from launcher.say import LauncherError, step

_POSTGRES = Path("/usr/lib/postgresql")
_CREATE_CLUSTER = Path("/etc/postgresql-common/createcluster.conf")


def postgres_programs(version: str = "") -> Path | None:
    """Return the folder with PostgreSQL's programs, None if there is none.

    Args:
        version: of a database that is there already; by default the newest is taken.
    """
    found = [
        p for p in _POSTGRES.glob("*/bin") if (p / "initdb").exists() and (p / "postgres").exists()
    ]
    if version:
        return next((path for path in found if path.parent.name == version), None)
    return max(found, key=lambda path: int(path.parent.name), default=None)


def missing_packages(*, with_browser: bool) -> list[str]:
    """Return the Debian packages that must still be installed."""
    missing = []
    if postgres_programs() is None:
        missing.append("postgresql")
    if interpreter.lacks_pip():
        missing.append("python3-venv")
    if with_browser and shutil.which("chromium") is None:
        missing.append("chromium")
    if with_browser and not list(Path("/usr/lib").glob("*/libatomic.so.1")):
        # Playwright drives the browser with a node of its own, which needs this library.
        missing.append("libatomic1")
    if shutil.which("setpriv") is None:
        missing.append("util-linux")
    return missing


def install_packages(*, with_browser: bool) -> None:
    """Install what is missing, as root or through sudo.

    Raises:
        LauncherError: neither root nor sudo is at hand, or an installation failed.
    """
    missing = missing_packages(with_browser=with_browser)
    if not missing:
        return
    names = " ".join(missing)
    if shutil.which("apt-get") is None:
        raise LauncherError(f"These Debian packages are missing, and there is no apt-get: {names}")
    prefix = _as_root(names)
    with step(f"Installing from Debian: {names}"):
        if "postgresql" in missing:
            _forbid_main_cluster(prefix)
        _run([*prefix, "apt-get", "update", "-q"])
        _run(
            [*prefix, "env", "DEBIAN_FRONTEND=noninteractive", "apt-get", "install", "-y", "-q",
             "--no-install-recommends", "-o", "Dpkg::Options::=--force-confold", *missing]
        )  # fmt: skip
    # It may have pip now.
    interpreter.chosen.cache_clear()


def _as_root(names: str) -> list[str]:
    if os.geteuid() == 0:
        return []
    if shutil.which("sudo") is None:
        raise LauncherError(
            f"These Debian packages are missing: {names}\n"
            "Installing them needs the rights of root, and there is no sudo here. "
            f"As root, run: apt-get install {names}"
        )
    test = subprocess.run(["sudo", "-n", "true"], capture_output=True, check=False)
    if test.returncode != 0 and not os.isatty(0):
        raise LauncherError(
            f"These Debian packages are missing: {names}\nsudo asks for a password and there is no "
            f"terminal to type it. Run: sudo apt-get install {names}"
        )
    return ["sudo"]


def _forbid_main_cluster(prefix: list[str]) -> None:
    """Keep Debian from starting a cluster of its own: the project has its own."""
    if _CREATE_CLUSTER.exists():
        return
    text = "create_main_cluster = false\n"
    _run([*prefix, "mkdir", "-p", str(_CREATE_CLUSTER.parent)])
    _run([*prefix, "tee", str(_CREATE_CLUSTER)], text)


def _run(command: list[str], text: str | None = None) -> None:
    done = subprocess.run(command, input=text, capture_output=True, text=True, check=False)
    if done.returncode != 0:
        raise LauncherError(
            f"This command failed: {' '.join(command)}\n{done.stdout[-1500:]}{done.stderr[-3000:]}"
        )

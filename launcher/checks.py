"""Run everything that must hold: format, lint, types, tests."""

import os
import subprocess
import tempfile
from pathlib import Path

from launcher.browser_tools import node_command
from launcher.cluster import start_cluster
from launcher.environment import compile_sources
from launcher.paths import PYTHON, ROOT, SOURCES
from launcher.say import say

_PYTHON_CHECKS = (
    ("Format", ["-m", "ruff", "format", "--check", "--quiet", "."]),
    ("Lint", ["-m", "ruff", "check", "--quiet", "."]),
    ("Types", ["-m", "mypy"]),
)


def _checks() -> list[tuple[str, list[str]]]:
    python = str(PYTHON)
    return [
        *((title, [python, *arguments]) for title, arguments in _PYTHON_CHECKS),
        (
            "Format and lint of scripts",
            node_command("@biomejs/biome/bin/biome", "ci", "--error-on-warnings"),
        ),
        ("Types of scripts", node_command("typescript/bin/tsc", "-p", str(ROOT))),
        ("Bundles", [python, str(ROOT / "tools/refresh-bundles"), "--check"]),
    ]


def run_checks(names: list[str]) -> int:
    """Run the checks and all tests, or the named tests only; give the exit code.

    The last line printed is ``N passed, N failed, N skipped``; each check counts as a test.
    """
    checks = [] if names else _checks()
    failed_checks = sum(not _check(title, command) for title, command in checks)
    passed_checks = len(checks) - failed_checks
    compiled = compile_sources()
    with tempfile.TemporaryDirectory(prefix="axis-path-test-") as folder:
        os.chmod(folder, 0o755)  # noqa: S103 - the database's user must pass through
        cluster = start_cluster(Path(folder) / "postgres")
        try:
            environment = {
                **os.environ,
                "PYTHONPATH": f"{SOURCES}{os.pathsep}{ROOT}",
                **compiled.environment,
                "AXIS_PATH_TEST_DATABASE_URL": cluster.admin_url,
            }
            done = subprocess.run(
                [str(PYTHON), "-W", "error", "-m", "tests.runner", str(failed_checks),
                 str(passed_checks), *names],
                cwd=ROOT, env=environment, check=False,
            )  # fmt: skip
        finally:
            cluster.stop()
    return done.returncode


def _check(title: str, command: list[str]) -> bool:
    done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)
    say(f"{title}: {'good' if done.returncode == 0 else 'not good'}")
    if done.returncode != 0:
        say(done.stdout + done.stderr)
    return done.returncode == 0

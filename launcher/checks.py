"""Run everything that must hold: format, lint, types, tests."""

import os
import subprocess
import tempfile
from pathlib import Path

from launcher.cluster import start_cluster
from launcher.environment import compile_sources
from launcher.paths import PYTHON, ROOT, SOURCES
from launcher.say import say

_CHECKS = (
    ("Format", ["-m", "ruff", "format", "--check", "--quiet", "."]),
    ("Lint", ["-m", "ruff", "check", "--quiet", "."]),
    ("Types", ["-m", "mypy"]),
)


def run_checks(names: list[str]) -> int:
    """Run the checks and all tests, or the named tests only; give the exit code.

    The last line printed is ``N passed, N failed, N skipped``; each check counts as a test.
    """
    failed_checks = 0 if names else sum(not _check(title, args) for title, args in _CHECKS)
    passed_checks = 0 if names else len(_CHECKS) - failed_checks
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


def _check(title: str, arguments: list[str]) -> bool:
    done = subprocess.run(
        [str(PYTHON), *arguments], cwd=ROOT, capture_output=True, text=True, check=False
    )
    say(f"{title}: {'good' if done.returncode == 0 else 'not good'}")
    if done.returncode != 0:
        say(done.stdout + done.stderr)
    return done.returncode == 0

"""Run all tests, or those named, and end with one line: ``N passed, N failed, N skipped``.

The first two arguments are how many checks before (format, lint, types) failed and passed; they
count as tests. Without names two processes share the modules, because a browser's tests wait most of
the time; those that go by the clock come last, one by one, with a process of least urgency beside
them.
"""

from __future__ import annotations

import queue
import re
import subprocess
import sys
import threading
import time
import unittest
from pathlib import Path
from typing import Any

HERE = Path(__file__).parent
_PROCESSES = 2
#: They measure how things go by the clock, or start and kill whole servers.
_ALONE = (
    "tests.browser.test_motion",
    "tests.compute.test_pool",
    "tests.serving.test_site",
    "tests.launcher.test_launcher",
)
#: They only compute, and take no account of the clock: they use the time that those leave over.
_IN_BACKGROUND = tuple(
    f"tests.core.test_{name}"
    for name in (
        "guard", "invariance", "sampling", "axes", "paths", "relations", "arithmetic",
        "kept_columns", "zeros", "pieces",
    )
)  # fmt: skip
_LEAST_URGENT = 19
#: So many of the slowest tests are named after each part.
_SLOWEST = 8
_LAST_LINE = re.compile(r"^(\d+) passed, (\d+) failed, (\d+) skipped$")


class _Timed(unittest.TextTestResult):
    """A result that knows how long each test took."""

    def __init__(self, *arguments: Any, **named: Any) -> None:
        super().__init__(*arguments, **named)
        self.seconds: list[tuple[float, str]] = []
        self._since = 0.0

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802  # unittest's name
        self._since = time.perf_counter()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        super().stopTest(test)
        self.seconds.append((time.perf_counter() - self._since, test.id()))


def main() -> int:
    failed_before, passed_before, *names = sys.argv[1:]
    passed, failed, skipped = _run(names) if names else _run_all()
    failed += int(failed_before)
    passed += int(passed_before)
    print(f"{passed} passed, {failed} failed, {skipped} skipped", flush=True)
    return 1 if failed or not passed else 0


def _run(names: list[str]) -> tuple[int, int, int]:
    """Run some tests here; give how many passed, failed and were skipped."""
    suite = unittest.TestLoader().loadTestsFromNames(names)
    runner = unittest.TextTestRunner(verbosity=2, stream=sys.stdout, resultclass=_Timed)
    result = runner.run(suite)
    for seconds, name in sorted(getattr(result, "seconds", ()), reverse=True)[:_SLOWEST]:
        print(f"  {seconds:6.1f} s  {name}")
    # A test can fail in several of its sub-tests; it is one failed test all the same.
    broken = {
        getattr(test, "test_case", test).id() for test, _ in (*result.failures, *result.errors)
    }
    broken |= {test.id() for test in result.unexpectedSuccesses}
    skipped = len(result.skipped)
    return max(result.testsRun - len(broken) - skipped, 0), len(broken), skipped


def _run_all() -> tuple[int, int, int]:
    """Run all modules in processes of their own."""
    modules = sorted(
        ".".join(path.relative_to(HERE.parent).with_suffix("").parts)
        for path in HERE.rglob("test_*.py")
    )
    later = {*_ALONE, *_IN_BACKGROUND}
    browser = [module for module in modules if ".browser." in module and module not in later]
    rest = [module for module in modules if module not in browser and module not in later]
    # The longest first, so that neither process is left with one in the end.
    size = {
        module: (HERE.parent / (module.replace(".", "/") + ".py")).stat().st_size
        for module in browser
    }
    parts = [[module] for module in sorted(browser, key=lambda module: -size[module])]
    counts = _shared([rest, *parts])
    background = threading.Thread(
        target=lambda: counts.append(_in_process(list(_IN_BACKGROUND), niceness=_LEAST_URGENT))
    )
    background.start()
    for module in _ALONE:
        counts.append(_in_process([module]))
    background.join()
    return tuple(map(sum, zip(*counts, strict=True)))  # type: ignore[return-value]


def _shared(parts: list[list[str]]) -> list[tuple[int, int, int]]:
    """Let some processes take one part after the other."""
    waiting: queue.Queue[list[str]] = queue.Queue()
    for part in parts:
        waiting.put(part)
    counts: list[tuple[int, int, int]] = []

    def work() -> None:
        while True:
            try:
                part = waiting.get_nowait()
            except queue.Empty:
                return
            counts.append(_in_process(part))

    threads = [threading.Thread(target=work) for _ in range(_PROCESSES)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return counts


def _in_process(names: list[str], niceness: int = 0) -> tuple[int, int, int]:
    """Run some tests in a process, and print all it says when it has ended."""
    done = subprocess.run(
        ["nice", "-n", str(niceness), sys.executable, "-W", "error", "-m", "tests.runner",
         "0", "0", *names],
        stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, check=False,
    )  # fmt: skip
    *said, last = done.stdout.rstrip("\n").split("\n")
    found = _LAST_LINE.match(last)
    print("\n".join(said if found else [*said, last]), flush=True)
    if found is None:
        print(f"{' '.join(names)} ended with {done.returncode}", flush=True)
        return 0, 1, 0
    passed, failed, skipped = map(int, found.groups())
    return passed, failed, skipped


if __name__ == "__main__":
    sys.exit(main())

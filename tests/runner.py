"""Run all tests, or those named, and end with one line: ``N passed, N failed, N skipped``.

The first two arguments are how many checks before (format, lint, types) failed and passed; they
count as tests.
"""

import sys
import unittest
from pathlib import Path

HERE = Path(__file__).parent


def main() -> int:
    failed_before, passed_before, *names = sys.argv[1:]
    loader = unittest.TestLoader()
    if names:
        suite = loader.loadTestsFromNames(names)
    else:
        suite = loader.discover(str(HERE), top_level_dir=str(HERE.parent))
    result = unittest.TextTestRunner(verbosity=2, stream=sys.stdout).run(suite)
    # A test can fail in several of its sub-tests; it is one failed test all the same.
    broken = {
        getattr(test, "test_case", test).id() for test, _ in (*result.failures, *result.errors)
    }
    broken |= {test.id() for test in result.unexpectedSuccesses}
    skipped = len(result.skipped)
    failed = len(broken) + int(failed_before)
    passed = max(result.testsRun - len(broken) - skipped, 0) + int(passed_before)
    print(f"{passed} passed, {failed} failed, {skipped} skipped", flush=True)
    return 1 if failed or not passed else 0


if __name__ == "__main__":
    sys.exit(main())

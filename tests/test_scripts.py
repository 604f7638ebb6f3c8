"""The pure modules of the scripts, tested by Node; each of its tests is a part of this one."""

import re
import subprocess
import unittest

from launcher.browser_tools import node_folder
from launcher.paths import ROOT


class ScriptTest(unittest.TestCase):
    def test_pure_modules_pass_their_tests(self) -> None:
        done = subprocess.run(
            [node_folder() / "bin/node", "--test", "--test-reporter=tap", "tests/js/*.test.js"],
            cwd=ROOT, capture_output=True, text=True, check=False, timeout=120,
        )  # fmt: skip
        count = re.search(r"^# pass (\d+)$", done.stdout, re.M)
        self.assertEqual(0, done.returncode, done.stdout + done.stderr)
        self.assertGreater(int(count[1]) if count else 0, 30)

"""The pure modules of the scripts, tested by Node; each of its tests is a part of this one."""

import re
import subprocess
import unittest

from launcher.browser_tools import node_folder
from launcher.paths import ROOT

PANELS = ROOT / "src/axis_path/web/static/js/bench/panels"


class ScriptTest(unittest.TestCase):
    def test_each_panel_is_a_folder_and_a_line_of_the_registry(self) -> None:
        registry = (PANELS / "registry.js").read_text()
        folders = sorted(path.name for path in PANELS.iterdir() if path.is_dir())
        listed = re.findall(r'from "\./(\w+)/index\.js"', registry)
        self.assertEqual(folders, sorted(listed))
        for name in folders:
            with self.subTest(name):
                self.assertTrue((PANELS / name / f"{name}.html").is_file())
                self.assertIn(f'name: "{name}"', (PANELS / name / "index.js").read_text())

    def test_pure_modules_pass_their_tests(self) -> None:
        done = subprocess.run(
            [node_folder() / "bin/node", "--test", "--test-reporter=tap", "tests/js/*.test.js"],
            cwd=ROOT, capture_output=True, text=True, check=False, timeout=120,
        )  # fmt: skip
        count = re.search(r"^# pass (\d+)$", done.stdout, re.M)
        self.assertEqual(0, done.returncode, done.stdout + done.stderr)
        self.assertGreater(int(count[1]) if count else 0, 30)

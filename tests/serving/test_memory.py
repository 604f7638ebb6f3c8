"""Memory that is given back is mapped again when it is used."""

from __future__ import annotations

import subprocess
import sys
from unittest import TestCase

#: Computes, gives memory back, computes the same again, and writes what it had before and after.
_RUN = """
import re
from pathlib import Path
from axis_path.core import Study, Window
from axis_path.core.warm import warm_up
from axis_path.serving.memory import release_memory

def of_files():
    return int(re.search(r"^Pss_File:\\s+(\\d+)", Path("/proc/self/smaps_rollup").read_text(), re.M)[1])

def computed():
    study = Study()
    study.define("f(x) = x^3 - 2 + sin(900 x)/9")
    zeros = [zero.text for zero in study.zeros("f", 0, 2)]
    return str(zeros), str(study.scene(Window((0, 2), (-3, 3), 300, 200)).to_dict())

warm_up()
expected, before = computed(), of_files()
release_memory()
after = of_files()
print(before, after, computed() == expected)
"""


class MemoryTest(TestCase):
    def test_released_memory_is_usable_again(self) -> None:
        run = subprocess.run(
            [sys.executable, "-c", _RUN], capture_output=True, text=True, check=True
        )
        before, after, is_same = run.stdout.split()
        self.assertLess(int(after), int(before) // 2)
        self.assertEqual("True", is_same)

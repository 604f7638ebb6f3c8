"""Memory that is given back is mapped again when it is used."""

from __future__ import annotations

import subprocess
import sys
from unittest import TestCase

from axis_path.serving.memory import unwritten

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

def contents():
    # What stands in the pages of libraries that nobody can write to.
    line = re.compile(r"([0-9a-f]+)-([0-9a-f]+) r-\\Sp \\S+ \\S+ \\S+ +/\\S*\\.so\\S*$")
    with open("/proc/self/mem", "rb", 0) as memory:
        found = {}
        for head in filter(None, map(line.match, Path("/proc/self/maps").read_text().splitlines())):
            low, high = int(head[1], 16), int(head[2], 16)
            memory.seek(low)
            found[low] = memory.read(high - low)
        return found

# More libraries, of which some end beside memory without a file.
import psycopg
import scipy.optimize
warm_up()
expected, before, pages = computed(), of_files(), contents()
release_memory()
after = of_files()
print(before, after, computed() == expected and contents() == pages)
# A library that is loaded now is linked with those that gave pages back.
import scipy.sparse.csgraph
"""
_MAPS = """\
7f00-7f10 r-xp 00000000 08:01 11   /lib/libone.so.6
Anonymous:             0 kB
Swap:                  0 kB
7f10-7f20 r--p 00010000 08:01 11   /lib/libone.so.6
Anonymous:             4 kB
Swap:                  0 kB
7f20-7f30 rw-p 00000000 00:00 0
Anonymous:             0 kB
Swap:                  0 kB
7f30-7f40 r--p 00000000 08:01 12   /lib/two.cpython-311.so
Anonymous:             0 kB
Swap:                  8 kB
7f40-7f50 r--s 00000000 08:01 13   /lib/three.so
Anonymous:             0 kB
Swap:                  0 kB
7f50-7f60 r--p 00000000 08:01 14   /lib/four.so
Anonymous:             0 kB
Swap:                  0 kB
7f60-7f70 r--p 00000000 08:01 15   /lib/locale
Anonymous:             0 kB
Swap:                  0 kB
"""


class MemoryTest(TestCase):
    def test_only_pages_that_are_the_same_in_the_file_are_released(self) -> None:
        spans = list(unwritten(_MAPS.splitlines()))
        self.assertEqual([(0x7F00, 0x7F10), (0x7F50, 0x7F60)], spans)

    def test_released_memory_is_usable_again(self) -> None:
        run = subprocess.run(
            [sys.executable, "-c", _RUN], capture_output=True, text=True, check=True
        )
        before, after, is_same = run.stdout.split()
        self.assertLess(int(after), int(before) // 2)
        self.assertEqual("True", is_same)

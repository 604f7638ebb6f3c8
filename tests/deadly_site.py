"""Mutations of deadly lines through a site that runs: its processes must be the same afterwards.

    PYTHONPATH=src:. .venv/bin/python -m tests.deadly_site http://127.0.0.1:8765 2000 [seed]

Each line is written into a study, drawn, searched, tabulated and computed in Working, as a page does,
with the limits of the site. Several visitors go on at the same time. Printed is whatever is answered
with a status of 500 and more, and late.
"""

from __future__ import annotations

import json
import re
import sys
import time
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from tests.deadly import mutations
from tests.visitor import Visitor

VISITORS = 3
WINDOW = {"x": [-10.0, 10.0], "y": [-7.0, 7.0], "width": 660, "height": 430}
#: Longer than the deadline of any request, and the worker's grace.
LATE_S = 15.0
_STATE = r'id="bench-state">(.*?)</script>'
_ASKED = ("scene", "findings", "table", "exact", "working")


def living_processes() -> set[tuple[int, str]]:
    """Return the processes of sites by their number and name, but for workers, which are replaced."""
    found = set()
    for folder in Path("/proc").glob("[0-9]*"):
        try:
            if b"axis_path.serving" in (folder / "cmdline").read_bytes():
                found.add((int(folder.name), (folder / "comm").read_text().strip()))
        except OSError:
            continue
    return {(pid, name) for pid, name in found if name != "axis-path-calc"}


class Page:
    """A study as a page has it open, which notes every answer.

    Args:
        visitor: who has it open.
        text: the line that is written into it.
        seen: how often each kind of answer came.
    """

    def __init__(self, visitor: Visitor, text: str, seen: Counter[str]) -> None:
        self._visitor, self._text, self._seen = visitor, text, seen
        self._path = visitor.create_study()
        page = visitor.get(self._path)[1]
        self._version = json.loads(re.search(_STATE, page, re.S)[1])["version"]  # type: ignore[index]

    def ask(self, what: str, **given: object) -> None:
        """SavedQuery something about the study, and note how it was answered."""
        sent = {"version": self._version, "window": WINDOW, "digits": 30, **given}
        began = time.monotonic()
        status, answer = self._visitor.post(f"{self._path}/{what}", **sent)
        took = time.monotonic() - began
        self._version = answer.get("version", self._version)
        kind = f"{status} {answer['error']['code']}" if status != 200 else "200"
        self._seen[kind] += 1
        if status >= 500 or took > LATE_S:
            print(f"{kind} after {took:.1f} s: {what} {self._text[:160]!r}", flush=True)

    def use(self) -> None:
        """Do with the line what a page does."""
        right = self._text.split("=", 1)[-1]
        for command in (
            {"do": "write", "id": None, "text": "f(x) = x^2 - 2"},
            {"do": "write", "id": None, "text": self._text},
            {"do": "work", "id": None, "text": right},
            {"do": "find", "what": "zeros", "line": 2},
            {"do": "find", "what": "solve", "text": f"{right} = 3"},
        ):
            self.ask("commands", commands=[command])
        for what in _ASKED:
            self.ask(what)


def use(base: str, texts: list[str]) -> Counter[str]:
    """Use lines, one by one; return how often each kind of answer came."""
    visitor, seen = Visitor(base), Counter[str]()
    for text in texts:
        Page(visitor, text, seen).use()
    return seen


def main() -> None:
    """Use so many lines, and print what was answered and which processes are still there."""
    base, count = sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 500
    texts = list(mutations(count, int(sys.argv[3]) if len(sys.argv) > 3 else 1))
    before = living_processes()
    with ThreadPoolExecutor(VISITORS) as pool:
        shares = [texts[k::VISITORS] for k in range(VISITORS)]
        seen = sum(pool.map(use, [base] * VISITORS, shares), Counter[str]())
    for kind, times in seen.most_common():
        print(f"{times:8,} {kind}")
    ended = before - living_processes()
    print(f"{count:,} lines; of {len(before)} processes {len(ended)} ended: {sorted(ended)}")


if __name__ == "__main__":
    main()

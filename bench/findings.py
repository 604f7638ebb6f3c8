"""How long it takes to locate: many zeros, and all findings of six curves at once.

The yardstick is plain NumPy in the same run: a million samples and the changes of sign between them,
which proves nothing.

Run: PYTHONPATH=src .venv/bin/python -m bench.findings
"""

from __future__ import annotations

import time
from collections.abc import Callable
from itertools import combinations

import numpy as np

from axis_path.core import Study
from bench.six import LINES, make_study

MANY = "f(x) = sin(10x) exp(-0.1x^2) + 0.05x"
SAMPLES = 1_000_001


def best_ms(work: Callable[[], object], rounds: int = 15) -> float:
    times = []
    for _ in range(rounds):
        began = time.perf_counter()
        work()
        times.append(time.perf_counter() - began)
    return float(np.median(times)) * 1e3


def by_hand(low: float, high: float) -> int:
    x = np.linspace(low, high, SAMPLES)
    y = np.sin(10 * x) * np.exp(-0.1 * x**2) + 0.05 * x
    return int(np.sum(y[1:] * y[:-1] < 0))


def all_findings(study: Study, names: list[str]) -> int:
    """Locate zeros, extrema and breaks of the functions, and where every two curves meet."""
    found = 0
    for name in names[:4]:
        for search in (study.zeros, study.extrema, study.breaks):
            found += len(search(name, -10, 10))
    for one, other in combinations(names, 2):
        found += len(study.intersections(one, other, -10, 10))
    return found


def main() -> None:
    study = Study()
    study.define(MANY)
    hand = best_ms(lambda: by_hand(-10, 10))
    for reach in (10, 100, 1_000):
        spent = best_ms(lambda reach=reach: study.zeros("f", -reach, reach))  # type: ignore[misc]
        found = study.zeros("f", -reach, reach)
        print(
            f"{len(found)} zeros on [-{reach}, {reach}], complete: {found.complete}:"
            f" {spent:.1f} ms, {spent / hand:.2f} times a million samples"
        )
    six = make_study(LINES)
    names = list(six.names())
    names = [name for name in names if name != "s"]
    spent = best_ms(lambda: all_findings(six, names), 7)
    print(
        f"all {all_findings(six, names)} findings of six curves: {spent:.0f} ms,"
        f" {spent / hand:.2f} times a million samples"
    )
    for kind in ("zeros", "extrema", "breaks"):
        spent = best_ms(lambda kind=kind: [getattr(six, kind)(n, -10, 10) for n in names[:4]], 7)  # type: ignore[misc]
        print(f"  {kind}: {spent:.1f} ms")
    for one, other in combinations(names, 2):
        spent = best_ms(lambda a=one, b=other: six.intersections(a, b, -10, 10), 3)  # type: ignore[misc]
        count = len(six.intersections(one, other, -10, 10))
        print(f"  {one} and {other}: {count} in {spent:.1f} ms")


if __name__ == "__main__":
    main()

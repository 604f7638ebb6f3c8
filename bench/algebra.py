"""Matrices, lists and Working: exact inverses, numeric products, and what an edit computes.

Run: PYTHONPATH=src .venv/bin/python -m bench.algebra

The yardsticks stand beside each figure: NumPy on the same numbers where there is one, and the whole
Working against one line of it.
"""

from __future__ import annotations

import random
import time
from collections.abc import Callable

import numpy as np

from axis_path.core import Study, Window
from axis_path.core.features.working.commands import Work
from axis_path.core.features.working.queries import WorkingResults
from bench.machine import telling_what_was_taken

WINDOW = Window((-10, 10), (-7, 7), 600, 400)
ROUNDS = 7


def best(work: Callable[[], object], rounds: int = ROUNDS) -> float:
    """Return the shortest of several times in ms."""
    times = []
    for _ in range(rounds):
        began = time.perf_counter()
        work()
        times.append(1000 * (time.perf_counter() - began))
    return min(times)


def exact_inverse() -> None:
    drawn = random.Random(20)  # noqa: S311 - a matrix, no secret
    rows = [[drawn.randint(-9, 9) for _ in range(20)] for _ in range(20)]
    study = Study()
    text = "[" + ", ".join(str(row) for row in rows) + "]"
    study.define(f"A = {text}")

    def invert() -> None:
        study.snapshot = study.snapshot.after(study.snapshot.document)
        if not study.evaluate("A^-1").exact:
            raise SystemExit("the inverse has no exact form")

    floats = best(lambda: np.linalg.inv(np.array(rows, dtype=float)))
    took = best(invert)
    print(f"exact inverse, 20 by 20: {took:.1f} ms (wanted: 50); NumPy, 16 digits: {floats:.2f} ms")


def numeric_product() -> None:
    study = Study()
    study.define("A = random(500, 500)")
    study.evaluate("A[1, 1]")
    matrix = np.random.default_rng(1).random((500, 500))
    yardstick = best(lambda: matrix @ matrix, 3 * ROUNDS)
    took = best(lambda: study.evaluate("A A").value, 3 * ROUNDS)
    print(
        f"numeric product, 500 by 500, with error bounds: {took:.1f} ms, {took / yardstick:.2f} times "
        f"NumPy (wanted: 1.5), {yardstick:.1f} ms"
    )
    yardstick = best(lambda: np.linalg.inv(matrix))
    took = best(lambda: study.evaluate("A^-1").value)
    print(
        f"numeric inverse, 500 by 500, with proof: {took:.0f} ms, {took / yardstick:.1f} times NumPy, "
        f"{yardstick:.0f} ms"
    )


def large_matrix() -> None:
    study = Study()
    study.define("A = random(1000, 1000)")
    study.evaluate("A[1, 1]")
    for text in (
        "random(1000, 1000)",
        "matrix(sin(i j), i, 1, 1000, j, 1, 1000)",
        "A A",
        "A^-1",
        "det(A)",
        "rank(A)",
        "eigenvalues(A)",
    ):
        print(f"1,000 by 1,000: {text}: {best(lambda: study.evaluate(text).decimal(6), 3):.0f} ms")  # noqa: B023


def working() -> None:
    study = Study()
    study.define("a = 2")
    for k in range(100):
        study.apply(Work(None, f"n_{k} = {k}/7 + sqrt({k})"), WINDOW)
        study.apply(Work(None, f"n_{k}^2 - {k}"), WINDOW)

    def look() -> None:
        results = study.snapshot.query(WorkingResults)
        for value in results.lines():
            results.result(value).decimal(10)

    began = time.perf_counter()
    look()
    whole = 1000 * (time.perf_counter() - began)

    def edit() -> None:
        study.apply(Work(9, f"n_4 = {time.perf_counter_ns()}/7"), WINDOW)
        look()

    def add() -> None:
        study.apply(Work(None, "sin(pi/12)"), WINDOW)
        results = study.snapshot.query(WorkingResults)
        results.result(results.lines()[-1]).decimal(10)

    print(
        f"a Working of 200 lines: {whole:.0f} ms at first; {best(edit):.1f} ms after an edit on "
        f"which one other line depends; a new line: {best(add):.1f} ms (wanted: 100)"
    )


if __name__ == "__main__":
    with telling_what_was_taken():
        exact_inverse()
        numeric_product()
        large_matrix()
        working()

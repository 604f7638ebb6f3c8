"""How long tables take: their first rows, and a million rows as CSV with the memory that they need.

The yardstick is the same file written by NumPy by hand in the same run, which proves nothing and
knows no domain.

Run: PYTHONPATH=src .venv/bin/python -m bench.tables
"""

from __future__ import annotations

import resource
import time
from pathlib import Path
from tempfile import TemporaryDirectory

import numpy as np

from axis_path.bench.tables import csv_blocks, table_rows
from axis_path.core import Study
from axis_path.core.features.tables.queries import Tables
from axis_path.core.kinds.states import States
from axis_path.core.tabulate import TableSpec, make_table
from bench.findings import best_ms

LINES = ("f(x) = x^2 - 3x", "g(x) = sin(x) exp(-x/200)", "h(x) = 1/(1 + x^2)")
ROWS = 1_000_000
FIRST = 50


def make_study() -> Study:
    study = Study()
    for line in LINES:
        study.define(line)
    study.keep(TableSpec("0", "999.999", "0.001"))
    return study


def first_rows(study: Study) -> int:
    """Make the rows that are seen at first, every digit right, as the page asks for them."""
    functions = {
        line.name or "": function for line, function in study.snapshot.query(States).functions()
    }
    table = make_table(
        functions,
        study.snapshot.query(Tables)
        .table_abscissae(study.snapshot.section(TableSpec))
        .part(0, FIRST),
    )
    return sum(len(table.text(name, row, 6)) for name in functions for row in range(FIRST))


def write_by_hand(file: Path) -> None:
    x = np.arange(ROWS) * 0.001
    columns = [x, x**2 - 3 * x, np.sin(x) * np.exp(-x / 200), 1 / (1 + x**2)]
    np.savetxt(file, np.column_stack(columns), fmt="%.15g", delimiter=",", newline="\r\n")


def write(study: Study, file: Path) -> None:
    with file.open("w", newline="") as stream:
        for part in csv_blocks(table_rows(study)):
            stream.write(part)


def seconds(work: object, *given: object) -> float:
    began = time.perf_counter()
    work(*given)  # type: ignore[operator]
    return time.perf_counter() - began


def most_memory() -> float:
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024


def main() -> None:
    study = make_study()
    print(f"first {FIRST} rows of 3 functions: {best_ms(lambda: first_rows(study)):.1f} ms")
    with TemporaryDirectory() as folder:
        ours, theirs = Path(folder, "ours.csv"), Path(folder, "theirs.csv")
        before = most_memory()
        took = seconds(write, study, ours)
        memory = most_memory()
        by_hand = seconds(write_by_hand, theirs)
        rows = ours.read_bytes().count(b"\n") - 1
    print(f"{rows:,} rows as CSV: {took:.2f} s, {took / by_hand:.2f} times NumPy by hand")
    print(f"memory of the process: {before:.0f} MB before, {memory:.0f} MB at most while writing")


if __name__ == "__main__":
    main()

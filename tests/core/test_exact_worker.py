"""The process that looks for exact forms ends, whatever becomes of the program that asked."""

import os
import signal
import subprocess
import sys
import time
import unittest
from pathlib import Path

SOURCES = Path(__file__).parents[2] / "src"
#: Starts work that nothing interrupts, says which process does it, and waits to be killed.
PROGRAM = """
import threading, time
from axis_path.core.evaluate.exact import exact_pool
work = threading.Thread(
    target=exact_pool.run_limited, args=(pow, 3, 10**9), kwargs={"limit_ms": 2000}, daemon=True
)
work.start()
workers = []
while not workers:
    time.sleep(0.05)
    if exact_pool._pool._pool is not None:
        workers = list(exact_pool._pool._pool._pool_manager.worker_manager.workers)
time.sleep(0.5)
print(workers[0], flush=True)
time.sleep(60)
"""
PATIENCE_S = 120


class OrphanTest(unittest.TestCase):
    def test_a_worker_ends_itself_after_its_program_was_killed(self) -> None:
        program = subprocess.Popen(
            [sys.executable, "-c", PROGRAM], stdout=subprocess.PIPE, text=True,
            env=os.environ | {"PYTHONPATH": str(SOURCES)},
        )  # fmt: skip
        assert program.stdout is not None
        with program:
            worker = int(program.stdout.readline())
            self.assertTrue(_runs(worker))
            program.send_signal(signal.SIGKILL)
        until = time.monotonic() + PATIENCE_S
        while _runs(worker) and time.monotonic() < until:
            time.sleep(0.1)
        self.assertFalse(_runs(worker))


def _runs(pid: int) -> bool:
    try:
        state = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0]
    except FileNotFoundError:
        return False
    return state != "Z"

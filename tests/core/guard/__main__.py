"""Judges many cases, and prints what is wrong and how often each question is left undecided."""

import sys
import time
from collections import Counter

from tests.core.guard.run import run


def main() -> None:
    """Judge as many cases as the command line says."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 1_000
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    began = time.monotonic()
    tally = run(count, seed)
    for case, amiss in tally.wrong[:60]:
        print(f"WRONG {case.question:12} {case.text}  {amiss}")
    weak = Counter((case.question, amiss.split(":")[0][:40]) for case, amiss in tally.weak)
    for (question, amiss), times in weak.most_common(20):
        print(f"{times:6} {question:12} {amiss}")
    print(
        f"{count:,} cases: {tally.right:,} right, {len(tally.weak):,} weak, "
        f"{len(tally.wrong):,} wrong, {time.monotonic() - began:.0f} s"
    )


main()

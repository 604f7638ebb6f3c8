"""Lines whose answers are known by construction, and what Axis Path claims of them.

    PYTHONPATH=src:. .venv/bin/python -m tests.core.guard 100000 [seed]

Ordinary functions g have simple zeros and turns, computed here with 60 digits by mpmath. Outer
forms put singular places at them: |g| has kinks there, 1/g poles, sqrt(g) ends. Other classes are
built from closed forms. Whatever Axis Path calls proved or complete must agree with that truth;
what it leaves undecided is counted, and is no fault. Each module holds one class of cases.
"""

from tests.core.guard.run import Tally, run

__all__ = ["Tally", "run"]

"""Tests of the core."""

from axis_path.core.evaluate.exact import exact_pool
from axis_path.core.limits import Limit

# On a busy machine a worker gets little of it: what it finds is tested here, not how soon.
exact_pool.EXACT_TIME = Limit(20_000, "ms", exact_pool.EXACT_TIME.meaning)  # type: ignore[attr-defined]

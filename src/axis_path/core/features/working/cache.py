"""Results that are kept from one edit to the next: an edit computes what depends on it, no more.

What took too long is not tried again by itself: it would hold back the lines below each time.
"""

from __future__ import annotations

from collections.abc import Callable

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.deadline import has_full_time
from axis_path.core.document.random_seed import RandomSeed
from axis_path.core.errors import CancelledError, StoppedError
from axis_path.core.evaluate import Result
from axis_path.core.language.tree import Node
from axis_path.core.language.walk import names_in


def cached_result(
    snapshot: Snapshot,
    node: Node,
    owner: str,
    compute: Callable[[], Result],
    *,
    again: bool = False,
) -> Result:
    """Return the result of an expression, from before if nothing that it uses has changed.

    Args:
        snapshot: the names that it may use.
        node: the expression.
        owner: by what its random numbers are drawn.
        compute: computes it.
        again: whether it is computed even if it took too long before.

    Raises:
        StoppedError: it takes too long, now or before.
    """
    analysis = snapshot.analysis
    names = names_in(node)
    marks = tuple(sorted((name, str(analysis.mark(name))) for name in names))
    sliders = snapshot.sliders_below(names)
    solved = snapshot.solved_sets.options_of(analysis.solved_in(names))
    key = (node, owner, marks, sliders, solved, snapshot.section(RandomSeed).number)
    stopped = analysis.cache.stopped
    known = None if again else stopped.get(key, None)
    if known is not None:
        raise StoppedError(known)
    has_all = has_full_time()
    try:
        return analysis.cache.results.get_or_make(key, compute)
    except CancelledError:
        raise
    except StoppedError as err:
        if has_all:
            stopped.put(key, err.message)
        raise

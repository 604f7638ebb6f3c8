"""Prefetch: scenes that a page will probably need next, made in the time that is left.

A page sends with its request what it expects. Nobody waits for these scenes, and the present
request waits for them, so there is little time; the page asks again for those that are missing.
The web process says in the context of a job whether there is any time (``web/bench/prefetch.py``).
"""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator
from typing import Any

import msgspec

from axis_path.bench.job import Job
from axis_path.bench.requests import SceneQuery
from axis_path.core.errors import MathError
from axis_path.core.limits import PREFETCH_TIME

#: The field of a job's context that says whether scenes may be prefetched.
ALLOWED = "prefetch"


def prefetched(
    job: Job, query: SceneQuery, began: float, make: Callable[[SceneQuery], dict[str, Any]]
) -> dict[str, Any]:
    """Return what an answer says of prefetching: whether there is time, and the scenes.

    Args:
        job: the present request.
        query: what was sent; ``prefetch`` in it are drafts of states.
        began: when the request began.
        make: returns the answer for another state.
    """
    is_allowed = bool(job.context.get(ALLOWED, True))
    if isinstance(query.prefetch, msgspec.UnsetType):
        return {"may_prefetch": is_allowed}
    states = query.prefetch if is_allowed else ()
    return {"may_prefetch": is_allowed, "prefetched": list(_made(states, query, began, make))}


def _made(
    states: tuple[Any, ...],
    query: SceneQuery,
    began: float,
    make: Callable[[SceneQuery], dict[str, Any]],
) -> Iterator[dict[str, Any]]:
    for drafts in states:
        if 1000 * (time.monotonic() - began) >= PREFETCH_TIME.value:
            return
        try:
            yield make(msgspec.structs.replace(query, drafts=drafts))
        except MathError:
            # What cannot be is said when it is really asked for.
            return

"""Methods of the facade that ask its snapshot, or go on to another one."""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from typing import Concatenate, ParamSpec, Protocol, TypeVar

from axis_path.core.compile.snapshot import Query, Snapshot


class Holder(Protocol):
    """What holds the present snapshot of a study."""

    snapshot: Snapshot


P = ParamSpec("P")
R = TypeVar("R")
Q = TypeVar("Q", bound=Query)
#: Makes the next snapshot of one.
Edit = Callable[Concatenate[Snapshot, P], Snapshot]


def asked(
    kind: type[Q], method: Callable[Concatenate[Q, P], R]
) -> Callable[Concatenate[Holder, P], R]:
    """Return a method that asks the snapshot."""

    @wraps(method)
    def ask(self: Holder, /, *args: P.args, **kwargs: P.kwargs) -> R:
        return method(self.snapshot.query(kind), *args, **kwargs)

    return ask


def of_snapshot(
    method: Callable[Concatenate[Snapshot, P], R],
) -> Callable[Concatenate[Holder, P], R]:
    """Return a method that the snapshot has."""

    @wraps(method)
    def ask(self: Holder, /, *args: P.args, **kwargs: P.kwargs) -> R:
        return method(self.snapshot, *args, **kwargs)

    return ask


def edits(change: Edit[P]) -> Callable[Concatenate[Holder, P], None]:
    """Return a method that goes on to another snapshot; if that raises, nothing changes."""

    @wraps(change)
    def edit(self: Holder, /, *args: P.args, **kwargs: P.kwargs) -> None:
        self.snapshot = change(self.snapshot, *args, **kwargs)

    return edit

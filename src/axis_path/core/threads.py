"""How threads share what is kept: one lock, dictionaries with their own, and properties.

Two locks that are taken in either order stop two threads for ever, and what is kept is made out of
what else is kept, in any order. So there is one lock for all that computes or grows, and whatever
else is locked here and there is held for a moment, while nothing is computed.
"""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Any, Generic, TypeVar, overload

T = TypeVar("T")
K = TypeVar("K", bound=Hashable)
V = TypeVar("V")

#: Held while balls are computed, whose precision is the process's, and while a graph grows.
COMPUTING = threading.RLock()


class kept_property(Generic[T]):  # noqa: N801 - it is used like a function
    """A property that is computed when it is first asked for, and kept with the object.

    Unlike the one of Python 3.11's standard library it holds no lock for all objects of its class
    meanwhile: two threads may compute the same, and keep either.
    """

    def __init__(self, make: Callable[[Any], T]) -> None:
        self._make = make
        self._name = make.__name__
        self.__doc__ = make.__doc__

    @overload
    def __get__(self, owner: None, of: type) -> kept_property[T]: ...

    @overload
    def __get__(self, owner: object, of: type) -> T: ...

    def __get__(self, owner: object | None, of: type) -> T | kept_property[T]:
        """Return what is kept; made if it is missing."""
        if owner is None:
            return self
        # Found in the object itself from now on: this has no way of setting.
        found = owner.__dict__[self._name] = self._make(owner)
        return found


class Bounded(Generic[K, V]):
    """What was made for keys, for all threads; of many keys those that were asked for last.

    A key holds all that its value depends on, so that what is found is never stale.
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._kept: OrderedDict[K, V] = OrderedDict()
        self._lock = threading.Lock()

    def get(self, key: K, default: T) -> V | T:
        """Return what is kept for a key."""
        with self._lock:
            found = self._kept.get(key, default)
            if found is not default:
                self._kept.move_to_end(key)
        return found

    def put(self, key: K, value: V) -> None:
        """Keep something for a key; what was not asked for longest goes."""
        with self._lock:
            self._kept[key] = value
            if len(self._kept) > self._most:
                self._kept.popitem(last=False)

    def made(self, key: K, make: Callable[[], V]) -> V:
        """Return what is kept for a key, or make and keep it; two threads may both make it."""
        found = self.get(key, _NOTHING)
        if found is _NOTHING:
            found = make()
            self.put(key, found)
        return found  # type: ignore[return-value]


_NOTHING = object()

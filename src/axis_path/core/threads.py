"""How threads share what is cached: one lock, caches with their own, and properties.

Two locks that are taken in either order stop two threads for ever, and what is cached is made of
what else is cached, in any order. So there is one lock for all that computes or grows, and whatever
else is locked here and there is held for a moment, while nothing is computed.
"""

from __future__ import annotations

import threading
from collections.abc import Callable, Hashable
from typing import Any, Generic, TypeVar, overload

from cachetools import LRUCache

T = TypeVar("T")
K = TypeVar("K", bound=Hashable)
V = TypeVar("V")

#: Held while balls are computed, whose precision is the process's, and while a graph grows.
COMPUTING = threading.RLock()


class lazy_property(Generic[T]):  # noqa: N801 - it is used like a function
    """A property that is computed when it is first asked for, and stored in the object.

    Unlike the one of Python 3.11's standard library it holds no lock for all objects of its class
    meanwhile: two threads may compute the same, and keep either.
    """

    def __init__(self, make: Callable[[Any], T]) -> None:
        self._make = make
        self._name = make.__name__
        self.__doc__ = make.__doc__

    @overload
    def __get__(self, owner: None, of: type) -> lazy_property[T]: ...

    @overload
    def __get__(self, owner: object, of: type) -> T: ...

    def __get__(self, owner: object | None, of: type) -> T | lazy_property[T]:
        """Return the stored value; made if it is missing."""
        if owner is None:
            return self
        # Found in the object itself from now on: this has no way of setting.
        value = owner.__dict__[self._name] = self._make(owner)
        return value


class SharedCache(Generic[K, V]):
    """A cache for all threads that drops the least recently used entries.

    A key holds all that its value depends on, so that no entry is ever stale.

    Args:
        maxsize: the most entries.
    """

    def __init__(self, maxsize: int) -> None:
        self._entries: LRUCache[K, V] = LRUCache(maxsize)
        self._lock = threading.Lock()

    def get(self, key: K, default: T) -> V | T:
        """Return the value of a key."""
        with self._lock:
            return self._entries.get(key, default)

    def put(self, key: K, value: V) -> None:
        """Store the value of a key."""
        with self._lock:
            self._entries[key] = value

    def get_or_make(self, key: K, make: Callable[[], V]) -> V:
        """Return the value of a key, made if it is missing; two threads may both make it."""
        cached = self.get(key, _NOTHING)
        if cached is _NOTHING:
            cached = make()
            self.put(key, cached)
        return cached  # type: ignore[return-value]


_NOTHING = object()

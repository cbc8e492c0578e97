"""What was worked out last, for as long as there is room for it."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

Key = TypeVar("Key", bound=Hashable)
Value = TypeVar("Value")


class Remembered(Generic[Key, Value]):
    """Values by key, those that were not asked for the longest let go as soon as all together weigh
    more than `most_bytes`; the one that was kept last always stays. `weigh` tells what a value
    takes, in bytes. Safe to share between threads."""

    def __init__(self, most_bytes: int, weigh: Callable[[Value], int]) -> None:
        self.most_bytes, self.weigh = most_bytes, weigh
        self._kept: OrderedDict[Key, tuple[Value, int]] = OrderedDict()
        self._bytes = 0
        self._lock = Lock()

    def get(self, key: Key) -> Value | None:
        with self._lock:
            found = self._kept.get(key)
            if found is None:
                return None
            self._kept.move_to_end(key)
            return found[0]

    def keep(self, key: Key, value: Value) -> None:
        weight = self.weigh(value)
        with self._lock:
            _, before = self._kept.pop(key, (None, 0))
            self._kept[key] = (value, weight)
            self._bytes += weight - before
            while self._bytes > self.most_bytes and len(self._kept) > 1:
                _, (_, gone) = self._kept.popitem(last=False)
                self._bytes -= gone

    def latest_first(self) -> list[Value]:
        with self._lock:
            return [value for value, _ in reversed(self._kept.values())]

    @property
    def bytes(self) -> int:
        return self._bytes

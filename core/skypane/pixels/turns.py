"""Who may work next where only so many can: turns go round those who wait, so that one person's
heavy work waits on itself and not everybody on it."""

from __future__ import annotations

import threading
import time
from collections import Counter
from collections.abc import Hashable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

from skypane.errors import Busy

#: Whoever has so many waiting already is told soon to come back, so that those who serve keep a
#: hand free for others.
MOST_WAITING = 2
CROWDED_SECONDS = 2.0

SENTENCE = "Many pictures are being opened at this moment. Wait a little, then try again."
OWN_SENTENCE = (
    "Several of your pictures are being opened at this moment. Wait until they are here, then try"
    " again."
)


@dataclass
class _Waiting:
    who: Hashable
    number: int
    called: bool = field(default=False)


class Turns:
    """`at_once` turns. Somebody who is named holds all but one of them at most (and one at least);
    nobody in particular (None) may hold all. Of those who wait, whoever holds fewest is next, then
    whoever was served least recently, then who came first. Safe to share between threads."""

    def __init__(self, at_once: int) -> None:
        self._free = at_once
        self._most = max(1, at_once - 1)
        self._holds: Counter[Hashable] = Counter()
        self._served: dict[Hashable, int] = {}
        self._waiting: list[_Waiting] = []
        self._numbers = 0
        self._changed = threading.Condition()

    @contextmanager
    def turn(self, who: Hashable, wait_seconds: float) -> Iterator[None]:
        """Raises Busy where it is not one's turn within `wait_seconds`."""
        self._take(who, wait_seconds)
        try:
            yield
        finally:
            with self._changed:
                self._free += 1
                self._holds[who] -= 1
                if not self._holds[who]:
                    del self._holds[who]
                self._call()

    def _take(self, who: Hashable, wait_seconds: float) -> None:
        with self._changed:
            self._numbers += 1
            mine = _Waiting(who, self._numbers)
            own = who is not None and sum(w.who == who for w in self._waiting) >= MOST_WAITING
            self._waiting.append(mine)
            self._call()
            until = time.monotonic() + (min(wait_seconds, CROWDED_SECONDS) if own else wait_seconds)
            while not mine.called:
                left = until - time.monotonic()
                if left <= 0:
                    self._waiting.remove(mine)
                    raise Busy(OWN_SENTENCE if own else SENTENCE)
                self._changed.wait(left)

    def _call(self) -> None:
        """Give what is free to those who are next."""
        while self._free:
            may = [w for w in self._waiting if w.who is None or self._holds[w.who] < self._most]
            if not may:
                return
            chosen = min(
                may, key=lambda w: (self._holds[w.who], self._served.get(w.who, 0), w.number)
            )
            self._waiting.remove(chosen)
            self._free -= 1
            self._holds[chosen.who] += 1
            self._numbers += 1
            self._served[chosen.who] = self._numbers
            chosen.called = True
            self._forget()
            self._changed.notify_all()

    def _forget(self) -> None:
        """Only those who wait or hold are compared with others."""
        if len(self._served) > 1000:
            here = {w.who for w in self._waiting} | set(self._holds)
            self._served = {who: n for who, n in self._served.items() if who in here}

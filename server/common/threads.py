"""Threads of our own that do something every few seconds. None ends unseen: what goes wrong in one
is logged as an error, and the next time it is done again."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager

from django.db import DatabaseError, InterfaceError, connection

log = logging.getLogger(__name__)


class Beat:
    """`each` is done every so many seconds until the end, for the first time at once or after so
    many; `last` once after it. A database that is away for a while is waited for."""

    def __init__(
        self,
        name: str,
        each: Callable[[], object],
        seconds: float,
        *,
        at_once: bool = False,
        last: Callable[[], object] | None = None,
    ) -> None:
        self.name, self.each, self.seconds = name, each, seconds
        self.at_once, self.last = at_once, last
        self._ended = threading.Event()
        self._thread = threading.Thread(target=self._run, name=name, daemon=True)

    def start(self) -> None:
        self._thread.start()

    def end(self) -> None:
        self._ended.set()

    def join(self) -> None:
        self._thread.join()

    def _run(self) -> None:
        if self.at_once:
            self._tried(self.each)
        while not self._ended.wait(self.seconds):
            self._tried(self.each)
        if self.last is not None:
            self._tried(self.last)
        connection.close()

    def _tried(self, work: Callable[[], object]) -> None:
        try:
            work()
        except (DatabaseError, InterfaceError) as problem:
            log.warning("%s: the database did not answer. %s", self.name, problem)
            connection.close()
        except Exception:
            log.exception("%s: something failed in its thread.", self.name)


@contextmanager
def beating(name: str, each: Callable[[], object], seconds: float) -> Iterator[None]:
    """Meanwhile, in a thread of its own."""
    beat = Beat(name, each, seconds)
    beat.start()
    try:
        yield
    finally:
        beat.end()
        beat.join()

"""So many files are encoded at once on this machine, whoever asks: as many as it has cores.

Whoever wants to encode takes a slot for one crop, and waits where all are taken. Every run takes
turns that way, so that several people's runs share the machine evenly.
"""

from __future__ import annotations

import fcntl
import os
import random
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager

from django.conf import settings

#: How long somebody waits before they look for a free slot again, in seconds.
LOOK_SECONDS = 0.1


def at_once() -> int:
    """How many files this machine encodes at once."""
    return int(settings.ENCODE_AT_ONCE) or len(os.sched_getaffinity(0))


@contextmanager
def slot(gives_up: Callable[[], bool]) -> Iterator[bool]:
    """Hold one of the machine's slots; False, and none held, where `gives_up` says so while it is
    waited for. A process that dies gives its slot back."""
    folder = settings.WORK_ROOT.with_name("slots")
    folder.mkdir(parents=True, exist_ok=True)
    while not gives_up():
        for n in random.sample(range(at_once()), at_once()):
            handle = os.open(folder / str(n), os.O_RDWR | os.O_CREAT, 0o644)
            try:
                fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except BlockingIOError:
                os.close(handle)
                continue
            try:
                yield True
            finally:
                os.close(handle)
            return
        time.sleep(LOOK_SECONDS * random.uniform(0.5, 1.5))
    yield False

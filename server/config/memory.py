"""Memory that is free is given back to the machine: the C library keeps what it has once been
given, twice what a process needs after hundreds of readings; and Python looks for what hangs on
itself alone the more seldom the more there is."""

from __future__ import annotations

import ctypes
import gc
import os
import threading
import time

#: It is looked at so often at most, in seconds, and only where a process holds more than so much.
EVERY_SECONDS = 1.5
FROM_BYTES = 300_000_000
#: And where so much is left, what hangs on itself alone is looked for first.
FULL_BYTES = 370_000_000

_next = 0.0
_lock = threading.Lock()


def held_bytes() -> int:
    """What this process has in memory (proc(5), `statm`)."""
    with open("/proc/self/statm", "rb") as statm:
        return int(statm.read().split()[1]) * os.sysconf("SC_PAGE_SIZE")


def give_back() -> bool:
    """Give back what is free, where it is time to; whether that was done."""
    global _next
    now = time.monotonic()
    if now < _next or not _lock.acquire(blocking=False):
        return False
    try:
        _next = now + EVERY_SECONDS
        if held_bytes() < FROM_BYTES:
            return False
        # malloc_trim(3): of glibc alone
        trim = getattr(ctypes.CDLL(None), "malloc_trim", None)
        given = bool(trim and trim(0))
        if held_bytes() > FULL_BYTES and gc.collect():
            given = bool(trim and trim(0)) or given
        return given
    finally:
        _lock.release()

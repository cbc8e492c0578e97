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
#: And where so much is left, what hangs on itself alone is looked for; again when a process has
#: grown by this share since.
FULL_BYTES, GROWN = 370_000_000, 1.15
#: Of the time no more than this share is spent on it.
MOST_SHARE = 0.05

_next = 0.0
_after = 0  # held after rings were last looked for
_lock = threading.Lock()


def held_bytes() -> int:
    """What this process has in memory (proc(5), `statm`)."""
    with open("/proc/self/statm", "rb") as statm:
        return int(statm.read().split()[1]) * os.sysconf("SC_PAGE_SIZE")


def give_back() -> bool:
    """Give back what is free, where it is time to; whether that was done."""
    global _next, _after
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
        if held_bytes() > max(FULL_BYTES, GROWN * _after):
            gc.collect()
            given = bool(trim and trim(0)) or given
            _after = held_bytes()
        return given
    finally:
        _next = max(_next, now + (time.monotonic() - now) / MOST_SHARE)
        _lock.release()

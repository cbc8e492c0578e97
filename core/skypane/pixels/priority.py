"""No higher place among other processes.

SVT-AV1 gives its threads, and the one that calls it, a real-time priority wherever it may, as by
default for root: two encodes then keep everything else on the machine waiting for up to a second.
"""

from __future__ import annotations

import contextlib
import ctypes
import os
import sys

#: From linux/capability.h: the version of the call, and the right to raise one's priority.
_VERSION_3, _SYS_NICE = 0x20080522, 23


class _Header(ctypes.Structure):
    _fields_ = [("version", ctypes.c_uint32), ("pid", ctypes.c_int)]


class _Sets(ctypes.Structure):
    _fields_ = [(name, ctypes.c_uint32) for name in ("effective", "permitted", "inheritable")]


def keep_to_usual_priority() -> None:
    """Take the usual one, whatever was inherited, and give up the right to raise it, for this
    process and all that it starts (sched(7), capabilities(7)). Where the system knows no such right
    nothing happens."""
    if not sys.platform.startswith("linux"):
        return
    for thread in os.listdir("/proc/self/task"):
        with contextlib.suppress(OSError):  # one that has just ended
            os.sched_setscheduler(int(thread), os.SCHED_OTHER, os.sched_param(0))
    libc = ctypes.CDLL(None)
    header, sets = _Header(_VERSION_3, 0), (_Sets * 2)()
    if libc.capget(ctypes.byref(header), sets) == 0:
        for name in ("effective", "permitted", "inheritable"):
            setattr(sets[0], name, getattr(sets[0], name) & ~(1 << _SYS_NICE))
        libc.capset(ctypes.byref(header), sets)

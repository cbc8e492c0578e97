"""The one guard of this process, in which pictures are opened (see `skypane.pixels.guarded`)."""

from __future__ import annotations

import os
import threading

from django.conf import settings
from skypane.pixels.guarded import Guard, Limits

_lock = threading.Lock()
_made: dict[int, Guard] = {}


def guard() -> Guard:
    """Made on first use, and again in a process that was forked since: children belong to the
    process that started them."""
    with _lock:
        if os.getpid() not in _made:
            _made.clear()
            _made[os.getpid()] = Guard(Limits(**settings.PICTURE_LIMITS))
        return _made[os.getpid()]

"""The guards of this process, in which pictures are opened (see `skypane.pixels.guarded`)."""

from __future__ import annotations

import os
import threading
from dataclasses import replace

from django.conf import settings
from skypane.pixels.guarded import Guard, Limits

from config.slots import at_once

_lock = threading.Lock()
_made: dict[tuple[int, Limits], Guard] = {}


def guard() -> Guard:
    """Made on first use, and again in a process that was forked since: children belong to the
    process that started them."""
    return _guard(Limits(**settings.PICTURE_LIMITS))


def encoding_guard() -> Guard:
    """The same for runs, which have as many children as there are slots: who may begin is said
    there (see `config.slots`)."""
    limits = Limits(**settings.PICTURE_LIMITS)
    return _guard(replace(limits, at_once=max(limits.at_once, at_once())))


def _guard(limits: Limits) -> Guard:
    with _lock:
        key = os.getpid(), limits
        if key not in _made:
            for pid, other in [k for k in _made if k[0] != os.getpid()]:
                del _made[pid, other]
            _made[key] = Guard(limits)
        return _made[key]

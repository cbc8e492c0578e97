"""The guards of this process, in which pictures are opened (see `skypane.pixels.guarded`)."""

from __future__ import annotations

import os
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import replace
from typing import Any

from django.conf import settings
from django.http import HttpRequest
from skypane.pixels.guarded import Guard, Limits

from common.slots import at_once

#: The request that is answered, if any.
answered: ContextVar[HttpRequest | None] = ContextVar("answered", default=None)

_lock = threading.Lock()
_made: dict[tuple[int, Limits], Guard] = {}


def _limits() -> Limits:
    limits: dict[str, Any] = settings.PICTURE_LIMITS
    return Limits(**limits)


def guard() -> Guard:
    """Made on first use, and again in a process that was forked since: children belong to the
    process that started them."""
    return _guard(_limits())


def encoding_guard() -> Guard:
    """What opens pictures for runs, which have as many children as there are slots: who may begin
    is said there (see `common.slots`)."""
    limits = _limits()
    return _guard(replace(limits, at_once=max(limits.at_once, at_once())))


def _whose() -> int | None:
    """The person whose picture is opened: one person's heavy ones wait on one another."""
    request = answered.get()
    return None if request is None else request.user.pk


@contextmanager
def for_visitors() -> Iterator[None]:
    """What is opened meanwhile is for somebody who is not signed in, and whose cookies are not
    looked at."""
    token = answered.set(None)
    try:
        yield
    finally:
        answered.reset(token)


def _guard(limits: Limits) -> Guard:
    with _lock:
        key = os.getpid(), limits
        if key not in _made:
            for pid, other in [k for k in _made if k[0] != os.getpid()]:
                del _made[pid, other]
            _made[key] = Guard(limits, _whose)
        return _made[key]

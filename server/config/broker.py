"""A connection to the queue that has been lost is told to be lost.

Of a channel that is asked for a new connection after its own has been closed, as when Redis ends
while a run acknowledges its message, kombu 5.7 knows no address and raises AttributeError. Celery
takes that for a fault of the program and ends the worker, where a lost connection is made anew.
"""

from __future__ import annotations

from functools import wraps
from typing import Any

from kombu.transport.redis import Channel, Transport
from redis.exceptions import ConnectionError as Lost


def mend() -> None:
    """Make kombu say so, once for this process."""
    for kind, name in ((Channel, "_connparams"), (Transport, "supports_batch_publish")):
        known = getattr(kind, name)
        if isinstance(known, property):
            setattr(kind, name, property(_told(known.fget, lambda transport: transport.client)))
        else:
            setattr(kind, name, _told(known, lambda channel: channel.connection.client))


def _told(work: Any, client_of: Any) -> Any:
    @wraps(work)
    def told(self: Any, *args: Any, **named: Any) -> Any:
        if client_of(self) is None:
            raise Lost("The connection to the queue has been closed.")
        return work(self, *args, **named)

    return told

"""What the worker does. Losing a message loses nothing: rows say what is to be done, messages only
wake a worker up."""

from __future__ import annotations

import os
import socket
from typing import Any

from celery import shared_task
from celery.signals import worker_ready, worker_shutting_down
from common.threads import Beat
from django.utils import timezone
from kombu.exceptions import OperationalError
from redis.exceptions import RedisError

from deliveries import sweeping, work
from deliveries.models import BEAT_SECONDS, SILENT_AFTER, Worker


@shared_task(ignore_result=True)
def run_delivery(delivery_id: int) -> None:
    work.run(delivery_id)


def send(delivery_id: int) -> bool:
    """Tell a worker of a run. False where the queue is away; the run is sent again when it is
    back."""
    try:
        run_delivery.apply_async((delivery_id,), retry=False)
    except (OperationalError, RedisError, OSError):
        return False
    return True


@shared_task(ignore_result=True)
def requeue_lost() -> int:
    """Send what no worker seems to be at. Returns how many. One that is sent twice is claimed
    once."""
    ids = work.queue_again()
    for delivery_id in ids:
        send(delivery_id)
    return len(ids)


@shared_task(ignore_result=True)
def sweep() -> int:
    """Remove files that nothing refers to. Returns how many."""
    return sweeping.sweep()


# -- signs of life ---------------------------------------------------------------------


def _name() -> str:
    return f"{socket.gethostname()[:100]}-{os.getpid()}"


def _say_alive() -> None:
    now = timezone.now()
    Worker.objects.update_or_create(name=_name(), defaults={"beat": now})
    Worker.objects.filter(beat__lt=now - 10 * SILENT_AFTER).delete()


def signs_of_life(seconds: float = BEAT_SECONDS) -> Beat:
    """Those of this worker, from now until it is told to end."""
    beat = Beat(
        "The worker's sign of life",
        _say_alive,
        seconds,
        at_once=True,
        last=lambda: Worker.objects.filter(name=_name()).delete(),
    )
    beat.start()
    return beat


_of_this_worker: list[Beat] = []


@worker_ready.connect
def _live(**_: Any) -> None:
    _of_this_worker.append(signs_of_life())


@worker_shutting_down.connect
def _leave(**_: Any) -> None:
    for beat in _of_this_worker:
        beat.end()

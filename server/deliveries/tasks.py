"""What the worker does. Losing a message loses nothing: open rows without a sign of life are queued again."""

from __future__ import annotations

from datetime import timedelta

from celery import shared_task
from django.db.models import Q
from django.utils import timezone

from deliveries import runs
from deliveries.models import Delivery

#: Longer than any single file takes to encode.
LOST_AFTER = timedelta(minutes=3)


@shared_task
def run_delivery(delivery_id: int) -> None:
    runs.run(delivery_id)


@shared_task
def requeue_lost() -> int:
    """Queue again what no worker seems to be at. Returns how many."""
    before = timezone.now() - LOST_AFTER
    lost = Delivery.objects.filter(state__in=Delivery.OPEN).filter(
        Q(beat__lt=before) | Q(beat=None, created__lt=timezone.now() - timedelta(seconds=30))
    )
    for delivery in lost:
        run_delivery.delay(delivery.id)
    return len(lost)

"""Export runs and the files they made. A rendition is named by the hash of all that makes it, and
made once."""

from __future__ import annotations

from datetime import timedelta

from common.stored import NounField
from django.conf import settings
from django.db import models
from django.utils import timezone
from placements.models import Placement
from sites.models import Page, Site


class Rendition(models.Model):
    """One made file. It may serve many deliveries."""

    key = models.CharField(max_length=32, unique=True)
    format = models.CharField(max_length=8)
    width_px = models.PositiveIntegerField()
    height_px = models.PositiveIntegerField()
    size_bytes = models.PositiveBigIntegerField()
    sha256 = models.CharField(max_length=64)
    # as the core found them (see `skypane.pixels.encode.Fact`); None of files that older code made
    quality = models.PositiveSmallIntegerField(null=True)
    ssim = models.FloatField(null=True)
    encodes = models.PositiveSmallIntegerField(default=1)
    created = models.DateTimeField(auto_now_add=True)

    @property
    def stored(self) -> str:
        return f"renditions/{self.key[:2]}/{self.key}.{self.format}"


def bytes_made(keys: list[str]) -> dict[str, int]:
    """Bytes of those renditions that exist, by key."""
    return dict(Rendition.objects.filter(key__in=keys).values_list("key", "size_bytes"))


class Delivery(models.Model):
    """One export run of a placement, of a page or of a whole site, with everything it was asked for
    (`asked`) frozen at its start."""

    class State(models.TextChoices):
        QUEUED = "queued"
        RUNNING = "running"
        STOPPING = "stopping"
        STOPPED = "stopped"
        DONE = "done"
        FAILED = "failed"

    class Scope(models.TextChoices):
        PLACEMENT = "placement"
        PAGE = "page"
        SITE = "site"

    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="deliveries")
    scope = models.CharField(max_length=10, choices=Scope, default=Scope.PLACEMENT)
    # what the scope says; null otherwise
    page = models.ForeignKey(Page, on_delete=models.CASCADE, related_name="deliveries", null=True)
    placement = models.ForeignKey(
        Placement, on_delete=models.CASCADE, related_name="deliveries", null=True
    )
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)
    state = models.CharField(max_length=10, choices=State, default=State.QUEUED)
    asked = NounField(kind="asked")  # skypane.handover.Asked
    # what it hands over (see `runs.written_of`): newer rules never change it
    written = NounField(kind="written", null=True)
    claim = models.CharField(max_length=32, blank=True)  # of the one worker that is at it
    claims = models.PositiveIntegerField(default=0)  # how many workers have been at it
    message = models.TextField(blank=True)
    current = models.CharField(max_length=200, blank=True)
    created = models.DateTimeField(auto_now_add=True)
    beat = models.DateTimeField(null=True)  # last sign of life of the worker
    began = models.DateTimeField(null=True)  # when the worker that is at it claimed it
    finished = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-id"]

    @property
    def same_target(self) -> models.QuerySet[Delivery]:
        """All runs of the same placement, page or site, the latest first."""
        # by ids: the rows themselves are not needed
        same = Delivery.objects.filter(site_id=self.site_id, scope=self.scope)
        if self.page_id is not None:
            same = same.filter(page_id=self.page_id)
        if self.placement_id is not None:
            same = same.filter(placement_id=self.placement_id)
        return same

    OPEN = (State.QUEUED, State.RUNNING, State.STOPPING)

    @property
    def stored_zip(self) -> str:
        return f"deliveries/{self.id}.zip"


class DeliveryFile(models.Model):
    """One file of a run, by its orderly name. `rendition` is set as soon as the file is there."""

    delivery = models.ForeignKey(Delivery, on_delete=models.CASCADE, related_name="files")
    position = models.PositiveIntegerField()
    name = models.CharField(max_length=200)
    key = models.CharField(max_length=32)
    rendition = models.ForeignKey(Rendition, null=True, on_delete=models.PROTECT)
    reused = models.BooleanField(default=False)
    # a newer format that turned out no smaller: made, but not handed over
    left_out = models.BooleanField(default=False)
    why = models.CharField(max_length=200, blank=True)  # it is made, or was there
    work = models.PositiveBigIntegerField(default=0)  # how long it takes, beside the others

    class Meta:
        ordering = ["position"]
        constraints = [
            models.UniqueConstraint(fields=["delivery", "name"], name="one_file_per_name")
        ]


class Worker(models.Model):
    """A worker process that lives: it says so every few seconds, in the database, which is there
    when the queue is not."""

    name = models.CharField(max_length=150, unique=True)
    beat = models.DateTimeField()

    @classmethod
    def is_any(cls) -> bool:
        return cls.objects.filter(
            beat__gt=timezone.now() - timedelta(seconds=2.5 * BEAT_SECONDS)
        ).exists()


#: How often a worker gives a sign of life, for itself and for the run it is at; and after how long
#: without one it is taken for dead.
BEAT_SECONDS = 4.0
SILENT_AFTER = timedelta(seconds=15)

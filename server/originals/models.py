"""Originals: the bytes as they were brought in, kept by content hash, and what is known of them."""

from __future__ import annotations

from collections.abc import Sequence

from config.stored import NounField
from django.db import models
from sites.models import Site
from skypane import model


def preview_url(
    original_id: int, width_px: int, sha256: str, crop: model.Rect | None = None
) -> str:
    """Where the API gives out a preview of an original or of a crop of it. Another content has
    another address."""
    cut = f"&crop={','.join(f'{v:.5g}' for v in (crop.x, crop.y, crop.w, crop.h))}" if crop else ""
    return f"/api/originals/{original_id}/preview/{width_px}?v={sha256[:8]}{cut}"


class Original(models.Model):
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="originals")
    name = models.CharField(max_length=200)
    sha256 = models.CharField(max_length=64)
    format = models.CharField(max_length=8)
    width_px = models.PositiveIntegerField()
    height_px = models.PositiveIntegerField()
    size_bytes = models.PositiveBigIntegerField()
    alpha = models.BooleanField(default=False)
    flat = models.BooleanField(default=False)
    frames = models.PositiveIntegerField(default=1)
    profile = models.CharField(max_length=200, blank=True)
    notes = models.JSONField(default=list)
    alt = models.TextField(null=True)
    focal_x = models.FloatField(default=0.5)
    focal_y = models.FloatField(default=0.5)
    areas = NounField(kind="areas", default=list)  # of skypane.model.Area
    revision = models.PositiveIntegerField(default=1)  # of focal point and areas
    tags = models.JSONField(default=list)  # of words
    # what the file was before its transparent edges were trimmed
    untouched = models.JSONField(null=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-created", "-id"]
        constraints = [
            models.UniqueConstraint(fields=["site", "sha256"], name="one_original_per_content")
        ]

    @property
    def stored(self) -> str:
        return f"originals/{self.sha256[:2]}/{self.sha256}.{self.format}"

    def preview(self, width_px: int) -> str:
        return f"previews/{self.sha256[:2]}/{self.sha256}-{width_px}.webp"

    def look(self, focal: tuple[float, float], areas: Sequence[model.Area]) -> None:
        """Another focal point and other areas; the row is saved with a new revision if that changes
        anything."""
        stored = [a.model_dump(mode="json") for a in areas]
        before = self.as_noun()
        if before.focal == tuple(focal) and before.areas == tuple(areas):
            return
        (self.focal_x, self.focal_y), self.areas, self.revision = focal, stored, self.revision + 1
        self.save(update_fields=["focal_x", "focal_y", "areas", "revision"])

    def as_noun(self) -> model.Original:
        return model.Original(
            id=self.id,
            name=self.name,
            width_px=self.width_px,
            height_px=self.height_px,
            size_bytes=self.size_bytes,
            sha256=self.sha256,
            alpha=self.alpha,
            flat=self.flat,
            vector=self.format == "svg",
            frames=self.frames,
            alt=self.alt,
            focal=(self.focal_x, self.focal_y),
            areas=tuple(model.Area.model_validate(a) for a in self.areas),
            tags=tuple(self.tags),
        )

"""Originals: the bytes as they were brought in, kept by content hash, and what is known of them."""

from __future__ import annotations

import json
from collections.abc import Sequence
from functools import lru_cache
from typing import Any, cast

from common.stored import NounField
from django.db import models
from django.db.models.functions import Cast
from sites.models import Page, Site
from skypane import model
from skypane.model.medium import medium_of_file
from skypane.model.stored import lifted
from skypane.model.tiny import Tiny


def preview_url(
    original_id: int, width_px: int, sha256: str, crop: model.Rect | None = None
) -> str:
    """Where the API gives out a preview of an original or of a crop of it. Another content has
    another address."""
    cut = f"&crop={','.join(f'{v:.5g}' for v in (crop.x, crop.y, crop.w, crop.h))}" if crop else ""
    return f"/api/originals/{original_id}/preview/{width_px}?v={sha256[:8]}{cut}"


#: Columns of an original that are fields of its noun under the same name.
_SAME = (
    "id",
    "name",
    "width_px",
    "height_px",
    "size_bytes",
    "sha256",
    "alpha",
    "flat",
    "frames",
    "alt",
)
_OTHERS = ("format", "focal_x", "focal_y", "version_of_id", "version_when", "drawing")


def when_of(stored: str) -> tuple[model.Feature, ...]:
    """The features under which a version shows, as they are stored."""
    return model.all_of(cast(list[model.Feature], stored.split(",") if stored else []))


def _noun(
    areas: Any,
    tags: Any,
    tiny: Any,
    format: str,
    focal_x: float,
    focal_y: float,
    version_of_id: int | None,
    version_when: str,
    drawing: str | None,
    **same: Any,
) -> model.Original:
    return model.Original(
        **same,
        medium=medium_of_file(format),
        focal=(focal_x, focal_y),
        areas=tuple(model.Area.model_validate(a) for a in areas),
        tags=tuple(tags),
        drawing=drawing,
        version_of=version_of_id,
        version_when=when_of(version_when),
        tiny=Tiny.model_validate(tiny) if tiny else None,
    )


@lru_cache(maxsize=4096)
def _known_noun(areas: str, tags: str, tiny: str | None, *columns: Any) -> model.Original:
    """The noun of a row as it is stored. While a gallery is worked on, hundreds of rows are asked
    for with every step, and one at most has changed."""
    values = dict(zip((*_SAME, *_OTHERS), columns, strict=True))
    return _noun(
        lifted("areas", json.loads(areas)), json.loads(tags), json.loads(tiny or "null"), **values
    )


class Originals(models.QuerySet["Original"]):
    def nouns(self) -> dict[int, model.Original]:
        """All of them as the core's nouns, by id."""
        text = [Cast(f, models.TextField()) for f in ("areas", "tags", "tiny")]
        rows = self.values_list(*text, *_SAME, *_OTHERS)
        found = [_known_noun(*row) for row in rows]
        return {noun.id: noun for noun in found}


class Original(models.Model):
    objects = Originals.as_manager()

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
    # the one that this is a version of, and when it shows in its place: features, with commas
    version_of = models.ForeignKey(
        "self", on_delete=models.SET_NULL, null=True, related_name="versions"
    )
    version_when = models.CharField(max_length=40, default="", blank=True)
    drawing = models.TextField(null=True)  # of a small SVG; see skypane.model.original
    tiny = models.JSONField(null=True)  # of skypane.model.tiny; null: nobody has looked yet
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
        columns = {f: getattr(self, f) for f in (*_SAME, *_OTHERS)}
        return _noun(self.areas, self.tags, self.tiny, **columns)


class Design(models.Model):
    """A picture of how a page is to look, drawn for a page `drawn_for` CSS px wide. One that was
    removed stays, `gone`, so that it can be put back."""

    page = models.ForeignKey(Page, on_delete=models.CASCADE, related_name="designs")
    name = models.CharField(max_length=200)
    sha256 = models.CharField(max_length=64)
    format = models.CharField(max_length=8)
    width_px = models.PositiveIntegerField()
    height_px = models.PositiveIntegerField()
    drawn_for = models.PositiveIntegerField()
    gone = models.BooleanField(default=False)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-drawn_for", "id"]

    @property
    def stored(self) -> str:
        return f"designs/{self.sha256[:2]}/{self.sha256}.{self.format}"

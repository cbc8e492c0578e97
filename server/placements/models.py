"""Placements: rows that hold the core's Placement, with the revision that a save has to start from."""

from __future__ import annotations

from django.db import models
from sites.models import Page, Site
from skypane import model
from skypane.needs import respan
from skypane.spans import spans_of


class Placement(models.Model):
    page = models.ForeignKey(Page, on_delete=models.CASCADE, related_name="placements")
    position = models.PositiveIntegerField(default=0)
    body = models.JSONField()  # skypane.model.Placement
    revision = models.PositiveIntegerField(default=1)
    created = models.DateTimeField(auto_now_add=True)
    changed = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["position", "id"]

    def as_noun(self) -> model.Placement:
        return model.Placement.model_validate(self.body)

    def keep(self, noun: model.Placement) -> None:
        self.body = noun.model_dump(mode="json", exclude_none=True)
        self.revision += 1
        self.save()


def placements_of(site: Site) -> models.QuerySet[Placement]:
    return Placement.objects.filter(page__site=site).select_related("page").order_by("page__position", "position", "id")


def uses_of(site: Site) -> dict[int, list[str]]:
    """Where each original of a site is used, as "Page · Placement" with the letters that set it."""
    found: dict[int, list[str]] = {}
    for placement in placements_of(site):
        noun = placement.as_noun()
        letters: dict[int, list[str]] = {}
        for letter, treatment in sorted(noun.treatments.items()):
            if treatment.original is not None:
                letters.setdefault(treatment.original, []).append(letter)
        for original, where in letters.items():
            found.setdefault(original, []).append(f"{placement.page.title} · {noun.name}, {' '.join(where)}")
    return found


def respan_all(site: Site, before: model.Site, after: model.Site) -> None:
    """Carry every placement over to new breakpoints."""
    if spans_of(before) == spans_of(after):
        return
    for placement in placements_of(site).select_for_update():
        carried = respan(before, after, placement.as_noun())
        if carried != placement.as_noun():
            placement.keep(carried)

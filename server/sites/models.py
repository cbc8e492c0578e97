"""Sites, their members and their pages. Every other object belongs to a site, and a site to its
members."""

from __future__ import annotations

from config.stored import NounField
from django.conf import settings
from django.db import models
from django.shortcuts import get_object_or_404
from skypane import model


class Site(models.Model):
    name = models.CharField(max_length=80)
    plan = NounField(kind="site", default=dict)  # skypane.model.Site
    revision = models.PositiveIntegerField(default=1)
    members = models.ManyToManyField(settings.AUTH_USER_MODEL, related_name="sites_of")
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name", "id"]

    def as_noun(self) -> model.Site:
        return model.Site.model_validate(self.plan)


class Page(models.Model):
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="pages")
    title = models.CharField(max_length=80)
    position = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["position", "id"]


def site_of(user: object, site_id: int) -> Site:
    """The member's site; someone else's is not here (404)."""
    return get_object_or_404(Site, id=site_id, members=user)

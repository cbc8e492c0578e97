"""Sites, their members and their pages. Every other object belongs to a site, and a site to its
members."""

from __future__ import annotations

from accounts.models import Link
from common.stored import NounField
from django.conf import settings
from django.db import models
from skypane import model


class Site(models.Model):
    name = models.CharField(max_length=80)
    plan = NounField(kind="site", default=dict)  # skypane.model.Site
    revision = models.PositiveIntegerField(default=1)
    members = models.ManyToManyField(
        settings.AUTH_USER_MODEL, related_name="sites_of", through="Membership"
    )
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name", "id"]

    def as_noun(self) -> model.Site:
        return model.Site.model_validate(self.plan)


class Role(models.TextChoices):
    """What a member may do: share the site with others, change it, or only look at it."""

    OWNER = "owner"
    EDIT = "edit"
    LOOK = "look"


class Membership(models.Model):
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="memberships")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    role = models.CharField(max_length=5, choices=Role, default=Role.EDIT)

    class Meta:
        db_table = "skypane_sites_site_members"
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["site", "user"], name="one_role_per_member")]


class Invitation(models.Model):
    """A share of a site that waits for somebody to open its link."""

    link = models.OneToOneField(Link, on_delete=models.CASCADE, related_name="invitation")
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=5, choices=Role, default=Role.EDIT)

    class Meta:
        ordering = ["id"]


class Page(models.Model):
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="pages")
    title = models.CharField(max_length=80)
    position = models.PositiveIntegerField(default=0)
    # skypane.model.PageLayout; it names placements by their ids
    layout = NounField(kind="page", default=dict)
    # the page as it was last read, and what that was worked out of; see endpoints.pages.glimpses
    glimpse = models.JSONField(null=True, default=None, editable=False)

    class Meta:
        ordering = ["position", "id"]

    def as_layout(self) -> model.PageLayout:
        return {k: model.PageValues.model_validate(v) for k, v in self.layout.items()}

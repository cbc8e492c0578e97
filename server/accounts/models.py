"""Links that let one person in once: the first owner of an installation, and whoever is invited."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta

from django.conf import settings
from django.contrib.auth.models import User
from django.db import models
from django.utils import timezone

#: For so long a link can be used.
VALID_FOR = timedelta(days=7)


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


class Link(models.Model):
    """Only the token's hash is kept: whoever reads the database cannot use it."""

    class Purpose(models.TextChoices):
        OWNER = "owner"  # makes the first person of an installation
        PERSON = "person"  # makes a person, or takes one who is signed in into a site

    purpose = models.CharField(max_length=6, choices=Purpose)
    token_hash = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.CASCADE)
    made = models.DateTimeField(auto_now_add=True)
    expires = models.DateTimeField()

    class Meta:
        ordering = ["id"]

    @classmethod
    def make(cls, purpose: Purpose, by: User | None = None) -> tuple[Link, str]:
        """A new link and its token, which is told once."""
        token = secrets.token_urlsafe(24)
        expires = timezone.now() + VALID_FOR
        link = cls.objects.create(
            purpose=purpose,
            token_hash=_hash(token),
            made_by=by,
            expires=expires,
        )
        return link, token

    @classmethod
    def of(cls, token: str) -> Link | None:
        """The link of a token, as long as it can be used."""
        return cls.objects.filter(token_hash=_hash(token), expires__gt=timezone.now()).first()

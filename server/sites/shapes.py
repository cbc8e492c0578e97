"""What is told and asked of a site."""

from __future__ import annotations

from typing import Annotated

from common.bodies import Body
from django.contrib.auth.models import User
from ninja import Schema
from skypane import model
from skypane.errors import written
from skypane.widths.spans import spans_of

from sites.models import Role, Site

Title = Annotated[str, written(r"\S", "It must not be blank.", min_length=1, max_length=80)]


class SpanOut(Schema):
    letter: str
    title: str
    first: int
    last: int


class PageOut(Schema):
    id: int
    title: str


class SiteOut(Schema):
    id: int
    name: str
    revision: int
    plan: model.Site
    role: Role  # of whoever asks
    spans: list[SpanOut]
    pages: list[PageOut]


class SiteIn(Body):
    name: Title
    plan: model.Site = model.Site()


def site_out(site: Site, user: User) -> SiteOut:
    """The site as one of its members sees it."""
    noun = site.as_noun()
    return SiteOut(
        id=site.id,
        name=site.name,
        revision=site.revision,
        plan=noun,
        role=Role(site.memberships.get(user=user).role),
        spans=[SpanOut(**s._asdict()) for s in spans_of(noun)],
        pages=[PageOut(id=p.id, title=p.title) for p in site.pages.all()],
    )

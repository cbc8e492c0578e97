"""Sites and pages: list, make, change, remove."""

from __future__ import annotations

from typing import Annotated

from config.bodies import Body
from config.db import in_one_go
from config.problems import Conflict, Problem
from django.db.models import Count, Max
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema
from placements.models import respan_all
from pydantic import Field
from skypane import model
from skypane.widths.spans import retitled, spans_of

from sites.models import Page, Site, site_of

router = Router()
Title = Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]


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
    spans: list[SpanOut]
    pages: list[PageOut]


class SiteRow(Schema):
    id: int
    name: str
    pages: int
    originals: int
    placements: int
    spans: int


class SiteIn(Body):
    name: Title
    plan: model.Site = model.Site()


class SiteChange(SiteIn):
    revision: int


class PageIn(Body):
    title: Title


def _out(site: Site) -> SiteOut:
    noun = site.as_noun()
    return SiteOut(
        id=site.id,
        name=site.name,
        revision=site.revision,
        plan=noun,
        spans=[SpanOut(**s._asdict()) for s in spans_of(noun)],
        pages=[PageOut(id=p.id, title=p.title) for p in site.pages.all()],
    )


@router.get("/sites", response=list[SiteRow])
def list_sites(request: HttpRequest) -> list[SiteRow]:
    sites = Site.objects.filter(members=request.user).annotate(
        n_pages=Count("pages", distinct=True),
        n_originals=Count("originals", distinct=True),
        n_placements=Count("pages__placements", distinct=True),
    )
    return [
        SiteRow(
            id=s.id,
            name=s.name,
            pages=s.n_pages,
            originals=s.n_originals,
            placements=s.n_placements,
            spans=len(s.as_noun().breakpoints) + 1,
        )
        for s in sites
    ]


@router.post("/sites", response={201: SiteOut, 422: Problem})
def make_site(request: HttpRequest, payload: SiteIn) -> tuple[int, SiteOut]:

    def make() -> Site:
        site = Site.objects.create(
            name=payload.name.strip(), plan=payload.plan.model_dump(mode="json")
        )
        site.members.add(request.user)
        return site

    return 201, _out(in_one_go(make))


@router.get("/sites/{int:site_id}", response={200: SiteOut, 404: Problem})
def read_site(request: HttpRequest, site_id: int) -> SiteOut:
    return _out(site_of(request.user, site_id))


@router.put(
    "/sites/{int:site_id}", response={200: SiteOut, 404: Problem, 409: Problem, 422: Problem}
)
def change_site(request: HttpRequest, site_id: int, payload: SiteChange) -> SiteOut:
    """Change name and plan. Where the number of breakpoints changes, every placement keeps what it
    did at each width, and every title stays on its widths."""

    def change() -> Site:
        site_of(request.user, site_id)
        site = Site.objects.select_for_update().get(id=site_id)
        if site.revision != payload.revision:
            raise Conflict(
                "The site was changed elsewhere since you opened it.",
                _out(site).model_dump(mode="json"),
            )
        before = site.as_noun()
        # titles that are sent as they were are carried to where their widths are now
        after = (
            retitled(before, payload.plan) if payload.plan.titles == before.titles else payload.plan
        )
        site.name, site.plan, site.revision = (
            payload.name.strip(),
            after.model_dump(mode="json"),
            site.revision + 1,
        )
        site.save(update_fields=["name", "plan", "revision"])
        respan_all(site, before, after)
        return site

    return _out(in_one_go(change))


@router.delete("/sites/{int:site_id}", response={204: None, 404: Problem})
def remove_site(request: HttpRequest, site_id: int) -> tuple[int, None]:
    site_of(request.user, site_id).delete()
    return 204, None


def _page_of(request: HttpRequest, page_id: int) -> Page:
    return get_object_or_404(Page, id=page_id, site__members=request.user)


@router.post("/sites/{int:site_id}/pages", response={201: PageOut, 404: Problem, 422: Problem})
def make_page(request: HttpRequest, site_id: int, payload: PageIn) -> tuple[int, PageOut]:
    site = site_of(request.user, site_id)
    last = site.pages.aggregate(last=Max("position"))["last"] or 0
    page = Page.objects.create(site=site, title=payload.title.strip(), position=last + 1)
    return 201, PageOut(id=page.id, title=page.title)


@router.put("/pages/{int:page_id}", response={200: PageOut, 404: Problem, 422: Problem})
def rename_page(request: HttpRequest, page_id: int, payload: PageIn) -> PageOut:
    page = _page_of(request, page_id)
    page.title = payload.title.strip()
    page.save(update_fields=["title"])
    return PageOut(id=page.id, title=page.title)


@router.delete("/pages/{int:page_id}", response={204: None, 404: Problem})
def remove_page(request: HttpRequest, page_id: int) -> tuple[int, None]:
    _page_of(request, page_id).delete()
    return 204, None

"""Sites and pages: make, read, rename, remove."""

from __future__ import annotations

from config.bodies import Body
from config.db import in_one_go
from config.problems import Problem
from django.db.models import Max
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from sites.models import Page, Site, site_of
from sites.shapes import PageOut, SiteIn, SiteOut, Title, site_out

router = Router()
#: What the page is called that every site begins with.
FIRST_PAGE = "Home"


class PageIn(Body):
    title: Title


@router.post("/sites", response={201: SiteOut, 422: Problem})
def make_site(request: HttpRequest, payload: SiteIn) -> tuple[int, SiteOut]:

    def make() -> Site:
        site = Site.objects.create(
            name=payload.name.strip(), plan=payload.plan.model_dump(mode="json")
        )
        site.members.add(request.user)
        Page.objects.create(site=site, title=FIRST_PAGE, position=1)
        return site

    return 201, site_out(in_one_go(make))


@router.get("/sites/{int:site_id}", response={200: SiteOut, 404: Problem})
def read_site(request: HttpRequest, site_id: int) -> SiteOut:
    return site_out(site_of(request.user, site_id))


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

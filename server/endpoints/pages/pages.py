"""Pages: make, rename, remove."""

from __future__ import annotations

from common.bodies import Body
from common.db import remove_one
from common.problems import Problem
from django.db.models import Max
from django.http import HttpRequest
from ninja import Router, Status
from sites.access import row_for, site_for
from sites.models import Page
from sites.shapes import PageOut, Title

router = Router()


class PageIn(Body):
    title: Title


def _page_of(request: HttpRequest, page_id: int) -> Page:
    return row_for(request, Page.objects.all(), "site", page_id)


@router.post("/sites/{int:site_id}/pages", response={201: PageOut, 404: Problem, 422: Problem})
def make_page(request: HttpRequest, site_id: int, payload: PageIn) -> Status[PageOut]:
    site = site_for(request, site_id)
    last = site.pages.aggregate(last=Max("position"))["last"] or 0
    page = Page.objects.create(site=site, title=payload.title.strip(), position=last + 1)
    return Status(201, PageOut(id=page.id, title=page.title))


@router.put("/pages/{int:page_id}", response={200: PageOut, 404: Problem, 422: Problem})
def rename_page(request: HttpRequest, page_id: int, payload: PageIn) -> PageOut:
    page = _page_of(request, page_id)
    page.title = payload.title.strip()
    page.save(update_fields=["title"])
    return PageOut(id=page.id, title=page.title)


@router.delete("/pages/{int:page_id}", response={204: None, 404: Problem})
def remove_page(request: HttpRequest, page_id: int) -> Status[None]:
    remove_one(Page, _page_of(request, page_id).id)
    return Status(204, None)

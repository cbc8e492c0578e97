"""What hosts that take no markup are given. Nothing is stored."""

from __future__ import annotations

from typing import Annotated

from common.bodies import Body
from common.keys import sign
from common.pictures import guard
from common.problems import Problem
from django.http import HttpRequest
from ninja import Router
from placements.models import layout_by_place, on_page
from pydantic import Field
from sites.access import site_for
from skypane import plan, renditions
from skypane.found import Hits
from skypane.hosts import HostReading, host_reading
from skypane.paged import places_on_page

from endpoints.readings import Draft, asked_of, row_of

router = Router()


@router.post(
    "/sites/{int:site_id}/readings/host",
    response={200: HostReading, 404: Problem, 422: Problem},
)
def for_host(request: HttpRequest, site_id: int, draft: Draft) -> HostReading:
    """What the host of the site is given of a draft where it takes no markup, and what it cannot
    do."""
    site = site_for(request, site_id, looking=True)
    row = row_of(site, draft)
    computed = plan(*asked_of(site, draft, row))
    order: dict[str, int] = {}
    if row is not None:
        rows = list(on_page(row.page))
        layout = layout_by_place(row.page, rows)
        order = places_on_page(computed.site, layout, len(rows), rows.index(row))
    return host_reading(computed, renditions(computed), order, sign)


class PageOfHost(Body):
    """A page of the host as HTML, and the selector of an element in it."""

    page: Annotated[str, Field(min_length=1, max_length=2_000_000)]
    selector: Annotated[str, Field(min_length=1, max_length=200)]


@router.post("/sites/{int:site_id}/hits", response={200: Hits, 404: Problem, 422: Problem})
def hits(request: HttpRequest, site_id: int, payload: PageOfHost) -> Hits:
    """Which elements of a page the rules of a placement would hit. Nothing is stored."""
    site_for(request, site_id, looking=True)
    return guard().hits(payload.page, payload.selector)

"""Sites as a whole: what is in them and how it fares, and changes that every placement follows."""

from __future__ import annotations

from datetime import datetime

from accounts.session import person
from common.db import in_one_go, locked_one, remove_one
from common.keys import check_key
from common.problems import Conflict, Problem
from deliveries.models import Delivery
from django.db.models import Count, Max, Q
from django.http import HttpRequest
from ninja import Router, Schema, Status
from placements.glimpses import Glimpse, glimpses
from placements.models import Placement, carry_all, frame_uses
from placements.strips import StripScreenOut
from sites.access import owned, site_for
from sites.models import Membership, Page, Role, Site
from sites.shapes import SiteIn, SiteOut, site_out
from skypane import check_frames, respanned
from skypane.widths.spans import retitled

router = Router()

#: How many placements stand for a site in the list of sites.
MOST_SHOWN = 6
#: What the page is called that every site begins with.
FIRST_PAGE = "Home"


class LeadPlacement(Schema):
    """A placement in small: its widest and its narrowest span."""

    id: int
    name: str
    page: str
    strip: list[StripScreenOut]


class SiteRow(Schema):
    """A site in the list."""

    id: int
    name: str
    pages: int
    originals: int
    placements: int
    spans: int
    role: Role
    delivered: datetime | None


class Glance(Schema):
    """What a site shows and how it fares: `shown` are its first placements, those of the first
    screen before the others; `failing` counts all placements with findings."""

    shown: list[LeadPlacement]
    findings: int
    failing: int


class SiteChange(SiteIn):
    revision: int


@router.get("/sites", response=list[SiteRow])
def list_sites(request: HttpRequest) -> list[SiteRow]:
    done = Q(deliveries__state=Delivery.State.DONE)
    sites = Site.objects.filter(members=person(request)).annotate(
        n_pages=Count("pages", distinct=True),
        n_originals=Count("originals", distinct=True),
        n_placements=Count("pages__placements", distinct=True),
        delivered=Max("deliveries__finished", filter=done),
    )
    found = list(sites.order_by("name", "id"))
    # of one that has been removed or withdrawn since there is no role, and it is not told of
    roles = dict(Membership.objects.filter(user=person(request)).values_list("site_id", "role"))
    return [
        SiteRow(
            id=site.id,
            name=site.name,
            pages=site.n_pages,
            originals=site.n_originals,
            placements=site.n_placements,
            spans=len(site.as_noun().breakpoints) + 1,
            role=Role(roles[site.id]),
            delivered=site.delivered,
        )
        for site in found
        if site.id in roles
    ]


@router.get("/sites/{int:site_id}/glance", response={200: Glance, 404: Problem})
def glance_at(request: HttpRequest, site_id: int) -> Glance:
    """What the list shows of a site. It reads every placement, so that each site is asked for by
    itself."""
    site = site_for(request, site_id)
    all_ = glimpses(site)
    found = [g.glimpse for g in all_ if g.glimpse is not None]
    rows = [g for g in all_ if g.glimpse is not None and not g.glimpse.error]
    rows.sort(key=lambda g: not (g.glimpse and g.glimpse.lead))
    return Glance(
        shown=[_lead(g.row, g.glimpse) for g in rows[:MOST_SHOWN] if g.glimpse],
        findings=sum(len(g.findings) for g in found),
        failing=sum(bool(g.findings or g.error) for g in found),
    )


def _lead(row: Placement, glimpse: Glimpse) -> LeadPlacement:
    """Its widest and its narrowest span."""
    spans = glimpse.strip
    ends = spans[-1:] if len(spans) == 1 else [spans[-1], spans[0]]
    return LeadPlacement(id=row.id, name=glimpse.name, page=row.page.title, strip=ends)


@router.get("/sites/{int:site_id}/frames/uses", response={200: dict[str, list[str]], 404: Problem})
def read_frame_uses(request: HttpRequest, site_id: int) -> dict[str, list[str]]:
    """Where each named frame is used, by its id, as "Page · Placement"."""
    return frame_uses(site_for(request, site_id))


@router.post("/sites", response={201: SiteOut, 422: Problem})
def make_site(request: HttpRequest, payload: SiteIn) -> Status[SiteOut]:
    check_frames(payload.plan, *payload.plan.frames)
    check_key(payload.plan)

    def make() -> Site:
        site = Site.objects.create(
            name=payload.name.strip(), plan=payload.plan.model_dump(mode="json")
        )
        Membership.objects.create(site=site, user=person(request), role=Role.OWNER)
        Page.objects.create(site=site, title=FIRST_PAGE, position=1)
        return site

    return Status(201, site_out(in_one_go(make), person(request)))


@router.get("/sites/{int:site_id}", response={200: SiteOut, 404: Problem})
def read_site(request: HttpRequest, site_id: int) -> SiteOut:
    return site_out(site_for(request, site_id), person(request))


@router.delete("/sites/{int:site_id}", response={204: None, 404: Problem})
def remove_site(request: HttpRequest, site_id: int) -> Status[None]:
    remove_one(Site, owned(request, site_id).id)
    return Status(204, None)


@router.put(
    "/sites/{int:site_id}",
    response={200: SiteOut, 404: Problem, 409: Problem, 422: Problem},
)
def change_site(request: HttpRequest, site_id: int, payload: SiteChange) -> SiteOut:
    """Change name and plan. Where the number of breakpoints changes, placements and named frames
    keep what they did at each width, and titles stay on their widths; frames are given by the
    letters of the spans that the site had. A placement whose named frame
    is gone keeps its values as its own."""

    def change() -> Site:
        site_for(request, site_id)
        site = locked_one(Site, site_id)
        if site.revision != payload.revision:
            raise Conflict(
                "The site was changed elsewhere since you opened it.",
                site_out(site, person(request)).model_dump(mode="json"),
            )
        before = site.as_noun()
        # titles that are sent as they were are carried to where their widths are now
        after = payload.plan
        if payload.plan.titles == before.titles:
            after = retitled(before, after)
        # frames speak of the spans that the site had, as the form that they come from does
        edited = before.model_copy(update={"frames": after.frames})
        check_key(after)
        check_frames(edited, *edited.frames)
        after = respanned(edited, after)
        site.name, site.plan = payload.name.strip(), after.model_dump(mode="json")
        site.revision += 1
        site.save(update_fields=["name", "plan", "revision"])
        carry_all(site, before, edited, after)
        return site

    return site_out(in_one_go(change), person(request))

"""Sites as a whole: what is in them and how it fares, and changes that every placement follows."""

from __future__ import annotations

from datetime import datetime

from config.db import in_one_go
from config.problems import Conflict, Problem
from deliveries.models import Delivery
from django.db.models import Count, Max, Q
from django.http import HttpRequest
from ninja import Router, Schema
from placements.models import Placement, originals_in, respan_all
from placements.strips import StripFrameOut, strip_frame_out
from sites.access import owned, site_for
from sites.models import Membership, Page, Role, Site
from sites.shapes import SiteIn, SiteOut, site_out
from skypane import InvalidPlan, findings_of, plan
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
    strip: list[StripFrameOut]


class SiteRow(Schema):
    """A site in the list: `shown` are its first placements, those of the first screen before the
    others; `failing` counts all placements with findings."""

    id: int
    name: str
    pages: int
    originals: int
    placements: int
    spans: int
    shown: list[LeadPlacement]
    role: Role
    findings: int
    failing: int
    delivered: datetime | None


class SiteChange(SiteIn):
    revision: int


@router.get("/sites", response=list[SiteRow])
def list_sites(request: HttpRequest) -> list[SiteRow]:
    done = Q(pages__placements__deliveries__state=Delivery.State.DONE)
    sites = Site.objects.filter(members=request.user).annotate(
        n_pages=Count("pages", distinct=True),
        n_originals=Count("originals", distinct=True),
        delivered=Max("pages__placements__deliveries__finished", filter=done),
    )
    roles = dict(Membership.objects.filter(user=request.user).values_list("site_id", "role"))
    return [_row(site, roles[site.id]) for site in sites.order_by("name", "id")]


def _row(site: Site, role: str) -> SiteRow:
    noun = site.as_noun()
    rows = {
        p.id: p
        for p in Placement.objects.filter(page__site=site)
        .select_related("page")
        .order_by("page__position", "position", "id")
    }
    nouns = {id_: row.as_noun() for id_, row in rows.items()}
    originals = originals_in(site, nouns)
    findings, failing = 0, 0
    shown: list[tuple[bool, LeadPlacement]] = []
    for id_, placement in nouns.items():
        try:
            computed = plan(noun, placement, originals)
        except InvalidPlan:
            failing += 1
            continue
        found = findings_of(computed)
        findings += len(found)
        failing += bool(found)
        spans = computed.parts[0].spans
        ends = dict.fromkeys((spans[-1], spans[0]))
        shown.append(
            (
                not placement.lead,
                LeadPlacement(
                    id=id_,
                    name=placement.name,
                    page=rows[id_].page.title,
                    strip=[strip_frame_out(p) for p in ends],
                ),
            )
        )
    shown.sort(key=lambda s: s[0])
    return SiteRow(
        id=site.id,
        name=site.name,
        pages=site.n_pages,
        originals=site.n_originals,
        placements=len(rows),
        spans=len(noun.breakpoints) + 1,
        shown=[lead for _, lead in shown[:MOST_SHOWN]],
        role=Role(role),
        findings=findings,
        failing=failing,
        delivered=site.delivered,
    )


@router.post("/sites", response={201: SiteOut, 422: Problem})
def make_site(request: HttpRequest, payload: SiteIn) -> tuple[int, SiteOut]:

    def make() -> Site:
        site = Site.objects.create(
            name=payload.name.strip(), plan=payload.plan.model_dump(mode="json")
        )
        Membership.objects.create(site=site, user=request.user, role=Role.OWNER)
        Page.objects.create(site=site, title=FIRST_PAGE, position=1)
        return site

    return 201, site_out(in_one_go(make))


@router.get("/sites/{int:site_id}", response={200: SiteOut, 404: Problem})
def read_site(request: HttpRequest, site_id: int) -> SiteOut:
    return site_out(site_for(request, site_id))


@router.delete("/sites/{int:site_id}", response={204: None, 404: Problem})
def remove_site(request: HttpRequest, site_id: int) -> tuple[int, None]:
    owned(request, site_id).delete()
    return 204, None


@router.put(
    "/sites/{int:site_id}",
    response={200: SiteOut, 404: Problem, 409: Problem, 422: Problem},
)
def change_site(request: HttpRequest, site_id: int, payload: SiteChange) -> SiteOut:
    """Change name and plan. Where the number of breakpoints changes, every placement keeps what it
    did at each width, and every title stays on its widths."""

    def change() -> Site:
        site_for(request, site_id)
        site = Site.objects.select_for_update().get(id=site_id)
        if site.revision != payload.revision:
            raise Conflict(
                "The site was changed elsewhere since you opened it.",
                site_out(site).model_dump(mode="json"),
            )
        before = site.as_noun()
        # titles that are sent as they were are carried to where their widths are now
        after = payload.plan
        if payload.plan.titles == before.titles:
            after = retitled(before, payload.plan)
        site.name, site.plan = payload.name.strip(), after.model_dump(mode="json")
        site.revision += 1
        site.save(update_fields=["name", "plan", "revision"])
        respan_all(site, before, after)
        return site

    return site_out(in_one_go(change))

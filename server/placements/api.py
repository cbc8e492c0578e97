"""Placements: list, make, read a draft, save, remove.

Looking and keeping are two requests. A reading stores nothing; a save says which revision it started from.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Annotated

from config.problems import Conflict, Problem, Refused
from deliveries.models import bytes_made
from django.db import transaction
from django.db.models import Max
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Schema
from originals.looks import Look
from originals.models import Original, preview_url
from pydantic import Field
from sites.models import Page, Site, site_of
from skypane import changes, model
from skypane.errors import InvalidPlan
from skypane.needs import SpanPlan, plan
from skypane.reading import Finding, Reading, findings_of, read

from placements.history import StoredLooks, add, begin, look_anew, looks_now, version
from placements.models import Placement, originals_in, originals_of, placements_of

router = Router()

#: How many other originals advice looks at; the newest of a very large site.
MOST_PROPOSED = 40


class Draft(Schema):
    """A placement as it stands under the designer's hand. `site` is given while breakpoints are being dragged; `chosen` is the
    span that is read in detail, with `costs` also what each way to aim comes to there."""

    placement: model.Placement
    looks: dict[int, Look] = {}
    site: model.Site | None = None
    chosen: Annotated[str, Field(max_length=2)] | None = None
    costs: bool = False


class PlacementIn(Schema):
    placement: model.Placement


class Version(Schema):
    """One step of a history: the placement and the looks of its originals."""

    placement: model.Placement
    looks: dict[int, Look] = {}


class HistoryIn(Schema):
    """How the history goes on: steps up to position `keep` stay, `add` follow, and the placement is at position `at`."""

    keep: int
    add: Annotated[list[Version], Field(max_length=200)] = []
    at: int


class PlacementSave(Version):
    """`looks` are those that have changed, `look_revisions` what they started from. Without `history` the save is one step after
    the present one."""

    revision: int
    look_revisions: dict[int, int] = {}
    history: HistoryIn | None = None


class PlacementOut(Version):
    id: int
    page_id: int
    page: str
    site_id: int
    revision: int
    look_revisions: dict[int, int]
    at: int


class StepOut(Version):
    position: int
    what: str
    by: str
    made: datetime


class HistoryOut(Schema):
    at: int
    steps: list[StepOut]


class StripFrame(Schema):
    """One span's first screen in small: the original's preview and what of it shows, at the span's last width."""

    letter: str
    show: model.Shows
    colour: str
    thumb: str | None
    frame_ratio: float
    x0: float = 0
    x1: float = 1
    y0: float = 0
    y1: float = 1


class PlacementRow(Schema):
    id: int
    page_id: int
    page: str
    name: str
    strip: list[StripFrame]
    findings: list[Finding]
    error: str | None = None


def _mine(request: HttpRequest, placement_id: int) -> Placement:
    return get_object_or_404(Placement.objects.select_related("page__site"), id=placement_id, page__site__members=request.user)


def _originals(site: Site, ids: set[int], looks: Mapping[int, Look] | None = None) -> dict[int, model.Original]:
    found = originals_of(site, ids)
    for id_, look in (looks or {}).items():
        if id_ in found:
            found[id_] = found[id_].model_copy(update={"focal": look.focal, "areas": look.areas})
    return found


def preview(original: model.Original, crop: model.Rect | None) -> str:
    return preview_url(original.id, 1600, original.sha256, crop)


def _out(row: Placement) -> PlacementOut:
    noun = row.as_noun()
    originals = Original.objects.filter(site=row.page.site, id__in=noun.original_ids)
    return PlacementOut(
        id=row.id,
        page_id=row.page_id,
        page=row.page.title,
        site_id=row.page.site_id,
        revision=row.revision,
        at=row.at,
        placement=noun,
        looks={o.id: Look(focal=(o.focal_x, o.focal_y), areas=o.as_noun().areas) for o in originals},
        look_revisions={o.id: o.revision for o in originals},
    )


@router.get("/sites/{int:site_id}/placements", response={200: list[PlacementRow], 404: Problem})
def list_placements(request: HttpRequest, site_id: int) -> list[PlacementRow]:
    site = site_of(request.user, site_id)
    plan_ = site.as_noun()
    rows = list(placements_of(site))
    nouns = {r.id: r.as_noun() for r in rows}
    originals = originals_in(site, nouns)
    out = []
    for row in rows:
        strip, findings, error = [], [], None
        try:
            plans = plan(plan_, nouns[row.id], originals)
            findings = findings_of(plan_, nouns[row.id], plans)
            strip = [strip_frame(p) for p in plans]
        except InvalidPlan as problem:
            error = str(problem)
        out.append(
            PlacementRow(
                id=row.id,
                page_id=row.page_id,
                page=row.page.title,
                name=nouns[row.id].name,
                strip=strip,
                findings=findings,
                error=error,
            )
        )
    return out


def strip_frame(p: SpanPlan) -> StripFrame:
    """A span's frame and window at its last width and typical height."""
    row = p.W.shape[0] // 2
    frame = StripFrame(
        letter=p.span.letter,
        show=p.effective.show,
        colour=p.effective.background,
        thumb=None,
        frame_ratio=float(p.W[row, -1] / p.H[row, -1]) if p.effective.show != "nothing" else 1,
    )
    if p.shown is not None and p.original is not None:
        frame.thumb = preview_url(p.original.id, 480, p.original.sha256)
        frame.x0, frame.x1, frame.y0, frame.y1 = (
            float(edge[row, -1]) for edge in (p.shown.x0, p.shown.x1, p.shown.y0, p.shown.y1)
        )
    return frame


@router.post("/pages/{int:page_id}/placements", response={201: PlacementOut, 404: Problem, 422: Problem})
def make_placement(request: HttpRequest, page_id: int, payload: PlacementIn) -> tuple[int, PlacementOut]:
    page = get_object_or_404(Page.objects.select_related("site"), id=page_id, site__members=request.user)
    last = page.placements.aggregate(last=Max("position"))["last"] or 0
    row = Placement(page=page, position=last + 1, revision=0)
    _check(page.site, payload.placement)
    with transaction.atomic():
        row.keep(payload.placement)
        begin(row)
    return 201, _out(row)


@router.get("/placements/{int:placement_id}", response={200: PlacementOut, 404: Problem})
def read_placement(request: HttpRequest, placement_id: int) -> PlacementOut:
    return _out(_mine(request, placement_id))


def _check(site: Site, placement: model.Placement) -> None:
    """Refuse what could not be read afterwards. Raises InvalidPlan."""
    missing = placement.original_ids - set(Original.objects.filter(site=site).values_list("id", flat=True))
    if missing:
        raise Refused("An original of this placement is not in this site. Choose another.", field="treatments")
    read(site.as_noun(), placement, _originals(site, placement.original_ids))


@router.put("/placements/{int:placement_id}", response={200: PlacementOut, 404: Problem, 409: Problem, 422: Problem})
def save_placement(request: HttpRequest, placement_id: int, payload: PlacementSave) -> PlacementOut:
    """Save a draft that started from `revision`. A newer one answers 409 with both versions and changes nothing."""
    site = _mine(request, placement_id).page.site
    _check(site, payload.placement)
    with transaction.atomic():
        row = Placement.objects.select_for_update().select_related("page__site").get(id=placement_id)
        originals = list(Original.objects.select_for_update().filter(site=site, id__in=list(payload.looks)))
        stale = [o for o in originals if o.revision != payload.look_revisions.get(o.id, o.revision)]
        if row.revision != payload.revision or stale:
            raise Conflict(
                f"The areas of {stale[0].name} were changed elsewhere since you opened this."
                if row.revision == payload.revision
                else "This placement was changed elsewhere since you opened it.",
                _out(row).model_dump(mode="json"),
                list(_differences(row, payload)),
            )
        begin(row)
        for original in originals:
            look = payload.looks[original.id]
            look_anew(original, look.focal, look.areas, request.user, apart_from=row)
        _go_on(row, payload, request.user)
        row.keep(payload.placement)
    return _out(row)


def _stored(version_: Version) -> tuple[dict[str, object], StoredLooks]:
    """A version as a step stores it: only what its own placement uses."""
    used = version_.placement.original_ids
    looks = {str(i): look.model_dump(mode="json", exclude_none=True) for i, look in version_.looks.items() if i in used}
    return version_.placement.model_dump(mode="json", exclude_none=True), looks


def _differences(row: Placement, mine: PlacementSave) -> tuple[str, ...]:
    noun = row.as_noun()
    names = dict(Original.objects.filter(site=row.page.site).values_list("id", "name"))
    body, looks = _stored(mine)
    return changes.differences(version(body, looks, names), version(row.body, looks_now(row, noun), names))


def _go_on(row: Placement, payload: PlacementSave, by: object) -> None:
    """The history after a save. What does not fit the steps that are here is taken for one plain step."""
    h = payload.history
    if h is not None:
        positions = set(row.steps.values_list("position", flat=True))
        last = h.keep + len(h.add)
        if (h.keep in positions and h.keep <= h.at <= last) or (not h.add and h.at in positions):
            at = h.add[h.at - h.keep - 1] if h.at > h.keep else None
            if at is None or _stored(at)[0] == _stored(payload)[0]:
                if h.add or h.keep < max(positions):
                    add(row, h.keep, [_stored(v) for v in h.add], by)
                row.at = h.at
                return
    body, looks = _stored(payload)
    add(row, row.at, [(body, {**looks_now(row, payload.placement), **looks})], by)


@router.get("/placements/{int:placement_id}/history", response={200: HistoryOut, 404: Problem})
def read_history(request: HttpRequest, placement_id: int) -> HistoryOut:
    """Every step that is still kept, the oldest first, and where the placement is among them."""
    row = _mine(request, placement_id)
    steps = [
        StepOut(
            position=s.position,
            what=s.what,
            by=s.by.get_username() if s.by else "",
            made=s.made,
            placement=model.Placement.model_validate(s.body),
            looks={int(i): Look.model_validate(look) for i, look in s.looks.items()},
        )
        for s in row.steps.select_related("by")
    ]
    return HistoryOut(at=row.at, steps=steps)


@router.delete("/placements/{int:placement_id}", response={204: None, 404: Problem})
def remove_placement(request: HttpRequest, placement_id: int) -> tuple[int, None]:
    _mine(request, placement_id).delete()
    return 204, None


@router.post("/sites/{int:site_id}/readings", response={200: Reading, 404: Problem, 422: Problem})
def read_draft(request: HttpRequest, site_id: int, draft: Draft) -> HttpResponse:
    """Everything that the desk shows of a draft, over every width. Nothing is stored."""
    site = site_of(request.user, site_id)
    originals = _originals(site, draft.placement.original_ids, draft.looks)
    reading = read(
        draft.site or site.as_noun(),
        draft.placement,
        originals,
        preview=preview,
        made_bytes=bytes_made,
        others=lambda: proposable(site, originals),
        chosen=draft.chosen,
        costs=draft.costs,
    )
    # it has been checked while it was made: asked for at every step of a drag, it is not checked once more
    return HttpResponse(reading.model_dump_json(), content_type="application/json")


def proposable(site: Site, used: Mapping[int, model.Original]) -> dict[int, model.Original]:
    """Other originals that advice may propose: those of which somebody has said what matters in them."""
    return {o.id: o.as_noun() for o in site.originals.exclude(id__in=list(used)).exclude(areas=[])[:MOST_PROPOSED]}

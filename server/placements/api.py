"""Placements: list, make, read a draft, save, remove.

Looking and keeping are two requests. A reading stores nothing; a save says which revision it started from.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated

from config.problems import Conflict, Problem, Refused
from deliveries.models import bytes_made
from django.db import transaction
from django.db.models import Max
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema
from originals.models import Original, preview_url
from pydantic import Field, field_validator
from sites.models import Page, Site, site_of
from skypane import model
from skypane.errors import InvalidPlan
from skypane.reading import Finding, Reading, SpanReading, read

from placements.models import Placement, placements_of

router = Router()

#: How many other originals advice looks at; the newest of a very large site.
MOST_PROPOSED = 40


class Look(model.Noun):
    """What the desk may change of an original: where its focal point and its areas are."""

    focal: tuple[model.Fraction, model.Fraction]
    areas: Annotated[tuple[model.Area, ...], Field(max_length=40)] = ()

    @field_validator("areas")
    @classmethod
    def _names_differ(cls, areas: tuple[model.Area, ...]) -> tuple[model.Area, ...]:
        names = [a.name for a in areas]
        double = next((n for n in names if names.count(n) > 1), None)
        if double is not None:
            raise ValueError(f"Two areas are called {double}. Give each a name of its own.")
        return areas


class Draft(Schema):
    """A placement as it stands under the designer's hand. `site` is given while breakpoints are being dragged."""

    placement: model.Placement
    looks: dict[int, Look] = {}
    site: model.Site | None = None


class PlacementIn(Schema):
    placement: model.Placement


class PlacementSave(Schema):
    revision: int
    placement: model.Placement
    looks: dict[int, Look] = {}


class PlacementOut(Schema):
    id: int
    page_id: int
    page: str
    site_id: int
    revision: int
    placement: model.Placement
    looks: dict[int, Look]


class StripFrame(Schema):
    """One span's first screen in small: the original's preview and what of it shows, at the span's last width."""

    letter: str
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
    found = {o.id: o.as_noun() for o in Original.objects.filter(site=site, id__in=ids)}
    for id_, look in (looks or {}).items():
        if id_ in found:
            found[id_] = found[id_].model_copy(update={"focal": look.focal, "areas": look.areas})
    return found


def _preview(original: model.Original) -> str:
    return preview_url(original.id, 1600)


def _out(row: Placement) -> PlacementOut:
    noun = row.as_noun()
    originals = _originals(row.page.site, noun.original_ids)
    return PlacementOut(
        id=row.id,
        page_id=row.page_id,
        page=row.page.title,
        site_id=row.page.site_id,
        revision=row.revision,
        placement=noun,
        looks={o.id: Look(focal=o.focal, areas=o.areas) for o in originals.values()},
    )


@router.get("/sites/{int:site_id}/placements", response={200: list[PlacementRow], 404: Problem})
def list_placements(request: HttpRequest, site_id: int) -> list[PlacementRow]:
    site = site_of(request.user, site_id)
    plan = site.as_noun()
    rows = list(placements_of(site))
    nouns = [r.as_noun() for r in rows]
    originals = _originals(site, set().union(*(n.original_ids for n in nouns)))
    out = []
    for row, noun in zip(rows, nouns, strict=True):
        strip, findings, error = [], [], None
        try:
            reading = read(plan, noun, originals)
            findings = list(reading.findings)
            strip = [_frame(s) for s in reading.spans]
        except InvalidPlan as problem:
            error = str(problem)
        out.append(
            PlacementRow(
                id=row.id,
                page_id=row.page_id,
                page=row.page.title,
                name=noun.name,
                strip=strip,
                findings=findings,
                error=error,
            )
        )
    return out


def _frame(span: SpanReading) -> StripFrame:
    original = span.effective.original
    ends = {c: getattr(span, c).points[-1][1] for c in ("x0", "x1", "y0", "y1") if getattr(span, c)}
    return StripFrame(
        letter=span.letter,
        thumb=preview_url(original, 480) if original else None,
        frame_ratio=span.frame_w.points[-1][1] / span.frame_h.points[-1][1],
        **ends,
    )


@router.post("/pages/{int:page_id}/placements", response={201: PlacementOut, 404: Problem, 422: Problem})
def make_placement(request: HttpRequest, page_id: int, payload: PlacementIn) -> tuple[int, PlacementOut]:
    page = get_object_or_404(Page.objects.select_related("site"), id=page_id, site__members=request.user)
    last = page.placements.aggregate(last=Max("position"))["last"] or 0
    row = Placement(page=page, position=last + 1, revision=0)
    _check(page.site, payload.placement)
    row.keep(payload.placement)
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
        if row.revision != payload.revision:
            raise Conflict("This placement was changed elsewhere since you opened it.", _out(row).model_dump(mode="json"))
        for original in Original.objects.select_for_update().filter(site=site, id__in=list(payload.looks)):
            look = payload.looks[original.id]
            original.focal_x, original.focal_y = look.focal
            original.areas = [a.model_dump(mode="json") for a in look.areas]
            original.save(update_fields=["focal_x", "focal_y", "areas"])
        row.keep(payload.placement)
    return _out(row)


@router.delete("/placements/{int:placement_id}", response={204: None, 404: Problem})
def remove_placement(request: HttpRequest, placement_id: int) -> tuple[int, None]:
    _mine(request, placement_id).delete()
    return 204, None


@router.post("/sites/{int:site_id}/readings", response={200: Reading, 404: Problem, 422: Problem})
def read_draft(request: HttpRequest, site_id: int, draft: Draft) -> Reading:
    """Everything that the desk shows of a draft, over every width. Nothing is stored."""
    site = site_of(request.user, site_id)
    originals = _originals(site, draft.placement.original_ids, draft.looks)
    others = {o.id: o.as_noun() for o in site.originals.exclude(id__in=originals).exclude(areas=[])[:MOST_PROPOSED]}
    return read(
        draft.site or site.as_noun(),
        draft.placement,
        originals,
        preview=_preview,
        made_bytes=bytes_made,
        others=others,
    )

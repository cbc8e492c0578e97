"""Placements: list, make, save, remove, and their history. A save says which revision it started
from."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from accounts.session import person
from common.bodies import Body
from common.db import in_one_go, locked, remove_one
from common.problems import Conflict, Problem, Refused
from django.contrib.auth.models import User
from django.db.models import F, Max
from django.http import Http404, HttpRequest
from ninja import Query, Router, Schema, Status
from originals.looks import MOST_LOOKS, Look, Looks
from originals.models import Original
from placements.glimpses import Glimpsed, glimpses, remembered
from placements.history import (
    StoredLooks,
    add,
    begin,
    lock_for_looks,
    look_anew,
    looks_now,
    version,
)
from placements.models import Placement, originals_of
from placements.strips import StripScreenOut
from pydantic import AfterValidator, Field
from sites.access import row_for, site_for
from sites.models import Page, Site
from sites.shapes import Title
from skypane import changes, model, plan, showing

router = Router()


def _unnamed(placement: model.Placement) -> model.Placement:
    return placement.model_copy(update={"stem": None, "page": "", "handed": {}})


#: What a placement is called in code and files is worked out here, of all placements of its site.
Unnamed = Annotated[model.Placement, AfterValidator(_unnamed)]
Position = Annotated[int, Field(ge=-1_000_000, le=1_000_000)]


class PlacementIn(Body):
    placement: Unnamed


class VersionIn(Body):
    """One version of a placement: itself and the looks of its originals."""

    placement: Unnamed
    looks: Looks = {}


class HistoryIn(Body):
    """How the history goes on: versions up to position `keep` stay, `add` follow, and the
    placement is at position `at`."""

    keep: Position
    add: Annotated[list[VersionIn], Field(max_length=200)] = []
    at: Position


class PlacementSave(VersionIn):
    """`looks` are those that have changed, `look_revisions` what they started from. Without
    `history` the save is one version after the present one."""

    revision: int
    look_revisions: Annotated[dict[int, int], Field(max_length=MOST_LOOKS)] = {}
    history: HistoryIn | None = None


class PlacementOut(Schema):
    id: int
    page_id: int
    page: str
    site_id: int
    revision: int
    placement: model.Placement
    looks: dict[int, Look]
    look_revisions: dict[int, int]
    at: int


class VersionOut(Schema):
    placement: model.Placement
    looks: dict[int, Look]
    position: int
    what: str
    by: str
    made: datetime


class HistoryOut(Schema):
    at: int
    versions: list[VersionOut]


class PlacementRow(Schema):
    """A placement in a list. `current`: what is told of it is worked out of what is there now; else
    it is as it was last seen, and `strip` is empty where it never was. `step` is where it is gone
    on with: Frame, as long as nothing says how large a picture is that is there."""

    id: int
    step: model.Step
    page_id: int
    page: str
    name: str
    kind: str
    pictures: int
    also_on: list[int]  # further pages that it shows on
    strip: list[StripScreenOut]
    findings: list[model.Finding]
    error: str | None
    current: bool


def _mine(request: HttpRequest, placement_id: int) -> Placement:
    rows = Placement.objects.select_related("page__site")
    return row_for(request, rows, "page__site", placement_id)


def placement_out(row: Placement) -> PlacementOut:
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
        looks={
            o.id: Look(focal=(o.focal_x, o.focal_y), areas=o.as_noun().areas) for o in originals
        },
        look_revisions={o.id: o.revision for o in originals},
    )


@router.get("/sites/{int:site_id}/placements", response={200: list[PlacementRow], 404: Problem})
def list_placements(
    request: HttpRequest,
    site_id: int,
    as_remembered: bool = False,
    skip: Annotated[int, Query(ge=0, le=1_000_000)] = 0,
    most: Annotated[int | None, Query(ge=1, le=1000)] = None,
) -> list[PlacementRow]:
    """The placements of a site in the order of its pages: all, or at most so many after so many.
    `as_remembered`: at once, as they were last seen; nothing is worked out."""
    site = site_for(request, site_id)
    of = slice(skip, None if most is None else skip + most)
    return [_row(g) for g in (remembered if as_remembered else glimpses)(site, of)]


def _row(found: Glimpsed) -> PlacementRow:
    row, glimpse = found.row, found.glimpse
    bare = {"name": row.body["name"], "kind": row.body.get("kind", "picture"), "pictures": 0}
    nothing = {**bare, "strip": [], "findings": [], "error": None}
    told = glimpse.model_dump(exclude={"lead"}) if glimpse else nothing
    return PlacementRow(
        id=row.id,
        step="aim" if _is_sized(row.body) else "frame",
        page_id=row.page_id,
        page=row.page.title,
        also_on=[home.page_id for home in row.homes.all()],
        current=found.is_current,
        **told,
    )


def _is_sized(body: dict[str, Any]) -> bool:
    """Whether the placement that is kept as `body` says more than which picture it shows."""
    treatments = [t for part in body["parts"] for t in part["treatments"].values()]
    said = {
        f for t in [*treatments, *body.get("common", {}).values()] for f in t if t[f] is not None
    }
    return (
        said != {"original"} or body.get("kind", "picture") != "picture" or bool(body.get("frame"))
    )


@router.post(
    "/pages/{int:page_id}/placements", response={201: PlacementOut, 404: Problem, 422: Problem}
)
def make_placement(
    request: HttpRequest, page_id: int, payload: PlacementIn
) -> Status[PlacementOut]:
    """A new placement, the last of its page. Where nothing is said of it the first begins as what
    the first screen shows; those after it load as they come near."""
    page = row_for(request, Page.objects.select_related("site"), "site", page_id)
    is_said = "lead" in payload.placement.model_fields_set

    def make() -> Placement:
        locked(Original, payload.placement.original_ids)
        _check(page.site, payload.placement)
        last = page.placements.aggregate(last=Max("position"))["last"]
        lead = payload.placement.lead if is_said else last is None
        noun = payload.placement.model_copy(update={"lead": lead})
        return _put(page, (last or 0) + 1, noun)

    return Status(201, placement_out(in_one_go(make)))


def _put(page: Page, position: int, noun: model.Placement) -> Placement:
    """A new placement on a page, with the first version of its history."""
    row = Placement(page=page, position=position, revision=0)
    row.keep(noun)
    begin(row)
    return row


@router.get("/placements/{int:placement_id}", response={200: PlacementOut, 404: Problem})
def read_placement(request: HttpRequest, placement_id: int) -> PlacementOut:
    return placement_out(_mine(request, placement_id))


class CopyIn(Body):
    """`original`: another one, which the copy shows wherever the placement shows one."""

    name: Title
    original: model.Id | None = None


@router.post(
    "/placements/{int:placement_id}/copies",
    response={201: PlacementOut, 404: Problem, 422: Problem},
)
def copy_placement(
    request: HttpRequest, placement_id: int, payload: CopyIn
) -> Status[PlacementOut]:
    """A placement with the same rules, right after the one that it is made from."""
    source = _mine(request, placement_id)
    told = {"name": payload.name.strip(), "stem": None, "lead": False}
    noun = source.as_noun().model_copy(update=told)
    if payload.original is not None:
        noun = showing(noun, payload.original)

    def copy() -> Placement:
        locked(Original, noun.original_ids)
        _check(source.page.site, noun)
        page = source.page
        page.placements.filter(position__gt=source.position).update(position=F("position") + 1)
        return _put(page, source.position + 1, noun)

    return Status(201, placement_out(in_one_go(copy)))


def _check(site: Site, placement: model.Placement) -> None:
    """Refuse what could not be read afterwards. Raises InvalidPlan."""
    originals = originals_of(site, placement.original_ids)
    if placement.original_ids - set(originals):
        raise Refused(
            "An original of this placement is not in this site. Choose another.", field="treatments"
        )
    plan(site.as_noun(), placement, originals)


@router.put(
    "/placements/{int:placement_id}",
    response={200: PlacementOut, 404: Problem, 409: Problem, 422: Problem},
)
def save_placement(request: HttpRequest, placement_id: int, payload: PlacementSave) -> PlacementOut:
    """Save a draft that started from `revision`. A newer one answers 409 with both versions and
    changes nothing."""
    site_id = _mine(request, placement_id).page.site_id

    def save() -> Placement:
        site = Site.objects.get(id=site_id)
        used = payload.placement.original_ids
        originals, rows = lock_for_looks(site, payload.looks, placement_id, used)
        row = rows.get(placement_id)
        if row is None:
            raise Http404
        stale = [
            o
            for o in originals.values()
            if o.revision != payload.look_revisions.get(o.id, o.revision)
        ]
        if row.revision != payload.revision or stale:
            raise Conflict(
                (
                    f"The areas of {stale[0].name} were changed elsewhere since you opened this."
                    if row.revision == payload.revision
                    else "This placement was changed elsewhere since you opened it."
                ),
                placement_out(row).model_dump(mode="json"),
                list(_differences(row, payload)),
            )
        # its breakpoints as they are now, the row being locked
        _check(Site.objects.get(id=site_id), payload.placement)
        begin(row)
        for original in originals.values():
            look = payload.looks[original.id]
            look_anew(
                original,
                look.focal,
                look.areas,
                person(request),
                [p for p in rows.values() if p.id != placement_id],
            )
        _go_on(row, payload, person(request))
        row.keep(payload.placement)
        return row

    return placement_out(in_one_go(save))


def _stored(version_: VersionIn) -> tuple[dict[str, object], StoredLooks]:
    """A version as it is stored: only what its own placement uses."""
    used = version_.placement.original_ids
    looks = {
        str(i): look.model_dump(mode="json", exclude_none=True)
        for i, look in version_.looks.items()
        if i in used
    }
    return version_.placement.model_dump(mode="json", exclude_none=True), looks


def _differences(row: Placement, mine: PlacementSave) -> tuple[str, ...]:
    noun = row.as_noun()
    names = dict(Original.objects.filter(site=row.page.site).values_list("id", "name"))
    body, looks = _stored(mine)
    return changes.differences(
        version(body, looks, names), version(row.body, looks_now(row, noun), names)
    )


def _go_on(row: Placement, payload: PlacementSave, by: User) -> None:
    """The history after a save. What does not fit the versions that are here is taken for one
    plain change."""
    h = payload.history
    if h is not None:
        positions = set(row.versions.values_list("position", flat=True))
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
    """Every version that is still kept, the oldest first, and where the placement is among them."""
    row = _mine(request, placement_id)
    versions = [
        VersionOut(
            position=s.position,
            what=s.what,
            by=s.by.get_username() if s.by else "",
            made=s.made,
            placement=model.Placement.model_validate(s.body),
            looks={int(i): Look.model_validate(look) for i, look in s.looks.items()},
        )
        for s in row.versions.select_related("by")
    ]
    return HistoryOut(at=row.at, versions=versions)


@router.delete("/placements/{int:placement_id}", response={204: None, 404: Problem})
def remove_placement(request: HttpRequest, placement_id: int) -> Status[None]:
    remove_one(Placement, _mine(request, placement_id).id)
    return Status(204, None)

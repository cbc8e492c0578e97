"""Read a draft: everything that the desk shows of a placement as it stands under the designer's
hand. Nothing is stored."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated

from common.bodies import Body
from common.keys import sign
from common.problems import Problem, Refused
from deliveries.models import bytes_made
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from ninja import Query, Router, Schema
from originals.copies import copies_of
from originals.intake import PREVIEW_WIDTHS, look_for_drawings, look_for_tiny
from originals.looks import Looks, looked
from originals.models import preview_url
from placements.models import Placement, handed_of, originals_behind, originals_of, stems_of
from placements.proposals import proposable
from pydantic import Field
from sites.access import inside, row_for, site_for
from sites.models import Site
from skypane import (
    CropsOfAll,
    Edit,
    Moving,
    Reading,
    begun,
    code_as,
    crops_of_all,
    edited,
    model,
    plan,
    read,
    read_moving,
)
from skypane.edits import OnlyThere
from skypane.model.frame import first_height, first_width
from skypane.reading.nouns import CodeFile, WidthSum
from skypane.reading.spans import sum_at
from skypane.words.faces import FACES

router = Router()


class Draft(Body):
    """A placement as it stands. `site` is given while breakpoints are being dragged. `part` and
    `chosen`, the letter of a span, say what is read in detail; of many items that part alone.
    `scrollbar_px` is what a classic scrollbar takes of the page, in CSS px; `conditions` are what
    the page is seen under."""

    placement: model.Placement
    placement_id: int | None = None  # of one that has been stored
    looks: Looks = {}
    site: model.Site | None = None
    part: model.PartIndex = 0
    chosen: Annotated[str, Field(max_length=2)] | None = None
    scrollbar_px: Annotated[float, Field(ge=0, le=40)] = 0
    conditions: model.Conditions = model.AS_USUAL

    @property
    def in_detail(self) -> tuple[int, str] | None:
        return (self.part, self.chosen) if self.chosen else None


class WholeDraft(Draft):
    """With `costs` the detail says what each way to aim comes to, with `words` what can be done
    about the words. Without `every` the files, ladders and code of many items are those of `part`
    alone."""

    costs: bool = False
    words: bool = False
    every: bool = True


class StoredAsked(Schema):
    """What of a stored placement is read, as in a draft."""

    part: model.PartIndex = 0
    chosen: Annotated[str, Field(max_length=2)] | None = None
    words: bool = False
    every: bool = True
    scrollbar_px: Annotated[float, Field(ge=0, le=40)] = 0
    revision: int


class CropsDraft(Draft):
    """`ratio` is width over height."""

    chosen: Annotated[str, Field(max_length=2)]
    ratio: Annotated[float, Field(ge=0.05, le=20)]


class EditAsked(Body):
    """A placement as it stands, and what is done with it."""

    placement: model.Placement
    looks: Looks = {}
    site: model.Site | None = None
    edit: Edit


class WidthBefore(Body):
    rule: model.WidthRule


class HeightBefore(Body):
    """`now_px` is how high the frame is with it, in CSS px."""

    rule: model.HeightRule
    now_px: Annotated[float, Field(ge=0, le=1e6)]


class CodeDraft(Draft):
    output: model.Output


class SumDraft(Draft):
    """`at` is a viewport width in CSS px."""

    at: Annotated[int, Field(ge=1, le=20_000)]


def preview(original: model.Original, crop: model.Rect | None, drawn_px: float) -> str:
    """The preview that a pane shows: it has the px that it is drawn with, as far as there is such a
    one."""
    width = next((w for w in PREVIEW_WIDTHS if drawn_px <= w), PREVIEW_WIDTHS[-1])
    return preview_url(original.id, width, original.sha256, crop)


def row_of(site: Site, draft: Draft) -> Placement | None:
    """The placement that a draft is of, where it has been stored. Raises Http404."""
    if draft.placement_id is None:
        return None
    rows = Placement.objects.select_related("page")
    return inside(site, rows, "page__site", draft.placement_id)


def siblings(row: Placement | None) -> Callable[[], list[model.Placement]]:
    """The other placements of a placement's page."""

    def others() -> list[model.Placement]:
        rows = row.page.placements.exclude(id=row.id) if row else ()
        return [other.as_noun() for other in rows]

    return others


Asked = tuple[model.Site, model.Placement, dict[int, model.Original]]


def asked_of(site: Site, draft: Draft, row: Placement | None) -> Asked:
    """A draft as the core has it: site, placement with what it is called, and its originals."""
    look_for_tiny(site, originals_behind([draft.placement]))
    used = originals_of(site, draft.placement.original_ids)
    if look_for_drawings(used):
        used = originals_of(site, draft.placement.original_ids)
    id_ = row.id if row else None
    called = stems_of(site, (id_, draft.placement.name))[id_ or 0]
    page, handed = (row.page.title, row.handed) if row else ("", {})
    told = {"stem": called, "page": page, "handed": handed_of(handed)}
    placement = draft.placement.model_copy(update=told)
    return draft.site or site.as_noun(), placement, looked(used, draft.looks)


def _json(reading: Moving) -> HttpResponse:
    """It has been checked while it was made: asked for at every step of a drag, it is not checked
    once more."""
    return HttpResponse(reading.model_dump_json(), content_type="application/json")


@router.post("/sites/{int:site_id}/readings", response={200: Reading, 404: Problem, 422: Problem})
def read_draft(request: HttpRequest, site_id: int, draft: WholeDraft) -> HttpResponse:
    """Everything that the desk shows of a draft, over every width."""
    site = site_for(request, site_id, looking=True)
    return _read(site, row_of(site, draft), draft)


@router.get(
    "/placements/{int:placement_id}/reading",
    response={200: Reading, 404: Problem, 409: Problem, 422: Problem},
)
def read_stored(request: HttpRequest, placement_id: int, asked: Query[StoredAsked]) -> HttpResponse:
    """Everything that the desk shows of a placement as it is stored, in the `revision` that is
    asked for."""
    rows = Placement.objects.select_related("page__site")
    row = row_for(request, rows, "page__site", placement_id)
    if row.revision != asked.revision:
        raise Refused("This placement has been saved anew meanwhile. Read it again.", status=409)
    told = asked.model_dump(exclude={"revision"})
    draft = WholeDraft(placement=row.as_noun(), placement_id=row.id, **told)
    return _read(row.page.site, row, draft)


def _read(site: Site, row: Placement | None, draft: WholeDraft) -> HttpResponse:
    asked, placement, originals = asked_of(site, draft, row)
    reading = read(
        asked,
        placement,
        originals,
        preview=preview,
        made_bytes=bytes_made,
        others=lambda: proposable(site, originals, draft.placement_id),
        pixels=copies_of,
        siblings=siblings(row),
        chosen=draft.in_detail,
        costs=draft.costs,
        words=draft.words,
        every=draft.every,
        scrollbar_px=draft.scrollbar_px,
        conditions=draft.conditions,
        sign=sign,
    )
    return _json(reading)


@router.post(
    "/sites/{int:site_id}/readings/moving", response={200: Moving, 404: Problem, 422: Problem}
)
def read_moving_draft(request: HttpRequest, site_id: int, draft: Draft) -> HttpResponse:
    """What changes on the desk while something is dragged; the rest is asked for when it rests."""
    site = site_for(request, site_id, looking=True)
    row = row_of(site, draft)
    asked = asked_of(site, draft, row)
    return _json(
        read_moving(
            *asked,
            preview=preview,
            pixels=copies_of,
            siblings=siblings(row),
            chosen=draft.in_detail,
            scrollbar_px=draft.scrollbar_px,
            conditions=draft.conditions,
        )
    )


@router.post(
    "/sites/{int:site_id}/kinds/{kind}", response={200: model.Placement, 404: Problem, 422: Problem}
)
def begin_kind(request: HttpRequest, site_id: int, kind: str, draft: Draft) -> model.Placement:
    """A draft as another kind: what both know stays, what the new one needs is begun."""
    site = site_for(request, site_id, looking=True)
    return begun(kind, draft.site or site.as_noun(), draft.placement)


@router.post("/width-rules/{kind}", response={200: model.WidthRule, 422: Problem})
def begin_width(request: HttpRequest, kind: str, before: WidthBefore) -> model.WidthRule:
    """A width rule as it begins in the place of another one."""
    return first_width(kind, before.rule)


@router.post("/height-rules/{kind}", response={200: model.HeightRule, 422: Problem})
def begin_height(request: HttpRequest, kind: str, before: HeightBefore) -> model.HeightRule:
    """A height rule as it begins in the place of another one."""
    return first_height(kind, before.rule, before.now_px)


@router.post(
    "/sites/{int:site_id}/edits", response={200: model.Placement, 404: Problem, 422: Problem}
)
def edit(request: HttpRequest, site_id: int, asked: EditAsked) -> model.Placement:
    """A draft after a change that brings others with it. Nothing is stored."""
    site = site_for(request, site_id, looking=True)
    shown = asked.placement.original_ids
    if isinstance(asked.edit, OnlyThere):
        shown |= asked.edit.before.original_ids
    used = looked(originals_of(site, shown), asked.looks)
    areas = {id_: tuple(a.name for a in o.keeps) for id_, o in used.items()}
    return edited(asked.site or site.as_noun(), asked.placement, asked.edit, areas)


@router.post(
    "/sites/{int:site_id}/readings/sum", response={200: WidthSum, 404: Problem, 422: Problem}
)
def width_sum(request: HttpRequest, site_id: int, draft: SumDraft) -> WidthSum:
    """How the width of a part's frame comes about at one viewport width, as a sum."""
    site = site_for(request, site_id, looking=True)
    computed = plan(*asked_of(site, draft, row_of(site, draft)), draft.scrollbar_px)
    if draft.part >= len(computed.parts):
        raise Http404
    spans = computed.parts[draft.part].spans
    at = min(max(draft.at, spans[0].span.first), spans[-1].span.last)
    return sum_at(next(p for p in spans if at <= p.span.last), at)


@router.post(
    "/sites/{int:site_id}/readings/code",
    response={200: list[CodeFile], 404: Problem, 422: Problem},
)
def code(request: HttpRequest, site_id: int, draft: CodeDraft) -> list[CodeFile]:
    """The code of a draft in one kind of output; no file where there is no picture yet."""
    site = site_for(request, site_id, looking=True)
    asked = asked_of(site, draft, row_of(site, draft))
    return list(code_as(*asked, draft.output, bytes_made, sign))


@router.post("/sites/{int:site_id}/crops", response={200: CropsOfAll, 404: Problem, 422: Problem})
def crops(request: HttpRequest, site_id: int, draft: CropsDraft) -> CropsOfAll:
    """The largest crop of one ratio for each part of a draft that shows its picture in a span."""
    site = site_for(request, site_id, looking=True)
    return crops_of_all(
        plan(*asked_of(site, draft, row_of(site, draft))), draft.chosen, draft.ratio
    )


@router.get("/fonts/{name}", response={200: None, 404: Problem}, include_in_schema=False)
def font(request: HttpRequest, name: str) -> FileResponse:
    """A file of a typeface, for panes."""
    found = next((f for face in FACES.values() for f in face.files if f.name == name), None)
    if found is None:
        raise Http404
    response = FileResponse(found.path.open("rb"), content_type="font/woff2")
    response["Cache-Control"] = "private, max-age=86400"
    return response

"""Pictures of the design under a page: brought, told what width they were drawn for, removed and
put back; and frame rules read off what is drawn on them."""

from __future__ import annotations

from typing import Annotated

from common.bodies import Body
from common.db import in_one_go
from common.files import keep
from common.problems import Problem, Refused
from common.uploads import most_upload_bytes, takes_file
from django.core.files.storage import default_storage
from django.http import FileResponse, Http404, HttpRequest
from ninja import File, Router, Schema, Status
from ninja.files import UploadedFile
from originals.designs import TYPES, read_design
from originals.intake import clean_name, received
from originals.models import Design
from pydantic import Field
from sites.access import row_for, site_for
from sites.models import Page, Site
from skypane.model import GREATEST_VIEWPORT, LEAST_VIEWPORT
from skypane.spots import Asked, PageLines, ReadRule, Seen, frame_rules, guessed_width, lines_of
from skypane.widths.spans import spans_of

from endpoints.originals.originals import small_enough

router = Router()

#: So many lie under one page.
MOST_DESIGNS = 40


class DesignOut(Schema):
    """`density`: px of the picture to one CSS px. `letter` is that of the span that it was drawn
    for; None, with a `note`, where no span has its width."""

    id: int
    name: str
    width_px: int
    height_px: int
    drawn_for: int
    density: float
    letter: str | None
    note: str
    url: str


class DrawnFor(Body):
    drawn_for: Annotated[int, Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)]


class SpotIn(Body):
    """A spot as it is drawn on designs, one rectangle at each width."""

    seen: Annotated[tuple[Seen, ...], Field(min_length=1, max_length=40)]
    gutter_px: Annotated[float, Field(ge=0, le=1000)] = 0


class SpotsIn(Body):
    """All that was drawn on a page's designs."""

    seen: Annotated[tuple[Seen, ...], Field(max_length=400)]


def _out(design: Design, site: Site) -> DesignOut:
    plan = site.as_noun()
    width = design.drawn_for
    letter = next((s.letter for s in spans_of(plan) if s.first <= width <= s.last), None)
    note = ""
    if letter is None:
        note = (
            f"No span of the site has {width} px: it goes from {plan.narrowest} to {plan.widest}."
            " Say the width that it was drawn for."
        )
    return DesignOut(
        id=design.id,
        name=design.name,
        width_px=design.width_px,
        height_px=design.height_px,
        drawn_for=width,
        density=round(design.width_px / width, 4),
        letter=letter,
        note=note,
        url=f"/api/designs/{design.id}/file",
    )


def _page(request: HttpRequest, page_id: int, *, looking: bool | None = None) -> Page:
    rows = Page.objects.select_related("site")
    return row_for(request, rows, "site", page_id, looking=looking)


def _design(request: HttpRequest, design_id: int) -> Design:
    rows = Design.objects.select_related("page__site")
    return row_for(request, rows, "page__site", design_id)


@router.get("/pages/{int:page_id}/designs", response={200: list[DesignOut], 404: Problem})
def read_designs(request: HttpRequest, page_id: int) -> list[DesignOut]:
    """The widest first."""
    page = _page(request, page_id)
    return [_out(d, page.site) for d in page.designs.filter(gone=False)]


@router.post(
    takes_file("/pages/{int:page_id}/designs", most_upload_bytes),
    response={201: DesignOut, 404: Problem, 413: Problem, 422: Problem},
)
def bring_design(request: HttpRequest, page_id: int, file: File[UploadedFile]) -> Status[DesignOut]:
    """Bring a picture of the design; the width that it was drawn for is guessed from its px. One
    that is here already is answered as it is, put back if it was removed."""
    page = _page(request, page_id)
    small_enough(file)
    if page.designs.filter(gone=False).count() >= MOST_DESIGNS:
        raise Refused(f"A page has at most {MOST_DESIGNS} pictures of its design. Remove some.")
    name = clean_name(file.name or "")
    with received(file) as (path, sha256):
        there = page.designs.filter(sha256=sha256).first()
        if there is not None:
            keep(path, there.stored)
            _is_gone(there, gone=False)
            return Status(201, _out(there, page.site))
        design = read_design(path, name, sha256)
        plan = page.site.as_noun()
        others = Design.objects.filter(page__site=page.site, gone=False)
        known = others.values_list("drawn_for", flat=True).distinct()
        width = guessed_width(design.width_px, known, plan.narrowest, plan.widest)
        design.page, design.drawn_for = page, width
        design.save()
    return Status(201, _out(design, page.site))


@router.patch("/designs/{int:design_id}", response={200: DesignOut, 404: Problem, 422: Problem})
def draw_for(request: HttpRequest, design_id: int, payload: DrawnFor) -> DesignOut:
    """Say the width that a design was drawn for, in CSS px."""
    design = _design(request, design_id)
    design.drawn_for = payload.drawn_for
    design.save(update_fields=["drawn_for"])
    return _out(design, design.page.site)


@router.delete("/designs/{int:design_id}", response={204: None, 404: Problem})
def remove_design(request: HttpRequest, design_id: int) -> Status[None]:
    """Remove it; it can be put back."""
    _is_gone(_design(request, design_id), gone=True)
    return Status(204, None)


@router.post("/designs/{int:design_id}/back", response={200: DesignOut, 404: Problem})
def put_back(request: HttpRequest, design_id: int) -> DesignOut:
    design = _design(request, design_id)
    _is_gone(design, gone=False)
    return _out(design, design.page.site)


def _is_gone(design: Design, *, gone: bool) -> None:
    design.gone = gone
    in_one_go(lambda: Design.objects.filter(id=design.id).update(gone=gone))


@router.get("/designs/{int:design_id}/file", response={200: None, 404: Problem})
def design_file(request: HttpRequest, design_id: int) -> FileResponse:
    """The picture as it was brought."""
    design = _design(request, design_id)
    try:
        file = default_storage.open(design.stored)
    except FileNotFoundError:
        raise Http404 from None
    response = FileResponse(file, content_type=TYPES[design.format])
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    response["Content-Disposition"] = "inline"
    return response


@router.post(
    "/sites/{int:site_id}/spots", response={200: list[ReadRule], 404: Problem, 422: Problem}
)
def read_spot(request: HttpRequest, site_id: int, payload: SpotIn) -> list[ReadRule]:
    """The frame rules that give what is drawn on designs, best first."""
    site = site_for(request, site_id, looking=True)
    asked = Asked(
        container=site.as_noun().container, gutter_px=payload.gutter_px, seen=payload.seen
    )
    return list(frame_rules(asked))


@router.post(
    "/sites/{int:site_id}/spots/lines", response={200: PageLines, 404: Problem, 422: Problem}
)
def read_lines(request: HttpRequest, site_id: int, payload: SpotsIn) -> PageLines:
    """The container, gutter and columns that what is drawn on designs shares."""
    site = site_for(request, site_id, looking=True)
    return lines_of(payload.seen, site.as_noun().container)

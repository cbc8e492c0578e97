"""The safe area for whoever makes the picture: as SVG or PNG to lay over it, and as numbers."""

from __future__ import annotations

from typing import Annotated, Literal

from common.bodies import Body
from common.problems import Problem, Refused
from django.http import HttpRequest, HttpResponse
from ninja import Query, Router
from placements.models import Placement, originals_of
from pydantic import Field
from sites.access import row_for
from skypane import SafeArea, model, plan, safe_area_of
from skypane.errors import NotThere
from skypane.identifiers import identifier
from skypane.markup.overlay import overlay_svg
from skypane.pixels.overlay import overlay_png

router = Router()

#: A larger overlay takes more memory than its few lines are worth.
MOST_PNG_PX = 64_000_000


class Asked(Body):
    """`span`: one letter, or all spans. `original`: which original, where spans show several.
    `ratio`: of a picture that is still to be made, width over height."""

    part: model.PartIndex = 0
    span: Annotated[str, Field(max_length=2)] | None = None
    original: model.Id | None = None
    ratio: Annotated[float, Field(ge=0.05, le=20)] | None = None


class SafeAreaOut(SafeArea):
    placement: str


def _safe(request: HttpRequest, placement_id: int, asked: Asked) -> SafeAreaOut:
    rows = Placement.objects.select_related("page__site")
    row = row_for(request, rows, "page__site", placement_id)
    site, noun = row.page.site.as_noun(), row.as_noun()
    computed = plan(site, noun, originals_of(row.page.site, noun.original_ids))
    if asked.part >= len(computed.parts):
        raise NotThere(f"There is no part {asked.part + 1} in {noun.name}.", field="part")
    found = safe_area_of(
        computed.parts[asked.part],
        site.densities[-1],
        letter=asked.span,
        original=asked.original,
        ratio=asked.ratio,
    )
    return SafeAreaOut(placement=noun.name, **dict(found))


@router.get(
    "/placements/{int:placement_id}/safe-area",
    response={200: SafeAreaOut, 404: Problem, 422: Problem},
)
def safe_area_numbers(request: HttpRequest, placement_id: int, asked: Query[Asked]) -> SafeAreaOut:
    """What of the picture is in view at every width, of the placement as it is saved. Where spans
    wait for a picture: how large it has to be, and where what matters belongs."""
    return _safe(request, placement_id, asked)


@router.get(
    "/placements/{int:placement_id}/safe-area/{kind}",
    response={200: None, 404: Problem, 422: Problem},
    include_in_schema=False,
)
def safe_area_overlay(
    request: HttpRequest, placement_id: int, kind: Literal["svg", "png"], asked: Query[Asked]
) -> HttpResponse:
    """The safe area as a picture of the original's size, to lay over it in any program."""
    found = _safe(request, placement_id, asked)
    w, h = found.width_px, found.height_px
    of_span = f"-{asked.span.lower()}" if asked.span else ""
    name = f"{identifier(found.placement)}-safe-area{of_span}.{kind}"
    if kind == "svg":
        svg = overlay_svg(w, h, found.safe, f"{found.placement}. {found.sentence}")
        response = HttpResponse(svg, content_type="image/svg+xml")
    else:
        if w * h > MOST_PNG_PX or max(w, h) > model.MOST_PX:
            raise Refused(
                f"As a PNG it would be {w} × {h} px, more than {MOST_PNG_PX // 1_000_000}"
                " megapixels. Take the SVG, which can be scaled to any size.",
                field="ratio",
            )
        response = HttpResponse(overlay_png(w, h, found.safe), content_type="image/png")
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response

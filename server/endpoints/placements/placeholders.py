"""Stand-ins for pictures that are still missing, in the px that the plan asks for."""

from __future__ import annotations

import io
import zipfile
from typing import Annotated, Literal

from common.bodies import Body
from common.problems import Problem, Refused
from django.http import HttpRequest, HttpResponse
from ninja import Query, Router
from placements.models import Placement, originals_of
from pydantic import Field
from sites.access import row_for
from skypane import model, plan
from skypane.errors import NotThere
from skypane.identifiers import identifier
from skypane.markup.placeholder import placeholder_svg, placeholders_of
from skypane.pixels.overlay import drawn_png

router = Router()

#: A larger stand-in takes more memory than its few lines are worth.
MOST_PNG_PX = 40_000_000


class Asked(Body):
    """`span`: one letter, or all that wait."""

    part: model.PartIndex = 0
    span: Annotated[str, Field(max_length=2)] | None = None


@router.get(
    "/placements/{int:placement_id}/placeholders/{kind}",
    response={200: None, 404: Problem, 422: Problem},
)
def placeholders(
    request: HttpRequest, placement_id: int, kind: Literal["svg", "png"], asked: Query[Asked]
) -> HttpResponse:
    """A zip with a neutral picture for every span that waits for one, at each density, with its px
    written on it; of the placement as it is saved."""
    rows = Placement.objects.select_related("page__site")
    row = row_for(request, rows, "page__site", placement_id)
    noun = row.as_noun()
    originals = originals_of(row.page.site, noun.original_ids)
    computed = plan(row.page.site.as_noun(), noun, originals)
    if asked.part >= len(computed.parts):
        raise NotThere(f"There is no part {asked.part + 1} in {noun.name}.", field="part")
    found = placeholders_of(computed, computed.parts[asked.part], asked.span)
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        for p in found:
            if kind == "png" and p.width_px * p.height_px > MOST_PNG_PX:
                raise Refused(
                    f"As a PNG {p.stem} would be {p.width_px} × {p.height_px} px, more than"
                    f" {MOST_PNG_PX // 1_000_000} megapixels. Take the SVG."
                )
            svg = placeholder_svg(p.width_px, p.height_px)
            archive.writestr(f"{p.stem}.{kind}", drawn_png(svg) if kind == "png" else svg)
    response = HttpResponse(packed.getvalue(), content_type="application/zip")
    name = f"{identifier(noun.name)}-placeholders-{kind}.zip"
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response

"""The safe area for whoever makes the picture: as SVG or PNG to lay over it, and as numbers."""

from __future__ import annotations

from typing import Annotated, Literal

from config.bodies import Body
from config.problems import Problem, Refused
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Query, Router, Schema
from pydantic import Field
from skypane import model
from skypane.geometry import Region, overlap
from skypane.identifiers import identifier
from skypane.markup.overlay import overlay_svg
from skypane.pixels.overlay import overlay_png
from skypane.shown.brief import brief
from skypane.shown.fit import safe_area
from skypane.shown.plan import SpanPlan, plan

from placements.models import Placement, originals_of

router = Router()

#: A larger overlay takes more memory than its few lines are worth.
MOST_PNG_PX = 64_000_000


class Asked(Body):
    """`span`: one letter, or all spans. `original`: which original, where spans show several.
    `ratio`: of a picture that is still to be made, width over height."""

    span: Annotated[str, Field(max_length=2)] | None = None
    original: model.Id | None = None
    ratio: Annotated[float, Field(ge=0.05, le=20)] | None = None


class SafeOut(Schema):
    """Sizes in image px; edges of the safe area in fractions of the picture and in px, null where
    no part always shows."""

    placement: str
    spans: list[str]
    original: str | None
    width_px: int
    height_px: int
    safe: tuple[float, float, float, float] | None
    safe_px: tuple[int, int, int, int] | None
    density: float | None
    sentence: str


def _safe(request: HttpRequest, placement_id: int, asked: Asked) -> SafeOut:
    row = get_object_or_404(
        Placement.objects.select_related("page__site"),
        id=placement_id,
        page__site__members=request.user,
    )
    site, noun = row.page.site.as_noun(), row.as_noun()
    plans = plan(site, noun, originals_of(row.page.site, noun.original_ids))
    if asked.span is not None:
        plans = tuple(p for p in plans if p.span.letter == asked.span)
        if not plans:
            raise Refused(f"There is no span {asked.span} in this site.", status=404, field="span")
    waiting = any(p.waits for p in plans)
    shown = [p for p in plans if p.original is not None and p.shown is not None]
    if asked.original is not None:
        shown = [p for p in shown if p.original is not None and p.original.id == asked.original]
    elif waiting or asked.ratio is not None:
        return _to_be_made(noun.name, plans, site.densities[-1], asked.ratio)
    if not shown:
        raise Refused("No picture shows there, so there is no safe area.", status=404)
    return _of_original(noun.name, shown)


def _to_be_made(
    name: str, plans: tuple[SpanPlan, ...], density: float, ratio: float | None
) -> SafeOut:
    found = brief(plans, density, ratio)
    if found is None:
        raise Refused("No picture is asked for there.", status=404)
    return _out(
        name, list(found.spans), None, found.width_px, found.height_px, Region(*found.safe), density
    )


def _of_original(name: str, shown: list[SpanPlan]) -> SafeOut:
    original = shown[0].original
    assert original is not None
    mine = [p for p in shown if p.original is not None and p.original.id == original.id]
    safe: Region | None = Region(0, 1, 0, 1)
    for p in mine:
        assert p.shown is not None
        safe = overlap(safe, safe_area(p.shown))
    letters = [p.span.letter for p in mine]
    return _out(name, letters, original.name, original.width_px, original.height_px, safe, None)


def _out(
    name: str,
    spans: list[str],
    original: str | None,
    w: int,
    h: int,
    safe: Region | None,
    density: float | None,
) -> SafeOut:
    px = (
        None
        if safe is None
        else (round(safe.x0 * w), round(safe.x1 * w), round(safe.y0 * h), round(safe.y1 * h))
    )
    where = f"span {spans[0]}" if len(spans) == 1 else f"spans {', '.join(spans)}"
    made = f"At least {w} × {h} px for {density:g}x. " if density else f"{w} × {h} px. "
    if px is None:
        said = f"{made}No part shows at every width of {where}."
    else:
        said = (
            f"{made}In view at every width of {where}: x {px[0]} to {px[1]}, y {px[2]} to {px[3]}."
        )
    return SafeOut(
        placement=name,
        spans=spans,
        original=original,
        width_px=w,
        height_px=h,
        safe=tuple(round(v, 5) for v in safe) if safe else None,
        safe_px=px,
        density=density,
        sentence=said,
    )


@router.get(
    "/placements/{int:placement_id}/safe-area", response={200: SafeOut, 404: Problem, 422: Problem}
)
def safe_area_numbers(request: HttpRequest, placement_id: int, asked: Query[Asked]) -> SafeOut:
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
    """The same as a picture of the original's size, to lay over it in any program."""
    found = _safe(request, placement_id, asked)
    of_span = f"-{asked.span.lower()}" if asked.span else ""
    name = f"{identifier(found.placement)}-safe-area{of_span}.{kind}"
    if kind == "svg":
        svg = overlay_svg(
            found.width_px, found.height_px, found.safe, f"{found.placement}. {found.sentence}"
        )
        response = HttpResponse(svg, content_type="image/svg+xml")
    else:
        if (
            found.width_px * found.height_px > MOST_PNG_PX
            or max(found.width_px, found.height_px) > model.MOST_PX
        ):
            raise Refused(
                f"As a PNG it would be {found.width_px} × {found.height_px} px, more than"
                f" {MOST_PNG_PX // 1_000_000} megapixels. Take the SVG, which can be scaled to any"
                " size.",
                field="ratio",
            )
        png = overlay_png(found.width_px, found.height_px, found.safe)
        response = HttpResponse(png, content_type="image/png")
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response

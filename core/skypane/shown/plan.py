"""Frames and windows computed over every width.

The cut is what the files carry: all that shows at some width or viewport height of the span.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Crop, Region, joined
from skypane.model import Area, Following, Original, Placement, Site
from skypane.shown.fit import (
    Interval,
    Picture,
    Windows,
    binding,
    outside,
    picture_of,
    union,
    windows,
    windows_between,
)
from skypane.treatments import Effective, crop_region, keeps_of, resolve
from skypane.widths.frames import (
    Floats,
    depends_on_viewport_height,
    frame_heights,
    frame_widths,
    viewport_heights,
)
from skypane.widths.spans import Span, spans_of


@dataclass(frozen=True)
class Grid:
    """The viewports of a span: whole widths, and per width the least, typical and greatest
    height."""

    v: Floats
    heights: Floats  # (3, widths)


@dataclass(frozen=True, eq=False)
class SpanPlan:
    """One span, computed: frames and windows at all its widths (last axis) and viewport heights
    (first axis).

    What is asked for more than once in a reading is worked out on first use and kept.
    """

    span: Span
    effective: Effective
    original: Original | None
    picture: Picture | None  # the crop of the original, as the aim sees it
    grid: Grid
    # (heights, widths): one row where the frame does not depend on the viewport's height
    viewport_h: Floats
    W: Floats  # (heights, widths)
    H: Floats
    inside: Windows | None  # what shows, in fractions of the crop
    # the same in fractions of the original, drawn sizes those of the whole original
    shown: Windows | None
    # what the treatment cuts before anything else, in fractions of the original; WHOLE without a
    # crop
    crop: Region

    @property
    def viewport_w(self) -> Floats:
        """Viewport widths, (widths,)."""
        return self.grid.v

    @property
    def waits(self) -> bool:
        """Whether the span shows a picture but has none yet."""
        return self.original is None and self.effective.show == "picture"

    @cached_property
    def cut(self) -> Region:
        """What the files carry, a part of the crop, in fractions of the original."""
        e = self.effective
        if (
            self.shown is None
            or self.inside is None
            or self.picture is None
            or e.whole
            or e.fit == "contain"
        ):
            return self.crop
        found = union(self.shown)
        # heights between those computed may move the window further where areas compete
        if self.viewport_h.shape[0] > 1:
            found = joined(
                found, union(outside(windows_between(self.picture, e.aim, self.inside), self.crop))
            )
        return found

    @property
    def cut_inside(self) -> Region:
        """The cut in fractions of the crop."""
        c, k = self.cut, self.crop
        w, h = k.x1 - k.x0, k.y1 - k.y0
        return Region((c.x0 - k.x0) / w, (c.x1 - k.x0) / w, (c.y0 - k.y0) / h, (c.y1 - k.y0) / h)

    @cached_property
    def keeps(self) -> tuple[Area, ...]:
        """The keep areas that matter here, the most important first."""
        return keeps_of(self.original, self.effective.keeps) if self.original else ()

    @cached_property
    def held(self) -> dict[Literal["x", "y"], tuple[Interval, ...]]:
        """Per axis the keep areas whose projection binds somewhere in the span."""
        if (
            self.picture is None
            or self.inside is None
            or not isinstance(self.effective.aim, Following)
        ):
            return {"x": (), "y": ()}
        s, p = self.inside, self.picture
        return {
            "x": binding(s.W / s.drawn_w, float(s.drawn_w.max()), p.focal[0], p.keeps_x),
            "y": binding(s.H / s.drawn_h, float(s.drawn_h.max()), p.focal[1], p.keeps_y),
        }


def plan(
    site: Site, placement: Placement, originals: Mapping[int, Original]
) -> tuple[SpanPlan, ...]:
    """All spans from the narrowest, computed. Raises InvalidPlan where a frame has no size or an
    original is missing."""
    effective = resolve(site, placement)
    out = []
    for span in spans_of(site):
        e = effective[span.letter]
        original = None
        if e.original is not None:
            original = originals.get(e.original)
            if original is None:
                raise InvalidPlan(
                    f"Span {span.letter} asks for an original that is not in this site. Choose"
                    " another.",
                    field=f"treatments.{e.origin['original']}.original",
                )
        out.append(plan_span(site, span, e, original))
    return tuple(out)


def grid_of(site: Site, span: Span) -> Grid:
    v = np.arange(span.first, span.last + 1, dtype=np.float64)
    return Grid(v, np.stack(viewport_heights(site, v)))


def plan_span(
    site: Site, span: Span, e: Effective, original: Original | None, grid: Grid | None = None
) -> SpanPlan:
    """One span, computed over its widths and, where its frame depends on them, viewport heights.
    `grid` saves making it again.

    Raises InvalidPlan where the frame has no size.
    """
    grid = grid or grid_of(site, span)
    v, vh = grid.v, grid.heights if depends_on_viewport_height(e.height) else grid.heights[1:2]
    crop = crop_region(e.crop) if original else WHOLE
    ratio = cropped_ratio(original, crop) if original else 16 / 9
    widths = frame_widths(e.width, v, site.container)
    W = np.broadcast_to(widths, vh.shape).copy()
    H = frame_heights(e.height, W, vh, ratio)
    if e.show != "nothing" and (W.min() < 1 or H.min() < 1):
        at = int(v[int(np.argmin(np.minimum(W, H).min(axis=0)))])
        side = "width" if W.min() < 1 else "height"
        raise InvalidPlan(
            f"The frame has no {side} at {at} px, span {span.letter}. Give it more room there.",
            field=f"treatments.{e.origin[side] or span.letter}.{side}",
        )
    if original is None or e.show != "picture":
        return SpanPlan(span, e, original, None, grid, vh, W, H, None, None, crop)
    picture = picture_of(original, e.aim, crop, keeps_of(original, e.keeps))
    inside = windows(picture, e.fit, e.aim, W, H)
    return SpanPlan(span, e, original, picture, grid, vh, W, H, inside, outside(inside, crop), crop)


def cropped_ratio(original: Original, crop: Region) -> float:
    return original.width_px * (crop.x1 - crop.x0) / (original.height_px * (crop.y1 - crop.y0))


def crop_of(original: Original, cut: Region) -> Crop:
    """The cut in whole image px, rounded to the nearest px; never empty, never beyond the
    picture."""

    def edges(first: float, last: float, length: int) -> tuple[int, int]:
        a = min(int(first * length + 0.5), length - 1)
        b = max(min(int(last * length + 0.5), length), a + 1)
        return a, b - a

    x, w = edges(cut.x0, cut.x1, original.width_px)
    y, h = edges(cut.y0, cut.y1, original.height_px)
    return Crop(x=x, y=y, w=w, h=h)


def drawn_cut_width(span_plan: SpanPlan) -> Floats:
    """Drawn width of the cut in CSS px at every frame of the span."""
    assert span_plan.shown is not None
    return span_plan.shown.drawn_w * (span_plan.cut.x1 - span_plan.cut.x0)

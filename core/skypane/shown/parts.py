"""One part in one span: what it shows in its frame, as it stands and with other values."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from skypane.errors import InvalidPlan
from skypane.geometry import Crop, Rect
from skypane.layouts import Cell, Frame, Layout, Spot
from skypane.model import (
    Item,
    NaturalHeight,
    Original,
    Role,
    Treatment,
)
from skypane.shown.fit import (
    outside,
    picture_of,
    windows,
)
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.treatments import (
    Effective,
    effective_crop,
    keeps_of,
)
from skypane.widths.sums import width_sum

#: The frame of a picture that nobody has brought yet, where its ratio is asked for.
UNKNOWN_RATIO = (16, 9)


class NoSize(InvalidPlan):
    """A frame that has no width or no height at some viewport."""

    def __init__(self, sentence: str, part: int, side: str) -> None:
        super().__init__(sentence, field=side)
        self.part, self.side = part, side


def cell_of(
    e: Effective, original: Original | None, role: Role | None = None, item: Item | None = None
) -> Cell:
    """A part in one span as its layout sees it."""
    if original is None:
        w, h = UNKNOWN_RATIO
        return Cell(e, w / h, UNKNOWN_RATIO, role, item)
    crop = effective_crop(e.crop)
    px = crop_px(original, crop)
    return Cell(e, cropped_ratio(original, crop), (px.w, px.h), role, item)


def plan_part(
    layout: Layout, spot: Spot, index: int, original: Original | None, frame: Frame | None = None
) -> SpanPlan:
    """One part in one span. Raises NoSize where its frame has none."""
    e = spot.cells[index].effective
    frame = frame or layout.frame(spot, index)
    _has_size(spot, index, frame)
    if original is None or e.show != "picture":
        return SpanPlan(layout, spot, index, frame)
    crop = effective_crop(e.crop)
    picture = picture_of(original, e.aim, crop, keeps_of(original, e.keeps))
    windows_ = windows(picture, e.fit, e.aim, frame.W, frame.H)
    shown = outside(windows_, crop)
    return ShownSpan(layout, spot, index, frame, original, crop, picture, windows_, shown)


def replanned(p: SpanPlan, treatment: Treatment, original: Original) -> SpanPlan:
    """One part in one span with other values on top of what holds there, showing `original`. Raises
    NoSize."""
    # of many items the frames of all would have to be found for the one
    frame = p.frame if p.layout.is_large else None
    return replanned_at(p.layout, p.spot, p.index, treatment, original, frame)


def replanned_at(
    layout: Layout,
    spot: Spot,
    index: int,
    treatment: Treatment,
    original: Original,
    frame: Frame | None = None,
) -> SpanPlan:
    """One part of a spot, by its place, with other values on top of what holds there, showing
    `original`. `frame` is the one that it has, for as long as that stays. Raises NoSize."""
    cells = list(spot.cells)
    was = cells[index]
    now = cells[index] = cell_of(was.effective.with_own(treatment), original, was.role, was.item)
    follows = layout.keeps_ratios(spot) or isinstance(now.effective.height, NaturalHeight)
    stays = was.facts == now.facts if follows else was.settings == now.settings
    spot = replace(spot, cells=tuple(cells))
    return plan_part(layout, spot, index, original, frame if stays else None)


def _has_size(spot: Spot, index: int, frame: Frame) -> None:
    W, H = frame.W, frame.H
    if spot.cells[index].effective.show == "nothing" or (W.min() >= 1 and H.min() >= 1):
        return
    at = int(spot.viewports.widths[int(np.argmin(np.minimum(W, H).min(axis=0)))])
    side, why = "height", ""
    if W.min() < 1:
        side = "width"
        why = f": {width_sum(spot.cells[index].effective.width, spot.container, at)}"
    raise NoSize(
        f"The frame has no {side} at {at} px, span {spot.span.letter}{why}. Give it more room"
        " there.",
        index,
        side,
    )


def cropped_ratio(original: Original, crop: Rect) -> float:
    """Width over height of a part of an original."""
    return original.width_px * crop.w / (original.height_px * crop.h)


def crop_px(original: Original, cut: Rect) -> Crop:
    """The cut in whole image px, rounded to the nearest px; never empty, never beyond the
    picture."""

    def edges(first: float, last: float, length: int) -> tuple[int, int]:
        a = min(int(first * length + 0.5), length - 1)
        b = max(min(int(last * length + 0.5), length), a + 1)
        return a, b - a

    x, w = edges(cut.x, cut.x1, original.width_px)
    y, h = edges(cut.y, cut.y1, original.height_px)
    return Crop(x=x, y=y, w=w, h=h)

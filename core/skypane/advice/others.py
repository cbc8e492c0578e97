"""Steps that show something else: another original, one area alone, only a colour."""

from __future__ import annotations

import math
from collections.abc import Collection, Iterable, Mapping
from functools import lru_cache

from skypane.advice.remedies import Remedy, fails, works
from skypane.advice.reshaping import ratio_bounds
from skypane.advice.trial import holds_all, tried, what_changes
from skypane.errors import InvalidPlan
from skypane.geometry import Rect
from skypane.layouts import Layout, Spot
from skypane.model import FixedWidth, Following, NaturalHeight, Original, RatioHeight, Treatment
from skypane.numerals import whole_px
from skypane.shown.keeps import whole_picture
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.shown.parts import replanned, replanned_at
from skypane.values import LEAST_SHARE, once

#: Side of a small stand-in, in CSS px, where the area does not ask for more (common practice: the
#: size of a touch target twice).
STAND_IN_PX = 96


def belongs(other: Original, used: Iterable[Original], on_page: Collection[int]) -> bool:
    """Whether an original may be proposed where others are used: it has a tag in common with one,
    or is on the same page."""
    return other.id in on_page or not {t for o in used for t in o.tags}.isdisjoint(other.tags)


def other_originals(
    p: ShownSpan, originals: Mapping[int, Original], budget_bytes: int
) -> list[Remedy]:
    """Other originals that belong here (see `belongs`) and would be whole, the sharpest first, then
    the lightest; at most three.

    Bytes before any file is made are guessed from the original's own bytes a px (common practice:
    detail costs bytes).
    """
    found: list[tuple[tuple[float, bool, float], Original, Treatment]] = []
    for other in originals.values():
        if other.id == p.original.id or not other.keeps or not _may_hold(p, other):
            continue
        treatment = what_changes(p, original=other.id, aim=Following(), fit="cover")
        served = _served(p, treatment, other)
        if served is not None:
            sharp, guess = served
            found.append(((-sharp, guess > budget_bytes, guess), other, treatment))
    found.sort(key=lambda t: t[0])
    steps = []
    for (sharp, heavy, guess), other, treatment in found[:3]:
        weighs = (
            f" About {guess / 1000:.0f} kB at 2x{', over the budget' if heavy else ''}, by its own"
            " detail."
            if guess
            else ""
        )
        steps.append(
            works(
                "original",
                f"{other.name} would be whole here"
                + (", and sharp at 2x." if sharp <= -1 else f", {-sharp:.2f}× sharp at 2x.")
                + weighs,
                f"Take {other.name}",
                treatment,
                sharp_at_2x=round(-sharp, 3),
                guessed_bytes=round(guess),
            )
        )
    if not steps:
        steps.append(fails("original", "No other original that belongs here would be whole."))
    return steps


def _may_hold(p: ShownSpan, other: Original) -> bool:
    """Whether the frame's ratios, as far as they do not hang on the picture's, let any position
    hold all areas of another original."""
    if isinstance(p.effective.height, NaturalHeight):
        return True
    low, high = ratio_bounds(other.width_px / other.height_px, other.keeps)
    least, greatest = _ratios(p)
    # with leeway for the tolerance that whole areas have
    return least >= low * 0.98 and greatest <= high * 1.02


@once
def _ratios(p: SpanPlan) -> tuple[float, float]:
    """The least and the greatest ratio of the frame, width over height."""
    ratios = p.W / p.H
    return float(ratios.min()), float(ratios.max())


def _served(p: ShownSpan, treatment: Treatment, other: Original) -> tuple[float, float] | None:
    """How sharp another original would be at 2x (1: sharp), and the bytes guessed for it; None
    where it is not whole."""
    if not p.layout.is_large:
        return _served_there(p.layout, p.spot, p.index, treatment, other)
    # many items change often, and to look for what is known of them takes as long
    try:
        return _worth(replanned(p, treatment, other), other)
    except InvalidPlan:
        return None


@lru_cache(maxsize=2048)
def _served_there(
    layout: Layout, spot: Spot, part: int, treatment: Treatment, other: Original
) -> tuple[float, float] | None:
    """Nothing of it hangs on the original that is there, which may be the one that is being
    dragged."""
    try:
        return _worth(replanned_at(layout, spot, part, treatment, other), other)
    except InvalidPlan:
        return None


def _worth(q: SpanPlan, other: Original) -> tuple[float, float] | None:
    if not isinstance(q, ShownSpan) or not holds_all(q):
        return None
    need = whole_px(float(q.drawn_cut_width.max()) * 2)
    has = q.cut.w * other.width_px
    height = need * q.cut.h * other.height_px / has
    guess = other.size_bytes / (other.width_px * other.height_px) * need * height
    return min(1.0, has / need), guess


def _below_least(p: ShownSpan, side_px: float) -> str:
    """Which least sizes of the span a square would go below, in words; "" for none."""
    sides = (("width", p.effective.width.least_px), ("height", p.effective.height.least_px))
    return " and ".join(
        f"the least {side} of {least:g} px"
        for side, least in sides
        if least is not None and side_px < least
    )


def square_around(rect: Rect, original: Original, *, in_circle: bool = False) -> Rect:
    """The square of the original around a part of it, a tenth larger, and with `in_circle` so large
    that the part lies in the circle in it too, as far as there is room."""
    x0, x1, y0, y1 = rect.edges
    across, down = original.width_px, original.height_px
    long, high = (x1 - x0) * across, (y1 - y0) * down
    circle = math.hypot(long, high) if in_circle else 0.0
    side = min(max(1.1 * long, 1.1 * high, circle), across, down)
    w, h = side / across, side / down
    return Rect(
        x=min(max((x0 + x1 - w) / 2, 0), 1 - w), y=min(max((y0 + y1 - h) / 2, 0), 1 - h), w=w, h=h
    )


def colour_alone(p: ShownSpan) -> list[Remedy]:
    """No picture in this span; or one area alone, as a small stand-in."""
    steps = [
        works(
            "colour",
            "Without a picture nothing is cut: the frame keeps its size and its colour.",
            "Only the colour",
            what_changes(p, show="colour"),
        )
    ]
    area, whole = p.keeps[0], whole_picture(p)
    x0, x1, _, _ = area.rect.edges
    crop = square_around(area.rect, p.original)
    w, h = crop.w, crop.h
    side = w * whole.w
    shown_px = max(STAND_IN_PX, math.ceil((area.least_px or 0) / (x1 - x0) * w))
    if min(w, h) < LEAST_SHARE or shown_px > float(p.W.min()) or side < shown_px:
        return steps  # too small a part of the picture, larger than the frame itself, or soft
    treatment = what_changes(
        p,
        width=FixedWidth(width_px=shown_px),
        height=RatioHeight(w=1, h=1),
        crop=crop,
        keeps=(area.name,),
        aim=Following(),
        fit="cover",
    )
    below = _below_least(p, shown_px)
    if holds_all(tried(p, treatment)):
        steps.append(
            works(
                "colour",
                f"{area.name} alone, {shown_px} px square, stands in for the picture"
                + (f"; that is below {below}." if below else "."),
                f"Only {area.name}, small" + (f", below {below}" if below else ""),
                treatment,
                side_px=shown_px,
            )
        )
    return steps

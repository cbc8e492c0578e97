"""How many keep areas one position holds at every width of a span, and how much the picture can be
enlarged in its frame with all of them whole."""

from __future__ import annotations

import math

from skypane.model import Area
from skypane.shown.keeps import hull
from skypane.shown.nouns import ShownSpan
from skypane.values import NOISE, Noun


class Together(Noun):
    """`most` are the areas, of `of`, that can be whole together in all frames of a span, the most
    important first; of equally many the more important ones. Where that is all of them, `enlarged`
    is how many times as large the picture can be drawn until one is cut, rounded down to a tenth.
    """

    most: tuple[str, ...]
    of: int
    enlarged: float | None


def together(p: ShownSpan) -> Together | None:
    """None without areas. Each width may have its own position, so that what counts is how much of
    the picture its smallest window shows."""
    if not p.keeps:
        return None
    across = float((p.shown.x1 - p.shown.x0).min())
    down = float((p.shown.y1 - p.shown.y0).min())
    most = _most_within(p.keeps, across, down)
    enlarged = None
    if len(most) == len(p.keeps):
        around = hull(p.keeps)
        enlarged = math.floor(min(across / around.w, down / around.h) * 10 + 1e-6) / 10
    return Together(most=tuple(a.name for a in most), of=len(p.keeps), enlarged=enlarged)


def _most_within(areas: tuple[Area, ...], w: float, h: float) -> tuple[Area, ...]:
    """The most areas that lie in one window of a size. The best window can be pushed right and down
    until its left and its top edge are those of areas."""
    best: tuple[Area, ...] = ()
    for x in {a.rect.x for a in areas}:
        for y in {a.rect.y for a in areas}:
            inside = tuple(
                a
                for a in areas
                if a.rect.x >= x - NOISE
                and a.rect.y >= y - NOISE
                and a.rect.x1 <= x + w + NOISE
                and a.rect.y1 <= y + h + NOISE
            )
            ranks = tuple(areas.index(a) for a in inside), tuple(areas.index(a) for a in best)
            if (-len(inside), ranks[0]) < (-len(best), ranks[1]):
                best = inside
    return best

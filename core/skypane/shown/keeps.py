"""How every keep area fares over a span: whole, cut, lost or small, and the safe area (rules
§4).

In view by the share area(K ∩ visible)/area(K): whole at 1 with half an image px of tolerance, lost
below 0.5, else cut. An area that is whole but shown narrower than its least width is small. Where
the frame depends on the viewport's height the worst height of the span decides.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from skypane.geometry import Rect
from skypane.model import Area
from skypane.shown.fit import Picture, Windows, is_whole, share_in_view
from skypane.shown.nouns import ShownSpan
from skypane.values import Noun, once
from skypane.widths.frames import Floats
from skypane.widths.runs import constant

Fate = Literal["whole", "cut", "lost", "small"]

#: The fates by their codes, which arrays hold: comparing words takes much longer.
FATES: tuple[Fate, ...] = ("whole", "cut", "lost", "small")
WHOLE_, CUT, LOST, SMALL = range(4)

#: Per width the fate as a code, and the share in view.
Fates = tuple[NDArray[np.int8], Floats]


class AreaFates(Noun):
    """One area over the widths of one span. `first_failing` is the first width at which it is not
    whole, None if none."""

    name: str
    first_failing: int | None
    worst_share: float
    worst_at: int
    worst_height: int | None


def fates(p: ShownSpan, area: Area) -> tuple[NDArray[np.str_], Floats]:
    """Per width of the span: the fate as text, and the share in view at the worst height."""
    codes, share = fate_codes(p, area)
    return np.array(FATES)[codes], share


def fate_codes(p: ShownSpan, area: Area) -> Fates:
    """Per width of the span: the fate of an area as its place in `FATES`, and the share in view at
    the worst viewport height.

    Worked out once per span, for all the areas that matter there in one go.
    """
    # by identity: hashing an area takes longer than most of what is asked of it
    known = _all_fates(p).get(id(area))
    return known or fates_in(p.shown, p.safe, (area,), whole_picture(p))[0]


@once
def _all_fates(p: ShownSpan) -> dict[int, Fates]:
    found = fates_in(p.shown, p.safe, p.keeps, whole_picture(p))
    return dict(zip(map(id, p.keeps), found, strict=True))


def whole_picture(p: ShownSpan) -> Picture:
    """The whole original, as far as only its px count."""
    return Picture(p.original.width_px, p.original.height_px)


@lru_cache(maxsize=64)
def _all_whole(n: int) -> Fates:
    """Whole at n widths; known by its strides to hold one value throughout."""
    return np.broadcast_to(np.int8(WHOLE_), n), np.broadcast_to(1.0, n)


def fates_in(
    shown: Windows, safe: Rect | None, areas: tuple[Area, ...], picture: Picture
) -> list[Fates]:
    """The fates of areas in windows of shape (heights, widths), per area: places in `FATES`, and
    shares in view. `safe` is what shows in all windows: what lies in it is whole throughout."""
    tx, ty = 0.5 / picture.w, 0.5 / picture.h
    out = []
    for area in areas:
        x0, x1, y0, y1 = edges = area.rect.edges
        codes, worst = _all_whole(shown.x0.shape[1])
        if safe is None or not (
            x0 >= safe.x - tx and x1 <= safe.x1 + tx and y0 >= safe.y - ty and y1 <= safe.y1 + ty
        ):
            whole = is_whole(shown, edges, picture).all(axis=0)
            worst = np.where(whole, 1.0, share_in_view(shown, edges).min(axis=0))
            codes = np.where(whole, WHOLE_, np.where(worst < 0.5, LOST, CUT)).astype(np.int8)
        if area.least_px is not None:
            small = (codes == WHOLE_) & too_small(area, shown).any(axis=0)
            codes = np.where(small, SMALL, codes).astype(np.int8)
        out.append((codes, worst))
    return out


def too_small(area: Area, shown: Windows) -> np.ndarray:
    """Per frame whether the area is drawn narrower than its least width. No leeway but for the
    error of arithmetic itself."""
    if area.least_px is None:
        return np.zeros(shown.drawn_w.shape, dtype=bool)
    narrow: np.ndarray = area.rect.w * shown.drawn_w < area.least_px * (1 - 1e-9)
    return narrow


def summary(p: ShownSpan, area: Area) -> AreaFates:
    """First failing width, worst share, and where that is."""
    found, share = fate_codes(p, area)
    failing = np.flatnonzero(found != WHOLE_)
    at = int(share.argmin()) if (share < 1).any() else int(failing[0]) if failing.size else 0
    height = None
    if p.viewport_h.shape[0] > 1 and failing.size:
        height = int(p.viewport_h[int(share_in_view(p.shown, area.rect.edges)[:, at].argmin()), at])
    return AreaFates(
        name=area.name,
        first_failing=int(p.viewport_w[failing[0]]) if failing.size else None,
        worst_share=round(float(share[at]), 4),
        worst_at=int(p.viewport_w[at]),
        worst_height=height,
    )


def failing(p: ShownSpan) -> tuple[Area, ...]:
    """The keep areas that are not whole, or too small, somewhere in the span; the most important
    first."""
    return tuple(
        a for a in p.keeps if not constant(found := fate_codes(p, a)[0]) and (found != WHOLE_).any()
    )


#: Where so little of a picture is in view that has no keep area, somebody has to say what matters.
MUCH_IN_VIEW = 0.75


@once
def in_view(p: ShownSpan) -> Floats:
    """The share of the crop's area that is in view at every width, at the worst viewport height."""
    s = p.inside
    share: Floats = ((s.x1 - s.x0) * (s.y1 - s.y0)).min(axis=0)
    return share


def hull(areas: tuple[Area, ...]) -> Rect:
    """The smallest rectangle around all areas."""
    e = [a.rect.edges for a in areas]
    return Rect.between(
        min(r[0] for r in e), max(r[1] for r in e), min(r[2] for r in e), max(r[3] for r in e)
    )


def all_whole(shown: Windows, areas: tuple[Area, ...], picture: Picture) -> bool:
    """Whether every area is whole, and as large as it has to be, in every frame."""
    if not areas:
        return True
    return not any(too_small(a, shown).any() for a in areas) and bool(
        is_whole(shown, hull(areas).edges, picture).all()
    )

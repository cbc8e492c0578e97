"""Aim by percentages only, for hand-overs that cannot take lengths (rules §5).

The pair that serves a span, and the fewest breakpoints that part the widths it serves from those
that no percentage does.
"""

from __future__ import annotations

import numpy as np

from skypane.model import FixedAim, Following
from skypane.shown.fit import Interval, Windows, picture_of, windows
from skypane.shown.nouns import ShownSpan
from skypane.values import Noun
from skypane.widths.frames import Floats
from skypane.widths.runs import stretches


def percent_interval(share: Floats, keeps: tuple[Interval, ...]) -> tuple[Floats, Floats]:
    """Per frame the fractions p in [low, high] that keep all areas whole on one axis; low > high
    where none does.

    K = [k0, k1] stays whole iff p·(1 − share) lies in [k1 − share, k0], in fractions of the
    picture.
    """
    slack = 1 - share
    low, high = np.zeros_like(share), np.ones_like(share)
    with np.errstate(divide="ignore", invalid="ignore"):
        for k in keeps:
            low = np.maximum(low, np.where(slack > 1e-12, (k.last - share) / slack, 0.0))
            high = np.minimum(high, np.where(slack > 1e-12, k.first / slack, 1.0))
    return low, high


class ByPercents(Noun):
    """What fixed percentages can do over a span, both axes together.

    On one axis the interval of p for a visible share s is [(k1 − s)/(1 − s), k0/(1 − s)]; it grows
    with s, so the intervals of a span lie inside one another and meet wherever each of them holds
    something: *one* pair (`x`, `y`) serves every width that any pair serves. `serves` are the runs
    of those widths, `breakpoints` the fewest posts, as last widths, that part them from the widths
    that no percentage serves; `first_failing` is the first of those. `x` and `y` are None where
    nothing is served.
    """

    x: float | None
    y: float | None
    serves: tuple[tuple[int, int], ...]
    first_failing: int | None
    breakpoints: tuple[int, ...]


def by_percents(p: ShownSpan) -> ByPercents:
    """Whether fixed percentages can serve the span, for hand-overs that cannot take lengths.

    Of the percentages that serve, those nearest to the focal point are taken.
    """
    picture = picture_of(p.original, Following(), p.crop, p.keeps)
    axes = []
    ok = np.ones(len(p.viewport_w), dtype=bool)
    for share, keeps in zip(
        shares(windows(picture, "cover", FixedAim(), p.W, p.H)),
        (picture.keeps_x, picture.keeps_y),
        strict=True,
    ):
        low, high = percent_interval(share, keeps)
        low, high = low.max(axis=0), high.min(axis=0)  # all heights of a width
        ok &= low <= high + 1e-12
        axes.append((share, low, high))
    x, y = (
        _nearest(low[ok], high[ok], share[:, ok], focal) if ok.any() else None
        for (share, low, high), focal in zip(axes, picture.focal, strict=True)
    )
    return ByPercents(
        x=x,
        y=y,
        serves=tuple(stretches(p.viewport_w, ok)),
        first_failing=None if ok.all() else int(p.viewport_w[int(ok.argmin())]),
        breakpoints=tuple(int(b) for b in p.viewport_w[:-1][ok[1:] != ok[:-1]]),
    )


def _nearest(low: Floats, high: Floats, share: Floats, focal: float) -> float:
    """The fraction inside all intervals that is nearest to the one that centres the focal point at
    the middle frame."""
    middle = float(share.flat[share.size // 2])
    wanted = 0.5 if middle >= 1 else min(1.0, max(0.0, (focal - middle / 2) / (1 - middle)))
    return round(min(float(high.min()), max(float(low.max()), wanted)), 5)


def shares(shown: Windows) -> tuple[Floats, Floats]:
    """Visible share of the picture's width and height per frame."""
    return shown.x1 - shown.x0, shown.y1 - shown.y0

"""The cuts of a logo where they show: which one a span shows, how wide it is drawn, and which cut
each width calls for (rules §12)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

import numpy as np

from skypane.galleries.logo import Cut, least_width, never_shown
from skypane.kinds.logo.layout import drawn_width, values_of
from skypane.kinds.logo.values import LogoCut
from skypane.model import Original
from skypane.shown.nouns import Plan, ShownSpan
from skypane.values import NOISE
from skypane.widths.frames import Floats


def cut(said: LogoCut, original: Original) -> Cut:
    share = said.lettering_percent
    ratio = original.width_px / original.height_px
    return Cut(ratio, share / 100 if share is not None else None)


def hidden_cuts(cuts: Sequence[LogoCut]) -> tuple[int, ...]:
    """The places of the cuts that one without lettering hides."""
    shares = (c.lettering_percent for c in cuts)
    return never_shown([Cut(1.0, s / 100 if s is not None else None) for s in shares])


def cut_of_span(p: ShownSpan) -> Cut | None:
    """What is said of the cut that a span shows; None where it is none of them."""
    said = next((c for c in values_of(p.spot).cuts if c.original == p.original.id), None)
    return cut(said, p.original) if said else None


class Called(NamedTuple):
    """Which cut every viewport width calls for: `widths` and `cuts` (widths,), places in the list
    of cuts; the last where none can be read. `least` is the least width of each in CSS px."""

    widths: Floats
    cuts: np.ndarray
    least: tuple[float, ...]


def called_for(plan: Plan, originals: Mapping[int, Original]) -> Called | None:
    """The fullest cut that can be read, at every viewport width; None without cuts."""
    said = [c for c in values_of(plan.spots[-1]).cuts if c.original in originals]
    if not said:
        return None
    widths, found = [], []
    least_px = values_of(plan.spots[-1]).least_px
    cuts = [cut(c, originals[c.original]) for c in said]
    least = tuple(least_width(c, least_px) for c in cuts)
    for spot in plan.spots:
        which = np.full(len(spot.viewports.widths), len(cuts) - 1)
        for i in reversed(range(len(cuts))):
            own = originals[said[i].original].width_px
            drawn = drawn_width(spot, cuts[i].ratio, own)
            which = np.where(drawn >= least[i] - NOISE, i, which)
        widths.append(spot.viewports.widths)
        found.append(which)
    return Called(np.concatenate(widths), np.concatenate(found), least)

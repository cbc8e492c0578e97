"""Where a picture shows that another one takes the place of in portrait orientation, at the typical
viewport height of every width."""

from __future__ import annotations

import numpy as np

from skypane.model import Site
from skypane.shown.nouns import PartPlan, Plan
from skypane.widths.frames import viewports_of
from skypane.widths.spans import places_of


def portrait_widths(site: Site) -> np.ndarray:
    """Whether the typical viewport is at least as high as it is wide, (widths of the site,)."""
    found = viewports_of(site.heights, site.narrowest, site.widest)
    turned: np.ndarray = found.heights[1] >= found.widths
    return turned


def seen(plan: Plan, part: PartPlan) -> np.ndarray:
    """Whether a part is what a typical viewport sees, where it shows at all, (widths of the site,).
    Of a picture and what takes its place in portrait it is one of the two."""
    site, other = plan.site, plan.in_portrait
    if other is None or part.index not in (0, other.index):
        return np.ones(site.widest - site.narrowest + 1, dtype=bool)
    turned = portrait_widths(site)
    shows = np.zeros_like(turned)
    for p in other.shown:
        shows[places_of(site, p.span)] = True
    taken: np.ndarray = turned & shows
    return taken if part is other else ~taken

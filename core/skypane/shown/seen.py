"""Which of a picture and those that stand in for it is seen, at the typical viewport of every
width: as high as viewports of that width are, and light and with motion unless told otherwise."""

from __future__ import annotations

import numpy as np

from skypane.model import Feature, Site
from skypane.shown.nouns import PartPlan, Plan
from skypane.widths.frames import viewports_of
from skypane.widths.spans import places_of


def holds(site: Site, when: tuple[Feature, ...], features: tuple[Feature, ...] = ()) -> np.ndarray:
    """Whether conditions hold at the typical viewport, on screens that ask for some `features`,
    (widths of the site,)."""
    found = viewports_of(site.heights, site.narrowest, site.widest)
    turned: np.ndarray = found.heights[1] >= found.widths
    rest = set(when) - set(features)
    if not rest:
        return np.ones_like(turned)
    return turned if rest == {"portrait"} else np.zeros_like(turned)


def seen(plan: Plan, part: PartPlan, features: tuple[Feature, ...] = ()) -> np.ndarray:
    """Whether a part is what a typical viewport sees, where it shows at all, on screens that ask
    for some `features`, (widths of the site,). Of a picture and those that stand in for it it is
    one."""
    site, usual = plan.site, plan.usual_of(part)
    left = np.ones(site.widest - site.narrowest + 1, dtype=bool)
    for other in plan.alternatives(usual):
        takes = np.zeros_like(left)
        for p in other.spans:
            takes[places_of(site, p.span)] = p.span.letter not in other.usual
        takes &= left & holds(site, other.part.when, features)
        if other is part:
            return takes
        left &= ~takes
    return left

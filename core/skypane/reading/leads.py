"""Which placement of a page loads first: of all pictures one alone can come before the others
(rules §11)."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from skypane.errors import InvalidPlan
from skypane.findings.rule import listed
from skypane.model import Placement, Site, Viewers
from skypane.paged import PageInSpan
from skypane.reading.nouns import LeadReading
from skypane.shown.nouns import Plan, ShownSpan

#: A picture that covers less of the first screen is not what visitors wait for: a logo, a line of
#: small cuts (common practice).
LEAST_SHARE_OF_SCREEN = 0.1


def lead_reading(
    site: Site,
    held: Sequence[PageInSpan],
    placements: Sequence[Placement],
    plans: Sequence[Plan | InvalidPlan],
) -> LeadReading:
    """The placement that most of the audience sees first above the fold as a large picture, and
    those that are said to load first. `held` says per span in which order they stand."""
    found = np.zeros(len(placements))
    everybody = sum(v.weight for v in site.audience)
    for viewer in site.audience:
        first = _first_seen(held, plans, viewer)
        if first is not None:
            found[first] += viewer.weight / everybody
    leads = tuple(
        i
        for i, (placement, computed) in enumerate(zip(placements, plans, strict=True))
        if placement.lead and isinstance(computed, Plan) and any(p.shown for p in computed.parts)
    )
    proposed = int(found.argmax()) if found.size and found.max() > 0 else None
    share = float(found[proposed]) if proposed is not None else 0.0
    sentence = _sentence([p.name for p in placements], leads, proposed, share)
    is_so = leads == (() if proposed is None else (proposed,))
    return LeadReading(proposed=proposed, share=share, leads=leads, sentence=sentence, is_so=is_so)


def _first_seen(
    held: Sequence[PageInSpan], plans: Sequence[Plan | InvalidPlan], viewer: Viewers
) -> int | None:
    """The first placement with a large picture above the fold of one viewport."""
    width = min(max(viewer.width, held[0].span.first), held[-1].span.last)
    at = next(i for i, h in enumerate(held) if width <= h.span.last)
    h = held[at]
    top = 0.0 if h.head_over else h.head_px
    for index in h.order:
        computed = plans[index]
        if isinstance(computed, InvalidPlan):
            continue
        seen, high = _seen(computed, at, width - h.span.first, viewer.height, top)
        if seen >= LEAST_SHARE_OF_SCREEN * width * viewer.height:
            return index
        top += high
        if top >= viewer.height:
            return None
    return None


def _seen(computed: Plan, at: int, column: int, screen_h: int, top: float) -> tuple[float, float]:
    """What the pictures of a placement that begins at `top` cover above the fold, in px², and how
    high the placement is, in CSS px."""
    seen, high = 0.0, 0.0
    for part in computed.written:
        p = part.spans[at]
        if p.effective.show == "nothing":
            continue
        row = int(
            np.abs(p.viewport_h[:, min(column, p.viewport_h.shape[1] - 1)] - screen_h).argmin()
        )
        y, w, h = (float(a[row, column]) for a in (p.frame.y, p.W, p.H))
        high = max(high, y + h)
        if isinstance(p, ShownSpan) and part.part.role is None:
            seen += w * max(0.0, min(top + y + h, screen_h) - max(0.0, top + y))
    return seen, high


def _sentence(
    names: Sequence[str], leads: tuple[int, ...], proposed: int | None, share: float
) -> str:
    if proposed is None:
        if not leads:
            return "No large picture is above the fold: nothing has to load first."
        verb = "loads" if len(leads) == 1 else "load"
        said = listed(names[i] for i in leads)
        return f"{said} {verb} first, with no large picture above the fold on any screen."
    first = f"{names[proposed]} is the first large picture on {round(share * 100)} % of screens"
    match leads:
        case ():
            return f"Nothing loads first. {first}."
        case (one,) if one == proposed:
            return f"{first}, and loads first."
        case (one,):
            return f"{names[one]} loads first. {first}."
    said = listed(names[i] for i in leads)
    all_ = "both" if len(leads) == 2 else "all"
    return f"{said} {all_} load first, and only one can. {first}."

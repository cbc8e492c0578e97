"""What each way to aim would come to."""

from __future__ import annotations

import numpy as np

from skypane.advice.percents import by_percents, percent_interval, shares
from skypane.advice.trial import tried
from skypane.markup.span_css import span_css
from skypane.model import Aim, FixedAim, Following, Treatment
from skypane.shown.fit import picture_of, windows
from skypane.shown.keeps import WHOLE_, fate_codes
from skypane.shown.nouns import ShownSpan
from skypane.values import Noun


class AimCost(Noun):
    """What one way to aim would come to in a span: at how many of its widths every area is whole,
    and what fares worst.

    `css` is the position as it would be handed over.
    """

    aim: Aim
    whole_widths: int
    widths: int
    worst_area: str | None
    worst_share: float
    worst_at: int
    css: str


def aim_costs(p: ShownSpan) -> tuple[AimCost, ...]:
    """The three ways to aim side by side: keep areas first, the focal point alone, fixed
    percentages.

    The percentages are the designer's own where the span is fixed, else those that serve, else the
    middle of what would.
    """
    present = p.effective.aim
    fixed = present if isinstance(present, FixedAim) else _middle_aim(p)
    out = []
    for aim in (Following(), Following(areas=False), fixed):
        q = tried(p, Treatment(aim=aim, fit="cover"))
        ok = np.ones(len(q.viewport_w), dtype=bool)
        worst: tuple[float, str | None, int] = (1.0, None, q.span.first)
        for area in q.keeps:
            codes, share = fate_codes(q, area)
            ok &= codes == WHOLE_
            at = int(share.argmin())
            if share[at] < worst[0]:
                worst = (float(share[at]), area.name, int(q.viewport_w[at]))
        out.append(
            AimCost(
                aim=aim,
                whole_widths=int(ok.sum()),
                widths=len(ok),
                worst_area=worst[1],
                worst_share=round(worst[0], 4),
                worst_at=worst[2],
                css=span_css(q, q.cut_inside).position,
            )
        )
    return tuple(out)


def _middle_aim(p: ShownSpan) -> FixedAim:
    """The percentages that serve the most widths, or else the middle of what the areas ask for."""
    found = by_percents(p)
    if found.x is not None and found.y is not None:
        return FixedAim(x=found.x, y=found.y)
    picture = picture_of(p.original, Following(), p.crop, p.keeps)
    across, down = shares(windows(picture, "cover", FixedAim(), p.W, p.H))
    middles = []
    for share, keeps in ((across, picture.keeps_x), (down, picture.keeps_y)):
        low, high = percent_interval(share, keeps)
        middles.append(
            round(float(np.clip(np.median((low.max(axis=0) + high.min(axis=0)) / 2), 0, 1)), 4)
        )
    return FixedAim(x=middles[0], y=middles[1])

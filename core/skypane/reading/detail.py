"""More about the one span that is being worked on."""

from __future__ import annotations

import numpy as np

from skypane.advice.costs import aim_costs
from skypane.advice.crops import largest_crop
from skypane.advice.percents import by_percents
from skypane.errors import InvalidPlan
from skypane.model import Following, Site
from skypane.numerals import whole_px
from skypane.reading.nouns import CropFacts, PxNeed, RatioCrop, SpanDetail
from skypane.shown.fit import picture_of
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.shown.parts import crop_px
from skypane.values import once


def span_detail(site: Site, p: SpanPlan, costs: bool) -> SpanDetail:
    crop = None
    if isinstance(p, ShownSpan):
        px = crop_px(p.original, p.crop)
        drawn = float(p.inside.drawn_w.max())
        needs = tuple(
            PxNeed(
                density=d, width_px=whole_px(drawn * d), height_px=whole_px(drawn * d * px.h / px.w)
            )
            for d in site.densities
        )
        crop = CropFacts(
            x=px.x, y=px.y, width_px=px.w, height_px=px.h, needs=needs, largest=_largest_crops(p)
        )
    return SpanDetail(
        letter=p.span.letter,
        aims=aim_costs(p) if costs and isinstance(p, ShownSpan) else (),
        percents=by_percents(p) if costs and isinstance(p, ShownSpan) else None,
        crop=crop,
    )


USUAL_RATIOS = {"1:1": 1.0, "4:5": 4 / 5, "3:2": 3 / 2, "16:9": 16 / 9, "2:1": 2.0}


def frame_ratio(p: SpanPlan) -> dict[str, float]:
    """The frame's ratio under its name; nothing where it changes over the span."""
    if p.effective.show == "nothing":
        return {}
    ratios = p.W / p.H
    return {"the frame": float(ratios.mean())} if np.ptp(ratios) < 1e-3 else {}


@once
def _largest_crops(p: ShownSpan) -> tuple[RatioCrop, ...]:
    asked = frame_ratio(p)
    picture = picture_of(p.original, Following())
    out = []
    for name, ratio in {**asked, **USUAL_RATIOS}.items():
        try:
            found = largest_crop(picture, ratio, p.keeps)
            out.append(RatioCrop(name=name, rect=found, why_not=""))
        except InvalidPlan as problem:
            said = str(problem)
            out.append(RatioCrop(name=name, rect=None, why_not=f"{said[:1].upper()}{said[1:]}"))
    return tuple(out)

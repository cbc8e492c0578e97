"""More about the one span that is being worked on."""

from __future__ import annotations

import math

import numpy as np

from skypane.advice.costs import aim_costs
from skypane.advice.crops import largest_crop
from skypane.advice.percents import by_percents
from skypane.advice.trial import tried
from skypane.errors import InvalidPlan
from skypane.files.renditions import sharp_up_to
from skypane.geometry import Crop
from skypane.model import Following, Site, Treatment
from skypane.numerals import whole_px
from skypane.reading.nouns import CropFacts, CropStop, HeldRatio, PxNeed, RatioCrop, SpanDetail
from skypane.shown.fit import picture_of
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.shown.parts import crop_px
from skypane.shown.together import together
from skypane.values import once


def span_detail(site: Site, p: SpanPlan, costs: bool) -> SpanDetail:
    crop = None
    if isinstance(p, ShownSpan):
        px = crop_px(p.original, p.crop)
        crop = CropFacts(
            x=px.x,
            y=px.y,
            width_px=px.w,
            height_px=px.h,
            needs=_needs(site, p, px),
            stop=_stop(site, p, px.w / px.h),
            held=_held(site, p),
            largest=_largest_crops(p),
        )
    return SpanDetail(
        letter=p.span.letter,
        together=together(p) if isinstance(p, ShownSpan) else None,
        aims=aim_costs(p) if costs and isinstance(p, ShownSpan) else (),
        percents=by_percents(p) if costs and isinstance(p, ShownSpan) else None,
        crop=crop,
    )


def _needs(site: Site, p: ShownSpan, px: Crop) -> tuple[PxNeed, ...]:
    drawn = float(p.inside.drawn_w.max())
    return tuple(
        PxNeed(
            density=d,
            width_px=whole_px(drawn * d),
            height_px=whole_px(drawn * d * px.h / px.w),
            sharp_to_px=sharp_up_to(px.w, d),
        )
        for d in site.densities
    )


#: A crop is stopped where it would turn soft at the greatest density offered up to this one: few
#: can see more (common practice).
STOPPED_AT = 2.0
#: Crops have an even number of px, and a ratio that is rounded to those.
SLACK_PX = 2


def _stop(site: Site, p: ShownSpan, ratio: float) -> CropStop:
    """How small a crop of a ratio, width over height, may be that is shown like this one."""
    density = max(d for d in site.densities if d <= STOPPED_AT)
    drawn = float(p.inside.drawn_w.max()) * density
    return CropStop(
        density=density,
        width_px=whole_px(drawn) + SLACK_PX,
        height_px=whole_px(drawn / ratio) + SLACK_PX,
    )


def _held(site: Site, p: ShownSpan) -> HeldRatio | None:
    """What a crop of the frame's ratio needs, by the largest one in the middle of the picture: it
    hangs on the ratio alone."""
    ratios = p.W / p.H
    ratio = math.sqrt(float(ratios.min()) * float(ratios.max()))
    try:
        crop = largest_crop(picture_of(p.original, Following()), ratio, ())
        stop = _stop(site, tried(p, Treatment(crop=crop)), ratio)
    except InvalidPlan:
        return None
    return HeldRatio(ratio=ratio, is_one=bool(np.ptp(ratios) < 1e-3), stop=stop)


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

"""The gentlest treatment that leaves every keep area whole (and large enough) at every width of a span (02-rules §5).

Walked down in this order (common practice): aim, the whole picture, another ratio, another original. Each step is
computed; why a gentler one fails is said in numbers. For hand-overs that can only take percentages: the interval of
percentages that serves a span, and the fewest breakpoints that make aim alone work.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import Literal

import numpy as np

from skypane.errors import InvalidPlan
from skypane.fit import Interval, Picture, Windows
from skypane.frames import Floats, number
from skypane.keeps import all_whole, edges, failing
from skypane.model import Area, Following, NaturalHeight, Noun, Original, RatioHeight, Site, Treatment
from skypane.needs import SpanPlan, drawn_cut_width, plan_span, whole_px

StepKind = Literal["aim", "whole", "ratio", "original"]


class AdviceStep(Noun):
    """One step of the walk. `label` is what the button says, `treatment` what it sets; both empty where it does not work."""

    kind: StepKind
    works: bool
    why: str
    label: str = ""
    treatment: Treatment | None = None
    figures: dict[str, float] = {}


class Advice(Noun):
    """What to do about the failing areas of one span. `best` is the index of the first step that works, None if none does."""

    span: str
    failing: tuple[str, ...]
    steps: tuple[AdviceStep, ...]
    best: int | None


def hull(areas: tuple[Area, ...]) -> tuple[float, float, float, float]:
    """The smallest rectangle around all areas, (x0, x1, y0, y1) in fractions."""
    e = [edges(a) for a in areas]
    return min(r[0] for r in e), max(r[1] for r in e), min(r[2] for r in e), max(r[3] for r in e)


def ratio_bounds(picture_ratio: float, areas: tuple[Area, ...]) -> tuple[float, float]:
    """Least and greatest frame ratio (width over height) in which some position keeps all areas whole.

    All of [a, b] can be kept iff b − a is at most the visible share: frame ratio ≥ (b − a)·picture ratio, likewise down.
    """
    x0, x1, y0, y1 = hull(areas)
    return (x1 - x0) * picture_ratio, picture_ratio / (y1 - y0)


def advise(site: Site, p: SpanPlan, originals: Mapping[int, Original]) -> Advice | None:
    """Walk down the steps for one span; None where every area is whole."""
    wrong = failing(p)
    if not wrong or p.original is None:
        return None
    steps = [_aim(site, p), _whole(site, p), _ratio(site, p), *_others(site, p, originals)]
    best = next((i for i, s in enumerate(steps) if s.works), None)
    return Advice(span=p.span.letter, failing=tuple(a.name for a in wrong), steps=tuple(steps), best=best)


def tried(site: Site, p: SpanPlan, treatment: Treatment, original: Original | None = None) -> SpanPlan:
    """The span as it would be with the treatment's values on top."""
    values = {f: getattr(treatment, f) for f in Treatment.model_fields if getattr(treatment, f) is not None}
    return plan_span(site, p.span, replace(p.effective, **values), original or p.original)


def _needed(p: SpanPlan, **values: object) -> Treatment:
    """A treatment that sets only what does not hold already."""
    return Treatment(**{f: v for f, v in values.items() if getattr(p.effective, f) != v})


def _serves(q: SpanPlan) -> bool:
    assert q.original is not None
    assert q.shown is not None
    return all_whole(q.shown, q.original.keeps, Picture(q.original.width_px, q.original.height_px))


def _percent(share: float) -> str:
    return f"{share * 100:.0f} %"


def _names(areas: tuple[Area, ...]) -> str:
    names = [a.name for a in areas]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _aim(site: Site, p: SpanPlan) -> AdviceStep:
    assert p.original is not None
    following = _needed(p, aim=Following(), fit="cover")
    q = tried(site, p, following)
    assert q.shown is not None
    if _serves(q):
        return AdviceStep(
            kind="aim",
            works=True,
            why="Some position keeps every area whole at every width; following with keep areas first finds it.",
            label="Follow the keep areas",
            treatment=following,
        )
    keeps = p.original.keeps
    x0, x1, y0, y1 = hull(keeps)
    across, down = q.shown.x1 - q.shown.x0, q.shown.y1 - q.shown.y0
    parts: list[str] = []
    figures: dict[str, float] = {}
    for need, seen, side in ((x1 - x0, across, "width"), (y1 - y0, down, "height")):
        least = float(seen.min())
        if need > least + 1e-9:
            at = int(q.viewport_w[int(seen.min(axis=0).round(6).argmin())])
            parts.append(f"{_percent(least)} of the {side} shows at {at} px, {_names(keeps)} need {_percent(need)}")
            figures |= {f"{side}_needed": round(need, 4), f"{side}_shown": round(least, 4)}
    small = [a for a in keeps if a.least_px is not None and (a.rect.w * q.shown.drawn_w).min() < a.least_px - 0.5]
    parts += [
        f"{a.name} is shown {float((a.rect.w * q.shown.drawn_w).min()):.0f} px wide, {number(a.least_px or 0)} px are asked for"
        for a in small
    ]
    return AdviceStep(kind="aim", works=False, why=f"{'; '.join(parts)}.", figures=figures)


def _whole(site: Site, p: SpanPlan) -> AdviceStep:
    assert p.original is not None
    least = p.effective.height.least_px
    natural = _needed(p, height=NaturalHeight(), fit="cover")
    q = tried(site, p, natural)
    w, h = float(q.W.min()), float(q.H.min())
    figures = {"frame_width": round(w, 1), "frame_height": round(h, 1)}
    if least is not None and h < least:
        return AdviceStep(
            kind="whole",
            works=False,
            why=f"Shown whole it would be {w:.0f} × {h:.0f} at {p.span.first} px, flatter than the least height of {least:g} px.",
            figures=figures,
        )
    if not _serves(q):
        return AdviceStep(kind="whole", works=False, why="Shown whole, an area is still too small.", figures=figures)
    return AdviceStep(
        kind="whole",
        works=True,
        why=f"Nothing lies on the picture, so it can be shown whole: {w:.0f} × {h:.0f} at {p.span.first} px.",
        label="Show it whole",
        treatment=natural,
        figures=figures,
    )


def solved_ratio(p: SpanPlan) -> float | None:
    """The frame ratio nearest to the present one that holds all keep areas; None where the present one does."""
    assert p.original is not None
    low, high = ratio_bounds(p.original.width_px / p.original.height_px, p.original.keeps)
    present = p.W / p.H
    if present.min() < low:
        return math.ceil(low * 1000) / 1000
    if present.max() > high:
        return math.floor(high * 1000) / 1000
    return None


def _ratio(site: Site, p: SpanPlan) -> AdviceStep:
    ratio = solved_ratio(p)
    if ratio is None:
        return AdviceStep(kind="ratio", works=False, why="The frame's ratio is not what is in the way.")
    bounds = p.effective.height
    treatment = _needed(p, height=RatioHeight(w=ratio, h=1), aim=Following(), fit="cover")
    q = tried(site, p, treatment)
    w, h = float(q.W.min()), float(q.H.min())
    figures = {"ratio": ratio, "frame_width": round(w, 1), "frame_height": round(h, 1)}
    if bounds.least_px is not None and h < bounds.least_px:
        return AdviceStep(
            kind="ratio",
            works=False,
            why=f"{number(ratio)}:1 would hold all, but is {h:.0f} px high at {p.span.first} px; least is {bounds.least_px:g}.",
            figures=figures,
        )
    if not _serves(q):
        return AdviceStep(
            kind="ratio", works=False, why="At the ratio that holds all, one is still too small.", figures=figures
        )
    return AdviceStep(
        kind="ratio",
        works=True,
        why=f"The nearest ratio that holds all areas is {number(ratio)}:1, {w:.0f} × {h:.0f} at {p.span.first} px.",
        label=f"Ratio {number(round(ratio, 2))}:1",
        treatment=treatment,
        figures=figures,
    )


def _others(site: Site, p: SpanPlan, originals: Mapping[int, Original]) -> list[AdviceStep]:
    """The site's other originals that would be whole here, the sharpest first; at most three."""
    found = []
    for other in originals.values():
        if (p.original is not None and other.id == p.original.id) or not other.keeps:
            continue
        treatment = _needed(p, original=other.id, aim=Following(), fit="cover")
        try:
            q = tried(site, p, treatment, other)
        except InvalidPlan:
            continue
        if _serves(q):
            need = whole_px(float(drawn_cut_width(q).max()) * 2)
            has = (q.cut.x1 - q.cut.x0) * other.width_px
            found.append((min(1.0, has / need), other, treatment))
    found.sort(key=lambda t: -t[0])
    return [
        AdviceStep(
            kind="original",
            works=True,
            why=f"{other.name} would be whole here" + (", and sharp at 2x." if sharp >= 1 else f", {sharp:.2f}× sharp at 2x."),
            label=f"Take {other.name}",
            treatment=treatment,
            figures={"sharp_at_2x": round(sharp, 3)},
        )
        for sharp, other, treatment in found[:3]
    ]


# -- aim by percentages only ---------------------------------------------------------------------------------------------


def percent_interval(share: Floats, keeps: tuple[Interval, ...]) -> tuple[Floats, Floats]:
    """Per frame the fractions p in [low, high] that keep all areas whole on one axis; low > high where none does.

    K = [k0, k1] stays whole iff p·(1 − share) lies in [k1 − share, k0], in fractions of the picture.
    """
    slack = 1 - share
    low, high = np.zeros_like(share), np.ones_like(share)
    with np.errstate(divide="ignore", invalid="ignore"):
        for k in keeps:
            low = np.maximum(low, np.where(slack > 1e-12, (k.last - share) / slack, 0.0))
            high = np.minimum(high, np.where(slack > 1e-12, k.first / slack, 1.0))
    return low, high


class AimByPercent(Noun):
    """`percent` is the fraction nearest to the focal one that serves the whole span, None where none does;
    `first_failing` is then the first width at which the intersection is empty. `breakpoints` are the fewest that would help,
    as last widths of the parts; empty where none is needed, None where a width fails by itself."""

    percent: float | None
    first_failing: int | None
    breakpoints: tuple[int, ...] | None


def aim_by_percent(v: Floats, share: Floats, keeps: tuple[Interval, ...], focal: float) -> AimByPercent:
    """One axis over a span. `share` has the shape (heights, widths); `focal` is the focal point, a fraction of the picture.

    Feasibility is inherited by sub-ranges, so cutting only where the intersection turns empty, from the narrowest width,
    gives the fewest breakpoints.
    """
    low, high = percent_interval(share, keeps)
    low, high = low.max(axis=0), high.min(axis=0)
    cuts: list[int] = []
    first_failing = None
    a, b = 0.0, 1.0
    for i, width in enumerate(v):
        if low[i] > high[i] + 1e-12:
            return AimByPercent(percent=None, first_failing=first_failing or int(width), breakpoints=None)
        if max(a, low[i]) > min(b, high[i]) + 1e-12:
            first_failing = first_failing or int(width)
            cuts.append(int(v[i - 1]))
            a, b = float(low[i]), float(high[i])
        else:
            a, b = max(a, float(low[i])), min(b, float(high[i]))
    if cuts:
        return AimByPercent(percent=None, first_failing=first_failing, breakpoints=tuple(cuts))
    middle = share.flat[share.size // 2]
    wanted = 0.5 if middle >= 1 else min(1.0, max(0.0, (focal - middle / 2) / (1 - middle)))
    return AimByPercent(percent=round(min(b, max(a, wanted)), 5), first_failing=None, breakpoints=())


def shares(shown: Windows) -> tuple[Floats, Floats]:
    """Visible share of the picture's width and height per frame."""
    return shown.x1 - shown.x0, shown.y1 - shown.y0


# -- crops ---------------------------------------------------------------------------------------------------------------


class CropFound(Noun):
    """A crop in fractions of the picture."""

    x: float
    y: float
    w: float
    h: float


def largest_crop(picture: Picture, ratio: float, areas: tuple[Area, ...]) -> CropFound:
    """The largest rectangle of px ratio `ratio` inside the picture that contains all areas, nearest to the focal point.

    Raises InvalidPlan, with numbers, where the areas do not fit.
    """
    w = min(1.0, ratio / picture.ratio)
    h = min(1.0, picture.ratio / ratio)
    x0, x1, y0, y1 = hull(areas) if areas else (*(picture.focal[0],) * 2, *(picture.focal[1],) * 2)
    for need, has, side in ((x1 - x0, w, "width"), (y1 - y0, h, "height")):
        if need > has + 1e-9:
            raise InvalidPlan(
                f"A crop of {number(round(ratio, 3))}:1 has {_percent(has)} of the {side}; the keep areas need {_percent(need)}."
            )

    def place(size: float, first: float, last: float, focal: float) -> float:
        return min(max(focal - size / 2, last - size, 0.0), first, 1 - size)

    return CropFound(x=place(w, x0, x1, picture.focal[0]), y=place(h, y0, y1, picture.focal[1]), w=w, h=h)

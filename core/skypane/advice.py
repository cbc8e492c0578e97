"""The gentlest treatment that leaves every keep area whole (and large enough) at every width of a span (02-rules §5).

Walked down in this order (common practice): aim, the whole picture, another ratio, another original, a colour. Areas that are
only shown too small are helped by a tighter crop, then by a taller frame. Each step is computed; why a gentler one fails is
said in numbers. For hand-overs that can only take percentages: the pair that serves a span, and the fewest breakpoints that part
the widths it serves from those that no percentage does.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Literal

import numpy as np

from skypane.errors import InvalidPlan
from skypane.fit import WHOLE, Interval, Picture, Region, Windows, picture_of, windows
from skypane.frames import Floats, number
from skypane.keeps import all_whole, edges, failing, fates, hull, stretches
from skypane.markup.picture import span_css
from skypane.model import (
    Aim,
    Area,
    FixedAim,
    FixedWidth,
    Following,
    NaturalHeight,
    Noun,
    Original,
    Placement,
    RatioHeight,
    Rect,
    Site,
    Treatment,
)
from skypane.needs import FIELDS, OF_ORIGINAL, SpanPlan, drawn_cut_width, plan_span, whole_px

StepKind = Literal["aim", "uncrop", "whole", "ratio", "crop", "taller", "original", "colour"]

#: The crop that is no crop.
UNCROPPED = Rect(x=0, y=0, w=1, h=1)

#: Side of a small stand-in, in CSS px, where the area does not ask for more (common practice: the size of a touch target twice).
STAND_IN_PX = 96


class AdviceStep(Noun):
    """One step of the walk. `label` is what the button says, `treatment` what it sets; both empty where it does not work.

    `also` are values that narrower spans take for their own, so that nothing but this span changes.
    """

    kind: StepKind
    works: bool
    why: str
    label: str = ""
    treatment: Treatment | None = None
    also: dict[str, Treatment] = {}
    figures: dict[str, float] = {}


class Advice(Noun):
    """What to do about the failing areas of one span. `best` is the index of the first step that works, None if none does."""

    span: str
    failing: tuple[str, ...]
    steps: tuple[AdviceStep, ...]
    best: int | None


def ratio_bounds(picture_ratio: float, areas: tuple[Area, ...], crop: Region = WHOLE) -> tuple[float, float]:
    """Least and greatest frame ratio (width over height) in which some position keeps all areas whole.

    All of [a, b] can be kept iff b − a is at most the visible share: frame ratio ≥ (b − a)·picture ratio, likewise down.
    """
    x0, x1, y0, y1 = hull(areas)
    return (x1 - x0) * picture_ratio / (crop.y1 - crop.y0), picture_ratio * (crop.x1 - crop.x0) / (y1 - y0)


def advise(site: Site, p: SpanPlan, originals: Mapping[int, Original], narrower: SpanPlan | None = None) -> Advice | None:
    """Walk down the steps for one span; None where every area is whole. `narrower` is the next narrower span, if any."""
    wrong = failing(p)
    if not wrong or p.original is None:
        return None
    steps = [_aim(site, p)]
    if p.crop is not WHOLE:
        steps.append(_uncrop(site, p))
    small = [a for a in wrong if a.least_px is not None]
    if all((fates(p, a)[0] != "small").any() and not np.isin(fates(p, a)[0], ("cut", "lost")).any() for a in wrong):
        steps += [_tighter(site, p), _taller(site, p)]
    else:
        steps += [_whole(site, p), _ratio(site, p)]
        if small:
            steps += [_tighter(site, p), _taller(site, p)]
    steps += [*_others(site, p, originals), *_colour(site, p)]
    if narrower is not None:
        steps = [s.model_copy(update={"also": pinned(narrower, s.treatment)}) if s.treatment else s for s in steps]
    best = next((i for i, s in enumerate(steps) if s.works), None)
    return Advice(span=p.span.letter, failing=tuple(a.name for a in wrong), steps=tuple(steps), best=best)


def advise_all(
    site: Site, plans: tuple[SpanPlan, ...], originals: Mapping[int, Original], only: str | None = None
) -> tuple[Advice, ...]:
    """The advice for every span that fails, from the narrowest; or for the span of letter `only`, if it fails."""
    found = (
        advise(site, p, originals, plans[i - 1] if i else None)
        for i, p in enumerate(plans)
        if only is None or p.span.letter == only
    )
    return tuple(a for a in found if a)


def pinned(narrower: SpanPlan, treatment: Treatment) -> dict[str, Treatment]:
    """What the next narrower span has to take for its own so that it stays as it is when `treatment` is laid on a wider one."""
    e, letter = narrower.effective, narrower.span.letter
    set_ = {f for f in FIELDS if getattr(treatment, f) is not None}
    if "original" in set_:
        set_ |= set(OF_ORIGINAL)
    values = {f: getattr(e, f) for f in set_ if e.origin[f] != letter}
    if "crop" in values and values["crop"] is None:
        values["crop"] = UNCROPPED if treatment.crop is not None else None
    if "keeps" in values and values["keeps"] is None and treatment.keeps is not None:
        values["keeps"] = tuple(a.name for a in narrower.keeps)
    values = {f: v for f, v in values.items() if v is not None}
    return {letter: Treatment(**values)} if values else {}


def applied(placement: Placement, letter: str, step: AdviceStep) -> Placement:
    """The placement with one step taken."""
    treatments = dict(placement.treatments)
    for where, values in {letter: step.treatment or Treatment(), **step.also}.items():
        own = treatments.get(where, Treatment())
        treatments[where] = own.model_copy(update={f: v for f in FIELDS if (v := getattr(values, f)) is not None})
    return placement.model_copy(update={"treatments": treatments})


def tried(site: Site, p: SpanPlan, treatment: Treatment, original: Original | None = None) -> SpanPlan:
    """The span as it would be with the treatment's values on top."""
    if original is None and all(getattr(treatment, f) in (None, getattr(p.effective, f)) for f in FIELDS):
        return p
    return plan_span(site, p.span, p.effective.under(treatment, p.span.letter), original or p.original, p.grid)


def _needed(p: SpanPlan, **values: object) -> Treatment:
    """A treatment that sets only what does not hold already."""
    return Treatment(**{f: v for f, v in values.items() if getattr(p.effective, f) != v})


def _serves(q: SpanPlan) -> bool:
    assert q.original is not None
    assert q.shown is not None
    return all_whole(q.shown, q.keeps, Picture(q.original.width_px, q.original.height_px))


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
    keeps = p.keeps
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
    if beyond := tuple(a for a in keeps if not _within(edges(a), p.crop)):
        parts.insert(0, f"the crop leaves out part of {_names(beyond)}")
    small = [a for a in keeps if a.least_px is not None and (a.rect.w * q.shown.drawn_w).min() < a.least_px - 0.5]
    parts += [
        f"{a.name} is shown {float((a.rect.w * q.shown.drawn_w).min()):.0f} px wide, {number(a.least_px or 0)} px are asked for"
        for a in small
    ]
    said = "; ".join(parts)
    return AdviceStep(kind="aim", works=False, why=f"{said[:1].upper()}{said[1:]}.", figures=figures)


def _within(rect: tuple[float, float, float, float], region: Region) -> bool:
    return rect[0] >= region.x0 and rect[1] <= region.x1 and rect[2] >= region.y0 and rect[3] <= region.y1


def _uncrop(site: Site, p: SpanPlan) -> AdviceStep:
    treatment = _needed(p, crop=UNCROPPED, aim=Following(), fit="cover")
    if not _serves(tried(site, p, treatment)):
        return AdviceStep(kind="uncrop", works=False, why="Without the crop they are not whole either.")
    return AdviceStep(
        kind="uncrop",
        works=True,
        why="The crop is what cuts them: without it every area is whole.",
        label="Without the crop",
        treatment=treatment,
    )


def _whole(site: Site, p: SpanPlan) -> AdviceStep:
    assert p.original is not None
    least = p.effective.height.least_px
    freed, without = _freed(p)
    natural = _needed(p, height=NaturalHeight(), fit="cover", **freed)
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
        why=f"Nothing lies on the picture, so it can be shown whole{without}: {w:.0f} × {h:.0f} at {p.span.first} px.",
        label="Show it whole",
        treatment=natural,
        figures=figures,
    )


def _freed(p: SpanPlan) -> tuple[dict[str, Rect], str]:
    """A crop that leaves out part of an area has to go before anything else can help: the value that takes it away, in words."""
    beyond = any(not _within(edges(a), p.crop) for a in p.keeps)
    return ({"crop": UNCROPPED}, ", without the crop") if beyond else ({}, "")


def solved_ratio(p: SpanPlan, crop: Region | None = None) -> float | None:
    """The frame ratio nearest to the present one that holds all keep areas; None where the present one does.

    `crop` is another crop than the span's own.
    """
    assert p.original is not None
    low, high = ratio_bounds(p.original.width_px / p.original.height_px, p.keeps, crop or p.crop)
    present = p.W / p.H
    if present.min() < low:
        return math.ceil(low * 1000) / 1000
    if present.max() > high:
        return math.floor(high * 1000) / 1000
    return None


def _ratio(site: Site, p: SpanPlan) -> AdviceStep:
    freed, without = _freed(p)
    ratio = solved_ratio(p, WHOLE if freed else None)
    if ratio is None:
        return AdviceStep(kind="ratio", works=False, why="The frame's ratio is not what is in the way.")
    bounds = p.effective.height
    treatment = _needed(p, height=RatioHeight(w=ratio, h=1), aim=Following(), fit="cover", **freed)
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
        why=f"The nearest ratio that holds all areas{without} is {number(ratio)}:1, {w:.0f} × {h:.0f} at {p.span.first} px.",
        label=f"Ratio {number(round(ratio, 2))}:1",
        treatment=treatment,
        figures=figures,
    )


def _asked_width(p: SpanPlan) -> float:
    """How wide the whole original has to be drawn, in CSS px, so that every area has its least shown width."""
    return max((a.least_px / a.rect.w for a in p.keeps if a.least_px is not None), default=0.0)


def _tighter(site: Site, p: SpanPlan) -> AdviceStep:
    """A crop just tight enough for the least shown widths, as far as it stays whole and sharp."""
    assert p.original is not None
    assert p.inside is not None
    asked = _asked_width(p)
    ratios = p.W / p.H
    whole = Picture(p.original.width_px, p.original.height_px, p.original.focal)
    ratio = float(ratios.flat[0]) if np.ptp(ratios) < 1e-3 else whole.ratio
    drawn = np.maximum(p.W, p.H * ratio)
    share = math.floor(float(drawn.min()) / asked * 1e5) / 1e5
    most = min(1.0, ratio / whole.ratio)
    needed, has = whole_px(float(drawn.max())), int(min(share, most) * whole.w)
    figures = {"crop_share": round(min(share, most), 4), "crop_px": has, "needed_px": needed}
    try:
        found = largest_crop(whole, ratio, p.keeps, widest=share)
    except InvalidPlan as problem:
        return AdviceStep(kind="crop", works=False, why=f"Cropped tight enough, {problem}", figures=figures)
    if has < needed:
        return AdviceStep(
            kind="crop",
            works=False,
            why=f"Cropped tight enough it would be soft: {has} px wide where {needed} are needed at 1x.",
            figures=figures,
        )
    treatment = _needed(p, crop=Rect(**found.model_dump()), aim=Following(), fit="cover")
    if not _serves(tried(site, p, treatment)):
        return AdviceStep(kind="crop", works=False, why="Cropped tight enough, an area is cut at some width.", figures=figures)
    sharp = "sharp at 2x" if has >= 2 * needed else f"{has / needed / 2:.2f}× sharp at 2x"
    return AdviceStep(
        kind="crop",
        works=True,
        why=f"A tighter crop, {_percent(found.w)} of the width ({has} px), shows them large enough and is {sharp}.",
        label="Crop tighter",
        treatment=treatment,
        figures=figures,
    )


def _taller(site: Site, p: SpanPlan) -> AdviceStep:
    """A taller frame draws the picture larger, as long as what has to be kept still fits across."""
    assert p.original is not None
    crop_ratio = p.original.width_px * (p.crop.x1 - p.crop.x0) / (p.original.height_px * (p.crop.y1 - p.crop.y0))
    low, _ = ratio_bounds(p.original.width_px / p.original.height_px, p.keeps, p.crop)
    ratio = math.floor(float(p.W.min()) * crop_ratio / (_asked_width(p) * (p.crop.x1 - p.crop.x0)) * 1000) / 1000
    figures = {"ratio": ratio, "least_ratio": round(low, 4)}
    if ratio < low or ratio <= 0:
        return AdviceStep(
            kind="taller",
            works=False,
            why=f"Tall enough would be {number(ratio)}:1; narrower than {number(round(low, 2))}:1 the areas do not fit across.",
            figures=figures,
        )
    treatment = _needed(p, height=RatioHeight(w=ratio, h=1), aim=Following(), fit="cover")
    q = tried(site, p, treatment)
    if not _serves(q):
        return AdviceStep(kind="taller", works=False, why="In a taller frame an area is cut.", figures=figures)
    w, h = float(q.W.min()), float(q.H.min())
    return AdviceStep(
        kind="taller",
        works=True,
        why=f"A frame of {number(ratio)}:1, {w:.0f} × {h:.0f} at {p.span.first} px, draws the picture large enough.",
        label=f"Taller, {number(round(ratio, 2))}:1",
        treatment=treatment,
        figures=figures,
    )


def _others(site: Site, p: SpanPlan, originals: Mapping[int, Original]) -> list[AdviceStep]:
    """The site's other originals that would be whole here: the sharpest first, then the lightest; at most three.

    Bytes before any file is made are guessed from the original's own bytes a px (common practice: detail costs bytes).
    """
    found: list[tuple[tuple[float, bool, float], Original, Treatment]] = []
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
            height = need * (q.cut.y1 - q.cut.y0) * other.height_px / has
            guess = other.size_bytes / (other.width_px * other.height_px) * need * height
            found.append(((-min(1.0, has / need), guess > site.budget_bytes, guess), other, treatment))
    found.sort(key=lambda t: t[0])
    steps = []
    for (sharp, heavy, guess), other, treatment in found[:3]:
        weighs = (
            f" About {guess / 1000:.0f} kB at 2x{', over the budget' if heavy else ''}, by its own detail." if guess else ""
        )
        steps.append(
            AdviceStep(
                kind="original",
                works=True,
                why=f"{other.name} would be whole here"
                + (", and sharp at 2x." if sharp <= -1 else f", {-sharp:.2f}× sharp at 2x.")
                + weighs,
                label=f"Take {other.name}",
                treatment=treatment,
                figures={"sharp_at_2x": round(-sharp, 3), "guessed_bytes": round(guess)},
            )
        )
    if not steps:
        steps.append(AdviceStep(kind="original", works=False, why="No other original of the site would be whole here."))
    return steps


def _colour(site: Site, p: SpanPlan) -> list[AdviceStep]:
    """No picture in this span; or one area alone, as a small stand-in."""
    assert p.original is not None
    steps = [
        AdviceStep(
            kind="colour",
            works=True,
            why="Without a picture nothing is cut: the frame keeps its size and its colour.",
            label="Only the colour",
            treatment=_needed(p, show="colour"),
        )
    ]
    area, whole = p.keeps[0], Picture(p.original.width_px, p.original.height_px)
    x0, x1, y0, y1 = edges(area)
    side = min(max((x1 - x0) * whole.w, (y1 - y0) * whole.h) * 1.1, whole.w, whole.h)
    w, h = side / whole.w, side / whole.h
    crop = Rect(
        x=min(max((x0 + x1 - w) / 2, 0), 1 - w),
        y=min(max((y0 + y1 - h) / 2, 0), 1 - h),
        w=w,
        h=h,
    )
    shown_px = max(STAND_IN_PX, math.ceil((area.least_px or 0) / (x1 - x0) * w))
    treatment = _needed(
        p,
        width=FixedWidth(width_px=shown_px),
        height=RatioHeight(w=1, h=1),
        crop=crop,
        keeps=(area.name,),
        aim=Following(),
        fit="cover",
    )
    if shown_px <= float(p.W.min()) and side >= shown_px and _serves(tried(site, p, treatment)):
        steps.append(
            AdviceStep(
                kind="colour",
                works=True,
                why=f"{area.name} alone, {shown_px} px square, stands in for the picture.",
                label=f"Only {area.name}, small",
                treatment=treatment,
                figures={"side_px": shown_px},
            )
        )
    return steps


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


class ByPercents(Noun):
    """What fixed percentages can do over a span, both axes together.

    On one axis the interval of p for a visible share s is [(k1 − s)/(1 − s), k0/(1 − s)]; it grows with s, so the intervals of a
    span lie inside one another and meet wherever each of them holds something: *one* pair (`x`, `y`) serves every width that any
    pair serves. `serves` are the runs of those widths, `breakpoints` the fewest posts, as last widths, that part them from the
    widths that no percentage serves; `first_failing` is the first of those. `x` and `y` are None where nothing is served.
    """

    x: float | None
    y: float | None
    serves: tuple[tuple[int, int], ...]
    first_failing: int | None
    breakpoints: tuple[int, ...]


def by_percents(p: SpanPlan) -> ByPercents | None:
    """Whether fixed percentages can serve the span, for hand-overs that cannot take lengths; None without a picture.

    Of the percentages that serve, those nearest to the focal point are taken.
    """
    if p.original is None or p.inside is None:
        return None
    picture = picture_of(p.original, Following(), p.crop, p.keeps)
    axes = []
    ok = np.ones(len(p.viewport_w), dtype=bool)
    for share, keeps in zip(
        shares(windows(picture, "cover", FixedAim(), p.W, p.H)), (picture.keeps_x, picture.keeps_y), strict=True
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
    """The fraction inside all intervals that is nearest to the one that centres the focal point at the middle frame."""
    middle = float(share.flat[share.size // 2])
    wanted = 0.5 if middle >= 1 else min(1.0, max(0.0, (focal - middle / 2) / (1 - middle)))
    return round(min(float(high.min()), max(float(low.max()), wanted)), 5)


class AimCost(Noun):
    """What one way to aim would come to in a span: at how many of its widths every area is whole, and what fares worst.

    `css` is the position as it would be handed over.
    """

    aim: Aim
    whole_widths: int
    widths: int
    worst_area: str | None
    worst_share: float
    worst_at: int
    css: str


def aim_costs(site: Site, p: SpanPlan) -> tuple[AimCost, ...]:
    """The three ways to aim side by side: keep areas first, the focal point alone, fixed percentages.

    The percentages are the designer's own where the span is fixed, else those that serve, else the middle of what would.
    """
    if p.original is None or p.shown is None:
        return ()
    present = p.effective.aim
    fixed = present if isinstance(present, FixedAim) else _middle_aim(p)
    out = []
    for aim in (Following(), Following(areas=False), fixed):
        q = p if aim == present else tried(site, p, Treatment(aim=aim, fit="cover"))
        assert q.shown is not None
        ok = np.ones(len(q.viewport_w), dtype=bool)
        worst: tuple[float, str | None, int] = (1.0, None, q.span.first)
        for area in q.keeps:
            verdicts, share = fates(q, area)
            ok &= verdicts == "whole"
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
                css=span_css(site, q, q.cut_inside).img["object-position"],
            )
        )
    return tuple(out)


def _middle_aim(p: SpanPlan) -> FixedAim:
    """The percentages that serve the most widths, or else the middle of what the areas ask for."""
    found = by_percents(p)
    if found is not None and found.x is not None and found.y is not None:
        return FixedAim(x=found.x, y=found.y)
    assert p.original is not None
    picture = picture_of(p.original, Following(), p.crop, p.keeps)
    across, down = shares(windows(picture, "cover", FixedAim(), p.W, p.H))
    middles = []
    for share, keeps in ((across, picture.keeps_x), (down, picture.keeps_y)):
        low, high = percent_interval(share, keeps)
        middles.append(round(float(np.clip(np.median((low.max(axis=0) + high.min(axis=0)) / 2), 0, 1)), 4))
    return FixedAim(x=middles[0], y=middles[1])


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


def largest_crop(picture: Picture, ratio: float, areas: tuple[Area, ...], widest: float = 1.0) -> CropFound:
    """The largest rectangle of px ratio `ratio` inside the picture that contains all areas, nearest to the focal point.

    `widest` is the greatest share of the picture's width that it may have. Raises InvalidPlan, with numbers, where the areas do
    not fit.
    """
    w = min(widest, 1.0, ratio / picture.ratio)
    h = w * picture.ratio / ratio
    x0, x1, y0, y1 = hull(areas) if areas else (*(picture.focal[0],) * 2, *(picture.focal[1],) * 2)
    for need, has, side in ((x1 - x0, w, "width"), (y1 - y0, h, "height")):
        if need > has + 1e-9:
            raise InvalidPlan(
                f"A crop of {number(round(ratio, 3))}:1 has {_percent(has)} of the {side}; the keep areas need {_percent(need)}."
            )

    def place(size: float, first: float, last: float, focal: float) -> float:
        return min(max(focal - size / 2, last - size, 0.0), first, 1 - size)

    return CropFound(x=place(w, x0, x1, picture.focal[0]), y=place(h, y0, y1, picture.focal[1]), w=w, h=h)

"""The gentlest treatment that leaves every keep area whole (and large enough) at every width of a span (02-rules §5).

Walked down in this order (common practice): aim, the whole picture, another ratio, another original, a colour. Areas that are
too small where they are seen are helped by a tighter crop, then by a taller frame. Each step is computed; why a gentler one fails
is said in numbers. No step breaks a least or greatest height that was set: it says that it would have to. For hand-overs that can
only take percentages: the pair that serves a span, and the fewest breakpoints that part the widths it serves from those that no
percentage does.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Collection, Iterable, Mapping
from typing import Literal

import numpy as np
from pydantic import ValidationError

from skypane.errors import InvalidPlan, sentence_of
from skypane.fit import WHOLE, Interval, Picture, Region, Windows, picture_of, windows
from skypane.frames import Floats, number, share_text
from skypane.keeps import all_whole, edges, failing, fates, hull, stretches, too_small
from skypane.markup.picture import span_css
from skypane.model import (
    FLATTEST,
    LEAST_SHARE,
    MOST_PX,
    NARROWEST,
    NOISE,
    Aim,
    Area,
    FixedAim,
    FixedHeight,
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
    ViewportHeight,
)
from skypane.needs import FIELDS, OF_ORIGINAL, UNCROPPED, SpanPlan, cropped_ratio, drawn_cut_width, plan_span, whole_px

StepKind = Literal["aim", "uncrop", "whole", "ratio", "crop", "taller", "original", "colour"]

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


def belongs(other: Original, used: Iterable[Original], on_page: Collection[int]) -> bool:
    """Whether an original may be proposed where others are used: it has a tag in common with one, or is on the same page."""
    return other.id in on_page or not {t for o in used for t in o.tags}.isdisjoint(other.tags)


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
    steps = [_had("aim", _aim, site, p)]
    if p.crop is not WHOLE:
        steps.append(_had("uncrop", _uncrop, site, p))
    verdicts = [fates(p, a)[0] for a in wrong]
    if any(np.isin(v, ("cut", "lost")).any() for v in verdicts):
        steps += [_had("whole", _whole, site, p), _had("ratio", _ratio, site, p)]
    if any((v == "small").any() for v in verdicts):
        steps += [_had("crop", _tighter, site, p), _had("taller", _taller, site, p)]
    steps += [*_others(site, p, originals), *_colour(site, p)]
    if narrower is not None:
        steps = [s.model_copy(update={"also": pinned(narrower, s.treatment)}) if s.treatment else s for s in steps]
    best = next((i for i, s in enumerate(steps) if s.works), None)
    return Advice(span=p.span.letter, failing=tuple(a.name for a in wrong), steps=tuple(steps), best=best)


def _had(kind: StepKind, step: Callable[[Site, SpanPlan], AdviceStep], site: Site, p: SpanPlan) -> AdviceStep:
    """The step; or, where it comes to a frame or crop that cannot be, that it cannot be had and why."""
    try:
        return step(site, p)
    except InvalidPlan as problem:
        return AdviceStep(kind=kind, works=False, why=f"It cannot be had here: {problem}")
    except ValidationError as problem:
        return AdviceStep(kind=kind, works=False, why=f"It cannot be had here: {sentence_of(problem)}")


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


def _up(ratio: float) -> float:
    """Rounded up to four significant digits, so that the slimmest ratio does not become 0."""
    by = 10.0 ** (3 - math.floor(math.log10(ratio)))
    return math.ceil(ratio * by - 1e-9) / by


def _down(ratio: float) -> float:
    by = 10.0 ** (3 - math.floor(math.log10(ratio)))
    return math.floor(ratio * by + 1e-9) / by


def _said(ratio: float) -> str:
    """A ratio as a sentence says it: 1.78:1, or 1:20 where the frame is higher than wide."""
    return f"{number(float(f'{ratio:.3g}'))}:1" if ratio >= 0.1 else f"1:{number(float(f'{1 / ratio:.3g}'))}"


def _ratio_height(ratio: float, **bounds: float | None) -> RatioHeight:
    """The height rule of a ratio. Raises InvalidPlan where no frame can have it."""
    if not NARROWEST <= ratio <= FLATTEST:
        raise InvalidPlan(f"{_said(ratio)} is no ratio that a frame can have.")
    w, h = (ratio, 1.0) if ratio >= 0.1 else (1.0, round(1 / ratio, 4))
    return RatioHeight.model_validate({"w": w, "h": h, **bounds})


def _breaks(p: SpanPlan, q: SpanPlan) -> str:
    """Which least or greatest height of the span a frame would break, in words; "" where it breaks none."""
    bounds = p.effective.height
    low, high = _extremes(q)
    if bounds.least_px is not None and float(q.H.min()) < bounds.least_px - 0.01:
        return f"it is {low}, flatter than the least height of {bounds.least_px:g} px"
    if bounds.greatest_px is not None and float(q.H.max()) > bounds.greatest_px + 0.01:
        return f"it is {high}, higher than the greatest height of {bounds.greatest_px:g} px"
    if not isinstance(bounds, RatioHeight):
        return ""
    heights = p.grid.heights
    if bounds.greatest_vh is not None and (q.H > heights * bounds.greatest_vh / 100 + 0.01).any():
        return f"it is higher somewhere than {bounds.greatest_vh:g} % of the viewport, the greatest height"
    if bounds.least_vh is not None and (q.H < heights * bounds.least_vh / 100 - 0.01).any():
        return f"it is lower somewhere than {bounds.least_vh:g} % of the viewport, the least height"
    return ""


def _extremes(p: SpanPlan) -> tuple[str, str]:
    """The shortest and the tallest frame of a span, in words."""
    low, high = (np.unravel_index(int(i), p.H.shape) for i in (p.H.argmin(), p.H.argmax()))
    return _frame_at(p, low), _frame_at(p, high)


def _frame_at(p: SpanPlan, at: tuple[np.intp, ...]) -> str:
    return f"{p.W[at]:.0f} × {p.H[at]:.0f} at {int(p.viewport_w[at[1]])} px"


def _sizes(p: SpanPlan) -> str:
    """The same as one phrase."""
    low, high = _extremes(p)
    return low if low == high else f"from {low} to {high}"


def _needed(p: SpanPlan, **values: object) -> Treatment:
    """A treatment that sets only what does not hold already."""
    return Treatment(**{f: v for f, v in values.items() if getattr(p.effective, f) != v})


def _serves(q: SpanPlan) -> bool:
    assert q.original is not None
    assert q.shown is not None
    return all_whole(q.shown, q.keeps, Picture(q.original.width_px, q.original.height_px))


def _names(areas: tuple[Area, ...]) -> str:
    names = [a.name for a in areas]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _need(areas: tuple[Area, ...]) -> str:
    """The verb that goes with the names of one area or several."""
    return "needs" if len(areas) == 1 else "need"


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
            label="Follow the keep areas" if p.effective.fit == "cover" else "Fill the frame, following the keep areas",
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
            parts.append(
                f"{share_text(least)} of the {side} shows at {at} px, {_names(keeps)} {_need(keeps)} {share_text(need)}"
            )
            figures |= {f"{side}_needed": round(need, 4), f"{side}_shown": round(least, 4)}
    if beyond := tuple(a for a in keeps if not _within(edges(a), p.crop)):
        parts.insert(0, f"the crop leaves out part of {_names(beyond)}")
    small = [a for a in keeps if a.least_px is not None and too_small(a, q.shown).any()]
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
    """At the natural ratio within the least and greatest height, else whole in the present frame."""
    freed, without = _freed(p)
    bounds = {"least_px": p.effective.height.least_px, "greatest_px": p.effective.height.greatest_px}
    natural = _needed(p, height=NaturalHeight.model_validate(bounds), fit="cover", **freed)
    q = tried(site, p, _needed(p, height=NaturalHeight(), fit="cover", **freed))
    figures = {"frame_width": round(float(q.W.min()), 1), "frame_height": round(float(q.H.min()), 1)}
    broken = _breaks(p, q)
    if not broken:
        if _serves(q):
            return AdviceStep(
                kind="whole",
                works=True,
                why=f"Nothing lies on the picture, so it can be shown whole{without}: {_sizes(q)}.",
                label=f"Show it whole{without}",
                treatment=natural,
                figures=figures,
            )
        return AdviceStep(kind="whole", works=False, why="Shown whole, an area is still too small.", figures=figures)
    contained = _needed(p, fit="contain", **freed)
    q = tried(site, p, contained)
    refused = f"At its natural ratio {broken}"
    if not _serves(q):
        return AdviceStep(
            kind="whole",
            works=False,
            why=f"{refused}; whole in the present frame an area is too small.",
            figures=figures,
        )
    return AdviceStep(
        kind="whole",
        works=True,
        why=f"{refused}; but it can be shown whole in the present frame{without}, {_sizes(q)}, with its colour beside it.",
        label=f"Show it whole in this frame{without}",
        treatment=contained,
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
        return min(_up(low), high)
    if present.max() > high:
        return max(_down(high), low)
    return None


def _ratio(site: Site, p: SpanPlan) -> AdviceStep:
    freed, without = _freed(p)
    crop = WHOLE if freed else p.crop
    assert p.original is not None
    ratio = solved_ratio(p, crop)
    if ratio is None:
        return AdviceStep(kind="ratio", works=False, why="The frame's ratio is not what is in the way.")
    low, high = ratio_bounds(p.original.width_px / p.original.height_px, p.keeps, crop)
    if low > high + NOISE:
        return AdviceStep(kind="ratio", works=False, why="No ratio holds them all: they reach beyond what the frame can show.")
    present = p.W / p.H
    bounds, kept = _bounded_by_present(p, float(present.min()) < low, float(present.max()) > high)
    treatment = _needed(p, height=_ratio_height(ratio, **bounds), aim=Following(), fit="cover", **freed)
    q = tried(site, p, treatment)
    figures = {"ratio": ratio, "frame_width": round(float(q.W.min()), 1), "frame_height": round(float(q.H.min()), 1)}
    broken = _breaks(p, q)
    if broken or not _serves(q):
        free = tried(site, p, _needed(p, height=_ratio_height(ratio), aim=Following(), fit="cover", **freed))
        broken = broken or (_breaks(p, free) if _serves(free) else "")
        why = (
            f"{_said(ratio)} would hold all, but {broken}."
            if broken
            else "At the ratio that holds all, one is still too small."
        )
        return AdviceStep(kind="ratio", works=False, why=why, figures=figures)
    return AdviceStep(
        kind="ratio",
        works=True,
        why=f"The nearest ratio that holds all areas{without} is {_said(ratio)}{kept}: {_sizes(q)}.",
        label=f"Ratio {_said(ratio)}{kept}{without}",
        treatment=treatment,
        figures=figures,
    )


def _bounded_by_present(p: SpanPlan, too_narrow: bool, too_flat: bool) -> tuple[dict[str, float | None], str]:
    """Bounds for a ratio that takes the place of the span's height rule, and the same in words.

    A least and a greatest height that are set stay. A height in px or in shares of the viewport's becomes the greatest where
    frames were too high, the least where they were too flat, so that widths that are well stay as they are.
    """
    rule = p.effective.height
    bounds: dict[str, float | None] = {"least_px": rule.least_px, "greatest_px": rule.greatest_px}
    if isinstance(rule, RatioHeight):
        return {**bounds, "least_vh": rule.least_vh, "greatest_vh": rule.greatest_vh}, ""
    if not isinstance(rule, FixedHeight | ViewportHeight) or too_narrow == too_flat:
        return bounds, ""
    side, word = ("greatest", "at most") if too_narrow else ("least", "at least")
    if isinstance(rule, FixedHeight):
        height = min(max(rule.height_px, rule.least_px or 0), rule.greatest_px or MOST_PX)
        return {**bounds, f"{side}_px": height}, f", {word} {height:g} px high"
    return {**bounds, f"{side}_vh": rule.percent}, f", {word} {rule.percent:g} % of the viewport high"


def _asked_width(p: SpanPlan) -> float:
    """How wide the whole original has to be drawn, in CSS px, so that every area has its least shown width."""
    return max((a.least_px / a.rect.w for a in p.keeps if a.least_px is not None), default=0.0)


def _tighter(site: Site, p: SpanPlan) -> AdviceStep:
    """A crop smaller than the present one, just tight enough for the least shown widths, as far as it stays whole and sharp."""
    assert p.original is not None
    assert p.inside is not None
    asked = _asked_width(p)
    ratios = p.W / p.H
    whole = Picture(p.original.width_px, p.original.height_px, p.original.focal)
    ratio = float(ratios.flat[0]) if np.ptp(ratios) < 1e-3 else cropped_ratio(p.original, p.crop)
    drawn = np.maximum(p.W, p.H * ratio)
    share = math.floor(float(drawn.min()) / asked * 1e5) / 1e5
    try:
        found = largest_crop(whole, ratio, p.keeps, widest=share, within=p.crop)
    except InvalidPlan as problem:
        return AdviceStep(kind="crop", works=False, why=f"Cropped tight enough, {problem}", figures={"crop_share": share})
    needed, has = whole_px(float(drawn.max())), int(found.w * whole.w)
    figures = {"crop_share": round(found.w, 4), "crop_px": has, "needed_px": needed}
    if found.w * found.h >= (p.crop.x1 - p.crop.x0) * (p.crop.y1 - p.crop.y0) - NOISE:
        return AdviceStep(kind="crop", works=False, why="No smaller crop shows them larger in this frame.", figures=figures)
    if has < needed:
        return AdviceStep(
            kind="crop",
            works=False,
            why=f"Cropped tight enough it would be soft: {has} px wide where {needed} are needed at 1x.",
            figures=figures,
        )
    treatment = _needed(p, crop=found, aim=Following(), fit="cover")
    if not _serves(tried(site, p, treatment)):
        return AdviceStep(kind="crop", works=False, why="Cropped tight enough, an area is cut at some width.", figures=figures)
    sharp = "sharp at 2x" if has >= 2 * needed else f"{has / needed / 2:.2f}× sharp at 2x"
    return AdviceStep(
        kind="crop",
        works=True,
        why=f"A tighter crop, {share_text(found.w)} of the width ({has} px), shows them large enough and is {sharp}.",
        label="Crop tighter",
        treatment=treatment,
        figures=figures,
    )


def _taller(site: Site, p: SpanPlan) -> AdviceStep:
    """The least height raised until the picture is drawn large enough, as long as what has to be kept still fits across.

    A picture that covers a frame of height H is drawn at least H·w/h wide, so H has to reach asked·h/w.
    """
    assert p.original is not None
    rule = p.effective.height
    # of the whole original's drawn width, the crop has its share; both have the same scale
    height = _asked_width(p) * (p.crop.x1 - p.crop.x0) / cropped_ratio(p.original, p.crop)
    least = math.ceil(round(height, 4))
    times = least / float(p.H.min())
    figures = {"least_height": float(least), "times": round(times, 3)}
    if rule.greatest_px is not None and least > rule.greatest_px:
        return AdviceStep(
            kind="taller",
            works=False,
            why=f"The frame would have to be {least} px high; the greatest height that is set is {rule.greatest_px:g} px.",
            figures=figures,
        )
    if least > MOST_PX:
        raise InvalidPlan(f"the frame would have to be {least} px high.")
    treatment = _needed(p, height=rule.model_copy(update={"least_px": float(least)}), aim=Following(), fit="cover")
    q = tried(site, p, treatment)
    if broken := _breaks(p, q):
        return AdviceStep(kind="taller", works=False, why=f"At least {least} px high, {broken}.", figures=figures)
    if not _serves(q):
        return AdviceStep(
            kind="taller",
            works=False,
            why=f"In a frame at least {least} px high, {times:.2f} times as high, an area is cut.",
            figures=figures,
        )
    return AdviceStep(
        kind="taller",
        works=True,
        why=f"At least {least} px high, {times:.2f} times as high at its lowest, the frame draws the picture large enough: "
        f"{_sizes(q)}.",
        label=f"Taller, at least {least} px",
        treatment=treatment,
        figures=figures,
    )


def _others(site: Site, p: SpanPlan, originals: Mapping[int, Original]) -> list[AdviceStep]:
    """Other originals that belong here (see `belongs`) and would be whole, the sharpest first, then the lightest; at most three.

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
        steps.append(AdviceStep(kind="original", works=False, why="No other original that belongs here would be whole."))
    return steps


def _below_least(p: SpanPlan, side_px: float) -> str:
    """Which least sizes of the span a square would go below, in words; "" for none."""
    sides = (("width", p.effective.width.least_px), ("height", p.effective.height.least_px))
    return " and ".join(f"the least {side} of {least:g} px" for side, least in sides if least is not None and side_px < least)


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
    shown_px = max(STAND_IN_PX, math.ceil((area.least_px or 0) / (x1 - x0) * w))
    if min(w, h) < LEAST_SHARE or shown_px > float(p.W.min()) or side < shown_px:
        return steps  # too small a part of the picture, larger than the frame itself, or soft
    crop = Rect(x=min(max((x0 + x1 - w) / 2, 0), 1 - w), y=min(max((y0 + y1 - h) / 2, 0), 1 - h), w=w, h=h)
    treatment = _needed(
        p,
        width=FixedWidth(width_px=shown_px),
        height=RatioHeight(w=1, h=1),
        crop=crop,
        keeps=(area.name,),
        aim=Following(),
        fit="cover",
    )
    below = _below_least(p, shown_px)
    if _serves(tried(site, p, treatment)):
        steps.append(
            AdviceStep(
                kind="colour",
                works=True,
                why=f"{area.name} alone, {shown_px} px square, stands in for the picture"
                + (f"; that is below {below}." if below else "."),
                label=f"Only {area.name}, small" + (f", below {below}" if below else ""),
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
        q = tried(site, p, Treatment(aim=aim, fit="cover"))
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
                css=span_css(site, q, q.cut_inside).position,
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


def largest_crop(picture: Picture, ratio: float, areas: tuple[Area, ...], widest: float = 1.0, within: Region = WHOLE) -> Rect:
    """The largest rectangle of px ratio `ratio` inside the picture that contains all areas, nearest to the focal point.

    `widest` is the greatest share of the picture's width that it may have, `within` the part of the picture that it has to stay
    in. Raises InvalidPlan, with numbers, where the areas do not fit or no rectangle is left.
    """
    w = min(widest, within.x1 - within.x0, (within.y1 - within.y0) * ratio / picture.ratio)
    h = w * picture.ratio / ratio
    if min(w, h) < LEAST_SHARE:
        raise InvalidPlan(f"a crop of {_said(ratio)} would be a hairline of this picture.")
    x0, x1, y0, y1 = hull(areas) if areas else (*(picture.focal[0],) * 2, *(picture.focal[1],) * 2)
    for need, has, side in ((x1 - x0, w, "width"), (y1 - y0, h, "height")):
        if need > has + NOISE:
            raise InvalidPlan(
                f"a crop of {_said(ratio)} has {share_text(has)} of the {side}; {_names(areas)} {_need(areas)} {share_text(need)}."
            )
    if areas and not _within((x0 + NOISE, x1 - NOISE, y0 + NOISE, y1 - NOISE), within):
        raise InvalidPlan(f"the present crop leaves out part of {_names(areas)}.")

    def place(size: float, first: float, last: float, focal: float, room: tuple[float, float]) -> float:
        # in this order the bounds of the picture win over what rounding makes of the areas
        return max(room[0], min(min(max(focal - size / 2, last - size), first), room[1] - size))

    x = place(w, x0, x1, picture.focal[0], (within.x0, within.x1))
    y = place(h, y0, y1, picture.focal[1], (within.y0, within.y1))
    return Rect(x=x, y=y, w=w, h=h)

"""Steps that change the frame: the whole picture, another ratio, more height."""

from __future__ import annotations

import math

from skypane.advice.remedies import Remedy, fails, works
from skypane.advice.trial import (
    asked_width,
    bounds_broken,
    freed_of_crop,
    holds_all,
    ratio_text,
    rounded_down,
    rounded_up,
    sizes_text,
    tried,
    what_changes,
)
from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect
from skypane.model import (
    Area,
    FixedHeight,
    Following,
    NaturalHeight,
    RatioHeight,
    ViewportHeight,
)
from skypane.shown.keeps import hull
from skypane.shown.nouns import ShownSpan
from skypane.shown.parts import cropped_ratio
from skypane.values import FLATTEST, MOST_PX, NARROWEST, NOISE


def ratio_bounds(
    picture_ratio: float, areas: tuple[Area, ...], crop: Rect = WHOLE
) -> tuple[float, float]:
    """Least and greatest frame ratio (width over height) in which some position keeps all areas
    whole.

    All of [a, b] can be kept iff b − a is at most the visible share: frame ratio ≥ (b − a)·picture
    ratio, likewise down.
    """
    around = hull(areas)
    return around.w * picture_ratio / crop.h, picture_ratio * crop.w / around.h


def _ratio_height(ratio: float, **bounds: float | None) -> RatioHeight:
    """The height rule of a ratio. Raises InvalidPlan where no frame can have it."""
    if not NARROWEST <= ratio <= FLATTEST:
        raise InvalidPlan(f"{ratio_text(ratio)} is no ratio that a frame can have.")
    w, h = (ratio, 1.0) if ratio >= 0.1 else (1.0, round(1 / ratio, 4))
    return RatioHeight.model_validate({"w": w, "h": h, **bounds})


def shown_whole(p: ShownSpan) -> Remedy:
    """At the natural ratio within the least and greatest height, else whole in the present
    frame."""
    if p.layout.words_lie_on(p.spot) and p.index == 0:
        return fails("whole", "Words lie on the picture, so it cannot simply be shown whole.")
    freed, without = freed_of_crop(p)
    bounds = {
        "least_px": p.effective.height.least_px,
        "greatest_px": p.effective.height.greatest_px,
    }
    natural = what_changes(p, height=NaturalHeight.model_validate(bounds), fit="cover", **freed)
    q = tried(p, what_changes(p, height=NaturalHeight(), fit="cover", **freed))
    figures = {
        "frame_width": round(float(q.W.min()), 1),
        "frame_height": round(float(q.H.min()), 1),
    }
    broken = bounds_broken(p, q)
    if not broken:
        if holds_all(q):
            return works(
                "whole",
                f"Nothing lies on the picture, so it can be shown whole{without}: {sizes_text(q)}.",
                f"Show it whole{without}",
                natural,
                **figures,
            )
        return fails("whole", "Shown whole, an area is still too small.", **figures)
    contained = what_changes(p, fit="contain", **freed)
    q = tried(p, contained)
    figures = {
        "frame_width": round(float(q.W.min()), 1),
        "frame_height": round(float(q.H.min()), 1),
    }
    refused = f"At its natural ratio {broken}"
    if not holds_all(q):
        return fails(
            "whole", f"{refused}; whole in the present frame an area is too small.", **figures
        )
    return works(
        "whole",
        f"{refused}; but it can be shown whole in the present frame{without}, {sizes_text(q)},"
        " with its colour beside it.",
        f"Show it whole in this frame{without}",
        contained,
        **figures,
    )


def solved_ratio(p: ShownSpan, crop: Rect | None = None) -> float | None:
    """The frame ratio nearest to the present one that holds all keep areas; None where the present
    one does.

    `crop` is another crop than the span's own.
    """
    low, high = ratio_bounds(p.original.width_px / p.original.height_px, p.keeps, crop or p.crop)
    present = p.W / p.H
    if present.min() < low:
        return min(rounded_up(low), high)
    if present.max() > high:
        return max(rounded_down(high), low)
    return None


def by_ratio(p: ShownSpan) -> Remedy:
    freed, without = freed_of_crop(p)
    crop = WHOLE if freed else p.crop
    ratio = solved_ratio(p, crop)
    if ratio is None:
        return fails("ratio", "The frame's ratio is not what is in the way.")
    low, high = ratio_bounds(p.original.width_px / p.original.height_px, p.keeps, crop)
    if low > high + NOISE:
        return fails("ratio", "No ratio holds them all: they reach beyond what the frame can show.")
    present = p.W / p.H
    bounds, kept = _bounded_by_present(p, float(present.min()) < low, float(present.max()) > high)
    treatment = what_changes(
        p, height=_ratio_height(ratio, **bounds), aim=Following(), fit="cover", **freed
    )
    q = tried(p, treatment)
    figures = {
        "ratio": ratio,
        "frame_width": round(float(q.W.min()), 1),
        "frame_height": round(float(q.H.min()), 1),
    }
    broken = bounds_broken(p, q)
    if broken or not holds_all(q):
        free = tried(
            p,
            what_changes(p, height=_ratio_height(ratio), aim=Following(), fit="cover", **freed),
        )
        broken = broken or (bounds_broken(p, free) if holds_all(free) else "")
        why = (
            f"{ratio_text(ratio)} would hold all, but {broken}."
            if broken
            else "At the ratio that holds all, one is still too small."
        )
        return fails("ratio", why, **figures)
    return works(
        "ratio",
        f"The nearest ratio that holds all areas{without} is {ratio_text(ratio)}{kept}:"
        f" {sizes_text(q)}.",
        f"Ratio {ratio_text(ratio)}{kept}{without}",
        treatment,
        **figures,
    )


def _bounded_by_present(
    p: ShownSpan, too_narrow: bool, too_flat: bool
) -> tuple[dict[str, float | None], str]:
    """Bounds for a ratio that takes the place of the span's height rule, and the same in words.

    A least and a greatest height that are set stay. A height in px or in shares of the viewport's
    becomes the greatest where frames were too high, the least where they were too flat, so that
    widths that are well stay as they are.
    """
    rule = p.effective.height
    bounds: dict[str, float | None] = {"least_px": rule.least_px, "greatest_px": rule.greatest_px}
    if isinstance(rule, RatioHeight):
        return {**bounds, "least_vh": rule.least_vh, "greatest_vh": rule.greatest_vh}, ""
    if not isinstance(rule, FixedHeight | ViewportHeight) or too_narrow == too_flat:
        return bounds, ""
    side, word = ("greatest", "at most") if too_narrow else ("least", "at least")
    if isinstance(rule, ViewportHeight) and side == "least" and rule.greatest_px is not None:
        # CSS lets the least win over the greatest, which is the designer's: where the viewport's
        # share is never below it the frame is as high as that; where it sometimes is, no one bound
        # says so
        share = p.spot.viewports.heights * rule.percent / 100
        if share.min() >= rule.greatest_px:
            height = rule.greatest_px
            return {**bounds, "least_px": height}, f", {word} {height:g} px high"
        if share.max() > rule.greatest_px:
            return bounds, ""
    if isinstance(rule, FixedHeight):
        height = min(max(rule.height_px, rule.least_px or 0), rule.greatest_px or MOST_PX)
        return {**bounds, f"{side}_px": height}, f", {word} {height:g} px high"
    return {
        **bounds,
        f"{side}_vh": rule.percent,
    }, f", {word} {rule.percent:g} % of the viewport high"


def by_height(p: ShownSpan) -> Remedy:
    """The least height raised until the picture is drawn large enough, as long as what has to be
    kept still fits across.

    A picture that covers a frame of height H is drawn at least H·w/h wide, so H has to reach
    asked·h/w.
    """
    rule = p.effective.height
    # of the whole original's drawn width, the crop has its share; both have the same scale
    height = asked_width(p) * p.crop.w / cropped_ratio(p.original, p.crop)
    least = math.ceil(round(height, 4))
    if least <= float(p.H.min()) + NOISE:
        return fails("taller", f"The frame is at least {p.H.min():.0f} px high, which is enough.")
    # the least height that is set stays where it asks for more
    least = max(least, math.ceil(rule.least_px or 0))
    times = least / float(p.H.min())
    figures = {"least_height": float(least), "times": round(times, 3)}
    if rule.greatest_px is not None and least > rule.greatest_px:
        return fails(
            "taller",
            f"The frame would have to be {least} px high; the greatest height that is set is"
            f" {rule.greatest_px:g} px.",
            **figures,
        )
    if least > MOST_PX:
        raise InvalidPlan(f"the frame would have to be {least} px high.")
    treatment = what_changes(
        p, height=rule.model_copy(update={"least_px": float(least)}), aim=Following(), fit="cover"
    )
    q = tried(p, treatment)
    if broken := bounds_broken(p, q):
        return fails("taller", f"At least {least} px high, {broken}.", **figures)
    if not holds_all(q):
        return fails(
            "taller",
            f"In a frame at least {least} px high, {times:.2f} times as high, an area is cut.",
            **figures,
        )
    return works(
        "taller",
        f"At least {least} px high, {times:.2f} times as high at its lowest, the frame draws"
        f" the picture large enough: {sizes_text(q)}.",
        f"Taller, at least {least} px",
        treatment,
        **figures,
    )

"""Crops that hold all areas."""

from __future__ import annotations

import math

import numpy as np

from skypane.advice.remedies import Remedy, fails, works
from skypane.advice.trial import (
    asked_width,
    holds_all,
    is_within,
    names_text,
    need_word,
    ratio_text,
    tried,
    what_changes,
)
from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect
from skypane.model import Area, Following
from skypane.numerals import share_text, shares_text, whole_px
from skypane.shown.fit import Picture
from skypane.shown.keeps import hull
from skypane.shown.nouns import Plan, ShownSpan
from skypane.shown.parts import cropped_ratio
from skypane.values import LEAST_SHARE, NOISE, Answer, once


class CropsOfAll(Answer):
    """By the place of their part: the largest crop of one ratio that holds an item's areas, or why
    there is none."""

    crops: dict[int, Rect]
    why_not: dict[int, str]


def crops_of_all(plan: Plan, letter: str, ratio: float) -> CropsOfAll:
    """Crops of one ratio, width over height, for all parts that show their picture in a span.
    Raises InvalidPlan where the site has no such span."""
    if letter not in {s.letter for s in plan.spans}:
        raise InvalidPlan(f"There is no span {letter} in this site.", field="chosen")
    found = CropsOfAll(crops={}, why_not={})
    for part in plan.written:
        p = part.of(letter)
        if not isinstance(p, ShownSpan):
            continue
        crop = crop_in_ratio(p, ratio)
        if isinstance(crop, Rect):
            found.crops[part.index] = crop
        else:
            found.why_not[part.index] = crop
    return found


@once
def crop_in_ratio(p: ShownSpan, ratio: float) -> Rect | str:
    """The largest crop of a ratio that holds all areas of what shows, or why there is none."""
    o = p.original
    try:
        return largest_crop(Picture(o.width_px, o.height_px, o.focal), ratio, p.keeps)
    except InvalidPlan as problem:
        return f"{o.name}: {problem}"


def by_tighter_crop(p: ShownSpan) -> Remedy:
    """A crop smaller than the present one, just tight enough for the least shown widths, as far as
    it stays whole and sharp."""
    asked = asked_width(p)
    ratios = p.W / p.H
    whole = Picture(p.original.width_px, p.original.height_px, p.original.focal)
    ratio = float(ratios.flat[0]) if np.ptp(ratios) < 1e-3 else cropped_ratio(p.original, p.crop)
    drawn = np.maximum(p.W, p.H * ratio)
    share = math.floor(float(drawn.min()) / asked * 1e5) / 1e5
    try:
        found = largest_crop(whole, ratio, p.keeps, widest=share, within=p.crop)
    except InvalidPlan as problem:
        return fails("crop", f"Cropped tight enough, {problem}", crop_share=share)
    needed, has = whole_px(float(drawn.max())), int(found.w * whole.w)
    figures = {"crop_share": round(found.w, 4), "crop_px": has, "needed_px": needed}
    if found.w * found.h >= p.crop.w * p.crop.h - NOISE:
        return fails("crop", "No smaller crop shows them larger in this frame.", **figures)
    if has < needed:
        return fails(
            "crop",
            f"Cropped tight enough it would be soft: {has} px wide where {needed} are needed"
            " at 1x.",
            **figures,
        )
    treatment = what_changes(p, crop=found, aim=Following(), fit="cover")
    if not holds_all(tried(p, treatment)):
        return fails("crop", "Cropped tight enough, an area is cut at some width.", **figures)
    sharp = "sharp at 2x" if has >= 2 * needed else f"{has / needed / 2:.2f}× sharp at 2x"
    return works(
        "crop",
        f"A tighter crop, {share_text(found.w)} of the width ({has} px), shows them large"
        f" enough and is {sharp}.",
        "Crop tighter",
        treatment,
        **figures,
    )


def largest_crop(
    picture: Picture,
    ratio: float,
    areas: tuple[Area, ...],
    widest: float = 1.0,
    within: Rect = WHOLE,
) -> Rect:
    """The largest rectangle of px ratio `ratio` inside the picture that contains all areas, nearest
    to the focal point.

    `widest` is the greatest share of the picture's width that it may have, `within` the part of the
    picture that it has to stay in. Raises InvalidPlan, with numbers, where the areas do not fit or
    no rectangle is left.
    """
    w = min(widest, within.w, within.h * ratio / picture.ratio)
    h = w * picture.ratio / ratio
    if min(w, h) < LEAST_SHARE:
        raise InvalidPlan(f"a crop of {ratio_text(ratio)} would be a hairline of this picture.")
    fx, fy = picture.focal
    held = hull(areas) if areas else Rect(x=fx, y=fy, w=0, h=0)
    for need, has, side in ((held.w, w, "width"), (held.h, h, "height")):
        if need > has + NOISE:
            shows, needs = shares_text(has, need)
            raise InvalidPlan(
                f"a crop of {ratio_text(ratio)} has {shows} of the {side};"
                f" {names_text(areas)} {need_word(areas)} {needs}."
            )
    if areas and not is_within(held, within, NOISE):
        raise InvalidPlan(f"the present crop leaves out part of {names_text(areas)}.")

    def place(
        size: float, first: float, last: float, focal: float, room: tuple[float, float]
    ) -> float:
        # in this order the bounds of the picture win over what rounding makes of the areas
        return max(room[0], min(min(max(focal - size / 2, last - size), first), room[1] - size))

    x = place(w, held.x, held.x1, picture.focal[0], (within.x, within.x1))
    y = place(h, held.y, held.y1, picture.focal[1], (within.y, within.y1))
    return Rect(x=x, y=y, w=w, h=h)

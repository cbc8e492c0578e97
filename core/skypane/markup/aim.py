"""The aim held by CSS: `object-position` of a picture that covers its frame (CSS Images 3,
§5.6)."""

from __future__ import annotations

from typing import Literal, NamedTuple

import numpy as np

from skypane.geometry import Rect
from skypane.model import Aim, FixedAim
from skypane.numerals import number
from skypane.shown.fit import Interval, Picture, Windows

#: Two shares of the picture that differ less than this show the same.
SAME_SHARE = 1e-6


class AxisPosition(NamedTuple):
    """One component of object-position, and the plain percentage nearest to it (for browsers
    without container units)."""

    css: str
    percent: str
    drawn: dict[str, str]  # the drawn extent, where `css` refers to it by var()
    held_by: tuple[str, ...]  # names of keep areas whose projection binds somewhere


def percent(fraction: float) -> str:
    return f"{number(round(fraction * 100, 3))}%"


def axis_position(
    axis: Literal["x", "y"],
    picture: Picture,
    shown: Windows,
    aim: Aim,
    cut: Rect,
    held: tuple[Interval, ...],
) -> AxisPosition:
    """One axis of object-position for a picture that covers its frame and was cut to `cut` (or to
    WHOLE).

    `held` are the keep areas that bind (see `binding`).

    A share that does not change gives a plain percentage. Otherwise a length, exact at every width:
    the frame's own extent is 100cqw × 100cqh of the container that the frame is (CSS Conditional 5,
    container query lengths).
    """
    if axis == "x":
        room, drawn, first, last = shown.W, shown.drawn_w, shown.x0, shown.x1
        focal, c0, c1 = picture.focal[0], cut.x, cut.x1
        unit, other, ratio = "cqw", "cqh", f"{number(picture.w)} / {number(picture.h)}"
    else:
        room, drawn, first, last = shown.H, shown.drawn_h, shown.y0, shown.y1
        focal, c0, c1 = picture.focal[1], cut.y, cut.y1
        unit, other, ratio = "cqh", "cqw", f"{number(picture.h)} / {number(picture.w)}"

    seen = last - first
    slack = (c1 - c0) - seen
    names = tuple(k.name for k in held)
    if isinstance(aim, FixedAim):
        fraction = aim.x if axis == "x" else aim.y
        return AxisPosition(percent(fraction), percent(fraction), {}, ())
    if slack.max() < SAME_SHARE:
        return AxisPosition("50%", "50%", {}, names)
    # the percentage that is right in the middle of the span, exact where nothing changes
    middle = (
        int(np.argmax(slack))
        if np.ptp(seen) < SAME_SHARE
        else int(np.argpartition(seen, seen.size // 2, axis=None)[seen.size // 2])
    )
    at = slack.flat[middle]
    plain = (
        percent(float(np.clip((first.flat[middle] - c0) / at, 0, 1))) if at > SAME_SHARE else "50%"
    )
    if np.ptp(seen) < SAME_SHARE and np.ptp(first) < SAME_SHARE:
        return AxisPosition(plain, plain, {}, names)

    always_slack = bool((drawn > room + 1e-9).all())
    extent = f"100{other} * {ratio}" if always_slack else f"max(100{unit}, 100{other} * {ratio})"
    var = f"--drawn-{'width' if axis == 'x' else 'height'}"
    d = f"var({var})"

    def times(fraction: float, of: str) -> str:
        return f"{number(round(fraction, 5))} * {of}"

    def less(length: str, fraction: float) -> str:
        """`length` minus a share of the drawn extent; beyond a crop's edges shares are negative."""
        return f"{length} {'+' if fraction < 0 else '-'} {times(abs(fraction), d)}"

    offset = less(f"50{unit}", focal)
    for area in reversed(held):
        lo = times(-area.first, d) if area.first else "0px"
        hi = less(f"100{unit}", area.last)
        fits = bool(((area.last - area.first) * drawn <= room + 1e-9).all())
        if fits:
            offset = f"clamp({lo}, {offset}, {hi})"
        else:
            offset = f"max(min({lo}, {hi}), min({offset}, max({lo}, {hi})))"
    length = f"min(0px, max(100{unit} - {d}, {offset}))"
    if c0 > SAME_SHARE:
        length = f"calc({length} + {times(c0, d)})"
    drawn_css = f"calc({extent})" if always_slack else extent
    return AxisPosition(length, plain, {var: drawn_css}, names)

"""A span as it would be with other values, and what is said of it."""

from __future__ import annotations

import math

import numpy as np

from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect
from skypane.model import Area, RatioHeight, Treatment
from skypane.numerals import number
from skypane.shown.keeps import all_whole, whole_picture
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.shown.parts import replanned
from skypane.treatments import own_values
from skypane.values import NOISE


def tried(p: ShownSpan, treatment: Treatment) -> ShownSpan:
    """The span as it would be with the treatment's values on top. Raises InvalidPlan where the
    frame would have no size."""
    if all(getattr(p.effective, f) == v for f, v in own_values(treatment).items()):
        return p
    q = replanned(p, treatment, p.original)
    if not isinstance(q, ShownSpan):
        raise InvalidPlan("Without a picture there is nothing to try.", field="show")
    return q


def rounded_up(ratio: float) -> float:
    """Rounded up to four significant digits, so that the slimmest ratio does not become 0."""
    by = 10.0 ** (3 - math.floor(math.log10(ratio)))
    return math.ceil(ratio * by - 1e-9) / by


def rounded_down(ratio: float) -> float:
    by = 10.0 ** (3 - math.floor(math.log10(ratio)))
    return math.floor(ratio * by + 1e-9) / by


def ratio_text(ratio: float) -> str:
    """A ratio as a sentence says it: 1.78:1, or 1:20 where the frame is higher than wide."""
    return (
        f"{number(float(f'{ratio:.3g}'))}:1"
        if ratio >= 0.1
        else f"1:{number(float(f'{1 / ratio:.3g}'))}"
    )


def bounds_broken(p: SpanPlan, q: SpanPlan) -> str:
    """Which least or greatest height of the span a frame would break, in words; "" where it breaks
    none."""
    bounds = p.effective.height
    low, high = _extremes(q)
    if bounds.least_px is not None and float(q.H.min()) < bounds.least_px - 0.01:
        return f"it is {low}, flatter than the least height of {bounds.least_px:g} px"
    if bounds.greatest_px is not None and float(q.H.max()) > bounds.greatest_px + 0.01:
        return f"it is {high}, higher than the greatest height of {bounds.greatest_px:g} px"
    if not isinstance(bounds, RatioHeight):
        return ""
    heights = p.spot.viewports.heights
    if bounds.greatest_vh is not None and (q.H > heights * bounds.greatest_vh / 100 + 0.01).any():
        return (
            f"it is higher somewhere than {bounds.greatest_vh:g} % of the viewport, the greatest"
            " height"
        )
    if bounds.least_vh is not None and (q.H < heights * bounds.least_vh / 100 - 0.01).any():
        return f"it is lower somewhere than {bounds.least_vh:g} % of the viewport, the least height"
    return ""


def _extremes(p: SpanPlan) -> tuple[str, str]:
    """The shortest and the tallest frame of a span, in words."""
    low, high = (np.unravel_index(int(i), p.H.shape) for i in (p.H.argmin(), p.H.argmax()))
    return _frame_at(p, low), _frame_at(p, high)


def _frame_at(p: SpanPlan, at: tuple[np.intp, ...]) -> str:
    return f"{p.W[at]:.0f} × {p.H[at]:.0f} at {int(p.viewport_w[at[1]])} px"


def sizes_text(p: SpanPlan) -> str:
    """The sizes of a frame in its span as one phrase: that at one end, or from one to the other."""
    low, high = _extremes(p)
    return low if low == high else f"from {low} to {high}"


def what_changes(p: ShownSpan, **values: object) -> Treatment:
    """A treatment that sets only what does not hold already."""
    return Treatment(**{f: v for f, v in values.items() if getattr(p.effective, f) != v})


def holds_all(q: ShownSpan) -> bool:
    """Whether every area that matters is whole and large enough at every width."""
    return all_whole(q.shown, q.keeps, whole_picture(q))


def names_text(areas: tuple[Area, ...]) -> str:
    names = [a.name for a in areas]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def need_word(areas: tuple[Area, ...]) -> str:
    """The verb that goes with the names of one area or several."""
    return "needs" if len(areas) == 1 else "need"


def is_within(rect: Rect, outer: Rect, slack: float = 0.0) -> bool:
    """Whether a rectangle lies in another one, to within `slack` on every side."""
    x0, x1, y0, y1 = rect.edges
    return (
        x0 + slack >= outer.x
        and x1 - slack <= outer.x1
        and y0 + slack >= outer.y
        and y1 - slack <= outer.y1
    )


def left_out_text(areas: tuple[Area, ...], crop: Rect) -> str:
    """What of some areas a crop leaves out: all of them, or a part."""
    gone = tuple(a for a in areas if not overlaps(a.rect, crop))
    cut = tuple(a for a in areas if overlaps(a.rect, crop))
    said = [f"all of {names_text(gone)}"] if gone else []
    said += [f"part of {names_text(cut)}"] if cut else []
    return f"the crop leaves out {' and '.join(said)}"


def overlaps(a: Rect, b: Rect) -> bool:
    """Whether two rectangles have more than an edge in common."""
    ax0, ax1, ay0, ay1 = a.edges
    bx0, bx1, by0, by1 = b.edges
    return min(ax1, bx1) - max(ax0, bx0) > NOISE and min(ay1, by1) - max(ay0, by0) > NOISE


def freed_of_crop(p: ShownSpan) -> tuple[dict[str, Rect], str]:
    """A crop that leaves out part of an area has to go before anything else can help: the value
    that takes it away, in words."""
    beyond = any(not is_within(a.rect, p.crop) for a in p.keeps)
    return ({"crop": WHOLE}, ", without the crop") if beyond else ({}, "")


def asked_width(p: ShownSpan) -> float:
    """How wide the whole original has to be drawn, in CSS px, so that every area has its least
    shown width."""
    return max((a.least_px / a.rect.w for a in p.keeps if a.least_px is not None), default=0.0)

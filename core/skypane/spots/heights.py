"""Height rules that a spot on a design may be of, the simplest first (rules §17): the usual ratios,
other ratios of small numbers, a share of the design's first screen, px."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from skypane.model import FixedHeight, HeightRule, RatioHeight, ViewportHeight
from skypane.model.frame import USUAL_RATIOS
from skypane.spots.nouns import NEAR_PX, Seen

#: The second number of another ratio is no greater than this.
MOST_SIDE = 32


def height_of(seen: Sequence[Seen]) -> HeightRule | None:
    """The simplest height rule that gives every rectangle that says its height, to within
    `NEAR_PX`; None where none does, or none says it."""
    told = [(s, h) for s in seen if (h := s.h) is not None]
    return next((rule for rule in _tried(told) if _fits(rule, told)), None) if told else None


_Told = Sequence[tuple[Seen, float]]


def _tried(told: _Told) -> Iterator[HeightRule]:
    ratio = sum(s.w / h for s, h in told) / len(told)
    for w, h in USUAL_RATIOS:
        yield RatioHeight(w=w, h=h)
    for h in range(1, MOST_SIDE + 1):
        w = round(ratio * h)
        if w:
            yield RatioHeight(w=w, h=h)
    first, high = told[0]
    if all(s.viewport_height for s, _ in told) and first.viewport_height:
        yield ViewportHeight(percent=max(1, round(100 * high / first.viewport_height)))
    yield FixedHeight(height_px=float(round(high)) if abs(high - round(high)) < 0.26 else high)
    # many rectangles of a ratio that small numbers do not say
    yield RatioHeight(w=round(ratio * 100) / 100, h=1)


def _fits(rule: HeightRule, told: _Told) -> bool:
    return all(abs(height_at(rule, s) - h) <= NEAR_PX for s, h in told)


def height_at(rule: HeightRule, seen: Seen) -> float:
    """How high a rule makes a frame as wide as a rectangle, in CSS px."""
    match rule:
        case RatioHeight():
            return seen.w * rule.h / rule.w
        case ViewportHeight():
            return (seen.viewport_height or 0) * rule.percent / 100
        case FixedHeight():
            return rule.height_px
    return 0

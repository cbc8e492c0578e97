"""The container, gutter and columns that the rectangles of a design share (rules §17)."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from itertools import combinations

from skypane.model import Container
from skypane.spots.nouns import NEAR_PX, Seen
from skypane.spots.widths import MOST_COLUMNS
from skypane.values import Answer

#: What lies between two rectangles is a gutter up to so many px.
MOST_GUTTER_PX = 120


class PageLines(Answer):
    """What a site's rectangles say of its page: a container where edges are shared on both sides, a
    gutter where rectangles stand beside each other, and the fewest columns that all of them stand
    on. `shared` says how many rectangles begin or end at the container's edges."""

    container: Container | None
    gutter_px: float | None
    columns: int | None
    shared: int


def lines_of(seen: Sequence[Seen], before: Container) -> PageLines:
    """Nothing is said that fewer than two rectangles share; what they do not tell of a container
    is as it is `before`."""
    edges = _edges(seen)
    container = _container(edges, before)
    gutter = _gutter(seen)
    return PageLines(
        container=container,
        gutter_px=gutter,
        columns=_columns(seen, edges, gutter or 0) if container else None,
        shared=sum(n for _, _, n in edges.values()),
    )


_Edges = dict[float, tuple[float, float, int]]


def _edges(seen: Sequence[Seen]) -> _Edges:
    """Per width of the design the two edges, in each other's place on both sides of the middle,
    that most rectangles begin or end at, and how many do."""
    out: _Edges = {}
    for width in dict.fromkeys(s.width for s in seen):
        mine = [s for s in seen if s.width == width]
        margins = [round(s.left) for s in mine] + [round(width - s.right) for s in mine]
        counted = Counter(m for m in margins if 0 < m < width / 2)
        sides = {
            m: (
                any(abs(s.left - m) <= NEAR_PX for s in mine),
                any(abs(width - s.right - m) <= NEAR_PX for s in mine),
            )
            for m in counted
        }
        both = [(n, -m) for m, n in counted.items() if all(sides[m])]
        n, m = max(both, default=(0, 0))
        if n >= 2:
            out[width] = (float(-m), float(width + m), n)
    return out


def _container(edges: _Edges, before: Container) -> Container | None:
    """As wide as it is seen at most; its margin where it is less wide than that."""
    if not edges:
        return None
    wide = {w: right - left for w, (left, right, _) in edges.items()}
    greatest = max(wide.values())
    margins = [(w - c) / 2 for w, c in wide.items() if c < greatest - NEAR_PX]
    if not margins:
        narrowest = min(w for w, c in wide.items() if c >= greatest - NEAR_PX)
        margin = min(before.margin_px, (narrowest - greatest) / 2)
    else:
        margin = min(margins)
    return Container(max_width_px=greatest, margin_px=margin)


def _gutter(seen: Sequence[Seen]) -> float | None:
    """What most often lies between rectangles that stand beside each other."""
    found = Counter(
        round(gap)
        for a, b in combinations(seen, 2)
        if a.width == b.width and _beside(a, b)
        for gap in (max(a.left, b.left) - min(a.right, b.right),)
        if 0 < gap <= MOST_GUTTER_PX
    )
    if not found:
        return None
    px, _ = max(found.items(), key=lambda item: (item[1], -item[0]))
    return float(px)


def _beside(a: Seen, b: Seen) -> bool:
    """Whether two rectangles share a row; those that do not say where they stand do."""
    if a.top is None or b.top is None or a.bottom is None or b.bottom is None:
        return True
    return min(a.bottom, b.bottom) > max(a.top, b.top)


def _columns(seen: Iterable[Seen], edges: _Edges, gutter: float) -> int | None:
    """The fewest columns, two or more, on which every rectangle inside the container stands."""
    inside = [
        (s.left - left, s.right - left, right - left)
        for s in seen
        if s.width in edges
        for left, right, _ in (edges[s.width],)
        if s.left >= left - NEAR_PX and s.right <= right + NEAR_PX
    ]
    parts = [(a, b, c) for a, b, c in inside if b - a < c - NEAR_PX]
    if not parts:
        return None
    for n in range(2, MOST_COLUMNS + 1):
        if all(_stands_on(a, b, c, n, gutter) for a, b, c in parts):
            return n
    return None


def _stands_on(a: float, b: float, holder: float, n: int, gutter: float) -> bool:
    step = (holder + gutter) / n
    first, last = round(a / step), round((b + gutter) / step)
    return abs(first * step - a) <= NEAR_PX and abs(last * step - gutter - b) <= NEAR_PX

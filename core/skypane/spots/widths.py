"""Width rules that a spot on a design may be of, the simplest first (rules §17).

Every rule is share · holder + constant, so that all of them are held against all rectangles at
once. What few rectangles cannot tell apart is told by what is simpler: the page, the container, a
share in whole per cents, columns, px (common practice).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from fractions import Fraction
from typing import Literal, NamedTuple

import numpy as np

from skypane.model import (
    ColumnsWidth,
    Container,
    FixedWidth,
    FullWidth,
    ShareWidth,
    WidthRule,
)
from skypane.spots.nouns import NEAR_PX, Seen
from skypane.widths.frames import Floats, column_share, frame_widths, holder_widths

Holder = Literal["page", "container"]
#: Page before container: where both are alike, as on a page without margins, it is the page.
HOLDERS: tuple[Holder, ...] = ("page", "container")
#: How many columns a design has at most, and which gutters are tried beside the site's own.
MOST_COLUMNS, GUTTERS = 12, tuple(range(0, 65, 4))
#: So near are boxes that a browser has laid out, which it does in steps of 1/64 px.
EXACT_PX = 4 / 64
#: Shares that have a name: the hundredths after them, then halves and thirds of those.
_PARTS = (1, 2, 3)
_THIRDS = tuple(Fraction(n, 3) for n in (50, 100, 200, 250))


class Candidate(NamedTuple):
    """A rule without bounds: how simple its kind is, 0 the simplest, and how simple it is among its
    kind: how many columns there are. `share` of the holder and `constant` px."""

    rank: int
    simple: int
    holder: Holder
    share: float
    constant: float
    rule: WidthRule

    @property
    def order(self) -> tuple[int, int]:
        return self.rank, self.simple


(
    FULL,
    CONTAINER,
    WHOLE_PERCENT,
    HALF_PERCENT,
    THIRD_PERCENT,
    COLUMNS,
    OTHER_COLUMNS,
    FIXED,
    MARGINS,
    ANY_SHARE,
    ANY_GUTTER,
) = range(11)


def candidates(seen: Sequence[Seen], container: Container, gutter_px: float) -> list[Candidate]:
    """All rules that are tried for rectangles, without bounds."""
    return [
        Candidate(FULL, 0, "page", 1, 0, FullWidth()),
        Candidate(CONTAINER, 0, "container", 1, 0, ShareWidth(percent=100, of="container")),
        *_shares(),
        *_columns(COLUMNS, (gutter_px,)),
        *_columns(OTHER_COLUMNS, [g for g in GUTTERS if g != gutter_px]),
        *_of_rectangles(seen, container),
    ]


def _shares() -> Iterator[Candidate]:
    for rank, part in zip((WHOLE_PERCENT, HALF_PERCENT, THIRD_PERCENT), _PARTS, strict=True):
        for n in range(1, 100 * part):
            percent = Fraction(n, part)
            if part > 1 and percent.denominator == 1:
                continue
            as_simple = WHOLE_PERCENT if percent in _THIRDS else rank
            for of in HOLDERS:
                value = round(float(percent), 4)
                rule = ShareWidth(percent=value, of=of)
                yield Candidate(as_simple, 0, of, value / 100, 0, rule)


def _columns(rank: int, gutters: Sequence[float]) -> Iterator[Candidate]:
    """The container before the page: columns are most often its."""
    for of in reversed(HOLDERS):
        for columns in range(2, MOST_COLUMNS + 1):
            for take in range(1, columns):
                for gutter in gutters:
                    if gutter == 0:
                        continue  # a share says the same
                    yield _columns_of(rank, of, columns, take, gutter)


def _columns_of(rank: int, of: Holder, columns: int, take: int, gutter: float) -> Candidate:
    rule = ColumnsWidth(columns=columns, take=take, gutter_px=gutter, of=of)
    return Candidate(rank, columns, of, *column_share(rule), rule)


def _of_rectangles(seen: Sequence[Seen], container: Container) -> Iterator[Candidate]:
    """Rules whose numbers are those of a rectangle."""
    v = np.array([s.width for s in seen])
    for s in seen:
        px = _round(s.w)
        yield Candidate(FIXED, 0, "page", 0, px, FixedWidth(width_px=px))
        margin = _round((s.width - s.w) / 2)
        if 0 < margin <= 1000 and (len(seen) > 1 or abs(s.left - margin) <= NEAR_PX):
            less = FullWidth(margin_px=margin)
            yield Candidate(MARGINS, 0, "page", 1, -2 * margin, less)
    if len(seen) < 2:
        return
    for of in HOLDERS:
        holder = holder_widths(of, v, container)
        for s, whole in zip(seen, holder, strict=True):
            percent = round(100 * s.w / whole, 2) if whole > 0 else 0
            if 0.01 <= percent <= 1000:
                rule = ShareWidth(percent=percent, of=of)
                yield Candidate(ANY_SHARE, 0, of, percent / 100, 0, rule)
            yield from _columns_as_wide(of, s.w, whole)


def _columns_as_wide(of: Holder, px: float, holder: float) -> Iterator[Candidate]:
    """Columns with the gutter with which so many of them are so wide."""
    for columns in range(2, MOST_COLUMNS + 1):
        for take in range(1, columns):
            gutter = _round((take * holder - columns * px) / (columns - take))
            if 0 < gutter <= 1000:
                yield _columns_of(ANY_GUTTER, of, columns, take, gutter)


def _round(px: float) -> float:
    """A length as a designer would have it: whole where it nearly is."""
    return float(round(px)) if abs(px - round(px)) < 0.26 else round(px, 2)


class Fit(NamedTuple):
    """A rule that gives the widths of all rectangles: whether exactly, how simple it is, and how
    far it is from them at most, in px."""

    order: tuple[bool, int, int, int]
    off: float
    rule: WidthRule


def fitting(seen: Sequence[Seen], container: Container, gutter_px: float) -> list[Fit]:
    """The rules that give the width of every rectangle to within `NEAR_PX`: those without bounds
    first, then those that a greatest, and a least, width of a rectangle's holds."""
    tried = candidates(seen, container, gutter_px)
    wanted = np.array([s.w for s in seen])
    v = np.array([s.width for s in seen])
    holders = {of: holder_widths(of, v, container) for of in HOLDERS}
    share = np.array([c.share for c in tried])[:, None]
    constant = np.array([c.constant for c in tried])[:, None]
    is_page = np.array([c.holder == "page" for c in tried])[:, None]
    free = share * np.where(is_page, holders["page"], holders["container"]) + constant
    out = _within(tried, free, wanted, 0, lambda rule: rule)
    if len(seen) < 2:
        return out
    for bound in dict.fromkeys(_round(s.w) for s in seen):
        greatest = _bounded("greatest_px", bound)
        out += _within(tried, np.minimum(free, bound), wanted, 1, greatest, free, bound)
        least = _bounded("least_px", bound)
        out += _within(tried, np.maximum(free, bound), wanted, 2, least, free, bound)
    return out


def _bounded(field: str, px: float) -> Callable[[WidthRule], WidthRule]:
    return lambda rule: rule.model_copy(update={field: px})


def _within(
    tried: Sequence[Candidate],
    widths: Floats,
    wanted: Floats,
    bounds: int,
    bounded: Callable[[WidthRule], WidthRule],
    free: Floats | None = None,
    bound: float = 0,
) -> list[Fit]:
    off = np.abs(widths - wanted).max(axis=1)
    fits = off <= NEAR_PX
    if free is not None:
        # a bound that holds nowhere, or everywhere, is none
        held = np.abs(free - bound) > NEAR_PX
        at_bound = held & (np.abs(widths - bound) < 1e-9)
        fits &= at_bound.any(axis=1) & ~at_bound.all(axis=1)
    # a rectangle that ends within a px was measured, and not drawn by hand
    measured = bool((np.abs(wanted - np.rint(wanted)) > EXACT_PX).any())
    # and with one alone something odd is nearly always near
    from_rank = 0 if measured else HALF_PERCENT if len(wanted) < 2 else ANY_GUTTER + 1
    return [
        Fit(
            (tried[i].rank >= from_rank and bool(off[i] > EXACT_PX), bounds, *tried[i].order),
            float(off[i]),
            bounded(tried[i].rule),
        )
        for i in np.flatnonzero(fits).tolist()
    ]


def px_at(rule: WidthRule, container: Container, widths: Sequence[float]) -> tuple[float, ...]:
    """How wide a frame is at some viewport widths, in CSS px."""
    found = frame_widths(rule, np.array(widths, dtype=float), container)
    return tuple(round(float(px), 2) for px in found)

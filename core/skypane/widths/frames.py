"""How big a frame is at every viewport width.

A width rule is a piecewise linear function of the viewport width v; its holder is the page or the
container C(v) = min(max_width, v − 2·margin). Columns with gutter: one = (C − (n−1)·g)/n, k columns
= k·one + (k−1)·g (common practice). Boxes follow CSS Sizing 4 (`aspect-ratio`).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from skypane.model import (
    ColumnsWidth,
    Container,
    FixedHeight,
    FixedWidth,
    FullWidth,
    HeightRange,
    HeightRule,
    NaturalHeight,
    PercentColumnsWidth,
    RatioHeight,
    ShareWidth,
    Site,
    Stands,
    ViewportHeight,
    WidthRule,
)

Floats = NDArray[np.float64]


def _clamped(values: Floats, least: float | None, greatest: float | None) -> Floats:
    """CSS order: the least wins over the greatest."""
    if greatest is not None:
        values = np.minimum(values, greatest)
    if least is not None:
        values = np.maximum(values, least)
    return values


def column_share(rule: ColumnsWidth) -> tuple[float, float]:
    """Width of the columns as (share of the holder, constant px): k·(C − (n−1)g)/n + (k−1)g."""
    share = rule.take / rule.columns
    constant = (rule.take - 1) * rule.gutter_px - share * (rule.columns - 1) * rule.gutter_px
    return share, constant


def holder_widths(of: str, viewport_widths: Floats, container: Container) -> Floats:
    """Width of the page or of the container in CSS px at each viewport width."""
    if of == "page":
        return viewport_widths
    return np.minimum(container.max_width_px, viewport_widths - 2 * container.margin_px)


def frame_widths(rule: WidthRule, viewport_widths: Floats, container: Container) -> Floats:
    """Frame width in CSS px at each viewport width; never negative."""
    free = free_widths(rule, viewport_widths, container)
    return np.maximum(_clamped(free, rule.least_px, rule.greatest_px), 0)


def free_widths(rule: WidthRule, viewport_widths: Floats, container: Container) -> Floats:
    """Frame width in CSS px at each viewport width before its least and greatest; negative where
    gutters or margins take more than there is."""
    v = np.asarray(viewport_widths, dtype=np.float64)

    def holder(of: str) -> Floats:
        return holder_widths(of, v, container)

    match rule:
        case FixedWidth():
            widths = np.full_like(v, rule.width_px)
        case FullWidth():
            widths = v - 2 * rule.margin_px
        case ShareWidth():
            widths = holder(rule.of) * rule.percent / 100
        case ColumnsWidth():
            share, constant = column_share(rule)
            widths = holder(rule.of) * share + constant
        case PercentColumnsWidth():
            widths = holder(rule.of) * rule.frame_percent / 100
    return widths


def frame_heights(
    rule: HeightRule, widths: Floats, viewport_heights: Floats, natural_ratio: float
) -> Floats:
    """Frame height in CSS px for frames of the given widths. `natural_ratio` is the picture's
    (crop's) width over height."""
    match rule:
        case RatioHeight():
            heights = widths * rule.h / rule.w
        case NaturalHeight():
            heights = widths / natural_ratio
        case FixedHeight():
            heights = np.full_like(widths, rule.height_px)
        case ViewportHeight():
            heights = np.broadcast_to(viewport_heights * rule.percent / 100, widths.shape).astype(
                np.float64
            )
    if isinstance(rule, RatioHeight):
        if rule.greatest_vh is not None:
            heights = np.minimum(heights, viewport_heights * rule.greatest_vh / 100)
        heights = _clamped(heights, None, rule.greatest_px)
        if rule.least_vh is not None:
            heights = np.maximum(heights, viewport_heights * rule.least_vh / 100)
        return _clamped(heights, rule.least_px, None)
    return _clamped(heights, rule.least_px, rule.greatest_px)


def standing_left(
    stands: Stands, rule: WidthRule, viewport_widths: Floats, widths: Floats, container: Container
) -> Floats:
    """How far from the page's left edge a frame stands that is narrower than its holder, in CSS px
    (see `standing_css`)."""
    free = viewport_widths - widths
    if stands == "centre":
        return np.maximum(free / 2, 0.0)
    side = np.zeros_like(free)
    if getattr(rule, "of", "page") == "container":
        side = np.maximum(container.margin_px, (viewport_widths - container.max_width_px) / 2)
    out: Floats = side if stands == "start" else np.maximum(free - side, 0.0)
    return out


class Viewports(NamedTuple):
    """The viewports of a span in CSS px: whole widths, and per width the least, typical and
    greatest height, (3, widths)."""

    widths: Floats
    heights: Floats


@lru_cache(maxsize=64)
def viewports_of(heights: tuple[HeightRange, ...], first: int, last: int) -> Viewports:
    """All viewports from one width to another, both included."""
    v = np.arange(first, last + 1, dtype=np.float64)
    return Viewports(v, np.stack(viewport_heights(heights, v)))


def viewport_heights(
    heights: Sequence[HeightRange], viewport_widths: Floats
) -> tuple[Floats, Floats, Floats]:
    """Least, typical and greatest viewport height in CSS px that occur at each viewport width."""
    rows = sorted(heights, key=lambda r: r.to_px)
    edges = np.array([r.to_px for r in rows])
    index = np.minimum(np.searchsorted(edges, viewport_widths, side="left"), len(rows) - 1)

    def column(values: list[int]) -> Floats:
        return np.array(values, dtype=np.float64)[index]

    return (
        column([r.least_px for r in rows]),
        column([r.typical_px for r in rows]),
        column([r.greatest_px for r in rows]),
    )


class Piece(NamedTuple):
    """A stretch of viewport widths, up to and with `until`, over which a frame is share·v +
    constant px wide."""

    until: float
    share: float
    constant: float


def width_pieces(rule: WidthRule, container: Container) -> list[Piece]:
    """The width rule as the straight lines that it is made of, from the narrowest viewport; the
    last one goes on for ever."""
    holder = [Piece(math.inf, 1.0, 0.0)]
    if getattr(rule, "of", "page") == "container":
        filled = container.max_width_px + 2 * container.margin_px
        holder = [
            Piece(filled, 1.0, -2 * container.margin_px),
            Piece(math.inf, 0.0, container.max_width_px),
        ]
    match rule:
        case FixedWidth():
            pieces = [Piece(math.inf, 0.0, rule.width_px)]
        case FullWidth():
            pieces = [Piece(math.inf, 1.0, -2 * rule.margin_px)]
        case ShareWidth() | PercentColumnsWidth():
            part = (rule.percent if isinstance(rule, ShareWidth) else rule.frame_percent) / 100
            pieces = [Piece(p.until, p.share * part, p.constant * part) for p in holder]
        case ColumnsWidth():
            share, constant = column_share(rule)
            pieces = [
                Piece(p.until, p.share * share, p.constant * share + constant) for p in holder
            ]
    if rule.greatest_px is not None:
        pieces = _cut_at(pieces, rule.greatest_px, above=True)
    return _cut_at(pieces, rule.least_px or 0.0, above=False)


def _cut_at(pieces: list[Piece], bound: float, *, above: bool) -> list[Piece]:
    """Pieces of a straight line, with what is above (or below) a bound put on the bound."""
    out: list[Piece] = []
    start = 0.0
    for piece in pieces:
        meets = (bound - piece.constant) / piece.share if piece.share else math.inf
        for until in sorted({min(max(meets, start), piece.until), piece.until}):
            middle = start + 1 if math.isinf(until) else (start + until) / 2
            beyond = (piece.share * middle + piece.constant > bound) == above
            if until > start:
                out.append(
                    Piece(until, 0.0, bound)
                    if beyond
                    else Piece(until, piece.share, piece.constant)
                )
            start = until
    return out


def depends_on_viewport_height(rule: HeightRule) -> bool:
    if isinstance(rule, RatioHeight):
        return rule.least_vh is not None or rule.greatest_vh is not None
    return isinstance(rule, ViewportHeight)


def typical_height(site: Site, width: int) -> int:
    """The viewport height that goes with a viewport width, in CSS px."""
    return int(viewport_heights(site.heights, np.array([float(width)]))[1][0])

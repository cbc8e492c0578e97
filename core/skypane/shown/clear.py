"""What words and marks lie on: whether they cover a keep area, and whether they fit their
banner."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from skypane.geometry import Rect
from skypane.layouts import column_and_row
from skypane.model import Place
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.widths.frames import Floats
from skypane.words.block import Block

#: An area is covered from this share on: the leeway that an area drawn by hand has.
COVERED = 0.005


class Edges(NamedTuple):
    """Rectangles in CSS px from the picture's frame, (heights, widths) each."""

    x0: Floats
    x1: Floats
    y0: Floats
    y1: Floats


def overlap_of(a: Edges, b: Edges) -> Floats:
    """The common part of two rectangles, in px²."""
    across = np.clip(np.minimum(a.x1, b.x1) - np.maximum(a.x0, b.x0), 0, None)
    down = np.clip(np.minimum(a.y1, b.y1) - np.maximum(a.y0, b.y0), 0, None)
    out: Floats = across * down
    return out


def drawn(p: ShownSpan, rect: Rect) -> Edges:
    """Where a rectangle of the original is drawn in the frame."""
    s = p.shown
    x0, x1, y0, y1 = rect.edges
    left, top = s.x0 * s.drawn_w, s.y0 * s.drawn_h
    ox = oy = np.zeros_like(p.W)
    if p.effective.fit == "contain":
        ox, oy = (p.W - p.inside.drawn_w) / 2, (p.H - p.inside.drawn_h) / 2
    return Edges(
        x0 * s.drawn_w - left + ox,
        x1 * s.drawn_w - left + ox,
        y0 * s.drawn_h - top + oy,
        y1 * s.drawn_h - top + oy,
    )


def block_edges(p: SpanPlan, place: Place | None = None) -> tuple[Edges, ...]:
    """What of the words covers the picture: every text, or the box behind them where there is
    one. `place` is another one of the nine."""
    laid, v = p.laid, p.on_picture
    block = laid.block
    if block is None or laid.words is None or v.shows != "on":
        return ()
    x, y = laid.words.x - laid.area.x, laid.words.y - laid.area.y
    if place is not None:
        x, y = corner(p, block, place)
    if v.box.strength:
        return (Edges(x, x + block.w, y, y + block.h),)
    out = []
    for t in block.texts:
        pad = 0.0 if t.fill is None else 0.6 * t.size_px
        out.append(Edges(x + t.x - pad, x + t.x + t.w + pad, y + t.y - pad, y + t.y + t.h + pad))
    return tuple(out)


def corner(p: SpanPlan, block: Block, place: Place) -> tuple[Floats, Floats]:
    """The block's corner in one of the nine places, relative to the picture's frame."""
    across, down = column_and_row(place)
    m = p.on_picture.margin_px
    x = m + across * (p.W - 2 * m - block.w)
    return x, m + down * (p.H - 2 * m - block.h)


def covered(p: SpanPlan, edges: tuple[Edges, ...]) -> dict[str, Floats]:
    """Per keep area the share of it that lies under the edges, (widths,), at the worst viewport
    height; only of areas that are covered somewhere."""
    out: dict[str, Floats] = {}
    if not isinstance(p, ShownSpan) or not edges:
        return out
    for area in p.keeps:
        at = drawn(p, area.rect)
        size = (at.x1 - at.x0) * (at.y1 - at.y0)
        share = sum(overlap_of(at, e) for e in edges) / size
        worst = np.minimum(1.0, np.asarray(share)).max(axis=0)
        if (worst > COVERED).any():
            out[area.name] = worst
    return out


def in_quiet(p: SpanPlan, edges: tuple[Edges, ...]) -> float:
    """The least share of the words that lies in quiet areas, over the span."""
    if not isinstance(p, ShownSpan) or not edges:
        return 0.0
    quiet = [drawn(p, a.rect) for a in p.original.areas if a.kind == "quiet"]
    size = sum((e.x1 - e.x0) * (e.y1 - e.y0) for e in edges)
    inside = sum((overlap_of(e, q) for e in edges for q in quiet), start=np.zeros_like(p.W))
    return float(np.minimum(1.0, inside / size).min()) if quiet else 0.0


def outgrown(p: SpanPlan) -> Floats:
    """By how many CSS px the banner grows for what lies on it, (widths,), at the worst viewport
    height; 0 where it fits."""
    laid = p.laid
    if laid.block is None:
        return np.zeros(p.W.shape[1])
    over: Floats = np.maximum(laid.asked - laid.own, 0).max(axis=0)
    return np.where(over > 0.5, over, 0.0)

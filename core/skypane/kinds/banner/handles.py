"""What can be pulled of a banner: its picture's edges, its words, and what lies on it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import cast

from skypane.kinds.banner.values import BannerValues
from skypane.layouts import (
    Box,
    Edge,
    Handle,
    Layout,
    Spot,
    box_left,
    column_and_row,
    frame_box,
    height_handles,
    value_handle,
    width_handles,
)
from skypane.model import Place


def handles_of(spot: Spot, layout: Layout) -> Iterator[Handle]:
    def whole(s: Spot) -> Box:
        laid, left = layout.laid(s), box_left(s)
        return left, 0.0, left + float(laid.box_w[0, 0]), float(laid.box_h[0, 0])

    def picture(s: Spot) -> Box:
        return frame_box(s, layout.laid(s).area)

    yield from height_handles(spot, 0, picture)
    yield from width_handles(spot, whole)
    if layout.laid(spot).block is not None:
        yield from _of_words(spot, layout)
    v = _values(spot)
    for part, cell in enumerate(spot.cells):
        if not part or cell.effective.show == "nothing" or cell.effective.original is None:
            continue
        if cell.role == "inset":
            edge = _far_side(_frame_of(layout, part), v.inset_place)
            yield value_handle(spot, "inset_px", "Size of the inset", "x", edge)
        else:
            edge = _far_side(_frame_of(layout, part), v.mark_place)
            yield value_handle(spot, "mark_percent", "Width of the mark", "x", edge)


def _of_words(spot: Spot, layout: Layout) -> Iterator[Handle]:
    def words(s: Spot) -> Box:
        laid = layout.laid(s)
        return frame_box(s, laid.words or laid.area)

    def line(s: Spot) -> Edge:
        """Between picture and words that stand beside it."""
        x0, y0, x1, y1 = frame_box(s, layout.laid(s).area)
        x = x1 if _values(s).side == "end" else x0
        return Edge(x, y0, x, y1)

    def heading(s: Spot) -> Edge:
        """The lower end of the heading, towards the words' end."""
        x0, y0, x1, _ = words(s)
        block = layout.laid(s).block
        found = next((t for t in block.texts if t.id == "heading"), None) if block else None
        y = y0 + (float(found.y[0] + found.h[0]) if found else 0.0)
        return Edge((x0 + x1) / 2, y, x1, y)

    v = _values(spot)
    yield value_handle(spot, "percent", "Width of the words", "x", _far_side(words, v.place))
    if spot.words is not None and spot.words.heading.strip():
        yield value_handle(spot, "heading_px", "Size of the heading", "y", heading, step=0.5)
    if v.shows == "beside":
        yield value_handle(spot, "share_percent", "Between picture and words", "x", line)
    across, _ = column_and_row(v.place)
    if across != 0.5:
        near = _far_side(words, "end" if across == 0 else "start")
        yield value_handle(spot, "margin_px", "Margin of what lies on it", "x", near, step=0.5)


def _values(spot: Spot) -> BannerValues:
    return cast(BannerValues, spot.values)


def _frame_of(layout: Layout, part: int) -> Callable[[Spot], Box]:
    return lambda spot: frame_box(spot, layout.frame(spot, part))


def _far_side(box: Callable[[Spot], Box], place: Place) -> Callable[[Spot], Edge]:
    """The side that moves when a box grows that stands at a place."""
    across, _ = column_and_row(place)

    def edge(s: Spot) -> Edge:
        x0, y0, x1, y1 = box(s)
        x = x0 if across == 1 else x1
        return Edge(x, y0, x, y1)

    return edge

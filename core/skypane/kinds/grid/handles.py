"""What can be pulled of a grid: its box, how many columns it has, what is between and around them,
and how high its items are."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from skypane.kinds.grid.arranged import laid_out, values_of
from skypane.kinds.grid.values import OWN_RATIOS
from skypane.layouts import (
    Box,
    Edge,
    Handle,
    Spot,
    box_left,
    frame_box,
    height_handles,
    value_handle,
    width_handles,
)
from skypane.widths.frames import frame_widths

#: So many items are laid out to tell where handles are: the first two of cells, which are as wide
#: however many there are; a row or more where they are as wide as their neighbours leave them.
_TWO, _A_ROW = 2, 40


def handles_of(spot: Spot) -> Iterator[Handle]:
    v, shown = values_of(spot), spot.shown
    if v.arranged == "hidden" or not shown:
        return
    first = shown[0]
    few = shown[: _A_ROW if v.arranged == "justified" else _TWO][-1] + 1

    def at(s: Spot, item: int) -> Box:
        found = laid_out(replace(s, cells=s.cells[:few])).frames[item]
        left = box_left(s)
        return (left, 0.0, left, 0.0) if found is None else frame_box(s, found)

    def one(s: Spot) -> Box:
        return at(s, first)

    def whole(s: Spot) -> Box:
        left, (_, _, _, y1) = box_left(s), one(s)
        e = s.cells[first].effective
        return left, 0.0, left + float(frame_widths(e.width, s.page_widths, s.container)[0]), y1

    def start(s: Spot) -> Edge:
        x0, y0, _, y1 = one(s)
        return Edge(x0, y0, x0, y1)

    def end(s: Spot) -> Edge:
        _, y0, x1, y1 = one(s)
        return Edge(x1, y0, x1, y1)

    if v.arranged not in OWN_RATIOS:
        yield from height_handles(spot, first, one, of_all=True)
    yield from width_handles(spot, whole, of_all=True)
    if v.arranged in ("cells", "slides", "masonry"):
        most = min(24, max(len(shown), v.columns))
        yield value_handle(spot, "columns", "Columns", "x", end, most=most)
    if len(shown) > 1 and v.arranged != "justified":
        second = shown[1]
        beside = at(spot, second)[0] > one(spot)[0] + 0.5

        def gutter(s: Spot) -> Edge:
            """Where the second item begins, beside the first or under it."""
            x0, y0, x1, y1 = at(s, second)
            return Edge(x0, y0, x0, y1) if beside else Edge(x0, y0, x1, y0)

        yield value_handle(spot, "gutter_px", "Gutter", "x" if beside else "y", gutter, step=0.5)
    if v.arranged == "rows":
        yield value_handle(spot, "share_percent", "Between picture and text", "x", end)
    yield value_handle(spot, "margin_px", "Outer margin", "x", start, step=0.5)

"""What can be pulled of pictures with text beside them: the line between picture and text, what is
around and between."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import cast

from skypane.kinds.beside.values import BesideValues
from skypane.layouts import (
    Box,
    Edge,
    Frame,
    Handle,
    Spot,
    box_left,
    choice_handle,
    frame_box,
    height_handles,
    value_handle,
    width_handles,
)
from skypane.widths.frames import frame_widths

FramesOf = Callable[[Spot], Sequence[Frame]]


def handles_of(spot: Spot, frames: FramesOf) -> Iterator[Handle]:
    if not spot.shown:
        return
    v, first = cast(BesideValues, spot.values), spot.shown[0]
    # the first row is all that handles stand on
    few = max(spot.shown[: v.columns + 1]) + 1

    def at(s: Spot, item: int) -> Box:
        return frame_box(s, frames(replace(s, cells=s.cells[:few]))[item])

    def picture(s: Spot) -> Box:
        return at(s, first)

    def whole(s: Spot) -> Box:
        left, (_, _, _, y1) = box_left(s), picture(s)
        e = s.cells[first].effective
        wide = float(frame_widths(e.width, s.page_widths, s.container)[0])
        return left, 0.0, left + wide, y1

    def near(s: Spot) -> Edge:
        """The picture's edge towards the text."""
        x0, y0, x1, y1 = picture(s)
        x = x0 if cast(BesideValues, s.values).side == "end" else x1
        return Edge(x, y0, x, y1)

    def outer(s: Spot) -> Edge:
        x0, _, _, y1 = whole(s)
        x = x0 + cast(BesideValues, s.values).margin_px
        return Edge(x, 0.0, x, y1)

    yield from height_handles(spot, first, picture, of_all=True)
    yield from width_handles(spot, whole, of_all=True)
    if v.share_percent < 100:

        def middle(s: Spot) -> Edge:
            x0, y0, x1, y1 = picture(s)
            at = (x0 + x1) / 2, (y0 + y1) / 2
            return Edge(*at, *at)

        if v.columns == 1 and v.side != "alternate":
            sides = ("start", "end")
            yield choice_handle(spot, "side", sides, "Side of the picture", "x", middle)
        yield value_handle(spot, "share_percent", "Between picture and text", "x", near)
    yield value_handle(spot, "margin_px", "Outer margin", "x", outer, step=0.5)
    if v.columns > 1 and len(spot.shown) > 1:
        second = spot.shown[1]

        def gutter(s: Spot) -> Edge:
            x0, y0, _, y1 = at(s, second)
            return Edge(x0, y0, x0, y1)

        if v.side == "start" or v.share_percent == 100:
            yield value_handle(spot, "gutter_px", "Gutter", "x", gutter, step=0.5)

"""What can be pulled of a slideshow: its box, how many slides show and what is between them."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.kinds.slides.row import controls_on, row_of, values_of
from skypane.layouts import (
    Box,
    Edge,
    Handle,
    Spot,
    box_left,
    height_handles,
    place_handles,
    value_handle,
    width_handles,
)
from skypane.widths.frames import Floats


def handles_of(spot: Spot) -> Iterator[Handle]:
    shown = spot.shown
    if not shown:
        return
    first = shown[0]

    def slide(s: Spot) -> Box:
        row, left = row_of(s), box_left(s)
        wide = float(row.slide[0])
        high = float(s.frame_heights(first, row.slide)[0, 0])
        return left, 0.0, left + wide, high

    def whole(s: Spot) -> Box:
        left, _, _, high = slide(s)
        return left, 0.0, left + float(row_of(s).box[0]), high

    def end(s: Spot) -> Edge:
        _, y0, x1, y1 = slide(s)
        return Edge(x1, y0, x1, y1)

    def second(s: Spot) -> Edge:
        _, y0, x1, y1 = slide(s)
        x = x1 + values_of(s).gutter_px
        return Edge(x, y0, x, y1)

    yield from height_handles(spot, first, whole, of_all=True)
    yield from width_handles(spot, whole, of_all=True)
    if len(shown) > 1 and not values_of(spot).is_stacked:
        most = min(12, len(shown))
        yield value_handle(spot, "at_a_time", "Slides at a time", "x", end, most=most)
    if values_of(spot).at_a_time > 1:
        yield value_handle(spot, "gutter_px", "Gutter", "x", second, step=0.5)
    if controls_on(spot, _high(spot, first)) is not None:

        def middle(s: Spot) -> Edge:
            found, left = controls_on(s, _high(s, first)), box_left(s)
            if found is None:
                return Edge(left, 0.0, left, 0.0)
            w, h, x, y = (float(a[0, 0]) for a in found)
            at = left + x + w / 2, y + h / 2
            return Edge(*at, *at)

        yield from place_handles(spot, "controls_place", "Place of the controls", middle)


def _high(spot: Spot, first: int) -> Floats:
    return spot.frame_heights(first, row_of(spot).slide)
